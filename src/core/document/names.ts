/** What may be a variable name, and what may be an id. */

export const NAME_LENGTH = 32;
const NAME = /^[A-Za-z][A-Za-z0-9_]*$/;

/** The words of the condition language, and `ending`, which is a column of the data. */
export const RESERVED_WORDS: ReadonlySet<string> = new Set([
  'and',
  'or',
  'not',
  'always',
  'never',
  'in',
  'has',
  'any',
  'all',
  'none',
  'answered',
  'unanswered',
  'asked',
  'count',
  'pass',
  'each',
  'ending',
]);

/** What `idProblem` and `nameProblem` allow, in JSON Schema; names go by their length and their letters, words apart. */
export const ID_AS_JSON = { pattern: NAME.source } as const;
export const NAME_AS_JSON = {
  pattern: NAME.source,
  maxLength: NAME_LENGTH,
  not: { pattern: `^(?:${[...RESERVED_WORDS].map(anyCase).join('|')})$` },
} as const;

/** JSON Schema's patterns know no letters of either case. */
function anyCase(word: string): string {
  return word.replaceAll(/[a-z]/g, (letter) => `[${letter}${letter.toUpperCase()}]`);
}

/** Why `text` is no variable name, as the end of a sentence; null where it is one. */
export function nameProblem(text: string): string | null {
  if (text === '') return 'a name is needed';
  if (text.length > NAME_LENGTH) return `"${text}" is longer than ${NAME_LENGTH} characters`;
  if (!NAME.test(text)) {
    return `"${text}" is not a name: use letters, digits and _, starting with a letter`;
  }
  if (RESERVED_WORDS.has(text.toLowerCase())) {
    return `"${text}" is a word of the condition language: choose another name`;
  }
  return null;
}

/** Why `text` is no id of a section, ending or quota; null where it is one. */
export function idProblem(text: string): string | null {
  return NAME.test(text) ? null : `"${text}" is not an id: use letters, digits and _, starting with a letter`;
}

/** A name close to `wanted` that `taken` (lower case) does not hold: `heat`, `heat_2`, `heat_3` … */
export function freshName(wanted: string, taken: ReadonlySet<string>): string {
  const base = nameFrom(wanted);
  if (!taken.has(base.toLowerCase())) return base;
  for (let n = 2; ; n += 1) {
    const suffix = `_${n}`;
    const candidate = base.slice(0, NAME_LENGTH - suffix.length) + suffix;
    if (!taken.has(candidate.toLowerCase())) return candidate;
  }
}

/** Turns any words into something `nameProblem` accepts. */
function nameFrom(words: string): string {
  const plain = words
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^a-z0-9_]+/g, '_')
    .replace(/^[^a-z]+/, '')
    .replace(/_+$/, '')
    .slice(0, NAME_LENGTH);
  if (plain === '') return 'item';
  return RESERVED_WORDS.has(plain) ? `${plain}_q` : plain;
}

/** What a file of a study is called, before its ending. */
export function fileStem(title: string): string {
  const plain = title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  return plain || 'questionnaire';
}
