/** What the conditions, skips and pipes of one section can see of the rest of a questionnaire. */
import { routingText } from '../document/routing-content';
import type { Questionnaire, Section } from '../document/types';

/** Of sections that have been looked at; a section is never changed in place. */
const looks = new WeakMap<Section, string>();

/**
 * Whether all that one section can see of another is the same: names, kinds of answers with their codes and limits,
 * order, repeats; given values, quotas, derived variables and endings. Words may differ. May say no where it is yes.
 */
export function isSameSurroundings(a: Questionnaire, b: Questionnaire): boolean {
  return (
    a.given === b.given &&
    a.quotas === b.quotas &&
    a.derived === b.derived &&
    a.endings === b.endings &&
    a.sections.length === b.sections.length &&
    a.sections.every((section, s) => {
      const other = b.sections[s];
      return other !== undefined && (section === other || lookOf(section) === lookOf(other));
    })
  );
}

function lookOf(section: Section): string {
  const known = looks.get(section);
  if (known !== undefined) return known;
  const { id, repeat, draw, shuffle, items } = section;
  const look = routingText([
    id,
    repeat ?? null,
    draw ?? null,
    shuffle ?? null,
    items.map((item) =>
      item.kind === 'page_break'
        ? null
        : [item.kind, item.name, item.kind === 'question' ? item.answer : null],
    ),
  ]);
  looks.set(section, look);
  return look;
}
