/** Two routes beside each other: what each gets that the other does not, and the answer that parts them. */
import { useMemo } from 'react';
import { nameInKey } from '../../core/document/addresses';
import { compareRoutes } from '../../core/views/compare-routes';
import { endingLabel } from '../../core/wording/targets';
import type { RouteView } from '../../worker/types';
import { useStudy } from '../state/store';
import { routeText, secondsText } from '../ui/format';
import classes from './comparison.module.css';

interface Props {
  readonly first: RouteView;
  readonly second: RouteView;
}

export function Comparison({ first, second }: Props) {
  const plan = useStudy((state) => state.plan);
  const { onlyFirst, onlySecond, parting, fork } = useMemo(
    () => compareRoutes(plan, first, second),
    [plan, first, second],
  );
  const name = (route: RouteView) => `route ${routeText(route.number)}`;
  const answered = parting[0];
  return (
    <div className={classes.compare} role="region" aria-label="Comparison">
      <p>
        {fork === null ? (
          'Both present the same.'
        ) : (
          <>
            They part before <code>{fork.item}</code>
            {answered !== undefined && (
              <>
                , by <b>{answered.label}</b>: <em>{answered.first || 'blank'}</em> on {name(first)},{' '}
                <em>{answered.second || 'blank'}</em> on {name(second)}
              </>
            )}
            . On {name(fork.on === 'first' ? first : second)}: {fork.because}. On the other: {fork.otherwise}.
          </>
        )}
        {parting.length > 1 && (
          <>
            {' '}
            Before it they also differ in{' '}
            {parting
              .slice(1, 4)
              .map(({ label }) => label)
              .join(', ')}
            {parting.length > 4 && ` and ${parting.length - 4} more`}, which{' '}
            {parting.length > 2 ? 'part' : 'parts'} nothing yet.
          </>
        )}
      </p>
      <div className={classes.sides}>
        <Only title={`Only route ${routeText(first.number)}`} route={first} items={onlyFirst} />
        <Only title={`Only route ${routeText(second.number)}`} route={second} items={onlySecond} />
      </div>
    </div>
  );
}

function Only({ title, route, items }: { title: string; route: RouteView; items: readonly string[] }) {
  const document = useStudy((state) => state.document);
  return (
    <section>
      <h3>{title}</h3>
      <p>
        {items.length === 0
          ? 'nothing that the other does not present'
          : items.slice(0, 14).map((key) => (
              <code key={key} title={textOf(document, key)}>
                {key}
              </code>
            ))}
        {items.length > 14 && ` and ${items.length - 14} more`}
      </p>
      <small>
        {endingLabel(document, route.ending)}, about {secondsText(route.seconds)}
      </small>
    </section>
  );
}

function textOf(
  document: { readonly sections: readonly { readonly items: readonly object[] }[] },
  key: string,
): string {
  const name = nameInKey(key);
  for (const { items } of document.sections) {
    for (const item of items)
      if ('name' in item && item.name === name && 'text' in item) return String(item.text);
  }
  return '';
}
