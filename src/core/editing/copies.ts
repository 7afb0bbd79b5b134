/** Copies of items and sections with names of their own: what refers to one another among them refers to the copies. */
import { produce } from 'immer';
import { rowsOf } from '../document/answer-types';
import { freshName } from '../document/names';
import type { Item, Questionnaire, Section } from '../document/types';
import { renameVariable } from './rename';
import { takenNames } from './structure';

/** Items as they can be put in beside the ones they were copied from. */
export function copiesOfItems(document: Questionnaire, items: readonly Item[]): readonly Item[] {
  const copy = renamed(document, [{ id: 'copies', title: '', kind: 'topic', items }]);
  return copy[0]?.items ?? [];
}

/** A section as it can be put in behind the one it was copied from. */
export function copyOfSection(document: Questionnaire, section: Section): Section {
  const ids = new Set(document.sections.map(({ id }) => id.toLowerCase()));
  const [copy = section] = renamed(document, [section]);
  const id = ids.has(section.id.toLowerCase()) ? freshName(`${section.id}_copy`, ids) : section.id;
  return { ...copy, id, title: `${section.title} (copy)` };
}

/** With every name of their own changed for a fresh one, wherever it is used in them. */
function renamed(document: Questionnaire, sections: readonly Section[]): readonly Section[] {
  const taken = takenNames(document);
  const names = sections.flatMap(({ items }) => items.flatMap(namesOf));
  const part: Questionnaire = {
    format: document.format,
    version: document.version,
    title: '',
    language: document.language,
    missing: document.missing,
    sections,
    endings: [],
  };
  return produce(part, (draft) => {
    for (const name of names) {
      const fresh = taken.has(name.toLowerCase()) ? freshName(copyName(name), taken) : name;
      taken.add(fresh.toLowerCase());
      renameVariable(name, fresh).apply(draft);
    }
  }).sections;
}

/** `heat` and `heat_2` both give `heat_2` to begin with. */
function copyName(name: string): string {
  return name.replace(/_\d+$/, '');
}

function namesOf(item: Item): string[] {
  if (item.kind === 'page_break') return [];
  const rows = item.kind === 'question' ? rowsOf(item.answer) : [];
  return [item.name, ...rows.map(({ name }) => name)];
}
