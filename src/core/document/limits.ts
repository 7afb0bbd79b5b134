/**
 * How large a questionnaire may be: far beyond any that is fielded, and small enough that everything can be worked out.
 *
 * What goes beyond is refused where it comes in, with the sentence that stands beside the limit in the schema.
 */

export const MOST_SECTIONS = 1_000;
/** In all sections together. */
export const MOST_ITEMS = 5_000;
/** Of one answer, rows of a grid as well. */
export const MOST_OPTIONS = 2_000;
/** Passes of a repeated section. */
export const MOST_PASSES = 500;
/** Items of all repeated sections, each as often as its section may be passed. */
export const MOST_PASSED = 20_000;
/** Skips of an item or ways onward, messages of an ending, checks of a question. */
export const MOST_RULES = 500;
export const MOST_DERIVED = 1_000;
/** Cases of a derived variable. */
export const MOST_CASES = 2_000;
export const MOST_ENDINGS = 500;
export const MOST_QUOTAS = 500;
export const MOST_GIVEN = 1_000;
export const MOST_REASONS = 100;
/** Named assumptions of one study. */
export const MOST_SETS = 8;
/** Characters of a text, a label or a message. */
export const MOST_TEXT = 50_000;
/** Characters of a condition or a derived value. */
export const MOST_CONDITION = 20_000;
/** Characters of a picture as a data URL: some 4 MB. */
export const MOST_PICTURE = 6_000_000;
/** Numbers from minus this to this: with three decimals still told apart exactly. */
export const LARGEST_NUMBER = 1_000_000_000_000;
/** Codes can be longer: numbers of areas and occupations. */
export const LARGEST_CODE = Number.MAX_SAFE_INTEGER;
