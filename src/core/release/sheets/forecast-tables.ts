/** The forecast as tables: every base with its range, how all end, minutes, and what all of it is assumed from. */
import { assumedWords } from '../../forecast/answer-words';
import { Forecaster, type Expected, type Forecast } from '../../forecast/forecast';
import { madeFor, type MadeFor } from '../../forecast/made-for';
import type { Steering } from '../../forecast/steering';
import type { Plan } from '../../routing/plan';
import { csvLines } from '../../exchange/csv';
import { workbook, type Sheet } from './workbook';

export interface Forecasted {
  readonly forecast: Forecast;
  readonly steering: readonly Steering[];
  readonly made: MadeFor;
}

const known = new WeakMap<Plan, Forecasted>();

/** For what the study says its forecast is made for; worked out once for all its files. */
export function forecastedFor(plan: Plan): Forecasted {
  let forecasted = known.get(plan);
  if (forecasted === undefined) known.set(plan, (forecasted = forecastFor(plan)));
  return forecasted;
}

function forecastFor(plan: Plan): Forecasted {
  const made = madeFor(plan.document);
  const forecaster = new Forecaster(plan);
  const forecast = forecaster.forecast({ starts: made.starts, breakOff: made.breakOff });
  return { forecast, steering: forecaster.steering(), made };
}

const NUMBERS = ['share of all who start', 'expected', 'low (2.5%)', 'high (97.5%)'];

/** To a tenth of a person, and a thousandth of a point. */
function numbers({ share, expected, low, high }: Expected): number[] {
  return [Math.round(share * 1e5) / 1e5, Math.round(expected * 10) / 10, low, high];
}

export function forecastSheets(plan: Plan, { forecast, steering, made }: Forecasted): Sheet[] {
  const titleOf = new Map(
    plan.sections.flatMap(({ section, items }) => items.map(({ item }) => [item.name, section.title])),
  );
  const { minutes } = forecast;
  const answers = new Map(
    [
      ...(plan.document.given ?? []),
      ...plan.document.sections.flatMap(({ items }) => items.filter((item) => item.kind === 'question')),
    ].map((of) => [of.name, of]),
  );
  return [
    {
      name: 'Bases',
      head: ['section', 'item', 'pass', ...NUMBERS, 'too few', 'simulated'],
      widths: [26, 22, 8, 16, 12, 12, 12, 10, 12],
      rows: forecast.items.flatMap((of) =>
        'item' in of.group
          ? [
              [
                titleOf.get(of.group.item) ?? '',
                of.group.item,
                of.group.pass ?? '',
                ...numbers(of),
                of.expected < made.least ? 'yes' : '',
                of.error === null ? '' : `± ${(100 * of.error).toFixed(1)} points`,
              ],
            ]
          : [],
      ),
    },
    {
      name: 'Endings',
      head: ['ending', 'kind', ...NUMBERS],
      widths: [22, 16, 16, 12, 12, 12],
      rows: forecast.endings.map((of, n) => [
        'ending' in of.group ? of.group.ending : '',
        plan.endings[n]?.ending.kind ?? '',
        ...numbers(of),
      ]),
    },
    {
      name: 'Minutes',
      head: ['of interviews that are finished', 'minutes'],
      widths: [36, 12],
      rows:
        minutes === null
          ? [['nobody finishes', '']]
          : (
              [
                ['mean', minutes.mean],
                ['1 in 10 at most', minutes.p10],
                ['half at most', minutes.median],
                ['9 in 10 at most', minutes.p90],
                ['longest', minutes.longest],
              ] as const
            ).map(([words, value]) => [words, Math.round(value * 100) / 100]),
    },
    {
      name: 'Assumed',
      head: ['question', 'decides bases', 'of those where', 'answer', 'share', 'where it is known from'],
      widths: [22, 14, 28, 44, 10, 40],
      rows: steering.flatMap(({ name, decides, shares }) => {
        const of = answers.get(name);
        return shares.map(({ where, answer, share }) => [
          name,
          decides,
          where === null ? '' : (of?.assume?.where?.[where]?.if ?? ''),
          of === undefined ? '' : assumedWords(of.answer, answer),
          Math.round(share * 1e4) / 1e4,
          of?.assume === undefined ? 'even shares, looked at by nobody' : (of.assume.source ?? ''),
        ]);
      }),
    },
    {
      name: 'Made for',
      head: ['what', 'number'],
      widths: [44, 12],
      rows: [
        ['people who start', made.starts],
        ['least base wanted', made.least],
        ['chance of breaking off, a minute', made.breakOff],
        ['of those invited, the share that starts', made.response ?? ''],
        [
          'exact, under the assumed answers and with quotas open',
          forecast.exact ? 'yes' : 'simulated in part',
        ],
      ],
    },
  ];
}

export async function forecastWorkbook(plan: Plan, version: string): Promise<Uint8Array> {
  return workbook(plan.document.title, version, forecastSheets(plan, forecastedFor(plan)));
}

/** Bases and endings as one table. */
export function forecastCsv(plan: Plan): string {
  const { items, endings } = forecastedFor(plan).forecast;
  const row = (of: Expected): (string | number)[] =>
    'item' in of.group
      ? ['item', of.group.item, of.group.pass ?? '', ...numbers(of)]
      : ['ending', 'ending' in of.group ? of.group.ending : '', '', ...numbers(of)];
  return csvLines([
    ['of', 'name', 'pass', 'share', 'expected', 'low', 'high'],
    ...[...items, ...endings].map(row),
  ]);
}
