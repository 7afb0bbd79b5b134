/** The study as a file: the questionnaire alone, or with the work that was done on it. */
import { useEffect, useState } from 'react';
import * as v from 'valibot';
import { WORK_PARTS, type WorkPart } from '../../core/exchange/work-file';
import { DrawSchema } from '../../wire/draw';
import { call } from '../ui/api';
import { plural } from '../ui/format';
import classes from './file.module.css';
import { Panel } from '../ui/Panel';
import { useStudy } from '../state/store';

const WORDS: Readonly<Record<WorkPart, readonly [one: string, more: string]>> = {
  comments: ['comment', 'open and settled'],
  verdicts: ['verdict', 'on routes, with remarks'],
  asides: ['snag set aside', 'with the reasons'],
  respondents: ['test respondent', 'to be walked again'],
  draws: ['random draw', 'of routes to be walked'],
};

export function FilePanel({ close }: { readonly close: () => void }) {
  const id = useStudy((state) => state.id);
  const api = useStudy((state) => state.api);
  const counts = useCounts(api);
  const saving = useStudy((state) => state.saving.state);
  const [left, setLeft] = useState<ReadonlySet<WorkPart>>(new Set());
  const taken = WORK_PARTS.filter((part) => counts[part] > 0 && !left.has(part));
  const some = WORK_PARTS.some((part) => counts[part] > 0);
  return (
    <Panel label="Save as a file" width={430} close={close} first="a">
      <div className={classes.file}>
        <h2>Save as a file</h2>
        {saving !== 'saved' && (
          <p role="status">The last edits are not saved yet; the file is without them.</p>
        )}
        <p>
          <a className={classes.main} href={`/api/studies/${id}/file`}>
            Questionnaire alone
          </a>{' '}
          <small>.fork.json, with the assumed answers in it</small>
        </p>
        <fieldset disabled={!some}>
          <legend>Or with the work done on it, in one .zip:</legend>
          {WORK_PARTS.map((part) => (
            <label key={part} data-none={counts[part] === 0 || undefined}>
              <input
                type="checkbox"
                disabled={counts[part] === 0}
                checked={taken.includes(part)}
                onChange={() => {
                  const next = new Set(left);
                  if (!next.delete(part)) next.add(part);
                  setLeft(next);
                }}
              />{' '}
              {wordsOf(part, counts[part])} <small>{WORDS[part][1]}</small>
            </label>
          ))}
        </fieldset>
        {some ? (
          <p>
            <a className={classes.main} href={`/api/studies/${id}/work?with=${taken.join(',')}`}>
              Questionnaire and work
            </a>{' '}
            <small>“Import a file” in the list of studies brings all of it back.</small>
          </p>
        ) : (
          <p>Nobody has commented, walked or set anything aside yet.</p>
        )}
        <p>
          <small>Collected rows and keyed forms are answers of respondents: they stay here.</small>
        </p>
      </div>
    </Panel>
  );
}

function wordsOf(part: WorkPart, count: number): string {
  const [one] = WORDS[part];
  return part === 'asides' ? `${plural(count, 'snag')} set aside` : plural(count, one);
}

function useCounts(api: string): Readonly<Record<WorkPart, number>> {
  const comments = useStudy((state) => state.comments.length);
  const verdicts = useStudy((state) => state.verdicts.length);
  const asides = useStudy((state) => state.asides.length);
  const respondents = useStudy((state) => state.respondents.length);
  const [draws, setDraws] = useState(0);
  useEffect(() => {
    void call(v.nullable(DrawSchema), 'GET', `${api}/draw`).then((reply) =>
      setDraws(reply.ok && reply.body !== null ? 1 : 0),
    );
  }, [api]);
  return { comments, verdicts, asides, respondents, draws };
}
