/** The cases on this device: begin one, go on with one, save and clear away what is closed. */
import type { Asked } from '../core/responding/case-data';
import { casesCsv, postedCase } from '../core/responding/case-data';
import type { KeptCase } from '../core/responding/kept-case';
import { fileStem } from '../core/document/names';
import type { Answers } from '../core/document/types';
import type { Plan } from '../core/routing/plan';
import { plural } from '../islands/ui/format';
import { saveBlob } from '../islands/ui/save-blob';
import { BeginForm } from './BeginForm';
import { sentWords } from './EndPage';
import classes from './instrument.module.css';
import { PressedTwice } from './PressedTwice';
import type { Shelf } from './shelf';

interface Props {
  readonly plan: Plan;
  readonly asked: Asked;
  readonly shelf: Shelf;
  readonly cases: readonly KeptCase[];
  readonly interviewer: boolean;
  readonly begin: (id: string, given: Answers) => void;
  readonly goOn: (kept: KeptCase) => void;
  readonly stop: (kept: KeptCase) => void;
  /** Tries to send what is not sent; null where nothing is posted. */
  readonly send: (() => void) | null;
}

export function Desk({ plan, asked, shelf, cases, interviewer, begin, goOn, stop, send }: Props) {
  const open = cases.filter(({ closed }) => closed === null);
  const closed = cases.filter((kept) => kept.closed !== null);
  const waiting = closed.filter(({ sending }) => sending.takenAt === null);
  /** What may be cleared away without a loss, where cases are posted: those that were taken. */
  const clearable = send === null ? closed : closed.filter(({ sending }) => sending.takenAt !== null);
  const stem = fileStem(asked.title);
  const save = (text: string, type: string, ending: string) =>
    saveBlob(new Blob([text], { type }), `${stem}-cases.${ending}`);
  const oldestFirst = [...cases].reverse();
  return (
    <div className={classes.sheet}>
      <h1 className={classes.title}>{asked.title}</h1>
      <BeginForm {...{ plan, cases, interviewer, begin }} />
      <h2>Cases on this device</h2>
      {cases.length === 0 ? (
        <p>
          None yet. Answers are kept in this browser, on this device
          {send === null ? ' alone' : ', and sent once a case is closed'}.
        </p>
      ) : (
        <p>
          {open.length > 0 && `${plural(open.length, 'case')} to go on with, `}
          {closed.length} closed
          {send !== null && waiting.length > 0 && `, ${waiting.length} of them not sent yet`}.
        </p>
      )}
      <ul className={classes.cases}>
        {cases.map((kept) => (
          <li key={kept.key}>
            <span>
              <b>{kept.id}</b> {stateWords(kept, send !== null)}
            </span>
            {kept.closed === null && (
              <span className={classes.actions}>
                <button type="button" onClick={() => goOn(kept)}>
                  Go on<span className={classes.told}> with case {kept.id}</span>
                </button>
                <PressedTwice
                  words="Close as stopped"
                  about={`case ${kept.id}`}
                  again="Close it: nobody will go on with it"
                  act={() => stop(kept)}
                />
              </span>
            )}
          </li>
        ))}
      </ul>
      {cases.length > 0 && (
        <p className={classes.actions}>
          <button
            type="button"
            onClick={() => save(`\uFEFF${casesCsv(plan, oldestFirst, asked)}`, 'text/csv', 'csv')}
          >
            Save the coded rows as CSV
          </button>
          <button
            type="button"
            onClick={() => {
              const bodies = oldestFirst.map((kept) => postedCase(plan, kept, asked));
              save(`${JSON.stringify(bodies, null, 2)}\n`, 'application/json', 'json');
            }}
          >
            Save all as JSON
          </button>
          {send !== null && waiting.length > 0 && (
            <button type="button" onClick={send}>
              Send now
            </button>
          )}
          {clearable.length > 0 && (
            <PressedTwice
              words={`Clear away ${plural(clearable.length, 'case')}${send === null ? '' : ' that were sent'}`}
              again={
                send === null ? 'Clear away: they are in no other place unless saved' : 'Clear away for good'
              }
              act={() => shelf.remove(clearable.map(({ key }) => key))}
            />
          )}
        </p>
      )}
    </div>
  );
}

/** Day and time as the device writes them. */
const whenText = (at: number) =>
  new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });

function stateWords(kept: KeptCase, posts: boolean): string {
  const { closed, startedAt } = kept;
  if (closed === null) return `begun ${whenText(startedAt)}, at page ${kept.at + 1}`;
  const words = `${closed.by === 'ending' ? 'ended' : 'stopped'} ${whenText(closed.at)}`;
  return posts ? `${words}. ${sentWords(kept)}` : words;
}
