/** What to call a target on screen, and where it can be found on the sheet. */
import { address, type Address } from '../document/addresses';
import type { EndingKind, Questionnaire, Target } from '../document/types';
import { sectionLetter } from '../document/variables';
import { ENDINGS } from '../document/vocabularies';
import type { Plan, PlanTarget } from '../routing/plan';

export interface TargetView {
  /** Where it is on the sheet; null for the next pass. */
  readonly anchor: Address | null;
  readonly label: string;
  /** Set where it is an ending. */
  readonly ending: EndingKind | null;
}

/** An ending's word, with its id where another has the same kind. */
export function endingLabel(document: Questionnaire, id: string): string {
  const ending = document.endings.find((entry) => entry.id === id);
  if (ending === undefined) return id;
  const word = ENDINGS[ending.kind].word;
  return document.endings.filter(({ kind }) => kind === ending.kind).length > 1 ? `${word}: ${id}` : word;
}

export function sectionLabel(document: Questionnaire, index: number): string {
  return `${sectionLetter(index)} ${document.sections[index]?.title ?? ''}`;
}

/** A target that cannot be used is told as such, without an anchor. */
export function targetView(plan: Plan, target: PlanTarget): TargetView {
  const { document } = plan;
  switch (target.to) {
    case 'item': {
      const name = plan.sections[target.section]?.items[target.item]?.item.name ?? '';
      return { anchor: address('item', name), label: name, ending: null };
    }
    case 'section': {
      const label = sectionLabel(document, target.section);
      return { anchor: address('section', document.sections[target.section]?.id ?? ''), label, ending: null };
    }
    case 'ending': {
      const ending = plan.endings[target.ending]?.ending;
      return {
        anchor: address('ending', ending?.id ?? ''),
        label: endingLabel(document, ending?.id ?? ''),
        ending: ending?.kind ?? null,
      };
    }
    case 'next-pass':
      return { anchor: null, label: 'next pass', ending: null };
    default:
      return target satisfies never;
  }
}

/** A target as the document writes it, in words; one that is not there is shown as written. */
export function targetWords(document: Questionnaire, target: Target): string {
  if ('ending' in target) return endingLabel(document, target.ending);
  if ('item' in target) return target.item;
  if ('nextPass' in target) return 'next pass';
  const index = document.sections.findIndex(({ id }) => id === target.section);
  return index < 0 ? target.section : sectionLabel(document, index);
}

export interface PossibleTarget {
  readonly target: Target;
  readonly label: string;
  /** The question or section in words; empty for an ending. */
  readonly words: string;
  readonly ending: EndingKind | null;
}

/**
 * Every target a skip from an item may have (`item` null: from the section's end), the likely ones first: the
 * item after the next, the next section, the early endings; then all that lies further on, in document order.
 */
export function possibleTargets(
  document: Questionnaire,
  section: number,
  item: number | null,
): PossibleTarget[] {
  const ofSection = (index: number): PossibleTarget[] => {
    const found = document.sections[index];
    if (found === undefined) return [];
    return [
      {
        target: { section: found.id },
        label: sectionLabel(document, index),
        words: found.kind,
        ending: null,
      },
    ];
  };
  const items = (index: number, from: number): PossibleTarget[] =>
    (document.sections[index]?.items ?? [])
      .slice(from)
      .flatMap((entry) =>
        entry.kind === 'page_break'
          ? []
          : [{ target: { item: entry.name }, label: entry.name, words: entry.text, ending: null }],
      );
  const endings = document.endings.map((ending): PossibleTarget => ({
    target: { ending: ending.id },
    label: endingLabel(document, ending.id),
    words: '',
    ending: ending.kind,
  }));
  const here = item === null ? [] : items(section, item + 1).slice(1);
  const home = document.sections[section];
  const nextPass: PossibleTarget[] =
    home?.repeat !== undefined && item !== null
      ? [{ target: { nextPass: true }, label: 'next pass', words: 'of this section', ending: null }]
      : [];
  const later = document.sections.slice(section + 1).flatMap((entry, n) => {
    const index = section + 1 + n;
    // A section that repeats, draws or shuffles is entered at its start only.
    const closed = entry.repeat !== undefined || entry.draw !== undefined || entry.shuffle;
    return [...ofSection(index), ...(closed ? [] : items(index, 0).slice(1))];
  });
  const likely = [
    ...nextPass,
    ...here.slice(0, 1),
    ...ofSection(section + 1),
    ...endings.filter(({ ending }) => ending !== 'complete'),
    ...endings.filter(({ ending }) => ending === 'complete'),
  ];
  const all = [...likely, ...here, ...later];
  const keys = all.map(({ target }) => JSON.stringify(target));
  return all.filter((_, index) => keys.indexOf(keys[index] ?? '') === index);
}
