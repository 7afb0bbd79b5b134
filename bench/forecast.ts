/** How soon a forecast follows a share that is moved, on questionnaires of growing size; into docs/performance-forecast.md. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import type { Assumptions } from '../src/core/analysis';
import type { Questionnaire } from '../src/core/document/types';
import { Forecaster } from '../src/core/forecast/forecast';
import { planOf } from '../src/core/routing/planner';
import { generate, picksThatGate } from './generate';
import { markdown, milliseconds, timed } from './timing';
import { demo } from '../tests/support/demo';

const root = process.cwd();

const SIZES: readonly (readonly [name: string, make: () => Questionnaire])[] = [
  ['Tern Valley demo, 55 items', demo],
  ['12-option multiple gating 12 items', () => picksThatGate(12)],
  ['120 items, 3 far drivers', () => generate({ items: 120, longRange: 3 })],
  ['300 items, 4 far drivers', () => generate({ items: 300, longRange: 4 })],
  ['1,000 items, 8 far drivers', () => generate({ items: 1000, longRange: 8 })],
];

/** Moves a share a little further with every call, as a drag does. */
function dragging(forecaster: Forecaster): () => Assumptions {
  const [first] = forecaster.steering();
  const share = first?.shares[0];
  if (first === undefined || share === undefined) return () => new Map();
  let turn = 0;
  const codes = first.shares.flatMap(({ answer }) =>
    typeof answer === 'object' && 'code' in answer ? [answer.code] : [],
  );
  return () => {
    turn += 1;
    const one = 0.3 + 0.01 * (turn % 20);
    const rest = (1 - one) / Math.max(1, codes.length - 1);
    return new Map([
      [
        first.name,
        { shares: Object.fromEntries(codes.map((code, n) => [String(code), n === 0 ? one : rest])) },
      ],
    ]);
  };
}

export async function measureForecast(): Promise<void> {
  const rows: string[][] = [];
  for (const [name, make] of SIZES) {
    const plan = planOf(make());
    const ready = await timed(() => new Forecaster(plan), 3);
    const forecaster = ready.result;
    const asked = { starts: 1200, breakOff: 0 };
    const first = await timed(() => forecaster.forecast(asked), 1);
    const next = dragging(forecaster);
    const drag = await timed(() => forecaster.forecast({ ...asked, assumptions: next() }), 9);
    const broken = await timed(() => forecaster.forecast({ ...asked, breakOff: 0.01 }), 3);
    const group = first.result.items.at(-1)?.group;
    const effects = await timed(() => group && forecaster.effects({ group }), 3);
    const minutes = await timed(() => forecaster.effects('minutes'), 1);
    rows.push([
      name,
      ...[ready, first, drag, broken, effects, minutes].map(({ ms }) => milliseconds(ms)),
      first.result.exact ? 'yes' : 'no',
    ]);
    console.error(`… ${name}`);
  }
  const text = `# How soon a forecast follows

Written by \`npm run bench -- forecast\` on ${new Date().toISOString().slice(0, 10)}, in milliseconds, medians, on a machine shared with
others. _Ready_: once for every edit of the questionnaire. _First_: with whole interviews gone through for the first time.
_Drag_: all figures after a share is moved (to reach: 50 at 120 items, 150 at 300, 500 at 1,000; the
distribution of the demo's minutes 100). _Break-off_: the same where some leave on the way. _Base_, _minutes_: what one base, or the
minutes, hang on.

${markdown(['questionnaire', 'ready', 'first', 'drag', 'break-off', 'base', 'minutes', 'exact'], rows)}
`;
  const file = path.join(root, 'docs', 'performance-forecast.md');
  writeFileSync(file, await format(text, { ...(await resolveConfig(file)), parser: 'markdown' }));
}
