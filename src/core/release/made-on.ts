/** On which version something was made: a verdict, a comment, rows of data. */

/** Of a version, as far as that goes: its number, and the revision of the study it was made of. */
export interface VersionMark {
  readonly number: number;
  readonly revision: number;
}

/**
 * The version that a study was at a revision, or the draft after or before one; null where that is not known or nothing was
 * ever kept. `versions` in any order.
 */
export function madeOn(versions: readonly VersionMark[], revision: number | null): string | null {
  if (revision === null || versions.length === 0) return null;
  const before = versions.filter((version) => version.revision <= revision);
  const last = before.reduce<VersionMark | null>(
    (best, version) => (best === null || version.number > best.number ? version : best),
    null,
  );
  if (last === null) return 'the draft before version 1';
  return last.revision === revision ? `version ${last.number}` : `the draft after version ${last.number}`;
}
