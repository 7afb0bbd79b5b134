/** What a file is to be made of, as it comes from another thread: checked at the door. */
import * as v from 'valibot';
import { documentGiven } from '../document/read';
import { NO_WORK } from '../exchange/work-file';
import type { StudyContent } from './format-types';

const Given = v.object({
  version: v.nullish(
    v.object({
      number: v.number(),
      frozen: v.boolean(),
      at: v.number(),
      author: v.optional(v.string()),
      note: v.optional(v.string()),
      reason: v.optional(v.string()),
    }),
  ),
  post: v.optional(v.pipe(v.string(), v.url())),
});

/** Without rows. `version`: null or none for the draft. Throws where something is not what it should be. */
export function contentGiven(document: unknown, version: unknown, post?: unknown): StudyContent {
  const given = v.parse(Given, { version, post });
  return {
    document: documentGiven(document),
    work: NO_WORK,
    ...(given.version == null ? {} : { version: given.version }),
    ...(given.post === undefined ? {} : { post: given.post }),
  };
}
