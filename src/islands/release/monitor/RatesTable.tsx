/** Rates after the Standard Definitions, each by its name there, with what it is made of. */
import type { Figures } from '../../../core/monitor/figures';
import type { Picked } from '../../../core/monitor/picked';
import { UNKNOWN_AS, type Rate, type RateKind } from '../../../core/monitor/rates';
import { grouped } from '../../ui/format';
import { Figure } from './figure';
import { shareWords } from './monitor-text';
import classes from './monitor.module.css';

const WHOLE = ['complete', 'hand_off'] as const;
const KINDS: Readonly<Record<RateKind, { readonly words: string; readonly of: Picked }>> = {
  response: { words: 'Response', of: { of: 'outcome', is: [...WHOLE] } },
  response_partial: { words: '… with partial', of: { of: 'outcome', is: [...WHOLE, 'partial'] } },
  cooperation: { words: 'Cooperation', of: { of: 'outcome', is: [...WHOLE] } },
  cooperation_partial: { words: '… with partial', of: { of: 'outcome', is: [...WHOLE, 'partial'] } },
  refusal: { words: 'Refusal', of: { of: 'outcome', is: ['declined', 'broken_off'] } },
  contact: {
    words: 'Contact',
    of: { of: 'outcome', is: [...WHOLE, 'partial', 'declined', 'broken_off'] },
  },
};

export function RatesTable({ rates, unheard }: Pick<Figures, 'rates' | 'unheard'>) {
  if (rates === null)
    return (
      <section aria-label="Rates">
        <h2>Rates</h2>
        <p className={classes.says}>
          Response, cooperation, refusal and contact rates are of people who were invited by name: give people
          links of their own to have them.
        </p>
      </section>
    );
  const kinds = (Object.keys(KINDS) as RateKind[]).filter((kind) =>
    rates.list.some((rate) => rate.kind === kind),
  );
  return (
    <section aria-label="Rates">
      <h2>
        Rates <small>AAPOR Standard Definitions, 9th edition, 2016</small>
      </h2>
      <table className={classes.rates}>
        <thead>
          <tr>
            <th scope="col">
              Nothing heard of{' '}
              <Figure of={{ of: 'unheard' }} count={unheard ?? 0} words="Invited, nothing heard of them" />
            </th>
            <th scope="col">all eligible</th>
            <th scope="col" title="The share of the eligible among those of whom it is known">
              e = {rates.eligible.toFixed(2)} of them
            </th>
            <th scope="col">left out</th>
          </tr>
        </thead>
        <tbody>
          {kinds.map((kind) => (
            <tr key={kind}>
              <th scope="row">{KINDS[kind].words}</th>
              {UNKNOWN_AS.map((unknown) => (
                <td key={unknown}>
                  <RateCell
                    rate={rates.list.find((rate) => rate.kind === kind && rate.unknown === unknown)}
                    kind={kind}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function RateCell({ rate, kind }: { readonly rate: Rate | undefined; readonly kind: RateKind }) {
  if (rate === undefined) return null;
  const { name, formula, numerator, denominator } = rate;
  const over = Number.isInteger(denominator) ? grouped(denominator) : denominator.toFixed(1);
  return (
    <span title={`${name} = ${formula} = ${grouped(numerator)} / ${over}`}>
      <Figure of={KINDS[kind].of} count={numerator} words={`${KINDS[kind].words}, ${name}`}>
        {shareWords(numerator, denominator)}
      </Figure>
      <small>{name}</small>
    </span>
  );
}
