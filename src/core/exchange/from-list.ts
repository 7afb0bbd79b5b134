/**
 * From a plain list of questions, as drafted in a document or sheet, to a questionnaire.
 *
 * Numbered lines are questions, the lines below them answers; lines in capitals or with `#` open sections;
 * "if no, skip to 5" and "(go to Q7)" become skips. Every line is reported with what it was taken for, so
 * that a person can look before taking it over.
 */
import { guessKind, emptyQuestionnaire, newSection, nextCode } from '../editing/structure';
import type {
  Answer,
  Item,
  Option,
  Question,
  Questionnaire,
  Section,
  Skip,
  Statement,
  Target,
} from '../document/types';

export type LineKind = 'section' | 'question' | 'answer' | 'skip' | 'text' | 'note' | 'trouble';

export interface UnderstoodLine {
  /** From 1. */
  readonly line: number;
  readonly text: string;
  readonly kind: LineKind;
  /** What became of it, in a few words. */
  readonly says: string;
}

export interface Understood {
  readonly document: Questionnaire;
  readonly lines: readonly UnderstoodLine[];
  readonly questions: number;
  readonly skips: number;
}

export function fromList(source: string, title: string): Understood {
  return new Reader(source, title).read();
}

interface DraftQuestion {
  readonly name: string;
  number: string;
  text: string;
  readonly options: Option[];
  multiple: boolean;
  readonly hints: string;
  note: string | null;
  readonly skips: { label: string | null; code: number | null; to: string; line: number; report: number }[];
}

interface DraftSection {
  readonly title: string;
  readonly entries: (DraftQuestion | Statement)[];
}

const SECTION = /^#+\s*(.+?)\s*#*$/;
const QUESTION = /^(?:Q(?:uestion)?\s*)?(\d+[a-z]?|[A-Z]\d+[a-z]?)\s*[.):]\s*(.*)$/i;
const BULLET = /^(?:[-*•–]|\[\s?\]|\(\s?\)|[a-z]\))\s*/i;
const CODED = /^(\d{1,4})\s*(?:=|:|\s)\s*(\S.*)$/;
const JUMP =
  /(?:(?:skip|go|jump)\s+(?:straight\s+)?to|->|→|=>)\s*(?:the\s+)?((?:question|q|section)?\s*[\w .'’&-]+?)\s*[.)\]]*$/i;
const CLOSE = /^(?:end|close|the end|end of (?:the )?(?:survey|interview|questionnaire))$/i;
const SCREEN = /screen(?:ed)?[\s-]*out|end (?:the )?interview|thank and close|terminate|\bstop\b/i;
const SEVERAL = /\b(?:all that apply|tick all|select all|choose all|more than one|as many as)\b/i;

class Reader {
  private readonly sections: DraftSection[] = [];
  private readonly report: { line: number; text: string; kind: LineKind; says: string }[] = [];
  private question: DraftQuestion | null = null;
  private statements = 0;
  private skips = 0;

  constructor(
    private readonly source: string,
    private readonly title: string,
  ) {}

  read(): Understood {
    this.source.split(/\r?\n/).forEach((raw, index) => {
      if (raw.trim() !== '') this.line(raw, index + 1);
    });
    const document = this.build();
    const questions = this.sections
      .flatMap(({ entries }) => entries)
      .filter((entry) => 'options' in entry).length;
    return { document, lines: this.report, questions, skips: this.skips };
  }

  private say(line: number, text: string, kind: LineKind, says: string): number {
    return this.report.push({ line, text, kind, says }) - 1;
  }

  private line(raw: string, line: number): void {
    const text = raw.trim();
    const heading = SECTION.exec(text)?.[1] ?? (isCapitals(text) ? inSentenceCase(text) : null);
    if (heading !== null) {
      this.sections.push({ title: heading, entries: [] });
      this.question = null;
      this.say(line, text, 'section', `section ${heading}`);
      return;
    }
    const numbered = QUESTION.exec(text);
    const indented = /^\s{2,}|^\t/.test(raw) && this.question !== null;
    if (numbered !== null && !indented) {
      this.openQuestion(numbered[1] ?? '', numbered[2] ?? '', line, text);
      return;
    }
    if (this.question === null) this.statement(text, line);
    else
      this.under(this.question, indented && numbered !== null ? `${numbered[1]} ${numbered[2]}` : text, line);
  }

  private current(): DraftSection {
    if (this.sections.length === 0) this.sections.push({ title: 'Questions', entries: [] });
    return this.sections.at(-1) as DraftSection;
  }

  private openQuestion(number: string, rest: string, line: number, raw: string): void {
    const hints = rest;
    const { words, jump } = splitJump(rest);
    const name = `q${number.toLowerCase().replace(/^q/, '')}`;
    const text = words
      .replace(/\s*[([]([^)\]]*(?:apply|tick|select|choose|number|date|years?)[^)\]]*)[)\]]\s*$/i, '')
      .trim();
    const question: DraftQuestion = {
      name,
      number,
      text,
      options: [],
      multiple: SEVERAL.test(rest),
      hints,
      note: null,
      skips: [],
    };
    this.question = question;
    this.current().entries.push(question);
    const report = this.say(line, raw, 'question', `question ${name}`);
    if (jump !== null) question.skips.push({ label: null, code: null, to: jump, line, report });
  }

  private under(question: DraftQuestion, text: string, line: number): void {
    const conditional =
      /^[([]?\s*if\s+(.+?)[,:]?\s+(?:then\s+)?((?:please\s+)?(?:skip|go|jump)\s+to.*|end.*|screen.*|stop.*|thank.*)$/i.exec(
        text,
      );
    if (conditional !== null) {
      const to = JUMP.exec(conditional[2] ?? '')?.[1] ?? (conditional[2] ?? '').replace(/[)\].]+$/, '');
      const report = this.say(line, text, 'skip', '');
      question.skips.push({
        label: (conditional[1] ?? '').replace(/["'“”‘’]/g, '').trim(),
        code: null,
        to,
        line,
        report,
      });
      return;
    }
    const alone = /^[([]?\s*(?:then\s+|all\s+|everyone\s+)?(?:skip|go|jump)\s+to/i.test(text)
      ? JUMP.exec(text)
      : null;
    if (alone !== null) {
      const report = this.say(line, text, 'skip', '');
      question.skips.push({ label: null, code: null, to: alone[1] ?? '', line, report });
      return;
    }
    if (/^[([].*[)\]]$/.test(text) && !BULLET.test(text)) {
      if (SEVERAL.test(text)) question.multiple = true;
      else question.note = text.slice(1, -1);
      this.say(
        line,
        text,
        'note',
        SEVERAL.test(text) ? 'several answers may be picked' : 'help under the question',
      );
      return;
    }
    this.answer(question, text, line);
  }

  private answer(question: DraftQuestion, raw: string, line: number): void {
    const plain = raw.replace(BULLET, '');
    const { words, jump } = splitJump(plain);
    const coded = CODED.exec(words);
    const label = (coded?.[2] ?? words).replace(/\s*[([]\s*[)\]]\s*$/, '').trim();
    const option = optionFrom(label, coded === null ? null : Number(coded[1]), question);
    question.options.push(option);
    const report = this.say(line, raw, 'answer', `answer ${option.code} of ${question.name}`);
    if (jump !== null) question.skips.push({ label: null, code: option.code, to: jump, line, report });
  }

  private statement(text: string, line: number): void {
    const section = this.current();
    const last = section.entries.at(-1);
    if (last !== undefined && 'kind' in last) {
      section.entries[section.entries.length - 1] = { ...last, text: `${last.text}\n${text}` };
    } else {
      this.statements += 1;
      section.entries.push({ kind: 'statement', name: `text_${this.statements}`, text });
    }
    this.say(line, text, 'text', 'text shown to respondents');
  }

  private build(): Questionnaire {
    const base = emptyQuestionnaire(this.title);
    const kept = this.sections.length > 0 ? this.sections : [{ title: 'Questions', entries: [] }];
    let sections: Section[] = [];
    for (const { title } of kept) {
      sections.push(newSection({ ...base, sections }, title, guessKind(title)));
    }
    const ids = sections.map(({ id }) => id);
    sections = sections.map((section, s) => ({
      ...section,
      items: (kept[s]?.entries ?? []).map((entry): Item =>
        'kind' in entry ? entry : this.toQuestion(entry, kept, ids),
      ),
    }));
    return { ...base, sections };
  }

  private toQuestion(
    draft: DraftQuestion,
    sections: readonly DraftSection[],
    ids: readonly string[],
  ): Question {
    const answer = answerFrom(draft);
    const skips = draft.skips.flatMap((entry): Skip[] => {
      const to = targetFrom(entry.to, sections, ids);
      const row = this.report[entry.report];
      if (row === undefined) return [];
      const trouble = (says: string): Skip[] => {
        Object.assign(row, { kind: 'trouble', says: row.says === '' ? says : `${row.says}; ${says}` });
        return [];
      };
      if (to === null)
        return trouble(`“${entry.to}” is no question or section of this list, so no skip was made`);
      const code = entry.code ?? (entry.label === null ? null : codeFor(entry.label, draft.options));
      if (code === null && entry.label !== null)
        return trouble(`“${entry.label}” is no answer of ${draft.name}, so no skip was made`);
      const condition =
        code === null ? null : draft.multiple ? `${draft.name} has ${code}` : `${draft.name} = ${code}`;
      const says = `skip to ${Object.values(to)[0]}${condition === null ? '' : ` if ${condition}`}`;
      row.says = row.says === '' ? says : `${row.says}; ${says}`;
      this.skips += 1;
      return [{ ...(condition === null ? {} : { if: condition }), to }];
    });
    const steering = skips.length > 0;
    return {
      kind: 'question',
      name: draft.name,
      text: draft.text,
      ...(draft.note === null ? {} : { note: draft.note }),
      answer,
      ...(steering || answer.type !== 'text' ? { required: true } : {}),
      ...(steering ? { skips } : {}),
    };
  }
}

function splitJump(text: string): { words: string; jump: string | null } {
  const bracket = /\s*[([]([^()[\]]*)[)\]]\s*\.?$/.exec(text);
  if (bracket !== null) {
    const inner = bracket[1] ?? '';
    const jump = JUMP.exec(inner)?.[1] ?? (SCREEN.test(inner) || CLOSE.test(inner.trim()) ? inner : null);
    if (jump !== null) return { words: text.slice(0, bracket.index).trim(), jump };
  }
  const arrow = /\s*(?:->|→|=>|[-–—]\s*(?=(?:skip|go)\s+to))\s*(.+)$/i.exec(text);
  if (arrow === null) return { words: text, jump: null };
  const target = (arrow[1] ?? '').replace(/^(?:skip|go|jump)\s+to\s*/i, '').replace(/[.)\]]+$/, '');
  return { words: text.slice(0, arrow.index).trim(), jump: target };
}

function targetFrom(words: string, sections: readonly DraftSection[], ids: readonly string[]): Target | null {
  const plain = words.trim();
  if (SCREEN.test(plain)) return { ending: 'screened_out' };
  if (CLOSE.test(plain)) return { ending: 'complete' };
  const number = plain.replace(/^(?:question|q)\s*/i, '').toLowerCase();
  for (const { entries } of sections) {
    for (const entry of entries)
      if ('number' in entry && entry.number.toLowerCase() === number) return { item: entry.name };
  }
  const title = plain.replace(/^section\s+/i, '').toLowerCase();
  const letter = /^[a-z]$/.test(title) ? title.charCodeAt(0) - 97 : -1;
  const at = sections.findIndex((section) => section.title.toLowerCase() === title);
  const id = ids[at >= 0 ? at : letter];
  return id === undefined ? null : { section: id };
}

function codeFor(label: string, options: readonly Option[]): number | null {
  const wanted = label.toLowerCase().replace(/^(?:answer(?:ed)?|they say|the answer is)\s+/, '');
  const exact = options.find(
    (option) => option.label.toLowerCase() === wanted || String(option.code) === wanted,
  );
  return (exact ?? options.find((option) => option.label.toLowerCase().startsWith(wanted)))?.code ?? null;
}

function optionFrom(label: string, code: number | null, { options }: DraftQuestion): Option {
  const free = (wanted: number) => {
    let at = wanted;
    while (options.some((option) => option.code === at)) at -= 1;
    return at;
  };
  if (/^don.?t know\b|^not sure$/i.test(label))
    return { code: code ?? free(98), label, missing: 'dont_know' };
  if (/^(?:prefer not|refuse|rather not)/i.test(label))
    return { code: code ?? free(99), label, missing: 'refused' };
  if (/^none(?: of (?:these|the above))?$/i.test(label))
    return { code: code ?? free(97), label, exclusive: true };
  const specify =
    /^(.*\S)\s*(?:[([,:–-]?\s*please (?:specify|say|state)[^)\]]*[)\]]?:?|:\s*_*|_{2,})$/i.exec(label) ??
    /^(other)\s*\(specify\)$/i.exec(label);
  const next = code ?? nextCode(options);
  return specify === null
    ? { code: next, label }
    : { code: next, label: (specify[1] ?? label).replace(/[,:(\s–-]+$/, ''), specify: true };
}

function answerFrom({ options, multiple, hints }: DraftQuestion): Answer {
  if (options.length > 0) {
    if (multiple) return { type: 'multiple', options };
    return { type: 'single', options: options.map(({ exclusive: _, ...option }) => option) };
  }
  const range = /(-?\d+)\s*(?:to|–|-|\.\.)\s*(\d+)/.exec(hints);
  if (range !== null) {
    const [min, max] = [Number(range[1]), Number(range[2])];
    if (min < max)
      return {
        type: /scale|rate|how (?:satisfied|likely|much)/i.test(hints) && max - min <= 20 ? 'scale' : 'number',
        min,
        max,
      };
  }
  if (/\b(?:date|on which day)\b/i.test(hints)) return { type: 'date' };
  if (/\bhow many|\bhow old|\bnumber of|\(number\)|\bin what year/i.test(hints)) {
    return { type: 'number', min: 0, max: /year/i.test(hints) && /what year/i.test(hints) ? 2100 : 999 };
  }
  return { type: 'text', lines: /\bwhy\b|describe|comment|anything else/i.test(hints) ? 'many' : 'one' };
}

/** Several capital letters and no small one, and no number in front. */
function isCapitals(text: string): boolean {
  return (
    /[A-Z].*[A-Z].*[A-Z]/.test(text) && !/[a-z]/.test(text) && !QUESTION.test(text) && !/[?]$/.test(text)
  );
}

function inSentenceCase(text: string): string {
  const title = text.replace(/^SECTION\s+(?:[A-Z]|\d+)\s*[:.)-]\s*/, '');
  return title.charAt(0) + title.slice(1).toLowerCase();
}
