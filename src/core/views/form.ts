/**
 * A paper form to be filled in: boxes, scales, lines and tables instead of codes, and where to go said in one way only,
 * either at the answers or by a line on whom a question is for.
 */
import { holds } from '../condition/evaluate';
import { parseCondition } from '../condition/parse';
import { hasRows, picksMany, picksOne, ranksOptions } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Question } from '../document/types';
import { maxPasses, sectionLetter, type Variable, type Variables } from '../document/variables';
import { fillPipes } from '../routing/pipes';
import type { Plan, PlanItem, PlanSection, PlanSkip, PlanTarget } from '../routing/plan';
import { readingOf } from '../routing/readings';
import { momentWords } from '../wording/dates';
import { pickWords } from '../wording/picks';
import { conditionSentence } from '../wording/sentence';
import { endingLabel, targetView } from '../wording/targets';
import { isOnlyAbout } from './leads';
import { goToWords, numbersOf, repeatWords } from './paper-words';

export interface FormOptions {
  /** Whoever fills it in: interviewers also read what is meant for them. */
  readonly reader: 'respondent' | 'interviewer';
  /** `answers`: “go to C4” at the answers; `questions`: a line on whom each question is for. */
  readonly routing: 'answers' | 'questions';
  /** Of a repeated section: a column for each pass where its questions allow that, or a block. */
  readonly passes: 'columns' | 'blocks';
}

export interface FormBox {
  readonly code: number;
  readonly label: string;
  /** What is written beside it; null where nothing is. */
  readonly write: string | null;
  readonly goTo: string | null;
}

export type FormAnswer =
  /** `several`: more than one may be ticked. */
  | { readonly as: 'boxes'; readonly several: boolean; readonly boxes: readonly FormBox[] }
  | { readonly as: 'rank'; readonly boxes: readonly FormBox[]; readonly places: number }
  | {
      readonly as: 'scale';
      readonly points: readonly number[];
      readonly ends: readonly [string, string, string];
      readonly boxes: readonly FormBox[];
    }
  | {
      readonly as: 'grid';
      readonly several: boolean;
      readonly rows: readonly { readonly name: string; readonly label: string }[];
      readonly boxes: readonly FormBox[];
    }
  /** A box for each digit, the point as `.`, and what stands behind them. */
  | {
      readonly as: 'digits';
      readonly digits: string;
      readonly unit: string;
      readonly limits: string;
      readonly boxes: readonly FormBox[];
    }
  /** Boxes for day, month and year, hour and minute. */
  | {
      readonly as: 'moment';
      readonly digits: string;
      readonly limits: string;
      readonly boxes: readonly FormBox[];
    }
  | { readonly as: 'lines'; readonly lines: number };

export interface FormItem {
  readonly key: string;
  readonly name: string;
  /** “C3”; null for text. */
  readonly number: string | null;
  /** “Only if …”; null where it is for the same people as the section or the block it stands in. */
  readonly only: string | null;
  readonly instruction: string | null;
  readonly text: string;
  readonly note: string | null;
  readonly picks: string | null;
  readonly image: { readonly src: string; readonly alt: string } | null;
  /** Null for text. */
  readonly answer: FormAnswer | null;
  /** Where to go by what no single box says, in the order in which they are tried. */
  readonly rules: readonly string[];
}

export interface FormBlock {
  readonly key: string;
  /** “Each room, 2”; null where the section is not repeated. */
  readonly title: string | null;
  readonly items: readonly FormItem[];
}

export interface FormSection {
  readonly key: string;
  readonly letter: string;
  readonly title: string;
  readonly intro: string;
  readonly only: string | null;
  /** How often, or which of its questions. */
  readonly runs: string | null;
  readonly blocks: readonly FormBlock[];
  /** Headings of the passes, where they are columns of one block. */
  readonly columns: readonly string[] | null;
  readonly onward: readonly string[];
}

export interface Form {
  /** Items of which, by lines at the questions, it could not be said whom they are for. */
  readonly unsaid: number;
  readonly sections: readonly FormSection[];
  readonly endings: readonly {
    readonly key: string;
    readonly label: string;
    readonly when: string | null;
    readonly text: string;
  }[];
}

/**
 * `asked`: who is asked each item, by name, as the analysis tells it; null while that is not known, and then all seem to
 * be for everybody. What it lacks could not be worked out, which the form says.
 */
export function formOf(
  plan: Plan,
  options: FormOptions,
  asked: Readonly<Record<string, string>> | null,
): Form {
  return new FormMaker(plan, options, asked).form();
}

/** Lines to write on for a long text. */
const LONG_TEXT = 4;
/** In the place of a condition that could not be worked out. */
const UNSAID = '';

/** Passes that fit beside each other. */
const MOST_COLUMNS = 8;

class FormMaker {
  private readonly numbers: ReadonlyMap<string, string>;
  private readonly variables: Variables;

  constructor(
    private readonly plan: Plan,
    private readonly options: FormOptions,
    private readonly asked: Readonly<Record<string, string>> | null,
  ) {
    this.numbers = numbersOf(plan);
    this.variables = new Map([...plan.variables].map(([key, variable]) => [key, this.numbered(variable)]));
  }

  /** Whoever fills in the form knows a question by its number. */
  private numbered(variable: Variable): Variable {
    const number = this.numbers.get(variable.name.toLowerCase());
    if (number === undefined) return variable;
    if (variable.of === 'question') return { ...variable, question: { ...variable.question, label: number } };
    if (variable.of !== 'row') return variable;
    return { ...variable, row: { ...variable.row, label: `${number} (${variable.row.label})` } };
  }

  private sentence(text: string | undefined): string | null {
    if (text === undefined) return null;
    const parsed = parseCondition(text);
    return parsed.ok ? conditionSentence(parsed.tree, this.variables) : text;
  }

  form(): Form {
    const { plan, asked } = this;
    const byLines = this.options.routing === 'questions' && asked !== null;
    return {
      unsaid: byLines
        ? plan.sections.flatMap(({ items }) => items).filter(({ item }) => asked[item.name] === undefined)
            .length
        : 0,
      sections: plan.sections.map((section) => this.section(section)),
      endings: plan.document.endings.flatMap(({ id, messages }, e) =>
        messages.map((message, n) => ({
          key: `${id} ${n}`,
          label:
            this.options.reader === 'interviewer'
              ? `End ${e + 1}, ${endingLabel(plan.document, id)}`
              : `End ${e + 1}`,
          when: this.sentence(message.if),
          text: this.piped(message.text, null),
        })),
      ),
    };
  }

  /** An ending goes by its number: what it is called is nothing for respondents. */
  private goTo(to: PlanTarget): string {
    if (to.to === 'ending') return `go to End ${to.ending + 1}`;
    return goToWords(this.plan, this.numbers, targetView(this.plan, to)) ?? '';
  }

  private section(planSection: PlanSection): FormSection {
    const { section, index, items, repeat, onward } = planSection;
    const bases = items.map((planItem) => this.baseOf(planItem));
    const [first = 'always'] = bases;
    const alike = this.options.routing === 'questions' && bases.every((base) => base === first);
    const only = this.options.routing === 'answers' ? section.askIf : alike ? first : undefined;
    const labels = repeat === null ? null : this.passLabels(planSection);
    const inColumns = labels !== null && this.fitsColumns(planSection, labels);
    const questions = items.filter(({ item }) => item.kind === 'question').length;
    return {
      key: section.id,
      letter: sectionLetter(index),
      title: section.title,
      intro: section.intro ?? '',
      only: this.only(only),
      runs:
        repeat !== null
          ? repeatWords(this.plan, planSection, this.numbers)
          : section.draw === undefined
            ? null
            : `${section.draw} of these ${questions} questions, drawn at random.`,
      columns: inColumns ? labels : null,
      blocks:
        labels === null || inColumns
          ? [{ key: 'all', title: null, items: this.items(planSection, alike, null) }]
          : labels.map((label, n) => ({
              key: String(n + 1),
              title: label,
              items: this.items(planSection, alike, { pass: n + 1, label }),
            })),
      onward: this.options.routing === 'questions' ? [] : onward.map((entry) => this.rule(entry)),
    };
  }

  /** Headings of the passes: the answers they are for, or numbers. */
  private passLabels(planSection: PlanSection): string[] {
    const { section, repeat } = planSection;
    const most = maxPasses(section);
    const driver = repeat?.kind === 'each' ? repeat.driver : null;
    const listed =
      driver?.of === 'question'
        ? optionsOf(driver.question.answer).filter(
            ({ missing, exclusive }) => missing === undefined && exclusive !== true,
          )
        : [];
    if (listed.length > 0 && listed.length <= MOST_COLUMNS) return listed.map(({ label }) => label);
    return Array.from({ length: most }, (_, n) => String(n + 1));
  }

  private fitsColumns({ items }: PlanSection, labels: readonly string[]): boolean {
    if (this.options.passes === 'blocks' || labels.length > MOST_COLUMNS) return false;
    return items.every(
      ({ item }) => item.kind === 'statement' || (!hasRows(item.answer) && !ranksOptions(item.answer)),
    );
  }

  /** Who comes to an item: in the way of asking by lines. */
  private baseOf({ item }: PlanItem): string {
    return this.asked === null ? 'always' : (this.asked[item.name] ?? UNSAID);
  }

  private only(condition: string | undefined): string | null {
    if (condition === undefined || condition === 'always' || condition === 'never') return null;
    if (condition === UNSAID) return 'Whom this is for could not be worked out';
    const words = this.sentence(condition);
    return words === null ? null : `Only if ${words}`;
  }

  private items(
    { items }: PlanSection,
    alike: boolean,
    pass: { readonly pass: number; readonly label: string } | null,
  ): FormItem[] {
    return items.map((planItem, n): FormItem => {
      const { item } = planItem;
      const byLines = this.options.routing === 'questions';
      const base = this.baseOf(planItem);
      // A line stands in front of all that follow for the same people.
      const before = items[n - 1];
      const isNew = before === undefined ? base !== 'always' : this.baseOf(before) !== base;
      const only = byLines ? (alike || !isNew ? null : this.run(items, n)) : this.only(item.askIf);
      const leads = byLines ? null : leadsOf(planItem);
      return {
        key: item.name,
        name: item.name,
        number: this.numbers.get(item.name.toLowerCase()) ?? null,
        only,
        instruction:
          this.options.reader === 'interviewer' && item.instruction !== undefined
            ? this.piped(item.instruction, pass)
            : null,
        text: this.piped(item.text, pass),
        note: item.kind === 'question' && item.note !== undefined ? this.piped(item.note, pass) : null,
        picks: item.kind === 'question' ? pickWords(item) : null,
        image: item.image ?? null,
        answer:
          item.kind === 'question'
            ? this.answer(item, (code) => {
                const skip = leads?.atAnswers ? skipFor(planItem, code) : null;
                return skip === null ? null : this.goTo(skip.to);
              })
            : null,
        rules: leads === null || leads.atAnswers ? [] : planItem.skips.map((skip) => this.rule(skip)),
      };
    });
  }

  /** “Only if …”, with the questions it goes for where there are several; “For all” once it goes for all again. */
  private run(items: readonly PlanItem[], from: number): string {
    const base = this.baseOf(items[from] as PlanItem);
    let to = from;
    while (to + 1 < items.length && this.baseOf(items[to + 1] as PlanItem) === base) to += 1;
    const numbered = items
      .slice(from, to + 1)
      .flatMap(({ item }) => this.numbers.get(item.name.toLowerCase()) ?? []);
    const [first, last] = [numbered[0], numbered.at(-1)];
    const which = first === undefined || first === last ? '' : `${first} to ${last}: `;
    const words = this.only(base);
    if (words === null) return `${which}${which === '' ? 'For' : 'for'} everyone`;
    return which === '' ? words : `${which}${words.charAt(0).toLowerCase()}${words.slice(1)}`;
  }

  private rule(skip: PlanSkip): string {
    const where = this.goTo(skip.to);
    if (skip.if === null) return `${where.charAt(0).toUpperCase()}${where.slice(1)}`;
    return `If ${conditionSentence(skip.if, this.variables)}: ${where}`;
  }

  private answer(question: Question, goTo: (code: number) => string | null): FormAnswer {
    const { answer } = question;
    const boxes = optionsOf(answer).map((option): FormBox => ({
      code: option.code,
      label: this.piped(option.label, null),
      write: option.specify ? (option.specifyLabel ?? 'please write') : null,
      goTo: goTo(option.code),
    }));
    return answerAs(answer, boxes);
  }

  private piped(text: string, pass: { readonly pass: number; readonly label: string } | null): string {
    return fillPipes(text, (name) => {
      if (name === 'pass') return pass === null ? '…' : String(pass.pass);
      if (name === 'each') return pass === null ? '…' : pass.label;
      return `[${this.numbers.get(name.toLowerCase()) ?? name}]`;
    }).replace(/ {2,}/g, ' ');
  }
}

/** Whether each box can say by itself where it leads: nothing else decides, and only one of them is ticked. */
function leadsOf({ item, skips }: PlanItem): { readonly atAnswers: boolean } {
  if (item.kind !== 'question' || !picksOne(item.answer)) return { atAnswers: false };
  return {
    atAnswers: skips.every(({ if: condition }) => condition === null || isOnlyAbout(condition, item.name)),
  };
}

/** The skip that an answer takes; null where one carries on. */
function skipFor({ item, skips }: PlanItem, code: number): PlanSkip | null {
  if (item.kind !== 'question') return null;
  const reading = readingOf(item.answer, code);
  const own = { read: () => reading, pass: null, each: null, passesOver: () => [] };
  return skips.find(({ if: condition }) => condition === null || holds(condition, own)) ?? null;
}

function answerAs(answer: Answer, boxes: readonly FormBox[]): FormAnswer {
  switch (answer.type) {
    case 'single':
    case 'multiple':
      return { as: 'boxes', several: picksMany(answer), boxes };
    case 'rank':
      return { as: 'rank', boxes, places: answer.top ?? boxes.length };
    case 'scale': {
      const { min, max, step = 1, lowLabel = '', midLabel = '', highLabel = '' } = answer;
      const count = Math.floor((max - min) / step + 1e-9) + 1;
      const points = Array.from({ length: count }, (_, n) => Number((min + n * step).toFixed(6)));
      return { as: 'scale', points, ends: [lowLabel, midLabel, highLabel], boxes };
    }
    case 'grid':
      return {
        as: 'grid',
        several: answer.pick === 'many',
        rows: answer.rows.map(({ name, label }) => ({ name, label })),
        boxes,
      };
    case 'number': {
      const { min, max, decimals = 0, unit = '' } = answer;
      const whole = Math.max(...[min, max].map((end) => String(Math.trunc(Math.abs(end))).length));
      const digits = `${min < 0 ? '±' : ''}${'0'.repeat(whole)}${decimals > 0 ? `.${'0'.repeat(decimals)}` : ''}`;
      return { as: 'digits', digits, unit, limits: `${min} to ${max}`, boxes };
    }
    case 'text':
      return { as: 'lines', lines: answer.lines === 'many' ? LONG_TEXT : 1 };
    case 'date':
    case 'time':
    case 'datetime': {
      const limits = [
        answer.min === undefined ? '' : `from ${momentWords(answer.min)}`,
        answer.max === undefined ? '' : `to ${momentWords(answer.max)}`,
      ];
      const digits = { date: 'DD.MM.YYYY', time: 'hh:mm', datetime: 'DD.MM.YYYY hh:mm' }[answer.type];
      return { as: 'moment', digits, limits: limits.filter((part) => part !== '').join(' '), boxes };
    }
    default:
      return answer satisfies never;
  }
}
