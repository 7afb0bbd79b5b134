/** Going on with what was begun in another browser, by the code that was given there. */
import { useState } from 'react';
import { Problem } from '../islands/ui/Problem';
import { submitting } from '../islands/ui/submitting';
import classes from './respondent.module.css';
import type { Sitter } from './sitter';

export function ReturnForm({ sitter }: { readonly sitter: Sitter }) {
  const [code, setCode] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const send = async () => {
    if (code.trim() === '') setProblem('Write the code first: eight letters and digits.');
    else setProblem(await sitter.comeBack(code));
  };
  return (
    <form
      noValidate
      className={classes.back}
      aria-label="Go on with a code"
      onSubmit={submitting(() => send())}
    >
      <label>
        You have begun elsewhere? Your code
        <input
          type="text"
          size={12}
          maxLength={40}
          value={code}
          autoComplete="off"
          autoCapitalize="none"
          spellCheck={false}
          onChange={(event) => setCode(event.target.value)}
        />
      </label>
      <button type="submit">Go on with it</button>
      <Problem of={problem} />
    </form>
  );
}
