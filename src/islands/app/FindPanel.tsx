/** Find anything (Ctrl/Cmd+K): items, answers, codes, conditions, sections, endings and actions; and replace. */
import { useId, useState, type KeyboardEvent } from 'react';
import { WHOLE_STUDY } from '../../core/document/addresses';
import { replaceable, replaceAll } from '../../core/editing/replace';
import { findAll } from '../../core/views/find';
import { useCombobox } from '../ui/use-combobox';
import type { Selection } from '../state/study-state';
import { openPaste } from '../state/open-paste';
import { plural, routeText } from '../ui/format';
import { submitting } from '../ui/submitting';
import { ComboField } from '../ui/ComboField';
import classes from './find.module.css';
import { useGoTo } from '../state/going';
import { useStudy, useStudyStore } from '../state/store';
import { STOP_NAMES, STOPS } from '../state/stops';

/** Shown at most. */
const MOST = 40;

interface Entry {
  readonly kind: string;
  readonly name: string;
  readonly words: string;
  readonly go: () => void;
}

/** “9”, “route 9”, “2,048,263”: a route that there is; null for anything else. */
function routeNumber(query: string, total: string): string | null {
  const digits = /^\s*(?:route\s*)?([\d,]+)\s*$/i.exec(query)?.[1]?.replaceAll(',', '') ?? '';
  return digits !== '' && BigInt(digits) >= 1n && BigInt(digits) <= BigInt(total)
    ? String(BigInt(digits))
    : null;
}

interface Props {
  readonly close: () => void;
  /** Opens the panel that saves the study as a file, in place of this one. */
  readonly saveAs: () => void;
}

export function FindPanel({ close, saveAs }: Props) {
  const [query, setQuery] = useState('');
  const [replacing, setReplacing] = useState(false);
  const plan = useStudy((state) => state.plan);
  const select = useStudy((state) => state.select);
  const total = useStudy((state) => state.analysis?.routes ?? '0');
  const goTo = useGoTo();
  const actions = useActions(() => setReplacing(true), saveAs);
  const listId = useId();

  const wanted = query.toLowerCase().split(/\s+/).filter(Boolean);
  const found = findAll(plan, query).slice(0, MOST);
  const route = routeNumber(query, total);
  const entries: Entry[] = [
    ...(route === null
      ? []
      : [
          {
            kind: 'route',
            name: routeText(route),
            words: 'Walk this route',
            go: () => {
              goTo('walk', `?route=${route}`);
              close();
            },
          },
        ]),
    ...found.map(({ kind, name, words, selection }) => ({
      kind,
      name,
      words,
      go: () => {
        goTo('script');
        select(selection);
        close();
      },
    })),
    ...actions
      .filter(({ words }) => wanted.every((word) => words.toLowerCase().includes(word)))
      .map((action) => ({
        kind: 'action',
        name: '',
        words: action.words,
        go: () => {
          action.run();
          if (!action.stays) close();
        },
      })),
  ];
  const finder = useCombobox({
    count: entries.length,
    close,
  });
  const { current, choose: setAt } = finder;

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Escape') close();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div
      {...finder.layerProps({ onKeyDown })}
      className={classes.panel}
      role="dialog"
      aria-label="Find anything"
    >
      <div className={classes.head}>
        <ComboField
          combobox={finder}
          label="Find anything"
          list={listId}
          placeholder="Find an item, an answer, a condition, or something to do"
          value={query}
          change={setQuery}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            entries[current]?.go();
          }}
        />
        <button type="button" aria-expanded={replacing} onClick={() => setReplacing(!replacing)}>
          Replace
        </button>
      </div>
      {replacing && <Replace find={query} />}
      <ul id={listId} role="listbox" aria-label="Found">
        {entries.map(({ kind, name, words, go }, n) => (
          <li key={n} {...finder.entryProps(n)} onMouseMove={() => setAt(n)} onClick={go}>
            <small>{kind}</small>
            {name !== '' && <code>{name}</code>}
            <span>{words}</span>
          </li>
        ))}
      </ul>
      <p className={classes.count} role="status">
        {entries.length === 0
          ? `Nothing has “${query}” in it.`
          : found.length === MOST
            ? `The first ${MOST} places.`
            : ''}
      </p>
    </div>
  );
}

interface Action {
  readonly words: string;
  readonly run: () => void;
  /** The panel stays open. */
  readonly stays?: boolean;
}

function useActions(replace: () => void, saveAs: () => void): readonly Action[] {
  const store = useStudyStore();
  const goTo = useGoTo();
  const { undo, redo, select } = store.getState();
  const script = (selection: Selection) => () => {
    goTo('script');
    select(selection);
  };
  return [
    ...STOPS.map((stop) => ({ words: `Go to ${STOP_NAMES[stop]}`, run: () => goTo(stop) })),
    { words: 'Find and replace', run: replace, stays: true },
    { words: 'Undo the last step', run: undo },
    { words: 'Redo the step taken back', run: redo },
    { words: 'Settings of the study', run: script(WHOLE_STUDY) },
    { words: 'Comments', run: script('comments') },
    {
      words: 'Paste a list of questions',
      run: () => {
        goTo('script');
        openPaste(store);
      },
    },
    { words: 'Save the study as a file', run: saveAs, stays: true },
  ];
}

function Replace({ find }: { readonly find: string }) {
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const [by, setBy] = useState('');
  const [inWords, setInWords] = useState(true);
  const [inNames, setInNames] = useState(false);
  const [matchCase, setMatchCase] = useState(false);
  const [said, setSaid] = useState('');
  const replacing = { find, by, inWords, inNames, matchCase };
  const { words, names, refused } = replaceable(document, replacing);
  const nothing = words + names.length === 0;
  const check = (label: string, checked: boolean, set: (checked: boolean) => void) => (
    <label>
      <input type="checkbox" checked={checked} onChange={(event) => set(event.target.checked)} /> {label}
    </label>
  );
  return (
    <form
      className={classes.replace}
      onSubmit={submitting(() => {
        if (nothing) return;
        const problem = commit(replaceAll(document, replacing));
        setSaid(problem ?? `Replaced: ${touched(words, names.length)}.`);
      })}
    >
      <input
        aria-label="Replace by"
        placeholder="Replace by"
        value={by}
        onChange={(event) => {
          setBy(event.target.value);
          setSaid('');
        }}
      />
      {check('in words', inWords, setInWords)}
      {check('in names', inNames, setInNames)}
      {check('same case', matchCase, setMatchCase)}
      <button type="submit" disabled={nothing}>
        Replace all
      </button>
      <p role="status">
        {said !== ''
          ? said
          : find === ''
            ? 'Write above what to replace.'
            : `Found: ${touched(words, names.length)}.`}
        {refused.length > 0 &&
          ` ${refused.map(({ name, why }) => `${name} stays as it is: ${why}.`).join(' ')}`}
      </p>
    </form>
  );
}

function touched(words: number, names: number): string {
  return `${plural(words, 'place')} in words, ${plural(names, 'name')}`;
}
