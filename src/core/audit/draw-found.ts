/** Which questions a pass of a section drew, as far as a row's cells tell. */
import { questionIndices } from '../routing/draws';
import type { PlanSection } from '../routing/plan';

/** What a question's cells hold: something, nothing, or a code that says that nobody was asked. */
export type DrawnState = 'touched' | 'blank' | 'not_applicable' | 'unasked';

export interface DrawFound {
  readonly section: PlanSection;
  readonly pass: number;
  /** Indices among the section's items. */
  readonly drawn: ReadonlySet<number>;
  readonly isRightNumber: boolean;
  /** Which of the blank ones were drawn cannot be told: they stay blank. */
  readonly isUnclear: boolean;
}

/**
 * Which questions a row’s answers say were drawn in a pass, from 1; `stateOf` tells what the row has of each.
 */
export function drawIn(
  section: PlanSection,
  pass: number,
  stateOf: (planItem: PlanSection['items'][number]) => DrawnState,
): DrawFound {
  const touched: number[] = [];
  const blank: number[] = [];
  const passedOver: number[] = [];
  for (const item of section.items) {
    if (item.item.kind !== 'question') continue;
    const state = stateOf(item);
    if (state === 'touched') touched.push(item.index);
    else if (state === 'blank') blank.push(item.index);
    else if (state === 'not_applicable') passedOver.push(item.index);
  }
  const wanted = section.section.draw ?? 0;
  const found = (drawn: readonly number[], isRightNumber: boolean, isUnclear: boolean): DrawFound => ({
    section,
    pass,
    drawn: new Set(drawn),
    isRightNumber,
    isUnclear,
  });
  // Those that were drawn and passed over, because nothing of them could be shown, are coded not applicable.
  const candidates = [touched, [...touched, ...passedOver], [...touched, ...passedOver, ...blank]];
  const right = candidates.find(({ length }) => length === wanted);
  if (right !== undefined) return found(right, true, false);
  const hideable = blank.filter((index) => {
    const { optionIf = [], rowIf = [] } = section.items[index] ?? {};
    return [...optionIf, ...rowIf].some((when) => when !== null);
  });
  const couldBe = touched.length < wanted && touched.length + passedOver.length + hideable.length >= wanted;
  return found(touched, couldBe, true);
}

/** As many as are to be drawn: of too many the first, of too few with the last of the others. */
export function asManyAsDrawn({ section, drawn }: DrawFound): number[] {
  const wanted = section.section.draw ?? 0;
  const sorted = [...drawn].sort((a, b) => a - b).slice(0, wanted);
  const others = questionIndices(section).filter((index) => !drawn.has(index));
  return [...sorted, ...others.slice(others.length - (wanted - sorted.length))].sort((a, b) => a - b);
}
