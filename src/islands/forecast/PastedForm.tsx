/** A frequency table from anywhere, pasted. */
import { useState } from 'react';
import { readPasted, type PastedRead } from '../../core/forecast/seen/pasted';
import { assumedAtQuestions } from '../../core/forecast/sets';
import { useStudy } from '../state/store';
import { plural } from '../ui/format';
import { submitting } from '../ui/submitting';
import primitives from '../ui/primitives.module.css';
import classes from './came.module.css';

interface Props {
  readonly take: (shares: PastedRead['shares']) => void;
}

export function PastedForm({ take }: Props) {
  const document = useStudy((state) => state.document);
  const [text, setText] = useState('');
  const [about, setAbout] = useState('');
  const { shares, problems } = readPasted(document, text, about === '' ? null : about);
  return (
    <form
      className={`${classes.paste} ${primitives.fields}`}
      onSubmit={submitting(() => {
        if (shares.size > 0) take(shares);
      })}
    >
      <label>
        It is about{' '}
        <select value={about} onChange={(event) => setAbout(event.target.value)}>
          <option value="">several questions: their names stand in front</option>
          {[...assumedAtQuestions(document).keys()].map((name) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <textarea
        rows={8}
        aria-label="Frequency table"
        placeholder={'Gas\t612\nHeat pump\t88\nleft blank\t20'}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {text.trim() !== '' &&
        problems.map(({ line, message }) => (
          <p key={`${line} ${message}`} className={classes.problem} role="alert">
            Line {line}: {message}.
          </p>
        ))}
      <span className={primitives.smallButtons}>
        <button type="submit" disabled={shares.size === 0}>
          {shares.size === 0 ? 'Read the table' : `Take the shares of ${plural(shares.size, 'question')}`}
        </button>
      </span>
    </form>
  );
}
