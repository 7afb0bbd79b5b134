/** The forecast to read: how many are asked what, how all end, how long it takes, and what it is assumed from. */
import type { Plan } from '../../routing/plan';
import { forecastedFor, forecastSheets } from '../sheets/forecast-tables';
import type { Sheet } from '../sheets/workbook';
import { code, heading, plain, soft, textOf, type Block, type Pages, type Runs } from './pages';

export function forecastPages(plan: Plan, version: string): Pages {
  const { title, language } = plan.document;
  const forecasted = forecastedFor(plan);
  const { made, forecast } = forecasted;
  return {
    title,
    what: 'forecast',
    language,
    version,
    blocks: [
      textOf(
        soft(
          `Of ${made.starts.toLocaleString('en')} who start, by the assumed answers and with all quotas open${
            made.breakOff > 0 ? `; ${(100 * made.breakOff).toFixed(1)} in 100 break off every minute` : ''
          }. ${forecast.exact ? 'Shares are exact; ' : 'Where it says so, shares are simulated; '}low and high hold 95 times in 100.`,
        ),
      ),
      ...forecastSheets(plan, forecasted)
        .slice(0, -1)
        .flatMap((sheet): Block[] => [heading(2, sheet.name), tableOf(sheet)]),
    ],
  };
}

function tableOf({ head, widths, rows }: Sheet): Block {
  const all = widths.reduce((sum, width) => sum + width, 0);
  return {
    is: 'table',
    head,
    widths: widths.map((width) => (100 * width) / all),
    rows: rows.map((row) =>
      row.map((cell, n): Runs => {
        if (typeof cell === 'number') return plain(cell.toLocaleString('en', { maximumFractionDigits: 4 }));
        return ['item', 'ending', 'question'].includes(head[n] ?? '') ? code(cell) : plain(cell);
      }),
    ),
  };
}
