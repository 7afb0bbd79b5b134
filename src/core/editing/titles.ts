/** A section's title, and what follows from it: its kind while nobody chose one, and its id. */
import { eachProperty } from '../document/each-property';
import { freshName } from '../document/names';
import type { Questionnaire } from '../document/types';
import type { Change } from './change';
import { guessKind } from './structure';

/** Retitles a section; its kind follows as long as it is what the earlier title suggested. */
export function retitleSection(document: Questionnaire, at: number, title: string): Change {
  const section = document.sections[at];
  const follows = section?.kind === guessKind(section?.title ?? '');
  return {
    label: `Title a section ${title}`,
    mergeKey: `section ${at} title`,
    apply: (draft) => {
      const found = draft.sections[at];
      if (found === undefined) return;
      found.title = title;
      if (follows) found.kind = guessKind(title);
    },
  };
}

/**
 * Gives a section that still has the id it was made with (`section`, `section_2` …) one made from its title,
 * with every target that names it; null where nothing is to change.
 */
export function nameSectionByTitle(
  document: Questionnaire,
  at: number,
): (Change & { readonly id: string }) | null {
  const section = document.sections[at];
  if (section === undefined || section.title.trim() === '' || !/^section(_\d+)?$/.test(section.id))
    return null;
  const taken = new Set(document.sections.filter((_, s) => s !== at).map(({ id }) => id.toLowerCase()));
  const [from, id] = [section.id, freshName(section.title, taken)];
  if (id === from) return null;
  return {
    id,
    label: `Title a section ${section.title}`,
    mergeKey: `section ${at} title`,
    apply: (draft) => {
      eachProperty(draft, ({ holder, kind, name, property: { holds }, value }) => {
        const names = holds === 'section' || (kind === 'section' && holds === 'id');
        if (names && value === from) holder[name] = id;
      });
    },
  };
}
