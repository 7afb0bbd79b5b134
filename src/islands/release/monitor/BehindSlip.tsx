/** The responses behind the figure that was pressed, the last first; each can be walked again. */
import type { Picked } from '../../../core/monitor/picked';
import { OUTCOME_WORDS } from '../../../core/monitor/outcomes';
import type { ResponseLine } from '../../../wire/monitor';
import { useBehind, type Watched } from '../../state/monitor';
import { useStudy } from '../../state/store';
import { grouped, plural, secondsText } from '../../ui/format';
import { OutcomeMark } from './figure';
import classes from './behind.module.css';

interface Props {
  readonly watched: Watched;
  readonly picked: Picked;
  readonly words: string;
  readonly when: (at: number) => string;
}

export function BehindSlip({ watched, picked, words, when }: Props) {
  const reply = useBehind(watched, picked);
  return (
    <aside className={classes.slip} aria-label="Responses behind the figure">
      <h2>{words}</h2>
      {reply === null ? (
        <p aria-busy="true">Looking …</p>
      ) : !reply.ok ? (
        <p role="alert">{reply.problem}</p>
      ) : (
        <>
          <p role="status">
            {reply.body.people.length > 0
              ? plural(reply.body.total, 'person', 'people')
              : plural(reply.body.total, 'response')}
            {reply.body.onlyCounted > 0 &&
              ` · ${grouped(reply.body.onlyCounted)} more of whom nothing is kept but that`}
          </p>
          <ul>
            {reply.body.responses.map((line) => (
              <Line key={line.id} {...{ line, watched, when }} />
            ))}
            {reply.body.people.map(({ name, at }) => (
              <li key={name}>
                <b>{name}</b>
                <small>invited {when(at)}</small>
              </li>
            ))}
          </ul>
          {reply.body.total > reply.body.responses.length + reply.body.people.length && (
            <p>
              and {grouped(reply.body.total - reply.body.responses.length - reply.body.people.length)} before
              these; all are in the data of the link.
            </p>
          )}
        </>
      )}
    </aside>
  );
}

interface LineProps extends Pick<Props, 'watched' | 'when'> {
  readonly line: ResponseLine;
}

function Line({ line, watched, when }: LineProps) {
  const { id, number, name, outcome, at, seconds, device, section, fast, straight } = line;
  const study = useStudy((state) => state.id);
  const { word } = OUTCOME_WORDS[outcome];
  const marks = [
    fast ? 'fast' : '',
    ...straight.map((grid) => `same in each row of ${grid}`),
    device === 'narrow' ? 'phone' : '',
  ].filter((mark) => mark !== '');
  return (
    <li>
      <a
        href={`/studies/${study}/trials/${watched.link}/${watched.asked}/walk?response=${encodeURIComponent(id)}`}
        aria-label={`Walk response ${number} again${name === null ? '' : `, ${name}`}`}
      >
        <OutcomeMark outcome={outcome} />
        <b>
          {number}
          {name !== null && <em>{name}</em>}
        </b>
        <span>{secondsText(seconds)}</span>
      </a>
      <small>
        {word} {when(at)}
        {section !== null && `, in ${section}`}
        {marks.length > 0 && ` · ${marks.join(' · ')}`}
      </small>
    </li>
  );
}
