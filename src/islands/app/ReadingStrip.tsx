/** The bar on top where a study is read and not changed: the way home, the study, and what of it is read. */
import type { ReactNode } from 'react';
import { useStudy } from '../state/store';
import { Mark } from '../ui/Mark';
import classes from './study.module.css';

interface Props {
  /** What of the study this is. */
  readonly reading: ReactNode;
  /** Where one came from. */
  readonly back: { readonly href: string; readonly words: string };
  /** What stands between both. */
  readonly children: ReactNode;
}

export function ReadingStrip({ reading, back, children }: Props) {
  const title = useStudy((state) => state.document.title);
  return (
    <header className={classes.bar}>
      <a className={classes.mark} href="/" title="All studies">
        <Mark /> <span>Jolly Fork</span>
      </a>
      <div className={classes.study}>
        <b>{title}</b>
        <small>{reading}</small>
      </div>
      {children}
      <a className={classes.pill} href={back.href}>
        {back.words}
      </a>
    </header>
  );
}
