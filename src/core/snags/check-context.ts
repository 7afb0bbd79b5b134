/**
 * What the checks ask the analysis: every condition of a questionnaire with the places where it is tried, who gets
 * there, and one of them.
 */
import type { Draft } from 'immer';
import {
  FALSE,
  type Analysis,
  type Diagram,
  type Diagrams,
  type EncodedPlan,
  type Flow,
  type Viewpoint,
} from '../analysis';
import type { Condition } from '../condition/syntax';
import { hasRows, rowsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Option } from '../document/types';
import { applyChange, type Change, type DocumentDraft } from '../editing/change';
import type { ItemPlace } from '../editing/structure';
import { onwardList, type Plan, type PlanItem, type PlanSection } from '../routing/plan';
import type { DocumentPlace } from '../routing/problems';
import type { Mend, SnagWitness } from './types';

/** A condition as it is tried at one place. */
export interface PlacedCondition {
  /** Number of the place. */
  readonly at: number;
  readonly standing: Viewpoint;
  /** Those who get there: for a skip, who answered the question, whatever skips come before. */
  readonly here: Diagram;
  /** That the condition holds. */
  readonly when: Diagram;
}

/** A condition that steers, where it is written and where it is tried: once a pass in a repeat. */
export interface Site {
  readonly role: 'item' | 'section' | 'option' | 'row' | 'skip' | 'onward' | 'quota';
  readonly at: DocumentPlace;
  /** Null: a skip or onward without one, which everybody takes. */
  readonly condition: Condition | null;
  /** As the author wrote it. */
  readonly text: string;
  readonly spots: readonly PlacedCondition[];
  /** The item it belongs to, where it belongs to one. */
  readonly planItem: PlanItem | null;
}

export class CheckContext {
  readonly encoded: EncodedPlan;
  readonly diagrams: Diagrams;
  readonly sites: readonly Site[];
  /** All items, in order. */
  readonly items: readonly PlanItem[];
  private readonly broken: ReadonlySet<string>;

  /** `flow`: of this plan, or of one that differs from it by words alone. */
  constructor(
    readonly plan: Plan,
    readonly analysis: Analysis,
    readonly flow: Flow,
  ) {
    this.encoded = flow.encoded;
    this.diagrams = this.encoded.diagrams;
    this.broken = new Set(this.plan.problems.map(({ at }) => JSON.stringify(at)));
    this.items = this.plan.sections.flatMap(({ items }) => items);
    this.sites = this.plan.sections.flatMap((section) => this.sitesOf(section));
  }

  /** Whether a place is known to be broken already, so that what follows from it need not be said too. */
  isBroken(at: DocumentPlace): boolean {
    return this.broken.has(JSON.stringify(at));
  }

  /** Places of an item, one a pass. */
  placesOf({ section, index }: PlanItem): number[] {
    return this.passesOf(section).map((pass) => this.encoded.course.item(section, pass, index));
  }

  standingOf({ section }: PlanItem, at: number): Viewpoint {
    const place = this.encoded.course.places[at];
    const repeated = this.plan.sections[section]?.repeat !== null;
    return { section, pass: repeated && place?.kind === 'item' ? place.pass : null };
  }

  /** Where an item stands in the document. */
  placeOf({ section, place }: PlanItem): ItemPlace {
    return { section, item: place };
  }

  /** One of those who come to a place with something true of them, or nothing to add to a snag. */
  witness(at: number, mass: Diagram): { readonly witness?: SnagWitness } {
    const found = this.flow.respondent(at, mass);
    return found === null ? {} : { witness: found };
  }

  /** The first spot of which something holds for somebody; `what` gives the diagram of that. */
  firstSpot(
    spots: readonly PlacedCondition[],
    what: (spot: PlacedCondition) => Diagram,
  ): { spot: PlacedCondition; mass: Diagram } | null {
    for (const spot of spots) {
      const mass = what(spot);
      if (mass !== FALSE) return { spot, mass };
    }
    return null;
  }

  mend(change: Change): Mend {
    const { step } = applyChange(this.plan.document, change);
    return { label: change.label, patches: step.forward };
  }

  /** A mend written as an edit of the draft. */
  mendBy(label: string, apply: (draft: DocumentDraft) => void): Mend {
    return this.mend({ label, apply });
  }

  /** A mend that writes another condition in the place of a site's own. */
  mendCondition({ role, at, planItem, text }: Site, by: string): Mend {
    return this.mendBy(`Write “${by}” for “${text}”`, (draft) => {
      const section = draft.sections.find(({ id }) => id === at.section);
      const found = planItem === null ? undefined : draft.sections[planItem.section]?.items[planItem.place];
      const item = found === undefined || found.kind === 'page_break' ? undefined : found;
      switch (role) {
        case 'section':
          if (section !== undefined) section.askIf = by;
          break;
        case 'item':
          if (item !== undefined) item.askIf = by;
          break;
        case 'option': {
          const option = item?.kind === 'question' ? draftOptions(item.answer) : [];
          for (const each of option) if (each.code === at.option) each.askIf = by;
          break;
        }
        case 'row':
          if (item?.kind === 'question' && hasRows(item.answer))
            for (const row of item.answer.rows) if (row.name === at.row) row.askIf = by;
          break;
        case 'skip': {
          const skip = item?.skips?.[at.skip ?? -1];
          if (skip !== undefined) skip.if = by;
          break;
        }
        case 'onward': {
          const onward = section?.onward;
          const entry = Array.isArray(onward) ? onward[at.onward ?? -1] : undefined;
          if (entry !== undefined) entry.if = by;
          break;
        }
        case 'quota':
          for (const quota of draft.quotas ?? []) if (quota.id === at.quota) quota.if = by;
          break;
        default:
          role satisfies never;
      }
    });
  }

  private passesOf(section: number): number[] {
    const { repeat } = this.plan.sections[section] as PlanSection;
    return Array.from({ length: repeat?.max ?? 1 }, (_, n) => n + 1);
  }

  private sitesOf(section: PlanSection): Site[] {
    const { section: written, index, gate, items } = section;
    const outside = { section: index, pass: null };
    const { course } = this.encoded;
    const found: Site[] = [];
    if (gate !== null) {
      const gates = course.places.flatMap((place, at) =>
        place.kind === 'gate' && place.section === index ? [at] : [],
      );
      found.push({
        role: 'section',
        at: { section: written.id },
        condition: gate,
        text: written.askIf ?? '',
        planItem: null,
        spots: gates.map((at) => this.spot(at, outside, this.flow.comesTo(at), gate)),
      });
    }
    for (const planItem of items) found.push(...this.itemSites(planItem));
    const end = course.end(index, this.passesOf(index).length);
    const list = onwardList(written);
    for (const { index: n, if: condition } of section.onward) {
      found.push({
        role: 'onward',
        at: { section: written.id, onward: n },
        condition,
        text: list[n]?.if ?? '',
        planItem: null,
        spots: [this.spot(end, outside, this.flow.comesTo(end), condition)],
      });
    }
    return found;
  }

  private itemSites(planItem: PlanItem): Site[] {
    const { item, askIf, optionIf, rowIf, skips, quotas } = planItem;
    const places = this.placesOf(planItem);
    const own = { item: item.name };
    const site = (
      role: Site['role'],
      at: DocumentPlace,
      condition: Condition | null,
      text: string,
      here: (place: number) => Diagram,
    ): Site => ({
      role,
      at,
      condition,
      text,
      planItem,
      spots: places.map((place) =>
        this.spot(place, this.standingOf(planItem, place), here(place), condition),
      ),
    });
    const found: Site[] = [];
    if (askIf !== null)
      found.push(site('item', own, askIf, item.askIf ?? '', (place) => this.flow.comesTo(place)));
    const presented = (place: number) => this.flow.presentedAt(place);
    const answered = (place: number) => this.flow.answersAt(place);
    if (item.kind === 'question') {
      const options = optionsOf(item.answer);
      optionIf.forEach((condition, o) => {
        const option = options[o];
        if (condition !== null && option !== undefined)
          found.push(
            site('option', { ...own, option: option.code }, condition, option.askIf ?? '', presented),
          );
      });
      const rows = rowsOf(item.answer);
      rowIf.forEach((condition, r) => {
        const row = rows[r];
        if (condition !== null && row !== undefined)
          found.push(site('row', { ...own, row: row.name }, condition, row.askIf ?? '', presented));
      });
    }
    for (const { id, if: condition } of quotas) {
      const text = this.plan.document.quotas?.find((quota) => quota.id === id)?.if ?? '';
      found.push(site('quota', { quota: id }, condition, text, answered));
    }
    for (const { index, if: condition } of skips)
      found.push(site('skip', { ...own, skip: index }, condition, item.skips?.[index]?.if ?? '', answered));
    return found;
  }

  private spot(at: number, standing: Viewpoint, here: Diagram, condition: Condition | null): PlacedCondition {
    const when = condition === null ? 1 : this.encoded.conditionAt(condition, standing);
    return { at, standing, here, when };
  }
}

/** The options of an answer that is being edited. */
export function draftOptions(answer: Draft<Answer>): Draft<Option>[] {
  return optionsOf(answer as Answer) as Draft<Option>[];
}
