/** Paste a list of questions, look at what was understood of every line, then take it over. */
import { useDeferredValue, useMemo, useState } from 'react';
import { fromList, LINE_KINDS, type LineKind } from '../../core/exchange/from-list';
import type { Questionnaire } from '../../core/document/types';
import { plural } from '../ui/format';
import classes from './paste.module.css';
import { byLine, withReading, type Readings } from './re-read';

interface Props {
  readonly take: (document: Questionnaire) => void;
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

const EXAMPLE = `CONSENT
1. Are you aged 18 or over?
- Yes
- No (screen out)

HOME
2. Do you rent your home?
- Yes
- No
If no, skip to 4
3. Who is your landlord?
- A private landlord
- A council
4. Anything else to add?`;

export function PasteList({ take, cancel }: Props) {
  const [title, setTitle] = useState('Untitled study');
  const [source, setSource] = useState('');
  const settled = useDeferredValue(source);
  const [readings, setReadings] = useState<Readings>(new Map());
  const chosen = useMemo(() => byLine(settled, readings), [settled, readings]);
  const understood = useMemo(
    () => fromList(settled, title.trim() || 'Untitled study', chosen),
    [settled, title, chosen],
  );
  const trouble = understood.lines.filter(({ kind }) => kind === 'trouble').length;
  const doubts = understood.lines.filter(({ kind, doubt }) => doubt !== null && kind !== 'trouble').length;
  return (
    <section className={classes.paste} aria-label="Paste a list">
      <div className={classes.top}>
        <label>
          Title <input value={title} onChange={(event) => setTitle(event.target.value)} />
        </label>
        <span aria-live="polite">
          {source.trim() === ''
            ? 'Numbered lines are questions; the lines below are their answers.'
            : `${plural(understood.document.sections.length, 'section')}, ${plural(understood.questions, 'question')}, ${plural(understood.skips, 'skip')}${trouble > 0 ? `; ${plural(trouble, 'line')} not used` : ''}${doubts > 0 ? `; ${plural(doubts, 'line')} to look at` : ''}`}
        </span>
        <button type="button" onClick={cancel}>
          Cancel
        </button>
        <button
          type="button"
          className={classes.main}
          disabled={understood.questions === 0}
          onClick={() => take(understood.document)}
        >
          Make the questionnaire
        </button>
      </div>
      <div className={classes.columns}>
        <textarea
          aria-label="Questions"
          value={source}
          spellCheck={false}
          autoFocus
          placeholder={EXAMPLE}
          onChange={(event) => setSource(event.target.value)}
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
                  setReadings(
                    withReading(
                      settled,
                      readings,
                      line,
                      LINE_KINDS.find((other) => other === event.target.value) ?? null,
                    ),
                  )
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
    </section>
  );
}
