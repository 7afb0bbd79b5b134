/** Paste a list of questions, look at what was understood of every line, then take it over. */
import drafted from '../../../demo/drafted-list.txt?raw';
import { useDeferredValue, useMemo, type ReactNode } from 'react';
import { LINE_KINDS, type LineKind, type Understood } from '../../core/exchange/from-list';
import { plural } from '../ui/format';
import classes from './paste.module.css';
import type { PastedList } from '../state/pasting';
import { byLine, withReading } from '../state/re-read';

interface Props {
  /** What a list is read as, with the lines that are to be read otherwise. */
  readonly understand: (source: string, as: ReadonlyMap<number, LineKind>) => Understood;
  readonly list: PastedList;
  readonly change: (list: PastedList) => void;
  /** What stands in front: a title, or where it goes. */
  readonly children: ReactNode;
  readonly act: string;
  readonly take: (understood: Understood) => void;
  readonly cancel: () => void;
}

const KIND_WORDS: Readonly<Record<LineKind, string>> = {
  section: 'Section',
  question: 'Question',
  answer: 'Answer',
  skip: 'Skip',
  text: 'Text',
  note: 'Note',
  trouble: 'Not used',
};

const EXAMPLE = `${drafted}4. Anything else to add?`;

export function PasteList({ understand, list, change, children, act, take, cancel }: Props) {
  const settled = useDeferredValue(list);
  const chosen = useMemo(() => byLine(settled.source, settled.readings), [settled]);
  const understood = useMemo(() => understand(settled.source, chosen), [understand, settled, chosen]);
  const trouble = understood.lines.filter(({ kind }) => kind === 'trouble').length;
  const doubts = understood.lines.filter(({ kind, doubt }) => doubt !== null && kind !== 'trouble').length;
  return (
    <div className={classes.paste}>
      <div className={classes.top}>
        {children}
        <span aria-live="polite">
          {list.source.trim() === ''
            ? 'Numbered lines are questions; the lines below are their answers.'
            : `${plural(understood.sections, 'section')}, ${plural(understood.questions, 'question')}, ${plural(understood.skips, 'skip')}${trouble > 0 ? `; ${plural(trouble, 'line')} not used` : ''}${doubts > 0 ? `; ${plural(doubts, 'line')} to look at` : ''}`}
        </span>
        <button type="button" onClick={cancel}>
          Cancel
        </button>
        <button
          type="button"
          className={classes.main}
          disabled={understood.first === null}
          // What was just written may not be looked at yet.
          onClick={() => take(understand(list.source, byLine(list.source, list.readings)))}
        >
          {act}
        </button>
      </div>
      <div className={classes.columns}>
        <textarea
          aria-label="Questions"
          value={list.source}
          spellCheck={false}
          autoFocus
          placeholder={EXAMPLE}
          onChange={(event) => change({ ...list, source: event.target.value })}
        />
        <ol className={classes.lines} aria-label="What was understood" tabIndex={0}>
          {understood.lines.map(({ line, text, kind, says, doubt }) => (
            <li key={line} data-kind={kind} data-doubt={doubt !== null || undefined}>
              <span>{line}</span>
              <select
                aria-label={`Line ${line} is read as`}
                title="Read this line as something else"
                data-chosen={chosen.has(line) || undefined}
                value={kind}
                onChange={(event) =>
                  change({
                    ...list,
                    readings: withReading(
                      list.source,
                      list.readings,
                      line,
                      LINE_KINDS.find((other) => other === event.target.value) ?? null,
                    ),
                  })
                }
              >
                {LINE_KINDS.map((other) => (
                  <option key={other} value={other}>
                    {KIND_WORDS[other]}
                  </option>
                ))}
                {chosen.has(line) && <option value="">as it looks</option>}
              </select>
              <em title={text}>{text}</em>
              <small>
                {says}
                {doubt !== null && !says.includes(doubt) && <u>? {doubt}</u>}
              </small>
            </li>
          ))}
          {understood.lines.length === 0 && (
            <li className={classes.hint}>
              Lines in capitals, or with # in front, open a section. “(skip to 5)” after an answer, or “If no,
              skip to 5” below the answers, becomes a skip. Each line is listed here with what it was taken
              for.
            </li>
          )}
        </ol>
      </div>
    </div>
  );
}
