/** The script as it is printed: questions numbered by section, with go-to instructions at the answers and codes. */
import type { EndingKind } from '../document/types';
import { sectionLetter } from '../document/variables';
import { fillPipes } from '../routing/pipes';
import type { Plan, PlanItem, PlanSection } from '../routing/plan';
import { pickWords } from '../wording/picks';
import { endingLabel, targetView, type TargetView } from '../wording/targets';
import { answerLines, type AnswerLine } from './answer-lines';
import { goToWords, numbersOf, repeatWords, sentence } from './paper-words';

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
  const writer = new PaperWriter(plan, asked);
  return {
    sections: plan.sections.map((planSection) => writer.section(planSection)),
    endings: document.endings.map(({ id, kind, messages }) => ({
      id,
      kind,
      label: endingLabel(document, id),
      messages: messages.map((message) => ({
        when: sentence(plan, message.if),
        text: writer.piped(message.text),
      })),
    })),
    missing: document.missing.map(({ code, label }) => `${code} ${label}`),
  };
}

/** Writes section after section, since what is told of who is asked an item depends on who was asked the one before. */
class PaperWriter {
  private readonly numbers: ReadonlyMap<string, string>;
  private before = 'always';

  constructor(
    private readonly plan: Plan,
    private readonly asked: Readonly<Record<string, string>>,
  ) {
    this.numbers = numbersOf(plan);
  }

  piped(text: string): string {
    return fillPipes(text, (name) => `[${this.numbers.get(name.toLowerCase()) ?? name}]`);
  }

  section(planSection: PlanSection): Paper['sections'][number] {
    const { section, index, items, onward } = planSection;
    return {
      section: planSection,
      letter: sectionLetter(index),
      askIf: sentence(this.plan, section.askIf),
      runs: this.runs(planSection),
      items: items.map((planItem) => this.item(planItem, items[0])),
      onward: onward.map((entry) => {
        const where = this.goTo(targetView(this.plan, entry.to)) ?? '';
        const written =
          section.onward !== undefined && 'length' in section.onward
            ? section.onward[entry.index]?.if
            : undefined;
        const when = sentence(this.plan, written);
        return when === null ? where : `If ${when}: ${where}`;
      }),
    };
  }

  private runs(planSection: PlanSection): string | null {
    const { section, items, repeat } = planSection;
    if (repeat !== null) return repeatWords(this.plan, planSection, this.numbers);
    if (section.draw === undefined) return section.shuffle ? 'Ask these questions in random order.' : null;
    const questions = items.filter(({ item }) => item.kind === 'question').length;
    return `Ask ${section.draw} of these ${questions} questions, drawn at random.`;
  }

  private item(planItem: PlanItem, first: PlanItem | undefined): Paper['sections'][number]['items'][number] {
    const { plan } = this;
    const { item } = planItem;
    // Who gets here by skips alone is told where that changes.
    const base = this.baseOf(planItem);
    const told = item.askIf ?? (base !== this.before && base !== 'never' ? base : undefined);
    this.before = base;
    const all = told === 'always' || (planItem !== first && told === this.baseOf(first));
    return {
      planItem,
      number: this.numbers.get(item.name.toLowerCase()) ?? null,
      askIf: all ? ALL : sentence(plan, told),
      text: this.piped(item.text),
      note: item.kind === 'question' && item.note !== undefined ? this.piped(item.note) : null,
      picks: item.kind === 'question' ? pickWords(item) : null,
      lines: answerLines(plan, planItem).map(({ key, label, tag, code, lead, kind }) => ({
        key,
        label: kind === 'rule' ? (sentence(plan, label) ?? label) : this.piped(label),
        tag,
        code,
        goTo: this.goTo(lead?.target ?? null),
        kind,
      })),
    };
  }

  private baseOf(planItem: PlanItem | undefined): string {
    return this.asked[planItem?.item.name ?? ''] ?? 'always';
  }

  private goTo(target: TargetView | null): string | null {
    return goToWords(this.plan, this.numbers, target);
  }
}
