/** What the Release view shows, as it stands in the address: which version, what of it, and against which it is held. */
import * as v from 'valibot';

/** The number of a version; null for the draft. */
export type Shown = number | null;

/** What is other in a version than before, or who answers it. */
export const LEAVES = ['compare', 'trial'] as const;
export type Leaf = (typeof LEAVES)[number];

export interface ReleaseShown {
  readonly leaf: Leaf;
  readonly of: Shown;
  /** Null: whichever comes before. */
  readonly against: number | null;
  /** The link that is watched, by its token, and the number of its follow-up, 0 for its own questionnaire; null: none is. */
  readonly watched: { readonly link: string; readonly asked: number } | null;
}

const VersionNumber = v.pipe(v.string(), v.regex(/^\d{1,6}$/), v.transform(Number));
const ShownSchema = v.object({
  leaf: v.fallback(v.picklist(LEAVES), 'compare'),
  of: v.fallback(v.nullable(VersionNumber), null),
  against: v.fallback(v.nullable(VersionNumber), null),
  link: v.fallback(v.nullable(v.pipe(v.string(), v.regex(/^[\w-]{10,60}$/))), null),
  asked: v.fallback(VersionNumber, 0),
});

/** Reads the address; what it does not understand is left out. */
export function readReleaseShown(search: string): ReleaseShown {
  const { leaf, of, against, link, asked } = Object.fromEntries(new URLSearchParams(search));
  const read = v.parse(ShownSchema, {
    ...{ leaf, asked },
    ...{ of: of ?? null, against: against ?? null, link: link ?? null },
  });
  const watched = read.link === null ? null : { link: read.link, asked: read.asked };
  return { leaf: read.leaf, of: read.of, against: read.against, watched };
}

export function releaseSearch({ leaf, of, against, watched }: ReleaseShown): string {
  const search = new URLSearchParams();
  if (leaf !== 'compare') search.set('leaf', leaf);
  if (of !== null) search.set('of', String(of));
  if (against !== null) search.set('against', String(against));
  if (watched !== null) search.set('link', watched.link);
  if (watched !== null && watched.asked > 0) search.set('asked', String(watched.asked));
  return `?${search.toString()}`;
}

/** The version that one is held against: the one asked for where there is one, else the one before; null: there is none. */
export function heldAgainst(
  versions: readonly { readonly number: number }[],
  { of, against }: Pick<ReleaseShown, 'of' | 'against'>,
): number | null {
  const numbers = versions.map(({ number }) => number).sort((a, b) => b - a);
  if (against !== null && against !== of && numbers.includes(against)) return against;
  return numbers.find((number) => of === null || number < of) ?? null;
}
