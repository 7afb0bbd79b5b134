/** What verdicts and comments are made of, as authors and reviewers send them. */
import { VERDICTS } from '../core/document/vocabularies';
import { AddressSchema } from '../core/document/addresses';
import * as v from 'valibot';
import { WalkedSchema } from '../core/document/walked';

export const Fingerprint = v.pipe(
  v.string(),
  v.regex(/^[0-9a-f]{64}$/, 'a route is named by its fingerprint'),
);
const Words = v.pipe(v.array(v.pipe(v.string(), v.maxLength(1000))), v.maxLength(25_000));

export const VerdictSchema = v.strictObject({
  route: Fingerprint,
  marks: Words,
  items: Words,
  walked: WalkedSchema,
  verdict: v.picklist(VERDICTS),
  remark: v.pipe(v.string(), v.maxLength(2000, 'a remark has at most 2,000 characters')),
  place: v.pipe(v.string(), v.maxLength(100)),
  reviewer: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'a verdict needs the name of who gives it'),
    v.maxLength(100),
  ),
});

export const Person = v.pipe(v.string(), v.trim(), v.minLength(1, 'a name is needed'), v.maxLength(100));

export const AddCommentSchema = v.strictObject({
  place: AddressSchema,
  text: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'a comment has words'),
    v.maxLength(4000, 'a comment has at most 4,000 characters'),
  ),
  author: Person,
});

/** In whose name something is done: that under which they are signed in, or, where nobody signs in, the one they give. */
export function inNameOf<Typed extends string | null>(locals: App.Locals, typed: Typed): Typed | string {
  return locals.asker?.name ?? typed;
}
