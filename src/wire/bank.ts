/** The bank of questions, answer lists and sections, with where each is used. */
import * as v from 'valibot';
import { readContent, type BankContent } from '../core/editing/bank';

/** Checked as a part of a questionnaire. */
const Content = v.pipe(
  v.variant('kind', [
    v.object({ kind: v.literal('question'), question: v.unknown() }),
    v.object({ kind: v.literal('answers'), options: v.unknown() }),
    v.object({ kind: v.literal('section'), section: v.unknown() }),
  ]),
  v.rawTransform(({ dataset, addIssue, NEVER }): BankContent => {
    const { value } = dataset;
    const part =
      value.kind === 'question' ? value.question : value.kind === 'answers' ? value.options : value.section;
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

/** What is wrong with the content is told apart. */
export const BankEntryToAdd = v.strictObject({
  kind: v.picklist(['question', 'answers', 'section']),
  title: v.pipe(v.string(), v.trim(), v.minLength(1, 'a title is needed'), v.maxLength(200)),
  content: v.unknown(),
});
export const BankEntryToRemove = v.strictObject({ id: v.number() });
