/** The work of the thread that judges: from the text of a questionnaire to what stands in the way of freezing it. */
import { analyse } from '../core/analysis';
import { readDocumentText } from '../core/document/read';
import { judgeGate, type GateLine } from '../core/release/gate';
import { planOf } from '../core/routing/planner';
import type { Judged } from './judge';

/** Throws where the text is no questionnaire: what is stored was checked before. */
export function judgeHere({ text, work, wanted }: Judged): Pick<GateLine, 'check' | 'count' | 'complete'>[] {
  const read = readDocumentText(text);
  if (!read.ok) throw new Error('the study cannot be read');
  const plan = planOf(read.document);
  return judgeGate(plan, analyse(plan), work, wanted).map(({ check, count, complete }) => ({
    check,
    count,
    complete,
  }));
}
