/** Words and conditions of two versions that are other than they were, place by place. */
import { eachProperty, type Held } from '../document/each-property';
import { propertyWords, type Property } from '../document/properties';
import type { Questionnaire } from '../document/types';
import { placeAt, type DocumentPlace } from '../routing/problems';

export interface TextChange {
  readonly at: DocumentPlace;
  /** Which of its texts: “words”, “note”, “asked if” … */
  readonly part: string;
  /** Null where there was none, or is none any more. */
  readonly old: string | null;
  readonly now: string | null;
}

interface PlacedText {
  readonly at: DocumentPlace;
  readonly part: string;
  readonly text: string;
}

/** The texts of what both versions have; what stands in one alone is told as added or gone, not text by text. */
export function textChanges(
  old: Questionnaire,
  now: Questionnaire,
): { readonly words: TextChange[]; readonly conditions: TextChange[] } {
  const isWords = ({ holds }: Property) => holds === 'words' || holds === 'piped words';
  const isCondition = ({ holds }: Property) => holds === 'condition' || holds === 'expression';
  return { words: changesOf(old, now, isWords), conditions: changesOf(old, now, isCondition) };
}

function changesOf(
  old: Questionnaire,
  now: Questionnaire,
  isMeant: (property: Property) => boolean,
): TextChange[] {
  const [before, after] = [textsIn(old, isMeant), textsIn(now, isMeant)];
  const [partsBefore, partsAfter] = [partsIn(old), partsIn(now)];
  const keys = [...new Set([...after.keys(), ...before.keys()])];
  return keys.flatMap((key) => {
    const [one, other] = [before.get(key), after.get(key)];
    const { at, part } = (other ?? one) as PlacedText;
    if ((one?.text ?? null) === (other?.text ?? null)) return [];
    const whole = wholeOf(key);
    if (!partsBefore.has(whole) || !partsAfter.has(whole)) return [];
    return [{ at, part, old: one?.text ?? null, now: other?.text ?? null }];
  });
}

/** By where each stands; the second of several in one place (messages, checks, cases) has a number. */
function textsIn(document: Questionnaire, isMeant: (property: Property) => boolean): Map<string, PlacedText> {
  const found = new Map<string, PlacedText>();
  eachProperty(document, (held) => {
    const { property, value, kind, name, at } = held;
    // Labels of answers are told with their codes.
    if (typeof value !== 'string' || !isMeant(property) || isCodeLabel(held)) return;
    const start = `${at}\n${placedIn(held)}\n${kind}.${name}`;
    let key = start;
    for (let times = 2; found.has(key); times += 1) key = `${start} ${times}`;
    found.set(key, { at: placeOf(held), part: propertyWords(kind, name), text: value });
  });
  return found;
}

function isCodeLabel({ kind, name }: Held): boolean {
  return name === 'label' && (kind === 'option' || kind === 'missing' || kind === 'case');
}

/** The parts and answers that a version has, by where they stand. */
function partsIn(document: Questionnaire): ReadonlySet<string> {
  const found = new Set<string>();
  eachProperty(document, (held) => found.add(`${held.at}\n${placedIn(held)}`));
  return found;
}

const wholeOf = (key: string) => key.split('\n').slice(0, 2).join('\n');

function placedIn({ within }: Held): string {
  return within === null ? '' : 'option' in within ? `option ${within.option}` : `row ${within.row}`;
}

function placeOf({ at, within }: Held): DocumentPlace {
  return { ...placeAt(at), ...within };
}
