/** What the sample costs, by the price of a start, a screen-out and a complete. */
import type { Prices } from '../../core/document/types';
import { sampleCost } from '../../core/forecast/sampling';
import type { Figures } from '../../worker/forecast/types';
import { useStudy } from '../state/store';
import { TableHead } from '../ui/TableHead';
import classes from './came.module.css';
import { countOf } from './figures';
import { NumberField } from './NumberField';
import { WordField } from './WordField';
import type { Forecasting } from './use-forecast';

interface Props {
  readonly figures: Figures;
  readonly forecasting: Forecasting;
  readonly readOnly: boolean;
}

export function CostTable({ figures, forecasting: { held, hold }, readOnly }: Props) {
  const endings = useStudy((state) => state.document.endings);
  const { prices } = held;
  const cost = sampleCost(endings, figures.endings, held.starts, prices);
  const { currency = '' } = prices;
  const money = (sum: number) =>
    `${sum.toLocaleString('en', {
      minimumFractionDigits: sum < 1000 && sum > 0 ? 2 : 0,
      maximumFractionDigits: sum < 1000 ? 2 : 0,
    })} ${currency}`.trim();
  const rows: readonly [keyof Omit<Prices, 'currency'>, string, string, number][] = [
    ['start', 'who start', 'who starts', cost.starts],
    ['screenOut', 'screened out', 'screened out', cost.screenOuts],
    ['complete', 'who finish', 'who finishes', cost.completes],
  ];
  return (
    <section className={classes.part} aria-label="What the sample costs">
      <h3>What it costs</h3>
      <table className={classes.table}>
        <TableHead of={['people', 'how many', 'each', 'together']} />
        <tbody>
          {rows.map(([key, words, one, people]) => (
            <tr key={key}>
              <th scope="row">{words}</th>
              <td>{countOf(people)}</td>
              <td>
                {readOnly ? (
                  (prices[key] ?? '')
                ) : (
                  <NumberField
                    label={`Price of one ${one}`}
                    value={prices[key] ?? null}
                    least={0}
                    decimals
                    keep={(price) => hold({ prices: { ...prices, [key]: price } })}
                  />
                )}
              </td>
              <td>{money(people * (prices[key] ?? 0))}</td>
            </tr>
          ))}
          <tr>
            <th scope="row">
              in all, in{' '}
              <WordField
                label="Currency"
                value={currency}
                placeholder="EUR"
                readOnly={readOnly}
                keep={(word) => {
                  const { currency: _, ...rest } = prices;
                  return hold({ prices: word === '' ? rest : { ...rest, currency: word } });
                }}
              />
            </th>
            <td />
            <td />
            <td>{money(cost.total)}</td>
          </tr>
          <tr>
            <th scope="row">for each who finishes</th>
            <td />
            <td />
            <td>{cost.perComplete === null ? 'nobody finishes' : money(cost.perComplete)}</td>
          </tr>
        </tbody>
      </table>
    </section>
  );
}
