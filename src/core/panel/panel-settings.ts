/** What an author settles about a made-up panel: who gets which letter when, and how its members are assumed to behave. */
import * as v from 'valibot';
import { LETTERS, LetterTextSchema, USUAL_TEXTS } from './letters';

const between = (least: number, most: number, problem: string) =>
  v.pipe(v.number(problem), v.integer(problem), v.minValue(least, problem), v.maxValue(most, problem));
const Percent = (what: string) =>
  v.pipe(
    v.number(`${what}: a number from 0 to 100`),
    v.minValue(0, `${what}: from 0 to 100`),
    v.maxValue(100, `${what}: from 0 to 100`),
  );

/** All in a hundred. None of it is measured: it is what the author assumes of the people who will be asked. */
export const BehaviourSchema = v.strictObject({
  /** Of those who get the letter and have not begun: how many begin. */
  invitation: Percent('begin after the invitation'),
  reminder: Percent('begin after the first reminder'),
  second_reminder: Percent('begin after the second reminder'),
  /** Of those who begin: who say no to taking part, besides those whom the assumed answers have say so. */
  refuse: Percent('refuse'),
  /** Who leave in a minute of plain questions; grids and open questions count three times. */
  breakOff: Percent('break off in a minute'),
  /** Of those who have left and get a reminder. */
  comeBack: Percent('come back after a reminder'),
  phones: Percent('answer on a phone'),
  /** Who rush through, and give the same answer in every row of a grid. */
  careless: Percent('answer carelessly'),
});
export type Behaviour = v.InferOutput<typeof BehaviourSchema>;

export const MOST_MEMBERS = 20_000;

export const PanelSettingsSchema = v.pipe(
  v.strictObject({
    /** Of all that happens by chance: the same seed, sample and questionnaire give the same people. */
    seed: between(1, 2 ** 31 - 1, 'the seed is a whole number from 1'),
    /** Midnight (UTC) of the first day by the panel's own clock; milliseconds since 1970. */
    startsAt: v.pipe(v.number(), v.integer(), v.minValue(0), v.multipleOf(86_400_000)),
    days: between(1, 60, 'the panel is in the field for 1 to 60 days'),
    /** Of the day at which letters go out. */
    hour: between(0, 23, 'letters go out at a whole hour from 0 to 23'),
    /** Days after the invitation. */
    reminderAfter: between(1, 59, 'the first reminder goes out 1 to 59 days after the invitation'),
    secondReminderAfter: between(2, 60, 'the second reminder goes out 2 to 60 days after the invitation'),
    texts: v.strictObject({
      invitation: LetterTextSchema,
      reminder: LetterTextSchema,
      second_reminder: LetterTextSchema,
      thanks: LetterTextSchema,
    }),
    behaviour: BehaviourSchema,
  }),
  v.check(
    ({ reminderAfter, secondReminderAfter }) => reminderAfter < secondReminderAfter,
    'the second reminder goes out after the first',
  ),
);
export type PanelSettings = v.InferOutput<typeof PanelSettingsSchema>;

export const DAY = 86_400_000;
export const HOUR = 3_600_000;

/** Before the author has said otherwise; shares are round on purpose. */
export function usualPanel(startsAt: number, seed: number): PanelSettings {
  return {
    seed,
    startsAt: Math.floor(startsAt / DAY) * DAY,
    days: 14,
    hour: 9,
    reminderAfter: 3,
    secondReminderAfter: 7,
    texts: USUAL_TEXTS,
    behaviour: {
      invitation: 30,
      reminder: 15,
      second_reminder: 10,
      refuse: 3,
      breakOff: 1,
      comeBack: 40,
      phones: 60,
      careless: 3,
    },
  };
}

/** The moment at which the field closes. */
export const panelEnds = ({ startsAt, days }: Pick<PanelSettings, 'startsAt' | 'days'>) =>
  startsAt + days * DAY;

/** Moments at which letters go out, day after day. */
export function postTimes({ startsAt, days, hour }: PanelSettings): number[] {
  return Array.from({ length: days }, (_, day) => startsAt + day * DAY + hour * HOUR);
}

/** The kinds of letters that are due at one of the moments; thanks go out every day. */
export function lettersDue(
  { startsAt, hour, reminderAfter, secondReminderAfter }: PanelSettings,
  at: number,
): (typeof LETTERS)[number][] {
  const day = Math.round((at - hour * HOUR - startsAt) / DAY);
  const due: (typeof LETTERS)[number][] = [];
  if (day === 0) due.push('invitation');
  if (day === reminderAfter) due.push('reminder');
  if (day === secondReminderAfter) due.push('second_reminder');
  return [...due, 'thanks'];
}
