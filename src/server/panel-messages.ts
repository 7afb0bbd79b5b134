/** What travels between the server and the thread in which a made-up panel lives. */
import * as v from 'valibot';
import { LETTERS } from '../core/panel/letters';
import { PanelSettingsSchema } from '../core/panel/panel-settings';
import { PageCaseSchema } from '../core/responding/page-case';

const LetterKindSchema = v.picklist(LETTERS);
const Place = v.pipe(v.number(), v.integer(), v.minValue(0));

export const PanelStartSchema = v.strictObject({
  /** Where the doors are, what opens them to a program, and under which link. */
  address: v.string(),
  programToken: v.string(),
  link: v.string(),
  settings: PanelSettingsSchema,
  clock: v.number(),
  /** The questionnaire of the link and those it hands on to, as texts of their files. */
  documents: v.array(v.string()),
  members: v.array(
    v.strictObject({
      key: v.string(),
      letters: v.array(v.strictObject({ kind: LetterKindSchema, at: v.number() })),
      sitting: v.nullable(
        v.strictObject({
          id: v.string(),
          questionnaire: Place,
          kept: PageCaseSchema,
          cameAt: v.number(),
          endsAt: v.nullable(v.number()),
        }),
      ),
      isSettled: v.boolean(),
    }),
  ),
});
export type PanelStart = v.InferOutput<typeof PanelStartSchema>;

export const ToPanelSchema = v.variant('is', [
  v.strictObject({ is: v.literal('run'), until: v.number(), speed: v.nullable(v.number()) }),
  v.strictObject({ is: v.literal('pause') }),
  v.strictObject({
    is: v.literal('posted'),
    to: v.array(v.strictObject({ place: Place, kind: LetterKindSchema })),
  }),
]);
export type ToPanel = v.InferOutput<typeof ToPanelSchema>;

export const FromPanelSchema = v.variant('is', [
  v.strictObject({ is: v.literal('clock'), at: v.number() }),
  /** Letters that are due at a moment are to be sent. */
  v.strictObject({ is: v.literal('post'), at: v.number() }),
  /** It rests: where it was to, or paused, or because a door failed. */
  v.strictObject({ is: v.literal('rests'), at: v.number(), problem: v.nullable(v.string()) }),
]);
export type FromPanel = v.InferOutput<typeof FromPanelSchema>;
