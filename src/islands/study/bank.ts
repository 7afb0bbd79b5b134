/** What the bank's endpoint sends, checked before it is used; and keeping something in it. */
import * as v from 'valibot';
import { readContent, type BankContent } from '../../core/editing/bank';
import { call } from '../ui/api';

/** Checked as a part of a questionnaire. */
const Content = v.pipe(
  v.variant('kind', [
    v.object({ kind: v.literal('question'), question: v.unknown() }),
    v.object({ kind: v.literal('answers'), options: v.unknown() }),
    v.object({ kind: v.literal('section'), section: v.unknown() }),
  ]),
  v.rawTransform(({ dataset, addIssue, NEVER }): BankContent => {
    const { value } = dataset;
    const part = value.kind === 'question' ? value.question : value.kind === 'answers' ? value.options : value.section; // prettier-ignore
    const read = readContent(value.kind, part);
    if (read.ok) return read.content;
    addIssue({ message: read.problem });
    return NEVER;
  }),
);

export const BankEntrySchema = v.object({
  id: v.number(),
  title: v.string(),
  at: v.number(),
  content: Content,
  uses: v.array(v.object({ study: v.string(), title: v.string(), names: v.array(v.string()) })),
});

/** Keeps something in the bank; gives what is wrong, or null. */
export async function keepInBank(title: string, content: BankContent): Promise<string | null> {
  const { kind } = content;
  const part =
    kind === 'question' ? content.question : kind === 'answers' ? content.options : content.section;
  const reply = await call(BankEntrySchema, 'POST', '/api/bank', {
    kind,
    title: title.trim().slice(0, 200) || 'Untitled',
    content: part,
  });
  return reply.ok ? null : reply.problem;
}
