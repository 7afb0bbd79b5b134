/** What a stand-alone instrument is told with its program: the questionnaire, which one that is, and where cases go. */
import * as v from 'valibot';

export const InstrumentDataSchema = v.strictObject({
  /** As its file has it; read by `readDocument`. */
  document: v.unknown(),
  asked: v.strictObject({ title: v.string(), version: v.string(), checksum: v.string() }),
  post: v.optional(v.string()),
});
export type InstrumentData = v.InferInput<typeof InstrumentDataSchema>;

const LONGEST = 2000;

/**
 * An address that cases can be posted to, as it is used; or what is wrong with it, as a sentence. Null for none.
 */
export function postAddress(
  written: string,
): { readonly ok: true; readonly address: string | null } | { readonly ok: false; readonly problem: string } {
  const text = written.trim();
  if (text === '') return { ok: true, address: null };
  const problem = (what: string) => ({ ok: false, problem: `“${text.slice(0, 60)}” ${what}` }) as const;
  if (text.length > LONGEST) return problem('is too long for an address.');
  if (!URL.canParse(text)) return problem('is no address: write it whole, like https://example.org/cases.');
  const url = new URL(text);
  if (url.protocol !== 'https:' && url.protocol !== 'http:')
    return problem('cannot be posted to: an address begins with https:// or http://.');
  if (url.username !== '' || url.password !== '')
    return problem('has a name or a password in it, which everybody who has the file could read.');
  return { ok: true, address: url.href };
}
