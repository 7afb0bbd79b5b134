/** Which answer is meant by keys typed one after the other: the number of a mark, a code, or a place in the list. */

export interface TypedChoice {
  /** What has been typed so far, to which the next key may add. */
  readonly typed: string;
  /** Index of the choice that is meant; null where more has to be typed. */
  readonly chosen: number | null;
}

/**
 * `keys` has for each choice what is typed for it (`7`, `10`, `-3`, `2.5`), null for one that is not chosen so. A key that
 * continues nothing begins anew; null where it begins nothing either.
 */
export function typedChoice(
  before: string,
  key: string,
  keys: readonly (string | null)[],
): TypedChoice | null {
  for (const typed of before === '' ? [key] : [before + key, key]) {
    if (!keys.some((each) => each?.startsWith(typed))) continue;
    const chosen = keys.indexOf(typed);
    return { typed, chosen: chosen < 0 ? null : chosen };
  }
  return null;
}
