/** The pages in their order, with those who left on one hanging from it. */
import type { CSSProperties } from 'react';
import type { Figures } from '../../../core/monitor/figures';
import { grouped, plural } from '../../ui/format';
import { Figure } from './figure';
import { shareWords } from './monitor-text';
import classes from './fringe.module.css';

export function PageFringe({ pages }: Pick<Figures, 'pages'>) {
  const most = Math.max(1, ...pages.map(({ left }) => left));
  const total = pages.reduce((sum, { left }) => sum + left, 0);
  return (
    <section aria-labelledby="fringe">
      <h2 id="fringe">
        Where they left{' '}
        <small>
          {total === 0
            ? 'nobody has left for half an hour or longer'
            : `${plural(total, 'response')} broken off or partial, by the page they left on`}
        </small>
      </h2>
      <ol className={classes.fringe}>
        {pages.map(({ place, section, title, items, shown, left }, index) => {
          const isFirst = index === 0 || pages[index - 1]?.section !== section;
          const words = `Left on page ${index + 1}, ${title}`;
          return (
            <li key={place} data-first={isFirst || undefined} title={`${title}: ${items.join(', ')}`}>
              <b>{isFirst ? title.split(' ')[0] : ''}</b>
              <code>{items[0]}</code>
              <span className={classes.shown}>
                <Figure
                  of={{ of: 'page', place, is: 'shown' }}
                  count={shown}
                  words={`Saw page ${index + 1}, ${title}`}
                />
              </span>
              <i
                aria-hidden="true"
                style={{ '--length': left / most } as CSSProperties}
                data-none={left === 0 || undefined}
              />
              <span className={classes.left}>
                {left > 0 && (
                  <>
                    <Figure of={{ of: 'page', place, is: 'left' }} count={left} words={words}>
                      {grouped(left)}
                    </Figure>
                    <small>{shareWords(left, shown)}</small>
                  </>
                )}
              </span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
