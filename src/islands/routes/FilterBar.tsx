/** Which routes are listed, and in which order: choices that combine, each of them taken back by its own button. */
import { X } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { address, parsePassCount, passCount, wayKey } from '../../core/document/addresses';
import { onwardList, type Plan } from '../../core/routing/plan';
import { endingLabel, sectionLabel, targetWords } from '../../core/wording/targets';
import type { ListOrder } from '../../worker/list-query';
import { useStudy } from '../state/store';
import { plural } from '../ui/format';
import { AnswerSelect } from './AnswerSelect';
import classes from './filters.module.css';
import type { RoutesShown, Since, VerdictFilter } from '../state/routes-shown';

/** In milliseconds. */
const AFTER_ROWS = 250;
/** Where there are none yet. */
const AT_LATEST = 4000;

type Listed = 'through' | 'avoid' | 'taking' | 'answering' | 'passes';

interface Props {
  readonly shown: RoutesShown;
  readonly change: (shown: Partial<RoutesShown>) => void;
  /** Whether the first row is there, or there is none. */
  readonly listed: boolean;
}

const ORDER_WORDS: Readonly<Record<ListOrder, string>> = {
  canonical: 'In order of the script',
  shortest: 'Shortest first',
  longest: 'Longest first',
  forks: 'Every fork first',
  pairs: 'Every pair of forks first',
  likeliest: 'The 1,000 likeliest',
};
const VERDICT_WORDS: Readonly<Record<VerdictFilter, string>> = {
  open: 'Not yet walked',
  walked: 'Walked',
  changed: 'Changed since walked',
  drawn: 'Drawn at random',
};
const SINCE_WORDS: Readonly<Record<Since, string>> = {
  edit: 'Touched by the last edit',
  opened: 'Touched since opened',
};

export function FilterBar({ shown, change, listed }: Props) {
  const plan = useStudy((state) => state.plan);
  const { document } = plan;
  const filled = useAfterRows(listed);
  const skips = useMemo(() => waysOf(plan), [plan]);
  const draws = document.sections.some(({ draw }) => draw !== undefined);
  const add = (key: Listed, value: string) => {
    if (value !== '' && !shown[key].includes(value)) change({ [key]: [...shown[key], value] });
  };
  const drop = (key: Listed, value: string) => change({ [key]: shown[key].filter((each) => each !== value) });
  const chips = [
    ...shown.through.map((value) => ({
      key: 'through' as const,
      value,
      words: `Through ${placeWords(plan, value)}`,
    })),
    ...shown.avoid.map((value) => ({
      key: 'avoid' as const,
      value,
      words: `Avoiding ${placeWords(plan, value)}`,
    })),
    ...shown.taking.map((value) => ({
      key: 'taking' as const,
      value,
      words: `Taking ${skips.find((way) => way.value === value)?.words ?? value}`,
    })),
    ...shown.answering.map((value) => ({ key: 'answering' as const, value, words: `Answering ${value}` })),
    ...shown.passes.map((value) => ({ key: 'passes' as const, value, words: passesWords(plan, value) })),
  ];
  return (
    <div className={classes.bar} role="group" aria-label="Which routes are listed">
      <PlaceSelect label="Through …" plan={filled ? plan : null} add={(value) => add('through', value)} />
      <PlaceSelect label="Avoiding …" plan={filled ? plan : null} add={(value) => add('avoid', value)} />
      <select
        aria-label="Taking …"
        value=""
        disabled={skips.length === 0}
        onChange={(event) => add('taking', event.target.value)}
      >
        <option value="">Taking …</option>
        {(filled ? skips : []).map(({ value, words }) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
      <AnswerSelect plan={filled ? plan : null} add={(value) => add('answering', value)} />
      <PassesSelect
        plan={plan}
        choose={(value) => {
          const { section } = parsePassCount(value) ?? {};
          const others = shown.passes.filter((each) => parsePassCount(each)?.section !== section);
          change({ passes: [...others, value] });
        }}
      />
      <select
        aria-label="Ends"
        data-set={shown.ending !== null || undefined}
        value={shown.ending ?? ''}
        onChange={(event) => change({ ending: event.target.value === '' ? null : event.target.value })}
      >
        <option value="">Ends anywhere</option>
        {document.endings.map(({ id }) => (
          <option key={id} value={id}>
            Ends {endingLabel(document, id)}
          </option>
        ))}
      </select>
      <Choice
        label="Verdict"
        any="Walked or not"
        words={VERDICT_WORDS}
        value={shown.verdict}
        choose={(verdict) => change({ verdict })}
      />{' '}
      <Choice
        label="Touched"
        any="Touched or not"
        words={SINCE_WORDS}
        value={shown.since}
        choose={(since) => change({ since })}
      />{' '}
      <select
        aria-label="Order"
        data-set={shown.order !== 'canonical' || undefined}
        value={shown.order}
        onChange={(event) => change({ order: event.target.value as ListOrder })}
      >
        {Object.entries(ORDER_WORDS).map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
      {draws && (
        <label>
          <input
            type="checkbox"
            checked={shown.folded}
            onChange={(event) => change({ folded: event.target.checked })}
          />{' '}
          Fold what is drawn
        </label>
      )}
      {chips.map(({ key, value, words }) => (
        <span key={`${key} ${value}`} className={classes.chip}>
          {words}
          <button type="button" aria-label={`Not: ${words}`} onClick={() => drop(key, value)}>
            <X size={13} />
          </button>
        </span>
      ))}
    </div>
  );
}

interface ChoiceProps<Value extends string> {
  readonly label: string;
  readonly any: string;
  readonly words: Readonly<Record<Value, string>>;
  readonly value: Value | null;
  readonly choose: (value: Value | null) => void;
}

function Choice<Value extends string>({ label, any, words, value, choose }: ChoiceProps<Value>) {
  return (
    <select
      aria-label={label}
      data-set={value !== null || undefined}
      value={value ?? ''}
      onChange={(event) => choose(event.target.value === '' ? null : (event.target.value as Value))}
    >
      <option value="">{any}</option>
      {Object.entries<string>(words).map(([key, text]) => (
        <option key={key} value={key}>
          {text}
        </option>
      ))}
    </select>
  );
}

function PlaceSelect({
  label,
  plan,
  add,
}: {
  label: string;
  plan: Plan | null;
  add: (value: string) => void;
}) {
  return (
    <select aria-label={label} value="" onChange={(event) => add(event.target.value)}>
      <option value="">{label}</option>
      {plan?.sections.map(({ section, index, items }) => (
        <optgroup key={section.id} label={sectionLabel(plan.document, index)}>
          <option value={address('section', section.id)}>any of {sectionLabel(plan.document, index)}</option>
          {items.map(({ item }) => (
            <option key={item.name} value={item.name}>
              {item.name}
            </option>
          ))}
        </optgroup>
      ))}
    </select>
  );
}

function PassesSelect({ plan, choose }: { plan: Plan; choose: (value: string) => void }) {
  const repeated = plan.sections.filter(({ repeat }) => repeat !== null);
  if (repeated.length === 0) return null;
  return (
    <select aria-label="Passes …" value="" onChange={(event) => choose(event.target.value)}>
      <option value="">Passes …</option>
      {repeated.map(({ section, index, repeat }) => (
        <optgroup key={section.id} label={sectionLabel(plan.document, index)}>
          {Array.from({ length: (repeat?.max ?? 0) + 1 }, (_, count) => (
            <option key={count} value={passCount(section.id, count)}>
              {count === 0 ? 'no pass' : plural(count, 'pass', 'passes')}
            </option>
          ))}
        </optgroup>
      ))}
    </select>
  );
}

function passesWords(plan: Plan, value: string): string {
  const { section, count } = parsePassCount(value) ?? { section: value, count: 0 };
  const of = placeWords(plan, address('section', section));
  return count === 0 ? `No pass of ${of}` : `${plural(count, 'pass', 'passes')} of ${of}`;
}

/** Whether the first rows have had their time: the lists to choose from are long, and nobody opens them at once. */
function useAfterRows(listed: boolean): boolean {
  const [after, setAfter] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setAfter(true), listed ? AFTER_ROWS : AT_LATEST);
    return () => clearTimeout(timer);
  }, [listed]);
  return after;
}

function placeWords(plan: Plan, place: string): string {
  const section = plan.sections.find(({ section: { id } }) => place === address('section', id));
  return section === undefined ? place : sectionLabel(plan.document, section.index);
}

function waysOf({ document, sections }: Plan): { value: string; words: string }[] {
  return sections.flatMap(({ section, index, items }) => [
    ...items.flatMap(({ item }) =>
      (item.skips ?? []).map((skip, n) => ({
        value: wayKey({ item: item.name, skip: n }),
        words: `${item.name} → ${targetWords(document, skip.to)}`,
      })),
    ),
    ...onwardList(section).map((entry, n) => ({
      value: wayKey({ section: section.id, onward: n }),
      words: `end of ${sectionLabel(document, index)} → ${targetWords(document, entry.to)}`,
    })),
  ]);
}
