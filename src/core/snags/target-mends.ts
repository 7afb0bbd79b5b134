/** What mends a skip or onward whose target cannot be used: the places it most likely means, or taking it away. */
import { castDraft } from 'immer';
import type { Onward, Questionnaire, Skip, Target } from '../document/types';
import { applyChange } from '../editing/change';
import { onwardList } from '../routing/plan';
import type { DocumentPlace } from '../routing/problems';
import { possibleTargets } from '../wording/targets';
import type { Mend } from './types';

/** Places offered where nothing says which is meant: the item after the next, and the next section. */
const OFFERED = 2;

/** Likeliest first; none where the place has no skip or onward any more. */
export function targetMends(document: Questionnaire, at: DocumentPlace): Mend[] {
  const home = homeOf(document, at);
  if (home === null) return [];
  const { section, item, list } = home;
  const index = at.skip ?? at.onward ?? -1;
  const entry = list[index];
  if (entry === undefined) return [];
  const possible = possibleTargets(document, section, item);
  // What stands in a section that is entered at its start only is come to by that section.
  const around = document.sections.find(({ items }) => items.some((each) => isAimedAt(each, entry.to)));
  const start = possible.find(({ target }) => 'section' in target && target.section === around?.id);
  const further = possible.filter(({ target }) => 'item' in target || 'section' in target).slice(0, OFFERED);
  const what = at.skip === undefined ? 'the end of the section' : `skip ${at.skip + 1}`;
  return [
    ...(start === undefined ? further : [start]).flatMap(({ target, label }) =>
      mend(document, `Aim ${what} at ${label}`, home, list.with(index, { ...entry, to: target })),
    ),
    ...mend(
      document,
      at.skip === undefined ? 'Delete this onward' : `Delete skip ${at.skip + 1}`,
      home,
      list.toSpliced(index, 1),
    ),
  ];
}

interface TargetHome {
  readonly section: number;
  /** Index in the section; null: its end. */
  readonly item: number | null;
  readonly list: readonly (Skip | Onward)[];
}

function homeOf({ sections }: Questionnaire, at: DocumentPlace): TargetHome | null {
  for (const [section, found] of sections.entries()) {
    if (at.item === undefined && found.id === at.section)
      return { section, item: null, list: onwardList(found) };
    for (const [item, each] of found.items.entries())
      if (each.kind !== 'page_break' && each.name === at.item)
        return { section, item, list: each.skips ?? [] };
  }
  return null;
}

function isAimedAt(item: Questionnaire['sections'][number]['items'][number], target: Target): boolean {
  return item.kind !== 'page_break' && 'item' in target && target.item === item.name;
}

function mend(
  document: Questionnaire,
  label: string,
  { section, item }: TargetHome,
  list: readonly (Skip | Onward)[],
): Mend[] {
  const { step } = applyChange(document, {
    label,
    apply: (draft) => {
      const found = draft.sections[section];
      const owner = item === null ? null : found?.items[item];
      if (found === undefined || owner?.kind === 'page_break') return;
      if (owner == null) {
        if (list.length === 0) delete found.onward;
        else found.onward = castDraft([...list]) as typeof found.onward;
      } else if (list.length === 0) delete owner.skips;
      else owner.skips = castDraft([...list]) as typeof owner.skips;
    },
  });
  return [{ label, patches: step.forward }];
}
