/** Settings of a link are set anew: as text while they are written, read and handed over as a whole. */
import { useState, type ReactNode } from 'react';
import { FormActs } from '../../ui/FormActs';
import { Problem } from '../../ui/Problem';
import { submitting } from '../../ui/submitting';
import classes from './trial.module.css';

interface Props<Text, Settings> {
  /** As they stand. */
  readonly given: Text;
  readonly read: (
    text: Text,
  ) => { readonly ok: true; readonly settings: Settings } | { readonly ok: false; readonly problem: string };
  /** Gives why they were refused; null where they hold. */
  readonly settle: (settings: Settings) => Promise<string | null>;
  readonly close: () => void;
  /** What the button says. */
  readonly words: string;
  readonly children: (text: Text, set: (text: Text) => void) => ReactNode;
}

export function SettleForm<Text, Settings>(props: Props<Text, Settings>) {
  const { given, read, settle, close, words, children } = props;
  const [text, setText] = useState(given);
  const [problem, setProblem] = useState<string | null>(null);
  const save = async () => {
    const typed = read(text);
    const refused = typed.ok ? await settle(typed.settings) : typed.problem;
    setProblem(refused);
    if (refused === null) close();
  };
  return (
    <form className={classes.form} noValidate onSubmit={submitting(save)}>
      {children(text, setText)}
      <Problem of={problem} className={classes.problem} />
      <FormActs className={classes.acts} main={classes.make} cancel={close}>
        {words}
      </FormActs>
    </form>
  );
}
