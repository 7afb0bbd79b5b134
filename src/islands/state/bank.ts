/** What the bank's endpoint sends, checked before it is used; and keeping something in it. */
import type { BankContent } from '../../core/editing/bank';
import { BankEntrySchema } from '../../wire/bank';
import { call } from '../ui/api';

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
