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
  readonly held: Held;
  readonly text: string;
}

/** What a version has, by where it stands. */
interface Placed {
  readonly words: Map<string, PlacedText>;
  readonly conditions: Map<string, PlacedText>;
  /** The parts and answers themselves. */
  readonly parts: Set<string>;
}

/** The texts of what both versions have; what stands in one alone is told as added or gone, not text by text. */
export function textChanges(
  old: Questionnaire,
  now: Questionnaire,
): { readonly words: TextChange[]; readonly conditions: TextChange[] } {
  const [before, after] = [placedOf(old), placedOf(now)];
  return {
    words: changesOf('words', before, after),
    conditions: changesOf('conditions', before, after),
  };
}

function changesOf(of: 'words' | 'conditions', before: Placed, after: Placed): TextChange[] {
  const keys = [...new Set([...after[of].keys(), ...before[of].keys()])];
  return keys.flatMap((key) => {
    const [one, other] = [before[of].get(key), after[of].get(key)];
    if ((one?.text ?? null) === (other?.text ?? null)) return [];
    const whole = wholeOf(key);
    if (!before.parts.has(whole) || !after.parts.has(whole)) return [];
    const { held } = (other ?? one) as PlacedText;
    return [
      {
        at: placeOf(held),
        part: propertyWords(held.kind, held.name),
        old: one?.text ?? null,
        now: other?.text ?? null,
      },
    ];
  });
}

/** In one going through: the second of several texts in one place (messages, checks, cases) has a number. */
function placedOf(document: Questionnaire): Placed {
  const placed: Placed = { words: new Map(), conditions: new Map(), parts: new Set() };
  eachProperty(document, (held) => {
    const { property, value, kind, name, at } = held;
    const whole = `${at}\n${placedIn(held)}`;
    placed.parts.add(whole);
    const of = textKind(property);
    // Labels of answers are told with their codes.
    if (of === null || typeof value !== 'string' || isCodeLabel(held)) return;
    const start = `${whole}\n${kind}.${name}`;
    let key = start;
    for (let times = 2; placed[of].has(key); times += 1) key = `${start} ${times}`;
    placed[of].set(key, { held, text: value });
  });
  return placed;
}

function textKind({ holds }: Property): 'words' | 'conditions' | null {
  if (holds === 'words' || holds === 'piped words') return 'words';
  return holds === 'condition' || holds === 'expression' ? 'conditions' : null;
}

function isCodeLabel({ kind, name }: Held): boolean {
  return name === 'label' && (kind === 'option' || kind === 'missing' || kind === 'case');
}

const wholeOf = (key: string) => key.split('\n').slice(0, 2).join('\n');

function placedIn({ within }: Held): string {
  return within === null ? '' : 'option' in within ? `option ${within.option}` : `row ${within.row}`;
}

function placeOf({ at, within }: Held): DocumentPlace {
  return { ...placeAt(at), ...within };
}
