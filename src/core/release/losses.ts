/** What a file did not bring back: every property that is other, by its place, found by reading the file again. */
import { readAddress, WHOLE_STUDY, type Address } from '../document/addresses';
import { eachProperty, type Held } from '../document/each-property';
import type { Questionnaire } from '../document/types';
import type { Loss } from './format-types';

/** What of `document` is not in `back`, or is other there; a thing that lacks as a whole is told once. */
export function lossesBetween(document: Questionnaire, back: Questionnaire): Loss[] {
  const [before, after] = [propertiesIn(document), propertiesIn(back)];
  const there = new Set([...after.values()].map(({ held }) => held.at));
  const told = new Map<string, Loss>();
  const tell = (at: Address, what: string) => {
    const key = `${at}\n${what}`;
    if (!told.has(key)) told.set(key, { at, what });
  };
  for (const [key, { held, value }] of before) {
    if (after.get(key)?.value === value) continue;
    if (!there.has(held.at)) tell(held.at, 'all of it');
    else tell(held.at, partWords(held));
  }
  // What came that was not there is a difference as well.
  for (const [key, { held }] of after)
    if (!before.has(key)) tell(placeIn(document, held.at), `${partWords(held)}, which is made up`);
  return [...told.values()];
}

interface PropertyHeld {
  readonly held: Held;
  readonly value: string;
}

/** Of properties that hold no parts, by where they stand. */
function propertiesIn(document: Questionnaire): Map<string, PropertyHeld> {
  const found = new Map<string, PropertyHeld>();
  eachProperty(document, (held) => {
    const { at, within, kind, name, value, property } = held;
    const isParts = property.parts !== undefined;
    if (isParts && (!Array.isArray(value) || value.length > 0)) return;
    const stem = `${at} ${JSON.stringify(within)} ${kind} ${name}`;
    let key = stem;
    for (let n = 2; found.has(key); n += 1) key = `${stem} ${n}`;
    found.set(key, { held, value: JSON.stringify(value) });
  });
  return found;
}

function partWords({ property, name, kind, within, at }: Held): string {
  const isRouting = kind === 'skip' || kind === 'target';
  const { kind: place } = readAddress(at);
  const words =
    (isRouting ? (ROUTING_WORDS[place] ?? 'where it leads') : PART_WORDS[kind]) ??
    property.called ??
    name.replaceAll(/[A-Z]/g, (sign) => ` ${sign.toLowerCase()}`);
  const where =
    within === null ? '' : 'option' in within ? ` of answer ${within.option}` : ` of row ${within.row}`;
  return `${words}${where}`;
}

const ROUTING_WORDS: Partial<Record<string, string>> = { item: 'a skip', section: 'where its end leads' };

/** Parts that have no place of their own, and are told as a whole. */
const PART_WORDS: Partial<Record<Held['kind'], string>> = {
  check: 'a check',
  picture: 'picture',
  assume: 'assumed answers',
  assumeWhere: 'assumed answers',
  assumeOf: 'assumed answers',
  assumeSet: 'assumed answers',
  range: 'assumed answers',
  case: 'a case',
  message: 'a message',
  next: 'what comes next',
  settings: 'settings',
  forecast: 'what a forecast is made for',
  prices: 'what a forecast is made for',
  wanted: 'what a forecast is made for',
  pace: 'reading speed and seconds an act',
  defaults: 'settings for new questions',
  theme: 'look',
  missing: 'missing codes',
  repeat: 'repeated',
};

/** Something that is no part of the study itself is told of the whole. */
function placeIn(document: Questionnaire, at: Address): Address {
  let isThere = false;
  eachProperty(document, (held) => (isThere ||= held.at === at));
  return isThere ? at : WHOLE_STUDY;
}
