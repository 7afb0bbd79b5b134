/**
 * Two checks of the first sections: refusing consent must end the interview at once, and screening must not let
 * everybody through.
 */
import { FALSE, waysFrom, type Diagram } from '../analysis';
import { picksMany, picksOne } from '../document/answer-types';
import type { EndingKind, Question } from '../document/types';
import type { DocumentDraft } from '../editing/change';
import type { PlanItem, PlanSection } from '../routing/plan';
import type { CheckContext } from './check-context';
import type { Mend, Snag } from './types';

export function consentNotKept(context: CheckContext): Snag[] {
  return context.plan.sections.flatMap((section): Snag[] => {
    if (section.section.kind !== 'consent') return [];
    const questions = section.items.filter(({ item }) => item.kind === 'question');
    if (questions.length === 0) return [];
    const refused = questions.flatMap((planItem) => {
      const { item } = planItem;
      return item.kind === 'question' && item.agrees !== undefined ? notEnded(context, planItem, item) : [];
    });
    if (refused.length > 0 || leadsTo(context, section, 'declined')) return refused;
    return [
      {
        rule: 'consent-not-kept',
        severity: 'error',
        at: { section: section.section.id },
        message: `no answer in this consent section leads to an ending of kind “declined” at once: ${whatRefusersMeet(context, section)}`,
        mends: questions.slice(0, 1).flatMap((planItem) => mendsByAnswer(context, planItem)),
      },
    ];
  });
}

/** What becomes of somebody who refuses, as far as the routing shows it. */
function whatRefusersMeet(context: CheckContext, section: PlanSection): string {
  const { plan, flow, encoded } = context;
  const elsewhere = plan.endings.find(
    ({ ending }) => ending.kind !== 'declined' && endsSeen(context, section).has(ending.kind),
  );
  if (elsewhere !== undefined)
    return `an answer ends at “${elsewhere.ending.id}”, which does not say that consent was refused: aim it at an ending of kind “declined”, if it is a refusal`;
  const later = plan.endings.some(
    ({ ending }, index) => ending.kind === 'declined' && flow.comesTo(encoded.course.ending(index)) !== FALSE,
  );
  return later
    ? 'whoever refuses is asked more before the interview ends'
    : 'whoever refuses is interviewed all the same';
}

/** Mends that lead one answer each to the ending for those who decline, which is made where there is none. */
function mendsByAnswer(context: CheckContext, planItem: PlanItem): Mend[] {
  const { item } = planItem;
  if (item.kind !== 'question' || !picksOne(item.answer)) return [];
  const known = context.plan.endings.find(({ ending }) => ending.kind === 'declined')?.ending.id;
  const id = known ?? freshId(context.plan.endings.map(({ ending }) => ending.id));
  // The first answer is the one that goes on, as a rule.
  const refusals = item.answer.options.filter(({ missing }, index) => index > 0 && missing === undefined);
  return refusals.slice(0, 3).map(({ code, label }) =>
    context.mendBy(`Lead ${code} (“${label}”) to “${id}”`, (draft) => {
      const found = draft.sections[planItem.section]?.items[planItem.place];
      if (found?.kind !== 'question') return;
      found.skips = [{ if: `${item.name} = ${code}`, to: { ending: id } }, ...(found.skips ?? [])];
      if (known === undefined) draft.endings.push(declinedEnding(id));
    }),
  );
}

function declinedEnding(id: string): DocumentDraft['endings'][number] {
  return { id, kind: 'declined', messages: [{ text: 'Thank you. You will not be asked anything further.' }] };
}

function freshId(taken: readonly string[]): string {
  let id = 'declined';
  for (let n = 2; taken.includes(id); n += 1) id = `declined_${n}`;
  return id;
}

export function screeningLetsAll(context: CheckContext): Snag[] {
  return context.plan.sections.flatMap((section): Snag[] => {
    if (section.section.kind !== 'screening') return [];
    if (!section.items.some(({ item }) => item.kind === 'question')) return [];
    if (leadsTo(context, section, 'screened_out')) return [];
    return [
      {
        rule: 'screening-lets-all',
        severity: 'warning',
        at: { section: section.section.id },
        message:
          'no answer in this screening section screens anybody out: aim one at an ending of kind “screened out”, or make it a topic section',
        mends: [
          context.mendBy(`Make “${section.section.title}” a topic section`, (draft) => {
            const of = draft.sections[section.index];
            if (of !== undefined) of.kind = 'topic';
          }),
        ],
      },
    ];
  });
}

/** Whether some way written in a section leads people to an ending of a kind with nothing asked in between. */
function leadsTo(context: CheckContext, section: PlanSection, kind: EndingKind): boolean {
  return endsSeen(context, section).has(kind);
}

/** The kinds of endings to which ways written in a section lead people with nothing asked in between. */
function endsSeen(context: CheckContext, section: PlanSection): ReadonlySet<string> {
  const seen = new Set<string>();
  for (const { role, at, planItem, spots } of context.sites) {
    const here =
      planItem?.section === section.index || (role === 'onward' && at.section === section.section.id);
    if (!here || (role !== 'skip' && role !== 'onward' && role !== 'quota')) continue;
    for (const spot of spots) {
      const mass = context.diagrams.and(spot.here, spot.when);
      if (mass !== FALSE) for (const kind of nextSeen(context, spot.at, mass)) seen.add(kind);
    }
  }
  seen.delete('item');
  return seen;
}

/** What those who answer at a place, or leave a section's end, see next: the kind of an ending, or `item`. */
function nextSeen({ encoded, plan }: CheckContext, from: number, mass: Diagram): string[] {
  const { course, diagrams } = encoded;
  const seen = new Set<string>();
  const silent = new Map<number, Diagram>([[from, mass]]);
  for (let at = from; at < course.places.length; at += 1) {
    const here = silent.get(at);
    const place = course.places[at];
    if (here === undefined) continue;
    if (place?.kind === 'ending') {
      seen.add(plan.endings[place.ending]?.ending.kind ?? '');
      continue;
    }
    for (const { mass: sent, to, presented } of waysFrom(encoded, at, here)) {
      if (to === null) continue;
      if (presented && at !== from) seen.add('item');
      else silent.set(to, diagrams.or(silent.get(to) ?? FALSE, diagrams.forget(sent, encoded.isPastAt(to))));
    }
  }
  return [...seen];
}

/** Somebody who does not agree, or leaves the question blank, and is not at the end then. */
function notEnded(context: CheckContext, planItem: PlanItem, item: Question): Snag[] {
  const { encoded, flow, diagrams, plan } = context;
  const agrees = new Set(item.agrees);
  for (const at of context.placesOf(planItem)) {
    const variable = plan.variables.get(item.name.toLowerCase());
    const symbol = variable && encoded.symbols.get(encoded.keyOf(variable, context.standingOf(planItem, at)));
    const answers = flow.answersAt(at);
    if (answers === FALSE) continue;
    // Where nothing reads the answer, every answer carries on.
    const readings: (readonly [value: unknown, mass: Diagram])[] =
      symbol === undefined
        ? [['', answers]]
        : symbol.readings.map((reading, n) => [
            reading.presented ? reading.value : undefined,
            diagrams.and(answers, symbol.cube(n)),
          ]);
    for (const [value, mass] of readings) {
      if (value === undefined || mass === FALSE) continue;
      const codes: readonly unknown[] = Array.isArray(value) ? value : [value];
      if (codes.length > 0 && codes.every((code) => agrees.has(code as number))) continue;
      const next = nextSeen(context, at, mass);
      if (next.every((kind) => kind === 'declined')) continue;
      const who = value === null ? 'who leaves this blank' : `who answers ${codes.join(', ')}`;
      return [
        {
          rule: 'consent-not-kept',
          severity: 'error',
          at: { item: item.name },
          message: `somebody ${symbol === undefined ? 'who does not agree' : who} is not led to an ending of kind “declined” at once: lead every answer but consent there`,
          ...context.witness(at, mass),
          mends: mendConsent(context, planItem, item),
        },
      ];
    }
  }
  return [];
}

function mendConsent(context: CheckContext, planItem: PlanItem, item: Question): Mend[] {
  const known = context.plan.endings.find(({ ending }) => ending.kind === 'declined')?.ending.id;
  const declined = known ?? freshId(context.plan.endings.map(({ ending }) => ending.id));
  if (item.agrees === undefined) return [];
  const test = picksMany(item.answer)
    ? `not (${item.name} has any (${item.agrees.join(', ')}))`
    : `not (${item.name} in (${item.agrees.join(', ')}))`;
  return [
    context.mendBy(`Lead everybody else to “${declined}”`, (draft) => {
      const found = draft.sections[planItem.section]?.items[planItem.place];
      if (found?.kind !== 'question') return;
      found.skips = [{ if: test, to: { ending: declined } }, ...(found.skips ?? [])];
      if (known === undefined) draft.endings.push(declinedEnding(declined));
    }),
  ];
}
