/** The script as it is printed: sections, numbered questions with dot leaders to their codes, and where to go. */
import { useMemo } from 'react';
import { nameInKey } from '../../core/document/addresses';
import type { Value } from '../../core/document/types';
import type { Plan } from '../../core/routing/plan';
import { ALL, paperOf, type PaperItem, type PaperLine } from '../../core/views/paper';
import { useStudy } from '../state/store';
import { EndingMark } from '../ui/EndingMark';
import { RichText } from '../ui/RichText';
import { Asked } from './Asked';
import classes from './paper.module.css';

/** One walk on the paper: what was asked, what was passed over, and what was answered. */
export interface PaperWalk {
  readonly presented: ReadonlySet<string>;
  readonly passedOver: ReadonlySet<string>;
  /** By `name`, or `name#pass`. */
  readonly answers: Readonly<Record<string, Value | null>>;
}

interface Props {
  readonly plan: Plan;
  readonly walk?: PaperWalk;
  /** Told the name of a question that is pressed. */
  readonly choose?: (name: string) => void;
  readonly chosen?: string | null;
}

export function PaperScript({ plan, walk, choose, chosen }: Props) {
  const asked = useStudy((state) =>
    state.analysis?.document === plan.document ? state.analysis.asked : NOBODY,
  );
  const paper = useMemo(() => paperOf(plan, asked), [plan, asked]);
  const { document } = plan;
  return (
    <article className={classes.paper} aria-label="Script on paper" lang={document.language}>
      <header>
        <h1>{document.title}</h1>
        <p>
          Codes stand at the end of the dots; {paper.missing.join(', ')}. Without a go-to, carry on with the
          next question.
        </p>
      </header>
      {paper.sections.map(({ section, letter, askIf, runs, items, onward }) => (
        <section key={section.section.id}>
          <h2>
            <span>{letter}</span> {section.section.title}
          </h2>
          {askIf !== null && <p className={classes.askIf}>Ask this section if: {askIf}</p>}
          {runs !== null && <p className={classes.askIf}>{runs}</p>}
          {section.section.intro !== undefined && section.section.intro !== '' && (
            <div className={classes.text}>
              <RichText text={section.section.intro} />
            </div>
          )}
          {items.map((item) => (
            <Item
              key={item.planItem.item.name}
              item={item}
              walk={walk}
              choose={choose}
              here={item.planItem.item.name === chosen}
            />
          ))}
          {onward.map((words) => (
            <p key={words} className={classes.onward}>
              At the end of {letter} → {words}
            </p>
          ))}
        </section>
      ))}
      <section>
        <h2>Endings</h2>
        {paper.endings.map(({ id, kind, label, messages }) => (
          <div key={id} className={classes.ending}>
            <EndingMark kind={kind} /> <b>{label}</b>
            {messages.map(({ when, text }, n) => (
              <div key={n}>
                {when !== null && <p className={classes.askIf}>If {when}:</p>}
                <RichText text={text} />
              </div>
            ))}
          </div>
        ))}
      </section>
    </article>
  );
}

const NOBODY: Readonly<Record<string, string>> = {};

interface ItemProps {
  readonly item: PaperItem;
  readonly walk: PaperWalk | undefined;
  readonly choose: ((name: string) => void) | undefined;
  readonly here: boolean;
}

function Item({ item, walk, choose, here }: ItemProps) {
  const { planItem, number, askIf, text, note, picks, lines } = item;
  const { item: of } = planItem;
  const over = walk !== undefined && walk.passedOver.has(of.name) && !walk.presented.has(of.name);
  const body = (
    <>
      {askIf !== null && (
        <p className={classes.askIf}>{askIf === ALL ? 'Ask all who come here' : `Ask if: ${askIf}`}</p>
      )}
      <Asked
        {...{ text, note, picks }}
        instruction={of.instruction ?? null}
        image={of.image ?? null}
        looks={{
          instruction: classes.instruction,
          note: classes.note,
          words: of.kind === 'statement' ? classes.text : classes.question,
        }}
      />
      {lines.map((line) => (
        <Line key={line.key} line={line} chosen={walk !== undefined && isChosen(line, of.name, walk)} />
      ))}
    </>
  );
  return (
    <div className={classes.item} data-over={over || undefined} data-here={here || undefined}>
      <div className={classes.outer}>
        <b>{number ?? ''}</b>
        {choose === undefined ? (
          <code>{of.name}</code>
        ) : (
          <button type="button" aria-pressed={here} onClick={() => choose(of.name)}>
            {of.name}
          </button>
        )}
        {over && <small>not applicable</small>}
      </div>
      <div>{body}</div>
    </div>
  );
}

function Line({ line, chosen }: { readonly line: PaperLine; readonly chosen: boolean }) {
  const { label, tag, code, goTo, kind } = line;
  return (
    <div className={classes.line} data-kind={kind} data-chosen={chosen || undefined}>
      <span>
        {kind === 'rule' && goTo !== null && label !== 'everyone else' ? `If ${label}` : label}
        {tag !== '' && <small> {tag}</small>}
      </span>
      <i />
      <code>{code}</code>
      <em>{goTo === null ? '' : `→ ${goTo}`}</em>
    </div>
  );
}

/** Whether a code was answered, in any pass. */
function isChosen({ key, kind }: PaperLine, name: string, { answers }: PaperWalk): boolean {
  if (kind !== 'option') return false;
  const code = Number(key.slice('option/'.length));
  return Object.entries(answers).some(
    ([answered, value]) =>
      nameInKey(answered) === name &&
      (value === code || (Array.isArray(value) && (value as readonly number[]).includes(code))),
  );
}
