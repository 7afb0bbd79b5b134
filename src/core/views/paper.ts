/** The script as it is printed: questions numbered by section, with go-to instructions at the answers and codes. */
import type { EndingKind } from '../document/types';
import { sectionLetter } from '../document/variables';
import { fillPipes } from '../routing/pipes';
import type { Plan, PlanItem, PlanSection } from '../routing/plan';
import { pickWords } from '../wording/picks';
import { answerLines, type AnswerLine } from './answer-lines';
import { goToWords, numbersOf, repeatWords, sentence } from './paper-words';
import type { TargetView } from '../wording/targets';
import { endingLabel, targetView } from '../wording/targets';

/** Of all who come to the section. */
export const ALL = 'all';

export interface PaperLine {
  readonly key: string;
  readonly label: string;
  readonly tag: string;
  readonly code: string;
  /** “go to D1”; null where one carries on. */
  readonly goTo: string | null;
  readonly kind: AnswerLine['kind'];
}

export interface PaperItem {
  readonly planItem: PlanItem;
  /** “C3”; null for a statement. */
  readonly number: string | null;
  /** Whom it is asked of: a sentence without “Ask if”, or `ALL`; null where it is as for the one before. */
  readonly askIf: string | null;
  readonly text: string;
  readonly note: string | null;
  /** How many answers to choose: “Choose at most 3.” */
  readonly picks: string | null;
  readonly lines: readonly PaperLine[];
}

export interface PaperSection {
  readonly section: PlanSection;
  readonly letter: string;
  readonly askIf: string | null;
  /** “Up to 6 times: …”, “Ask 3 of these 8 …”; null where it is asked once and whole. */
  readonly runs: string | null;
  readonly items: readonly PaperItem[];
  /** What follows at its end, one line each. */
  readonly onward: readonly string[];
}

export interface Paper {
  readonly sections: readonly PaperSection[];
  readonly endings: readonly {
    readonly id: string;
    readonly kind: EndingKind;
    readonly label: string;
    readonly messages: readonly { readonly when: string | null; readonly text: string }[];
  }[];
  /** “-1 Not applicable”. */
  readonly missing: readonly string[];
}

/** `asked`: who is asked each item, by name, where it is known: a condition, `always` or `never`. */
export function paperOf(plan: Plan, asked: Readonly<Record<string, string>> = {}): Paper {
  const { document } = plan;
  const numbers = numbersOf(plan);
  const piped = (text: string) => fillPipes(text, (name) => `[${numbers.get(name.toLowerCase()) ?? name}]`);
  const goTo = (target: TargetView | null) => goToWords(plan, numbers, target);
  let before = 'always';
  const baseOf = (planItem: PlanItem | undefined) => asked[planItem?.item.name ?? ''] ?? 'always';
  return {
    sections: plan.sections.map((planSection) => {
      const { section, index, items, onward, repeat } = planSection;
      const questions = items.filter(({ item }) => item.kind === 'question').length;
      return {
        section: planSection,
        letter: sectionLetter(index),
        askIf: sentence(plan, section.askIf),
        runs:
          repeat !== null
            ? repeatWords(plan, planSection, numbers)
            : section.draw === undefined
              ? section.shuffle
                ? 'Ask these questions in random order.'
                : null
              : `Ask ${section.draw} of these ${questions} questions, drawn at random.`,
        items: items.map((planItem) => {
          const { item } = planItem;
          // Who gets here by skips alone is told where that changes.
          const base = baseOf(planItem);
          const told = item.askIf ?? (base !== before && base !== 'never' ? base : undefined);
          before = base;
          const all = told === 'always' || (planItem !== items[0] && told === baseOf(items[0]));
          return {
            planItem,
            number: numbers.get(item.name.toLowerCase()) ?? null,
            askIf: all ? ALL : sentence(plan, told),
            text: piped(item.text),
            note: item.kind === 'question' && item.note !== undefined ? piped(item.note) : null,
            picks: item.kind === 'question' ? pickWords(item) : null,
            lines: answerLines(plan, planItem).map(({ key, label, tag, code, lead, kind }) => ({
              key,
              label: kind === 'rule' ? (sentence(plan, label) ?? label) : piped(label),
              tag,
              code,
              goTo: goTo(lead?.target ?? null),
              kind,
            })),
          };
        }),
        onward: onward.map((entry) => {
          const where = goTo(targetView(plan, entry.to)) ?? '';
          const written =
            section.onward !== undefined && 'length' in section.onward
              ? section.onward[entry.index]?.if
              : undefined;
          const when = sentence(plan, written);
          return when === null ? where : `If ${when}: ${where}`;
        }),
      };
    }),
    endings: document.endings.map(({ id, kind, messages }) => ({
      id,
      kind,
      label: endingLabel(document, id),
      messages: messages.map((message) => ({ when: sentence(plan, message.if), text: piped(message.text) })),
    })),
    missing: document.missing.map(({ code, label }) => `${code} ${label}`),
  };
}
