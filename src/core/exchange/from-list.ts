/**
 * From a plain list of questions, as drafted in a document or sheet, to a questionnaire.
 *
 * Each line is looked at once and reported with what it was taken for, and with what is doubtful about that; a person can
 * have any line read as something else. Skips are made last, when every question has its answers.
 */
import { freshName, NAME_LENGTH } from '../document/names';
import type { Option, Questionnaire } from '../document/types';
import { guessKind, takenNames } from '../editing/structure';
import { codedRow, codeIn, optionFrom, picksIn, scaleIn, writtenIn, type PicksAllowed } from './list-answers';
import { buildList, type Built } from './list-build';
import {
  joined,
  unused,
  type DraftQuestion,
  type DraftSection,
  type LineKind,
  type LineReport,
  type UnderstoodLine,
} from './list-draft';
import type { ListPlace } from './list-into';
import {
  askedOf,
  asks,
  clausesIn,
  hasBullet,
  headingIn,
  inSentenceCase,
  isLettered,
  jumpIn,
  numberIn,
  rowOfAnswers,
  splitJump,
  withoutBullet,
  words,
  type AskedOf,
  type Numbered,
} from './list-lines';
import { tableLines } from './list-table';

export { LINE_KINDS, type LineKind, type UnderstoodLine } from './list-draft';

export interface Understood {
  /** What comes of it: a new questionnaire, or the one that the list is put into. */
  readonly document: Questionnaire;
  /** What puts it in; null where it is a questionnaire of its own, or nothing was found. */
  readonly change: Built['change'];
  /** Name of the first item that comes of it. */
  readonly first: string | null;
  readonly lines: readonly UnderstoodLine[];
  readonly sections: number;
  readonly questions: number;
  readonly skips: number;
}

/**
 * `as`: lines, from 1, to be read as something else than they look; `trouble` leaves one out. `into`: a study that is
 * open, whose names are taken and whose questions, sections and endings the list can speak of; then `title` is not used.
 */
export function fromList(
  source: string,
  title: string,
  as: ReadonlyMap<number, LineKind> = new Map(),
  into: ListPlace | null = null,
): Understood {
  return new Reader(title, as, into).read(source);
}

/** What is said to respondents in the end, and is no answer to the question above it. */
const THANKS = /^(?:many )?thanks?(?: you)?\b.*[.!]$|^(?:that|this) is the end\b/i;

/** No question is as long, and what looks for brackets, codes and arrows in a line may look from each of its signs. */
const LONGEST_LINE = 3_000;

class Reader {
  private readonly sections: DraftSection[] = [];
  private readonly report: LineReport[] = [];
  private question: DraftQuestion | null = null;
  private readonly names: Set<string>;
  /** Questions so far. */
  private count = 0;
  /** What numbers are moved on by to be names, past those that an open study has. */
  private readonly past: number;
  /** Whether questions are told by a Q in front; then plain numbers are those of answers. */
  private isMarked = false;
  private hasNumbers = false;
  private lastNumber: number | null = null;
  /** Whom the next question is asked of, where a line before it said so. */
  private waiting: DraftQuestion['askedOf'] = null;

  constructor(
    private readonly title: string,
    private readonly as: ReadonlyMap<number, LineKind>,
    private readonly into: ListPlace | null,
  ) {
    this.names = into === null ? new Set() : takenNames(into.document);
    const numbers = [...this.names].flatMap((name) => (/^q\d{1,6}$/.test(name) ? Number(name.slice(1)) : []));
    this.past = Math.max(0, ...numbers);
  }

  read(source: string): Understood {
    const lines = tableLines(source) ?? source.split(/\r?\n/).map((raw, n) => ({ raw, line: n + 1 }));
    const numbers = lines
      .filter(({ raw }) => raw.length <= LONGEST_LINE)
      .map(({ raw }) => numberIn(raw.trim()))
      .filter((found) => found !== null);
    this.isMarked = numbers.some(({ isMarked }) => isMarked);
    this.hasNumbers = numbers.some(({ stop, rest }) => stop !== '' || asks(rest));
    let alone = true;
    lines.forEach(({ raw, line }, n) => {
      if (raw.trim() === '') {
        alone = true;
        return;
      }
      this.line(raw, line, alone, lines[n + 1]?.raw.trim() ?? '');
      alone = false;
    });
    const { title, sections, waiting, names, into } = this;
    const built = buildList({ title, sections, waiting, names, into });
    return { ...built, lines: this.report, questions: this.count, sections: sections.length };
  }

  private say(
    line: number,
    text: string,
    kind: LineKind,
    says: string,
    doubt: string | null = null,
  ): LineReport {
    const row = { line, text, kind, says, doubt };
    this.report.push(row);
    return row;
  }

  private line(raw: string, line: number, alone: boolean, after: string): void {
    const text = raw.trim();
    if (text.length > LONGEST_LINE && this.as.get(line) !== 'text')
      return void this.say(
        line,
        `${text.slice(0, 120)} …`,
        'trouble',
        `left out: more than ${LONGEST_LINE.toLocaleString('en')} characters in one line`,
        'break the line where its questions and answers begin, or take it as text',
      );
    switch (this.as.get(line)) {
      case 'section':
        return this.open(headingIn(text, true) ?? withoutBullet(text), line, text);
      case 'question':
        return this.ask(numberIn(text), text, line);
      case 'answer':
        return this.question === null ? this.tell(text, line) : this.answer(this.question, text, line);
      case 'text':
        this.question = null;
        return this.tell(text, line);
      case 'note':
        return this.note(text, line);
      case 'skip':
        return this.skipped(text, line);
      case 'trouble':
        return void this.say(line, text, 'trouble', 'left out');
      default:
        return this.guess(raw, text, line, alone, after);
    }
  }

  private guess(raw: string, text: string, line: number, alone: boolean, after: string): void {
    const indented = /^\s{2,}|^\t/.test(raw) && this.question !== null;
    const number = numberIn(text);
    if (number !== null && !indented && this.opens(number)) return this.ask(number, text, line);
    const isInstruction = this.question !== null && clausesIn(text) !== null;
    const asked = isInstruction ? null : askedOf(text);
    if (asked !== null) return this.asked(asked, text, line, after);
    // A heading stands before questions or text, not before answers.
    const mayHead = alone && !indented && (after === '' || !hasBullet(after));
    const letter = /^([A-Z])[.)]\s+(\p{Lu}[^?]*)$/u.exec(text);
    const opensLetter = letter !== null && (numberIn(after)?.number ?? '').startsWith(letter[1] ?? ' ');
    const heading = opensLetter ? inSentenceCase(letter[2] ?? text) : headingIn(text, mayHead);
    if (heading !== null) return this.open(heading, line, text);
    const isNew = this.question === null || alone || this.question.options.length > 0;
    if (
      number === null &&
      !indented &&
      !hasBullet(text) &&
      isNew &&
      /\?\W*(?:[([].*[)\]])?$/.test(text) &&
      words(text) > 2
    )
      return this.ask(null, text, line);
    if (this.question === null || (THANKS.test(text) && !indented && !hasBullet(text))) {
      this.question = null;
      return this.tell(text, line);
    }
    this.under(this.question, indented && number !== null ? `${number.number} ${number.rest}` : text, line);
  }

  /** Whether a number in front makes a question of a line; answers have numbers too. */
  private opens({ number, isMarked, stop, rest }: Numbered): boolean {
    if (isMarked) return true;
    if (rest === '' && stop === '') return false;
    const own = Number(number);
    const isNext = this.lastNumber === null ? own === 1 || Number.isNaN(own) : own === this.lastNumber + 1;
    if (this.question !== null) {
      const { lastNumber } = this.question;
      const goesOn = own === (lastNumber ?? 0) + 1;
      if (!asks(rest) && goesOn && (this.isMarked || !isNext || lastNumber !== null)) return false;
      if (this.isMarked && !asks(rest)) return false;
    }
    return stop === '' ? asks(rest) && words(rest) > 2 : true;
  }

  private open(title: string, line: number, text: string): void {
    const report = this.say(line, text, 'section', `section ${title}`);
    this.sections.push({ title, kind: guessKind(title), entries: [], report });
    this.question = null;
  }

  private current(): DraftSection {
    if (this.sections.length === 0)
      this.sections.push({ title: 'Questions', kind: 'topic', entries: [], report: null });
    return this.sections.at(-1) as DraftSection;
  }

  private ask(numbered: Numbered | null, raw: string, line: number): void {
    this.count += 1;
    const number = numbered?.number ?? '';
    const plain = number === '' ? String(this.count) : number.toLowerCase().replace(/^q/, '');
    const moved = /^\d{1,6}$/.test(plain) ? Number(plain) + this.past : plain;
    const name = freshName(`q${moved}`, this.names);
    this.names.add(name.toLowerCase());
    const row = this.say(line, raw, 'question', `question ${name}`, this.numberDoubt(number));
    const question: DraftQuestion = {
      name,
      number,
      text: '',
      options: [],
      lettered: new Set(),
      common: [],
      picks: null,
      scale: null,
      written: null,
      hints: numbered?.rest ?? raw,
      note: null,
      instruction: null,
      unit: null,
      askedOf: this.waiting,
      skips: [],
      lastNumber: null,
      report: row,
    };
    this.waiting = null;
    this.question = question;
    this.current().entries.push(question);
    question.text = this.wordsOf(question, numbered?.rest ?? raw, row);
    if (question.text === '') row.doubt ??= 'this question has no words';
  }

  private numberDoubt(number: string): string | null {
    if (number === '') return this.hasNumbers ? 'it has no number; the others have one' : null;
    const own = Number(number);
    const last = this.lastNumber;
    if (Number.isNaN(own)) return null;
    this.lastNumber = own;
    if (last === null || own === last + 1) return null;
    if (own <= last) return `number ${own} comes after ${last}`;
    return own === last + 2
      ? `number ${own} follows ${last}: is ${last + 1} missing?`
      : `number ${own} follows ${last}: are some missing?`;
  }

  /** The question itself, without what stands at its ends: whom it is asked of, hints, answers, where it leads. */
  private wordsOf(question: DraftQuestion, rest: string, row: LineReport): string {
    let text = rest.trim();
    const before = /^([([][^)\]]+[)\]])\s*(.+)$/.exec(text);
    const asked = before === null ? null : askedOf(before[1] ?? '');
    if (before !== null && asked !== null) {
      this.askOnly(question, { of: asked, report: row });
      text = before[2] ?? '';
    }
    for (let bracket = lastBracket(text); bracket !== null; bracket = lastBracket(text)) {
      const { inner, head } = bracket;
      const jump = jumpIn(inner);
      const answers = rowOfAnswers(inner);
      const of = askedOf(inner);
      if (of !== null) this.askOnly(question, { of, report: row });
      else if (jump !== null) this.skip(question, [], null, jump, row);
      else if (!this.hint(question, inner)) {
        if (answers === null) break;
        for (const label of answers) this.option(question, label, null);
        row.says += `, ${answers.length} answers`;
      }
      text = head;
    }
    const { words: plain, jump } = splitJump(text);
    if (jump !== null && plain !== '') {
      this.skip(question, [], null, jump, row);
      text = plain;
    }
    const inline = /^(.*\?)\s+(\S.*)$/.exec(text);
    const answers = inline === null ? null : rowOfAnswers(inline[2] ?? '');
    if (inline !== null && answers !== null && question.options.length === 0) {
      for (const label of answers) this.option(question, label, null);
      row.says += `, ${answers.length} answers`;
      return inline[1] ?? '';
    }
    for (const { index, 0: stop } of text.matchAll(/[.?!:]\s+/g)) {
      const scale = scaleIn(text.slice(index + stop.length));
      if (scale === null) continue;
      question.scale = scale;
      row.says += `, a scale from ${scale.min} to ${scale.max}`;
      return text.slice(0, index + 1);
    }
    question.picks ??= picksIn(text);
    const line = /^(.*?[^\s_])\s*_{2,}\s*(\p{L}*)\.?$/u.exec(text);
    if (line === null) return text;
    if (line[2]) question.unit = line[2];
    else question.written = 'one';
    return line[1] ?? text;
  }

  /** Takes a hint over; false where some words are none. */
  private hint(question: DraftQuestion, text: string): boolean {
    const picks = picksIn(text);
    const written = writtenIn(text);
    const scale = scaleIn(text);
    if (picks !== null) question.picks = picks;
    else if (written !== null) question.written = written;
    else if (scale !== null) question.scale = scale;
    else if (
      /^(?:number|numeric|whole number|years?|date|time|enter a number|dd.?mm.?yyyy|-?\d+\s*(?:to|–|-|\.\.)\s*\d+.*)$/i.test(
        text.trim(),
      )
    )
      question.hints += ` (${text})`;
    else return false;
    return true;
  }

  private under(question: DraftQuestion, text: string, line: number): void {
    if (clausesIn(text) !== null) return this.skipped(text, line);
    if (
      /^[([]?\s*(?:then\s+|all\s+|everyone\s+)?(?:skip|go|jump|move|proceed)\s+(?:on\s+)?to\b|^(?:->|→|=>)/i.test(
        text,
      )
    )
      return this.skipped(text, line);
    const bare = text.replace(/^[([]\s*|\s*[)\]]$/g, '');
    const bracketed = /^[([].*[)\]]$/.test(text) && !hasBullet(text);
    const written = writtenIn(text);
    if (written !== null) {
      if (question.options.length > 0) {
        const last = question.options.at(-1) as Option;
        question.options[question.options.length - 1] = { ...last, specify: true };
        return void this.say(line, text, 'note', `answer ${last.code} is to be specified`);
      }
      question.written = written;
      return void this.say(line, text, 'note', 'answered in words');
    }
    const scale = hasBullet(text) ? null : scaleIn(text);
    if (scale !== null && question.options.length === 0) {
      question.scale = scale;
      return void this.say(line, text, 'answer', `a scale from ${scale.min} to ${scale.max}`);
    }
    if (!hasBullet(text) && picksIn(text) !== null && words(text) > 1) {
      question.picks = picksIn(text);
      return void this.say(line, text, 'note', picksWords(question.picks as PicksAllowed));
    }
    if (bracketed) {
      if (this.hint(question, bare)) return void this.say(line, text, 'note', 'what is answered');
      return this.note(text, line);
    }
    if (/^(?:note|interviewer|instruction|show ?card|help|hint)\b\s*[:–-]/i.test(text))
      return this.note(text, line);
    this.answer(question, text, line);
  }

  private note(text: string, line: number): void {
    const plain = text.replace(/^[([]\s*|\s*[)\]]$/g, '');
    if (this.question === null) return this.tell(plain, line);
    const told = /^(?:interviewer|instruction)s?\b\s*[:–-]\s*(.*)$/i.exec(plain)?.[1];
    if (told !== undefined) {
      this.question.instruction = [this.question.instruction, told].filter(Boolean).join(' ');
      return void this.say(line, text, 'note', 'for the interviewer');
    }
    const help = plain.replace(/^(?:note|help|hint)\b\s*[:–-]\s*/i, '');
    this.question.note = this.question.note === null ? help : `${this.question.note} ${help}`;
    this.say(line, text, 'note', `help under ${this.question.name}`);
  }

  private asked(of: AskedOf, text: string, line: number, after: string): void {
    // Beneath a question that has its answers it speaks of the one to come.
    const next = this.question === null || this.question.options.length > 0 || numberIn(after) !== null;
    const row = this.say(line, text, 'skip', '');
    if (!next && this.question !== null) return this.askOnly(this.question, { of, report: row });
    if (this.waiting !== null) unused(this.waiting.report, 'another line of the kind follows it');
    this.waiting = { of, report: row };
  }

  /** A question is asked of those one line names; the line nearest to its words is the one that counts. */
  private askOnly(question: DraftQuestion, askedOf: NonNullable<DraftQuestion['askedOf']>): void {
    const earlier = question.askedOf;
    if (earlier !== null) unused(earlier.report, `${question.name} says itself whom it is asked of`);
    question.askedOf = askedOf;
  }

  private skipped(text: string, line: number): void {
    const { question } = this;
    const clauses = clausesIn(text);
    if (question === null) return void this.say(line, text, 'trouble', 'it stands below no question');
    const row = this.say(line, text, 'skip', '');
    if (clauses !== null) {
      for (const { answers, to } of clauses) {
        if (to === 'on') row.says = joined(row.says, `${answers.join(' or ')} carries on`);
        else this.skip(question, answers, null, to, row);
      }
      return;
    }
    const to =
      jumpIn(text.replace(/^[([]?\s*(?:then|all|everyone)\s+/i, '')) ??
      splitJump(text).jump ??
      withoutBullet(text);
    if (to === 'on') row.says = 'carries on';
    else this.skip(question, [], null, to, row);
  }

  private skip(
    question: DraftQuestion,
    labels: readonly string[],
    code: number | null,
    to: string,
    report: LineReport,
  ): void {
    if (to === 'on') return;
    question.skips.push({ labels, code, to, section: this.sections.length - 1, report });
  }

  private answer(question: DraftQuestion, raw: string, line: number): void {
    const lettered = isLettered(raw);
    const plain = withoutBullet(raw);
    const coded = codedRow(plain);
    if (coded !== null) {
      for (const { code, label } of coded) this.option(question, label, code);
      return void this.say(line, raw, 'answer', `${coded.length} answers of ${question.name}`);
    }
    const { words: said, jump } = splitJump(plain);
    const row = jump === null ? rowOfAnswers(plain) : null;
    const single = codeIn(plain);
    if (row !== null && (single.code === null || row.length > 2)) {
      const statements = question.options.length;
      if (row.length >= 3 && statements >= 2 && question.common.length === 0) {
        question.common = row;
        return void this.say(
          line,
          raw,
          'answer',
          `${row.length} answers to each of ${statements} statements`,
        );
      }
      if (row.length >= 3 && statements === 0 && question.common.length === 0) {
        question.common = row;
        return void this.say(line, raw, 'answer', `${row.length} answers of ${question.name}`);
      }
      for (const label of row) this.option(question, label, null);
      return void this.say(line, raw, 'answer', `${row.length} answers of ${question.name}`);
    }
    const numbered = /^(\d{1,3})[.):]\s+(\S.*)$/.exec(said);
    const found = numbered === null ? codeIn(said) : { label: numbered[2] ?? '', code: Number(numbered[1]) };
    question.lastNumber = found.code;
    const option = this.option(question, found.label, found.code);
    if (lettered) question.lettered.add(option);
    const long = words(found.label) > 14 && !lettered;
    const report = this.say(
      line,
      raw,
      'answer',
      `answer ${option.code} of ${question.name}`,
      long ? 'long for an answer: is it text?' : null,
    );
    if (jump !== null) this.skip(question, [], option.code, jump, report);
  }

  private option(question: DraftQuestion, label: string, code: number | null): Option {
    const taken = question.options.some((each) => each.code === code);
    const option = optionFrom(label, taken ? null : code, question.options);
    question.options.push(option);
    return option;
  }

  private tell(text: string, line: number): void {
    const { entries } = this.current();
    const last = entries.at(-1);
    if (last !== undefined && 'kind' in last)
      entries[entries.length - 1] = { ...last, text: `${last.text}\n${text}` };
    else {
      const name = freshName(`text_${entries.length + 1}`.slice(0, NAME_LENGTH), this.names);
      this.names.add(name);
      entries.push({ kind: 'statement', name, text });
    }
    this.say(line, text, 'text', 'text shown to respondents');
  }
}

/** The last bracket of some words that end with one. */
function lastBracket(text: string): { inner: string; head: string } | null {
  const found = /^(.*\S)\s*[([]([^()[\]]+)[)\]]\s*[.:]?$/.exec(text);
  return found === null ? null : { head: found[1] ?? '', inner: found[2] ?? '' };
}

function picksWords({ several, least, most }: PicksAllowed): string {
  if (!several) return 'one answer';
  const limits = [
    least === undefined ? '' : `at least ${least}`,
    most === undefined ? '' : `at most ${most}`,
  ];
  const said = limits.filter((part) => part !== '').join(', ');
  return said === '' ? 'several answers may be picked' : `several answers: ${said}`;
}
