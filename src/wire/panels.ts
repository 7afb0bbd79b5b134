/** Made-up panels, as their authors make, run and watch them. */
import * as v from 'valibot';
import { person } from '../core/exchange/work-records';
import { LETTERS } from '../core/panel/letters';
import { MOST_MEMBERS, PanelSettingsSchema } from '../core/panel/panel-settings';

const Moment = v.pipe(v.number(), v.integer(), v.minValue(0));
const several = `a sample has 1 to ${MOST_MEMBERS.toLocaleString('en')} people`;

export const PanelToMake = v.strictObject({
  name: person('say what the panel is for'),
  version: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1))),
  /** So many made-up people, or those of a CSV file. */
  sample: v.union([
    v.strictObject({
      count: v.pipe(
        v.number(several),
        v.integer(several),
        v.minValue(1, several),
        v.maxValue(MOST_MEMBERS, several),
      ),
    }),
    v.strictObject({ csv: v.pipe(v.string(), v.maxLength(5_000_000)) }),
  ]),
  settings: PanelSettingsSchema,
});

/** What a panel is to do: run, up to a moment of its own clock; rest; or be settled anew while it rests. */
export const PanelToChange = v.variant('do', [
  v.strictObject({
    do: v.literal('run'),
    until: Moment,
    /** Milliseconds of its clock in one of ours; null: as fast as it goes. */
    speed: v.nullable(v.pipe(v.number(), v.minValue(1))),
  }),
  v.strictObject({ do: v.literal('rest') }),
  v.strictObject({ do: v.literal('settle'), settings: PanelSettingsSchema }),
]);

export const PileSchema = v.object({ kind: v.picklist(LETTERS), at: v.number(), count: v.number() });

export const PanelSchema = v.object({
  settings: PanelSettingsSchema,
  /** How many are in the sample. */
  members: v.number(),
  /** By its own clock, in milliseconds since 1970. */
  clock: v.number(),
  isRunning: v.boolean(),
  /** Why it rests, as a sentence, where it had to stop. */
  problem: v.nullable(v.string()),
  piles: v.array(PileSchema),
});
export type Panel = v.InferOutput<typeof PanelSchema>;

/** Of a study, by link. */
export const PanelsSchema = v.record(v.string(), PanelSchema);

export const LetterSchema = v.object({
  kind: v.picklist(LETTERS),
  at: v.number(),
  to: v.string(),
  /** In its pile, from 0. */
  place: v.number(),
  subject: v.string(),
  text: v.string(),
  /** Of the person's own link, without the name of the server; it stands in the text. */
  link: v.string(),
});
export type Letter = v.InferOutput<typeof LetterSchema>;

/** Which letter of which pile: by its place, or by the name of whom it is to. */
export const LetterWanted = v.union([
  v.object({
    kind: v.picklist(LETTERS),
    at: v.pipe(v.string(), v.regex(/^\d{1,15}$/), v.transform(Number)),
    place: v.pipe(v.string(), v.regex(/^\d{1,6}$/), v.transform(Number)),
  }),
  v.object({
    kind: v.picklist(LETTERS),
    at: v.pipe(v.string(), v.regex(/^\d{1,15}$/), v.transform(Number)),
    name: v.pipe(v.string(), v.maxLength(200)),
  }),
]);
