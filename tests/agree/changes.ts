/** Edits at random, of the kinds that authors make: of structure, and of words, conditions, limits and names. */
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type { Questionnaire } from '../../src/core/document/types';
import type { Change, DocumentDraft } from '../../src/core/editing/change';
import {
  addDerived,
  addGiven,
  addQuota,
  moveDeclaration,
  quotaProblem,
  removeDeclaration,
} from '../../src/core/editing/declarations';
import { renameVariable } from '../../src/core/editing/rename';
import {
  addSections,
  duplicateItems,
  duplicateSection,
  mergeProblem,
  mergeSections,
  moveItems,
  removeItems,
  splitProblem,
  splitSection,
} from '../../src/core/editing/restructure';
import { moveSection, removeSection, type ItemPlace } from '../../src/core/editing/structure';
import { planOf } from '../../src/core/routing/planner';

export type Int = (from: number, to: number) => number;

export function intOf(seed: number): Int {
  const random = xoroshiro128plus(seed);
  return (from, to) => uniformInt(random, from, to);
}

export function anyPlace({ sections }: Questionnaire, int: Int): ItemPlace {
  const section = int(0, sections.length - 1);
  return { section, item: int(0, Math.max(0, (sections[section]?.items.length ?? 0) - 1)) };
}

export function somePlaces(document: Questionnaire, int: Int): ItemPlace[] {
  const all = document.sections.flatMap(({ items }, section) => items.map((_, item) => ({ section, item })));
  const from = int(0, Math.max(0, all.length - 1));
  return all.slice(from, from + int(1, 3));
}

/** A change of structure of the kind that authors make; null where it does not apply. */
export function anyChange(document: Questionnaire, int: Int): Change | null {
  const { sections } = document;
  const at = int(0, sections.length - 1);
  const place = anyPlace(document, int);
  const some = somePlaces(document, int);
  const names = [...planOf(document).variables.values()].map(({ name }) => name);
  switch (int(0, 13)) {
    case 0:
      return addSections(document, at, ['One', 'Two']);
    case 1:
      return duplicateSection(document, at);
    case 2:
      return splitProblem(document, place) === null ? splitSection(document, place) : null;
    case 3:
      return mergeProblem(document, at) === null ? mergeSections(document, at) : null;
    case 4:
      return some.length > 0 ? duplicateItems(document, some) : null;
    case 5:
      return removeItems(document, some);
    case 6:
      return moveItems(document, some, place);
    case 7:
      return moveSection(document, at, int(0, sections.length - 1));
    case 8:
      return sections.length > 1 ? removeSection(document, at) : null;
    case 9:
      return addGiven(document, int(0, 1) === 1);
    case 10:
      return quotaProblem(document) === null ? addQuota(document) : null;
    case 11:
      return addDerived(document, int(0, 1) === 1 ? 'cases' : 'value');
    case 12:
      return (document.derived?.length ?? 0) > 1
        ? moveDeclaration('derived', 0, 1)
        : removeDeclaration(document, 'given', 0);
    default:
      return names[0] === undefined ? null : renameVariable(names[0], `renamed${int(1, 999)}`);
  }
}

/** Words, conditions, limits and names, good ones and bad, each in one place. */
export function retouch(draft: DocumentDraft, int: Int): void {
  const section = draft.sections[int(0, draft.sections.length - 1)];
  const item = section?.items[int(0, Math.max(0, section.items.length - 1))];
  const conditions = draft.sections.flatMap(({ items }) =>
    items.flatMap((each) => (each.kind === 'page_break' ? [] : (each.askIf ?? []))),
  );
  if (section === undefined) return;
  if (item === undefined || item.kind === 'page_break' || int(0, 9) === 0) {
    section.title += ` {${item !== undefined && item.kind !== 'page_break' ? item.name : 'nothing'}}`;
    return;
  }
  switch (int(0, 7)) {
    case 0:
      item.text += ['', ' more', ' {pass}', ' {nobody}'][int(0, 3)] ?? '';
      break;
    case 1:
      item.askIf = conditions[int(0, Math.max(0, conditions.length - 1))] ?? 'nobody = 1';
      break;
    case 2:
      delete item.askIf;
      break;
    case 3:
      if (item.kind === 'question' && 'options' in item.answer && item.answer.options?.[0])
        item.answer.options[0].label += '!';
      break;
    case 4:
      if (item.kind === 'question' && 'options' in item.answer && item.answer.options?.[0])
        item.answer.options[0].code += int(1, 3);
      break;
    case 5:
      if (item.kind === 'question' && item.answer.type === 'number') item.answer.max -= int(0, 9);
      break;
    case 6:
      item.skips = [{ to: { ending: draft.endings[0]?.id ?? '' } }];
      break;
    default:
      item.name += 'x';
  }
}
