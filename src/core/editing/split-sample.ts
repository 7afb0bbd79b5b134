/**
 * A split sample written into the script: a random arm of two, and the ask-ifs that go with it. Some questions are asked of a
 * random half, or a block is cut in two, of which each random half of the sample is asked one.
 */
import { eachName } from '../condition/syntax';
import { answeredNames } from '../document/answer-types';
import { freshName } from '../document/names';
import type { Given, Questionnaire, Section } from '../document/types';
import { pipedInto } from '../routing/pipes';
import type { Plan, PlanItem } from '../routing/plan';
import type { Change } from './change';
import { joinConditions } from './picking';
import { takenNames } from './structure';

/** Where a block is cut: its items before `at` go to one half of the sample, the others to the other one. */
export interface Cut {
  readonly section: number;
  /** Index in the section's `items`. */
  readonly at: number;
}

/** A part of the sample that is asked, by the code of the arm. */
type Halves = readonly { readonly names: ReadonlySet<string>; readonly code: number }[];

/** Some items are asked of a random half of those who are asked them now. `of`: what they are called together. */
export function askOfHalf(
  document: Questionnaire,
  names: readonly string[],
  of: string,
): Change & { readonly arm: string } {
  return splitting(document, [{ names: new Set(names), code: 1 }], of, `Ask ${of} of a random half`);
}

/** Each half of the sample is asked its part of a block; see `cutOf`. */
export function askInHalves(document: Questionnaire, cut: Cut): Change & { readonly arm: string } {
  const section = document.sections[cut.section];
  const names = (items: Section['items']) =>
    new Set(items.flatMap((item) => ('name' in item ? [item.name] : [])));
  const [first, second] = [section?.items.slice(0, cut.at) ?? [], section?.items.slice(cut.at) ?? []];
  const halves: Halves = [
    { names: names(first), code: 1 },
    { names: names(second), code: 2 },
  ];
  const title = section?.title ?? '';
  return splitting(document, halves, section?.id ?? '', `Split “${title}” at random in halves`);
}

/**
 * The cut nearest the middle by number of questions, such that nothing in the second part reads an answer of the first; or, as a
 * sentence, why the block cannot be cut.
 */
export function cutOf({ document, sections }: Plan, section: number): Cut | string {
  const planned = sections[section];
  const written = document.sections[section];
  if (planned === undefined || written === undefined) return 'There is no such section.';
  if (written.kind !== 'topic')
    return 'Everybody has to go through a section of this kind: a block of questions on a topic can be split.';
  if (written.draw !== undefined) return 'It draws some of its questions for each respondent already.';
  const { items } = planned;
  const questions = (some: readonly PlanItem[]) => some.filter(({ item }) => item.kind === 'question').length;
  const half = questions(items) / 2;
  const cuts = items.flatMap((_, n) => {
    const [first, second] = [items.slice(0, n), items.slice(n)];
    const isEmpty = questions(first) === 0 || questions(second) === 0;
    return isEmpty || readsOf(first, second) ? [] : [{ n, away: Math.abs(questions(first) - half) }];
  });
  const [best] = cuts.sort((a, b) => a.away - b.away);
  const at = best === undefined ? undefined : items[best.n]?.place;
  if (at !== undefined) return { section, at };
  return questions(items) < 2
    ? 'There is only one question in it: ask that of a random half instead.'
    : 'Its later questions hang on the earlier ones wherever it is cut: ask all of it of a random half instead.';
}

/** Whether some items read an answer of others: in a condition, a check, a skip or a pipe. */
function readsOf(others: readonly PlanItem[], items: readonly PlanItem[]): boolean {
  const names = new Set(others.flatMap(({ item }) => namesIn(item)));
  return items.some((planItem) => {
    const conditions = [
      planItem.askIf,
      ...planItem.optionIf,
      ...planItem.rowIf,
      ...planItem.checks.map((check) => check.if),
      ...planItem.skips.map((skip) => skip.if),
    ];
    let reads = pipedInto(planItem.item).some((name) => names.has(name.toLowerCase()));
    for (const condition of conditions)
      if (condition !== null) eachName(condition, ({ name }) => (reads ||= names.has(name.toLowerCase())));
    return reads;
  });
}

function namesIn(item: PlanItem['item']): string[] {
  const names = item.kind === 'question' ? [item.name, ...answeredNames(item)] : [item.name];
  return names.map((name) => name.toLowerCase());
}

function splitting(
  document: Questionnaire,
  halves: Halves,
  of: string,
  label: string,
): Change & { readonly arm: string } {
  const arm = freshName(`half_of_${of}`, takenNames(document));
  const given: Given = {
    name: arm,
    label: `Random half for ${of}`,
    answer: {
      type: 'single',
      options: [
        { code: 1, label: halves.length === 1 ? 'Asked' : 'First part' },
        { code: 2, label: halves.length === 1 ? 'Not asked' : 'Second part' },
      ],
    },
    random: true,
  };
  return {
    arm,
    label,
    telling: true,
    apply(draft) {
      draft.given = [
        ...(draft.given ?? []),
        structuredClone(given) as NonNullable<typeof draft.given>[number],
      ];
      for (const { items } of draft.sections)
        for (const item of items) {
          const code = 'name' in item ? halves.find(({ names }) => names.has(item.name))?.code : undefined;
          if (code !== undefined && 'name' in item)
            item.askIf = joinConditions(item.askIf ?? '', 'and', `${arm} = ${code}`);
        }
    },
  };
}
