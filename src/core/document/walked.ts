/** A respondent who was walked, as it is kept and sent: all that a walk starts from. */
import * as v from 'valibot';
import type { Answers, Value } from './types';

export const ValueSchema: v.GenericSchema<unknown, Value> = v.union([
  v.number(),
  v.string(),
  v.array(v.number()),
]);
export const AnswersSchema: v.GenericSchema<unknown, Answers> = v.record(v.string(), v.nullable(ValueSchema));

export const WalkedSchema = v.object({
  answers: AnswersSchema,
  /** Names drawn, by section id (`id#pass` in a repeat). */
  draws: v.exactOptional(v.record(v.string(), v.array(v.string()))),
  given: v.exactOptional(AnswersSchema),
  /** Ids of the quotas that are full. */
  full: v.exactOptional(v.array(v.string())),
});

export type Walked = v.InferOutput<typeof WalkedSchema>;
