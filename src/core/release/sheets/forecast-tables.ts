/** The forecast as tables: every base with its range, how all end, minutes, and what all of it is assumed from. */
import { assumedWords } from '../../forecast/answer-words';
import { Forecaster, type Expected, type Forecast } from '../../forecast/forecast';
import { groupKey } from '../../forecast/groups';
import { madeFor, type MadeFor } from '../../forecast/made-for';
import { CERTAINTIES, sampleCost, sampleSizes } from '../../forecast/sampling';
import { assumedInSet, EXPECTED, setsOf } from '../../forecast/sets';
import type { Steering } from '../../forecast/steering';
import type { Plan } from '../../routing/plan';
import { csvLines } from '../../exchange/csv';
import { once } from '../formats/once';
import { workbook, type Sheet } from './workbook';

export interface Forecasted {
  readonly forecast: Forecast;
  readonly steering: readonly Steering[];
  readonly made: MadeFor;
  /** Each set of assumptions, that of the questions first; empty where there is but that. */
  readonly sets: readonly { readonly set: string | null; readonly forecast: Forecast }[];
}

/** For what the study says its forecast is made for; worked out once for all its files. */
export const forecastedFor = once((plan: Plan): Forecasted => {
  const made = madeFor(plan.document);
  const forecaster = new Forecaster(plan);
  const forecast = forecaster.forecast({ starts: made.starts, breakOff: made.breakOff });
  const { starts, breakOff } = made;
  const names = setsOf(plan.document).map(({ name }) => name);
  const sets = (names.length === 0 ? [] : [null, ...names]).map((set) => ({
    set,
    forecast: forecaster.forecast({ starts, breakOff, assumptions: assumedInSet(plan.document, set) }),
  }));
  return { forecast, steering: forecaster.steering(), made, sets };
});

const NUMBERS = ['share of all who start', 'expected', 'low (2.5%)', 'high (97.5%)'];

/** To read: to a tenth of a person, and a thousandth of a point. */
function numbers({ share, expected, low, high }: Expected): number[] {
  return [Math.round(share * 1e5) / 1e5, Math.round(expected * 10) / 10, low, high];
}

/** What each set of assumptions comes to, side by side; none where there is but one. */
function setsSheet({ sets, made }: Forecasted): Sheet[] {
  const [first] = sets;
  if (first === undefined) return [];
  const groups = [...first.forecast.endings, ...first.forecast.items];
  return [
    {
      name: 'Sets',
      head: [
        'item or ending',
        'pass',
        ...sets.map(({ set }) => set ?? EXPECTED),
        'low over all',
        'high over all',
      ],
      widths: [24, 8, ...sets.map(() => 12), 14, 14],
      rows: groups.map(({ group }, n) => {
        // Every set has the same groups, in the same order.
        const own = sets.map(({ forecast: { endings, items } }) =>
          n < endings.length ? endings[n] : items[n - endings.length],
        );
        return [
          'item' in group ? group.item : 'ending' in group ? group.ending : '',
          ('item' in group ? group.pass : null) ?? '',
          ...own.map((of) => Math.round((of?.expected ?? 0) * 10) / 10),
          Math.min(...own.map((of) => of?.low ?? made.starts)),
          Math.max(...own.map((of) => of?.high ?? 0)),
        ];
      }),
    },
  ];
}

/** How many have to start for the bases that are wanted, and what the sample costs; none where nothing is said of either. */
function sampleSheet(plan: Plan, { forecast, made }: Forecasted): Sheet[] {
  const wanted = made.wanted.flatMap(({ of, pass, n }) => {
    const key = groupKey({ item: of, pass: pass ?? null });
    const found = forecast.items.find(({ group }) => groupKey(group) === key);
    return found === undefined ? [] : [{ of, pass, n, share: found.share }];
  });
  const sizes = sampleSizes(wanted);
  const { prices, starts } = made;
  const cost = sampleCost(plan.document.endings, forecast.endings, starts, prices);
  const hasPrices = [prices.start, prices.screenOut, prices.complete].some((price) => price !== undefined);
  if (wanted.length === 0 && !hasPrices) return [];
  const people = (count: number | null | undefined) => count ?? 'no number';
  return [
    {
      name: 'Sample',
      head: ['wanted of', 'pass', 'people', ...CERTAINTIES.map((of) => `start, ${100 * of}% certain`)],
      widths: [34, 8, 12, 18, 18, 18],
      rows: [
        ...wanted.map(({ of, pass, n }, at) => [
          of,
          pass ?? '',
          n,
          ...sizes.map(({ each }) => people(each[at])),
        ]),
        ...(wanted.length < 2
          ? []
          : [['all of them at once', '', '', ...sizes.map(({ all }) => people(all))]]),
        ...(hasPrices
          ? [
              [
                `costs of ${starts} who start`,
                '',
                Math.round(cost.total * 100) / 100,
                prices.currency ?? '',
                '',
                '',
              ],
            ]
          : []),
      ],
    },
  ];
}

export function forecastSheets(plan: Plan, forecasted: Forecasted): Sheet[] {
  const { forecast, steering, made } = forecasted;
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
    ...setsSheet(forecasted),
    ...sampleSheet(plan, forecasted),
    {
      name: 'Made for',
      head: ['what', 'number'],
      widths: [44, 12],
      rows: [
        ['people who start', made.starts],
        ['least base wanted', made.least],
        ['chance of breaking off, a minute', made.breakOff],
        ['of those invited, the share that starts', made.response ?? ''],
        ['design effect', made.designEffect],
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

/** Bases and endings as one table, every figure in full: programs go on with it, and all endings must add up to everybody. */
export function forecastCsv(plan: Plan): string {
  const { items, endings } = forecastedFor(plan).forecast;
  const inFull = ({ share, expected, low, high }: Expected) => [share, expected, low, high];
  const row = (of: Expected): (string | number)[] =>
    'item' in of.group
      ? ['item', of.group.item, of.group.pass ?? '', ...inFull(of)]
      : ['ending', 'ending' in of.group ? of.group.ending : '', '', ...inFull(of)];
  return csvLines([
    ['of', 'name', 'pass', 'share', 'expected', 'low', 'high'],
    ...[...items, ...endings].map(row),
  ]);
}
