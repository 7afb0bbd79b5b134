/** Where skips, onward entries and quotas lead to: targets found by name, or refused with what is wrong with them. */
import { isBefore, type Position } from '../condition/scope';
import type { Planning } from './planning';
import type { Section, Target } from '../document/types';
import { isRepeated } from '../document/variables';
import { type PlanTarget } from './plan';
import type { DocumentPlace, PlanRule } from './problems';

export class TargetFinder {
  private readonly sectionIndex = new Map<string, number>();
  private readonly endingIndex = new Map<string, number>();
  private readonly itemPosition = new Map<string, { section: number; place: number; item: number }>();

  constructor(private readonly planning: Planning) {
    const { document } = planning;
    document.sections.forEach((section, s) => {
      if (!this.sectionIndex.has(section.id)) this.sectionIndex.set(section.id, s);
      let item = 0;
      section.items.forEach((entry, place) => {
        if (entry.kind === 'page_break') return;
        if (!this.itemPosition.has(entry.name))
          this.itemPosition.set(entry.name, { section: s, place, item });
        item += 1;
      });
    });
    document.endings.forEach((ending, e) => {
      if (!this.endingIndex.has(ending.id)) this.endingIndex.set(ending.id, e);
    });
  }

  /** Where an item stands; the first with the name where several have it. `place` counts page breaks, `item` does not. */
  positionOf(item: string): { section: number; place: number; item: number } | undefined {
    return this.itemPosition.get(item);
  }

  /** Finds a target, which must lie at or after `from`; null, with a problem reported, where it cannot be used. */
  find(target: Target, from: Position, openPass: number | null, at: DocumentPlace): PlanTarget | null {
    const refuse = (rule: PlanRule, message: string) => {
      this.planning.report(rule, at, 'to', message);
      return null;
    };
    if ('ending' in target) {
      const ending = this.endingIndex.get(target.ending);
      if (ending !== undefined) return { to: 'ending', ending };
      return refuse('unknown-target', `there is no ending “${target.ending}”: choose another target`);
    }
    if ('nextPass' in target) {
      if (openPass !== null) return { to: 'next-pass' };
      return refuse(
        'unknown-target',
        '“next pass” has a meaning inside a repeated section only: choose another target',
      );
    }
    if ('section' in target) {
      const section = this.sectionIndex.get(target.section);
      if (section === undefined)
        return refuse('unknown-target', `there is no section “${target.section}”: choose another target`);
      if (isBefore({ section, item: 0 }, from)) {
        return refuse(
          'backward-skip',
          `section “${target.section}” is not further on, so respondents would go round in circles: aim at a later place`,
        );
      }
      return { to: 'section', section };
    }
    const position = this.itemPosition.get(target.item);
    if (position === undefined)
      return refuse('unknown-target', `there is no item “${target.item}”: choose another target`);
    if (isBefore({ section: position.section, item: position.place }, from)) {
      return refuse(
        'backward-skip',
        `“${target.item}” is not further on, so respondents would go round in circles: aim at a later place`,
      );
    }
    const section = this.planning.document.sections[position.section] as Section;
    const outside = position.section !== from.section || at.onward !== undefined;
    const guarded = isRepeated(section) || section.draw !== undefined || section.shuffle;
    if (outside && guarded && position.item > 0) {
      return refuse(
        'enters-repeat',
        `“${target.item}” is in the middle of a section that repeats, draws or shuffles: aim at the section, which is entered at its start`,
      );
    }
    return { to: 'item', section: position.section, item: position.item };
  }
}
