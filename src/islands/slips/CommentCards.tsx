/** The comments on what is selected, and a new one. */
import { YourName } from './YourName';
import { useId, useState } from 'react';
import type { Address } from '../../core/document/addresses';
import { CommentSchema, type Comment } from '../../wire/comments';
import { NothingSchema } from '../../wire/common';
import { useReviewer } from '../state/reviewer';
import { useStudy } from '../state/store';
import { onVersion } from '../state/versions';
import { call } from '../ui/api';
import { whenText } from '../ui/format';
import { ShortForm } from '../ui/ShortForm';
import { FormActs } from '../ui/FormActs';
import { Problem } from '../ui/Problem';
import classes from './comments.module.css';
import slip from './slip.module.css';
import primitives from '../ui/primitives.module.css';

interface Props {
  /** Places that can be commented on here, the first by default, with what each is called. */
  readonly places: readonly (readonly [place: Address, words: string])[];
}

export function CommentCards({ places }: Props) {
  const comments = useStudy((state) => state.comments);
  const isVersion = useStudy((state) => state.version !== null);
  const [writing, setWriting] = useState(false);
  const here = comments.filter(({ place }) => places.some(([key]) => key === place));
  return (
    <>
      {(here.length > 0 || writing) && <h2>Comments</h2>}
      {here.length > 0 && (
        <div className={primitives.card}>
          {here.map((comment) => (
            <Entry
              key={comment.id}
              comment={comment}
              about={places.length > 1 ? places.find(([key]) => key === comment.place)?.[1] : undefined}
            />
          ))}
        </div>
      )}
      {writing ? (
        <Form places={places} done={() => setWriting(false)} />
      ) : isVersion ? null : (
        <p className={classes.begin}>
          <button type="button" className={classes.quiet} onClick={() => setWriting(true)}>
            Comment on this
          </button>
        </p>
      )}
    </>
  );
}

export function Entry({
  comment,
  about,
}: {
  readonly comment: Comment;
  readonly about?: string | undefined;
}) {
  const api = useStudy((state) => state.api);
  const reviewing = useStudy((state) => state.reviewing);
  const isVersion = useStudy((state) => state.version !== null);
  const versions = useStudy((state) => state.versions);
  const comments = useStudy((state) => state.comments);
  const setComments = useStudy((state) => state.setComments);
  const by = useReviewer();
  const { reviewer } = by;
  const [problem, setProblem] = useState<string | null>(null);
  const { id, text, author, at, settledBy, settledAt } = comment;
  const settle = async (by: string | null) => {
    const reply = await call(CommentSchema, 'PATCH', `${api}/comments`, {
      what: 'settle',
      id,
      by,
    });
    if (!reply.ok) setProblem(reply.problem);
    else setComments(comments.map((other) => (other.id === id ? reply.body : other)));
  };
  const remove = async () => {
    const reply = await call(NothingSchema, 'DELETE', `${api}/comments`, { id });
    if (!reply.ok) setProblem(reply.problem);
    else setComments(comments.filter((other) => other.id !== id));
  };
  return (
    <div className={classes.comment} data-settled={settledBy !== null || undefined}>
      <p>
        <b>{author}</b>{' '}
        <small>
          {whenText(at)}
          {onVersion(versions, comment.revision)}
        </small>
        {about !== undefined && <small> · on {about}</small>}
      </p>
      <p className={classes.words}>{text}</p>
      {reviewing || isVersion ? (
        settledBy !== null ? (
          <small>Settled by {settledBy}</small>
        ) : (
          !isVersion &&
          author === reviewer && (
            <button type="button" className={classes.quiet} onClick={() => void remove()}>
              Remove
            </button>
          )
        )
      ) : settledBy === null ? (
        <button
          type="button"
          className={classes.quiet}
          onClick={() => void settle(reviewer.trim() || author)}
        >
          Settled
        </button>
      ) : (
        <p>
          <small>
            Settled by {settledBy}
            {settledAt !== null && `, ${whenText(settledAt)}`}{' '}
          </small>
          <button type="button" className={classes.quiet} onClick={() => void settle(null)}>
            Open again
          </button>
        </p>
      )}
      <Problem of={problem} />
    </div>
  );
}

function Form({ places, done }: Props & { readonly done: () => void }) {
  const api = useStudy((state) => state.api);
  const comments = useStudy((state) => state.comments);
  const setComments = useStudy((state) => state.setComments);
  const by = useReviewer();
  const { reviewer, remember } = by;
  const [place, setPlace] = useState(places[0]?.[0] ?? '');
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const form = useId();
  const keep = async () => {
    if (text.trim() === '' || reviewer.trim() === '') {
      setProblem('Write the comment, and say who you are.');
      return;
    }
    remember();
    const reply = await call(CommentSchema, 'POST', `${api}/comments`, {
      place,
      text: text.trim(),
      author: reviewer.trim(),
    });
    if (!reply.ok) {
      setProblem(reply.problem);
      return;
    }
    setComments([...comments, reply.body]);
    done();
  };
  return (
    <ShortForm className={`${primitives.card} ${classes.form}`} send={keep} close={done}>
      {places.length > 1 && (
        <select
          aria-label="What the comment is on"
          value={place}
          onChange={(event) => setPlace(event.target.value)}
        >
          {places.map(([key, words]) => (
            <option key={key} value={key}>
              on {words}
            </option>
          ))}
        </select>
      )}
      <label htmlFor={`${form}-text`}>Comment</label>
      <textarea
        id={`${form}-text`}
        autoFocus
        rows={3}
        maxLength={4000}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <YourName by={by} />
      <Problem of={problem} />
      <FormActs className={slip.acts} cancel={done}>
        Add the comment
      </FormActs>
    </ShortForm>
  );
}
