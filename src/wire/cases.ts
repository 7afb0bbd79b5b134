/** Paper forms keyed in: a case keyed once or twice. */
import * as v from 'valibot';
import { AnswersSchema } from '../core/document/walked';
import { Moment, person } from '../core/exchange/work-records';
import { MadeOn } from './common';

const CaseRecord = v.strictObject({
  caseId: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'a case has a number or name of its own'),
    v.maxLength(60, 'the name of a case has at most 60 characters'),
  ),
  entry: v.pipe(v.number(), v.values([1, 2], 'a case is keyed once or twice')),
  keyedBy: person('say who keys the form'),
  answers: AnswersSchema,
  /** Who chose between two entries; null where nobody has. */
  settledBy: v.nullable(person('say who keys the form')),
  at: Moment,
});

export const CaseSchema = v.object({ ...CaseRecord.entries, ...MadeOn.entries });
export type KeyedCase = v.InferOutput<typeof CaseSchema>;

export const CaseToKeep = v.omit(CaseRecord, ['at']);
export const CaseKept = v.object({ at: Moment });
export const CaseToRemove = v.pick(CaseRecord, ['caseId', 'entry']);
