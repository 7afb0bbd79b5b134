/** Letters to the members of a made-up panel: their kinds, their texts, and what is put into those. */
import * as v from 'valibot';
import type { Answers } from '../document/types';
import { numberWords } from '../document/words';
import { fillPipes, pipedNames } from '../routing/pipes';
import type { Plan } from '../routing/plan';
import { valueWords } from '../wording/values';

export const LETTERS = ['invitation', 'reminder', 'second_reminder', 'thanks'] as const;
export type LetterKind = (typeof LETTERS)[number];

export const LETTER_WORDS: Readonly<Record<LetterKind, { readonly one: string; readonly to: string }>> = {
  invitation: { one: 'Invitation', to: 'to all' },
  reminder: { one: 'First reminder', to: 'to all who have not finished' },
  second_reminder: { one: 'Second reminder', to: 'to all who have not finished' },
  thanks: { one: 'Thanks', to: 'to all who have answered to the end' },
};

const filled = (most: number, what: string) =>
  v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, `${what} is missing`),
    v.maxLength(most, `${what} has at most ${numberWords(most)} characters`),
  );

export const LetterTextSchema = v.strictObject({
  subject: filled(200, 'the subject of a letter'),
  text: filled(4000, 'the text of a letter'),
});
export type LetterText = v.InferOutput<typeof LetterTextSchema>;

/** Put in for everybody, beside the values that are known beforehand. */
const PERSON = 'person';
const LINK = 'link';

export const USUAL_TEXTS: Readonly<Record<LetterKind, LetterText>> = {
  invitation: {
    subject: 'An invitation to take part in our survey',
    text: 'Dear {person},\n\nWe would like to hear from you. Taking part is up to you, and your answers are confidential.\n\nThis is your own link; please do not pass it on:\n\n{link}\n\nWith kind regards',
  },
  reminder: {
    subject: 'A reminder: our survey',
    text: 'Dear {person},\n\nA few days ago we invited you to our survey. If you have begun, your link takes you to where you stopped:\n\n{link}\n\nIf you would rather not take part, open the link and say so: we will not write to you again.\n\nWith kind regards',
  },
  second_reminder: {
    subject: 'Our survey closes soon',
    text: 'Dear {person},\n\nOur survey is open for a few more days. We would be glad to have your answers:\n\n{link}\n\nThis is our last letter about it.\n\nWith kind regards',
  },
  thanks: {
    subject: 'Thank you for taking part',
    text: 'Dear {person},\n\nThank you for answering our survey.\n\nWith kind regards',
  },
};

/**
 * What is wrong with the letters, as sentences: each has the link that it is written for, and puts in only what is known of
 * everybody before the start.
 */
export function letterProblems(plan: Plan, texts: Readonly<Record<LetterKind, LetterText>>): string[] {
  const known = new Set([PERSON, LINK, ...knownBefore(plan).map(({ name }) => name.toLowerCase())]);
  return LETTERS.flatMap((kind) => {
    const { one } = LETTER_WORDS[kind];
    const { subject, text } = texts[kind];
    const stray = [...pipedNames(subject), ...pipedNames(text)].filter(
      (name) => !known.has(name.toLowerCase()),
    );
    const could = [...known].map((name) => `{${name}}`).join(', ');
    return [
      ...stray.map((name) => `${one}: {${name}} is not known of everybody. Put in ${could}.`),
      ...(kind === 'thanks' || pipedNames(text).some((name) => name.toLowerCase() === LINK)
        ? []
        : [`${one}: put {${LINK}} where the link of each is to stand.`]),
    ];
  });
}

/** What is put into letters is known of everybody, and not by chance: their arm is no business of theirs. */
const knownBefore = (plan: Plan) => (plan.document.given ?? []).filter(({ random }) => !random);

/** A letter as somebody gets it. */
export function letterTo(
  plan: Plan,
  { subject, text }: LetterText,
  { name, link, given }: { readonly name: string; readonly link: string; readonly given: Answers },
): LetterText {
  const entries = new Map(knownBefore(plan).map((entry) => [entry.name.toLowerCase(), entry]));
  const shown = (piped: string): string => {
    const word = piped.toLowerCase();
    if (word === PERSON) return name;
    if (word === LINK) return link;
    const entry = entries.get(word);
    return entry === undefined ? '' : valueWords(entry.answer, given[entry.name]);
  };
  return { subject: fillPipes(subject, shown), text: fillPipes(text, shown) };
}
