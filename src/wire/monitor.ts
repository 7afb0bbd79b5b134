/** What an author watches of a link: the figures as they come in, and the responses behind each. */
import * as v from 'valibot';
import { ENDING_KINDS } from '../core/document/types';
import { AnswersSchema, ValueSchema } from '../core/document/walked';
import type { Figures } from '../core/monitor/figures';
import { OUTCOMES } from '../core/monitor/outcomes';
import { PickedSchema } from '../core/monitor/picked';
import { RATE_KINDS, UNKNOWN_AS } from '../core/monitor/rates';
import { DEVICES } from '../core/responding/trial-settings';
import { TrialSchema } from './trials';

const counts = <Names extends readonly string[]>(names: Names) =>
  v.object(
    Object.fromEntries(names.map((name) => [name, v.number()])) as Record<
      Names[number],
      v.NumberSchema<undefined>
    >,
  );
const Quartiles = v.nullable(v.object({ lower: v.number(), median: v.number(), upper: v.number() }));

/** As `core/monitor/figures.ts` has them. */
export const FiguresSchema: v.GenericSchema<unknown, Figures> = v.object({
  invited: v.nullable(v.number()),
  unheard: v.nullable(v.number()),
  begun: v.number(),
  outcomes: counts(OUTCOMES),
  days: v.array(
    v.object({
      day: v.string(),
      isAhead: v.boolean(),
      invited: v.number(),
      begun: v.number(),
      outcomes: v.partial(counts(OUTCOMES)),
    }),
  ),
  rates: v.nullable(
    v.object({
      eligible: v.number(),
      list: v.array(
        v.object({
          kind: v.picklist(RATE_KINDS),
          unknown: v.picklist(UNKNOWN_AS),
          name: v.string(),
          formula: v.string(),
          numerator: v.number(),
          denominator: v.number(),
        }),
      ),
    }),
  ),
  endings: v.array(
    v.object({
      id: v.string(),
      label: v.string(),
      kind: v.picklist(ENDING_KINDS),
      count: v.nullable(v.number()),
    }),
  ),
  minutes: v.object({ count: v.number(), took: Quartiles, expected: Quartiles }),
  pages: v.array(
    v.object({
      place: v.string(),
      section: v.number(),
      title: v.string(),
      items: v.array(v.string()),
      shown: v.number(),
      left: v.number(),
    }),
  ),
  items: v.array(
    v.object({
      name: v.string(),
      asked: v.number(),
      blank: v.number(),
      dont_know: v.number(),
      refused: v.number(),
      left: v.number(),
    }),
  ),
  unreached: v.array(v.string()),
  forks: v.array(v.object({ at: v.string(), words: v.string(), came: v.number() })),
  quotas: v.array(
    v.object({
      id: v.string(),
      label: v.string(),
      target: v.number(),
      count: v.number(),
      perDay: v.number(),
      fullAt: v.nullable(v.number()),
    }),
  ),
  fast: v.nullable(v.object({ count: v.number(), below: v.number() })),
  grids: v.array(v.object({ name: v.string(), whole: v.number(), straight: v.number() })),
});

export const MonitorSchema = v.object({
  link: TrialSchema,
  /** Sections from which an interview can count as partial. */
  sections: v.array(v.object({ id: v.string(), title: v.string() })),
  /** How late it is there: by the panel’s own clock, where it has one; milliseconds since 1970. */
  now: v.number(),
  /** How many responses were read of how many; null once all are. */
  reading: v.nullable(v.object({ done: v.number(), of: v.number() })),
  /** Null until all were read. */
  figures: v.nullable(FiguresSchema),
});
export type Monitor = v.InferOutput<typeof MonitorSchema>;

/** Which questionnaire of a link is watched, and by the days of which time zone (IANA). */
export const WatchedSchema = v.object({
  questionnaire: v.optional(v.pipe(v.string(), v.regex(/^\d{1,3}$/), v.transform(Number)), '0'),
  zone: v.pipe(v.string(), v.maxLength(100), v.check(isZone, 'a time zone is written like Europe/London')),
});

function isZone(zone: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: zone }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

/** One response by its id, or those behind a figure. */
export const BehindWantedSchema = v.union([
  v.object({ id: v.pipe(v.string(), v.maxLength(100)) }),
  v.object({
    ...WatchedSchema.entries,
    picked: v.pipe(v.string(), v.maxLength(2000), v.parseJson(), PickedSchema),
  }),
]);

/** As many are listed; the rest are counted. */
export const MOST_LISTED = 200;

export const ResponseLineSchema = v.object({
  id: v.string(),
  number: v.number(),
  /** From the sample; null where people are not known. */
  name: v.nullable(v.string()),
  outcome: v.picklist(OUTCOMES),
  /** When they came to it; milliseconds since 1970. */
  at: v.number(),
  seconds: v.number(),
  device: v.picklist(DEVICES),
  /** The section in which they left, or are; null at an ending. */
  section: v.nullable(v.string()),
  fast: v.boolean(),
  /** Names of the grids with the same answer in each row. */
  straight: v.array(v.string()),
});
export type ResponseLine = v.InferOutput<typeof ResponseLineSchema>;

export const BehindSchema = v.object({
  /** Of whom nothing is kept but that. */
  onlyCounted: v.number(),
  total: v.number(),
  /** The last first. */
  responses: v.array(ResponseLineSchema),
  /** Where people are meant who have not begun: names, and when they were written to. */
  people: v.array(v.object({ name: v.string(), at: v.number() })),
});
export type Behind = v.InferOutput<typeof BehindSchema>;

/** A response as it is walked again. */
export const TrailSchema = v.object({
  id: v.string(),
  number: v.number(),
  name: v.nullable(v.string()),
  outcome: v.picklist(OUTCOMES),
  answers: AnswersSchema,
  given: AnswersSchema,
  seed: v.number(),
  full: v.array(v.string()),
  timedOut: v.array(v.string()),
  /** Pages left, in their order, with the seconds that each was there. */
  visits: v.array(v.object({ page: v.string(), first: v.string(), seconds: v.number() })),
  /** Key of the page in hand; null at an ending. */
  inHand: v.nullable(v.string()),
  changed: v.array(v.object({ key: v.string(), from: ValueSchema })),
  dropped: v.array(v.object({ key: v.string(), value: ValueSchema })),
});
export type Trail = v.InferOutput<typeof TrailSchema>;
