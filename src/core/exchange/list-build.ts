/**
 * From the gathered questions of a list to a questionnaire, or to a change of one that is open. Skips and conditions are
 * made here, when every question has its answers.
 */
import { isNumeric, isWritten, picksOne } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type {
  Answer,
  Ending,
  EndingKind,
  Item,
  Option,
  Question,
  Questionnaire,
  Section,
  Skip,
  Target,
} from '../document/types';
import { SECTIONS } from '../document/vocabularies';
import { applyChange, type Change } from '../editing/change';
import { emptyQuestionnaire, newSection } from '../editing/structure';
import { isSuggested } from '../editing/suggested';
import {
  answerFrom,
  codeFor,
  conditionOf,
  joined,
  unused,
  type DraftQuestion,
  type DraftSection,
  type DraftSkip,
} from './list-draft';
import { homesIn, homeWords, orderWith, putIn, type ListPlace, type SectionHome } from './list-into';
import { CLOSE, SCREEN } from './list-lines';

export interface Gathered {
  readonly title: string;
  readonly sections: readonly DraftSection[];
  /** Whom a question was to be asked of that did not come. */
  readonly waiting: DraftQuestion['askedOf'];
  /** In lower case; added to. */
  readonly names: Set<string>;
  readonly into: ListPlace | null;
}

export interface Built {
  readonly document: Questionnaire;
  readonly change: Change | null;
  readonly first: string | null;
  readonly skips: number;
}

/** With a report on every line: what it became, or why it became nothing. */
export function buildList(gathered: Gathered): Built {
  return new Builder(gathered).build();
}

/** A question that a line speaks of, of the list or of the study that it is put into. */
interface Known {
  readonly name: string;
  readonly answer: Answer;
  readonly options: readonly Option[];
}

class Builder {
  private skips = 0;
  private sections: readonly Section[] = [];
  /** Ids of the sections that may be spoken of, in their order. */
  private order: readonly string[] = [];
  private readonly endings: Ending[] = [];

  constructor(private readonly gathered: Gathered) {}

  build(): Built {
    const { title, sections: drafts, waiting, into } = this.gathered;
    if (waiting !== null) unused(waiting.report, 'no question follows it');
    const base = emptyQuestionnaire(title);
    if (into === null) {
      const kept = drafts.length > 0 ? drafts : [{ title: 'Questions', kind: 'topic', entries: [] } as const];
      const made: Section[] = [];
      for (const draft of kept) made.push(newSection({ ...base, sections: made }, draft.title, draft.kind));
      this.sections = made;
      this.order = made.map(({ id }) => id);
      const sections = made.map((section, s) => ({
        ...section,
        items: this.itemsOf(kept[s]?.entries ?? []),
      }));
      return { document: { ...base, sections }, change: null, first: firstOf(sections), skips: this.skips };
    }
    const parts = drafts.map(({ title: words, kind, report }) => ({
      title: words,
      kind,
      isHeaded: report !== null,
    }));
    const homes = homesIn(into, parts);
    this.sections = homes.map(({ section }) => section);
    this.order = orderWith(into, homes);
    const items = drafts.map(({ entries, report }, n) => {
      if (report !== null) report.says = homeWords(into, homes[n] as SectionHome);
      return this.itemsOf(entries);
    });
    if (drafts.length === 0) return { document: into.document, change: null, first: null, skips: 0 };
    const change = putIn(into, homes, items, this.endings);
    const { document } = applyChange(into.document, change);
    return { document, change, first: firstOf(items.map((list) => ({ items: list }))), skips: this.skips };
  }

  private itemsOf(entries: readonly DraftSection['entries'][number][]): Item[] {
    return entries.map((entry): Item => ('kind' in entry ? entry : this.toQuestion(entry)));
  }

  private toQuestion(draft: DraftQuestion): Question {
    const answer = answerFrom(draft, this.gathered.names);
    if (
      isWritten(answer) &&
      draft.written === null &&
      draft.hints !== '' &&
      !/\bwhy\b|describe|comment|anything else/i.test(draft.hints)
    )
      draft.report.doubt ??= 'no answers stand below it: answered in words';
    draft.report.says = draft.report.says.replace(
      /^question \S+/,
      (said) => `${said}: ${answerWords(answer)}`,
    );
    if (picksOne(answer) && answer.options.length === 1)
      draft.report.doubt ??= 'it has one answer only: is that an answer at all?';
    if (isNumeric(answer) && isSuggested(answer))
      draft.report.doubt ??= `a number from ${answer.min} to ${answer.max} is a guess: write the limits, as in (0 to 20)`;
    const skips = draft.skips.flatMap((entry) => this.toSkip(draft, answer, entry));
    const askIf = draft.askedOf === null ? null : this.toAskIf(draft, draft.askedOf);
    const steers = skips.length > 0;
    return {
      kind: 'question',
      name: draft.name,
      text: draft.text,
      ...(draft.note === null ? {} : { note: draft.note }),
      ...(draft.instruction === null ? {} : { instruction: draft.instruction }),
      answer,
      ...(steers || !isWritten(answer) ? { required: true } : {}),
      ...(askIf === null ? {} : { askIf }),
      ...(steers ? { skips } : {}),
    };
  }

  private toSkip(draft: DraftQuestion, answer: Answer, entry: DraftSkip): Skip[] {
    const to = this.targetOf(entry);
    const { report: row } = entry;
    if (to === null) {
      unused(row, `“${entry.to}” is no question or section of ${this.where()}, so no skip was made`);
      return [];
    }
    const codes =
      entry.code !== null ? [entry.code] : entry.labels.map((label) => codeFor(label, draft.options));
    const unknown = entry.labels.filter((_, n) => codes[n] === null);
    if (unknown.length > 0) {
      unused(row, `“${unknown.join('”, “')}” is no answer of ${draft.name}, so no skip was made`);
      return [];
    }
    const condition = conditionOf(draft.name, answer, codes as number[]);
    row.says = joined(
      row.says,
      `skip to ${Object.values(to)[0]}${condition === null ? '' : ` if ${condition}`}`,
    );
    this.skips += 1;
    return [{ ...(condition === null ? {} : { if: condition }), to }];
  }

  private toAskIf(
    draft: DraftQuestion,
    { of, report }: NonNullable<DraftQuestion['askedOf']>,
  ): string | null {
    const found = this.known(of.number, draft);
    if (found === null) {
      unused(report, `there is no question ${of.number} before it in ${this.where()}, so it is asked of all`);
      return null;
    }
    const codes = of.answers.map((label) => codeFor(label, found.options));
    const unknown = of.answers.filter((_, n) => codes[n] === null);
    if (unknown.length > 0 || codes.length === 0) {
      unused(report, `“${unknown.join('”, “')}” is no answer of ${found.name}, so it is asked of all`);
      return null;
    }
    const condition = conditionOf(found.name, found.answer, codes as number[]);
    report.says = joined(report.says, `asked if ${condition ?? ''}`);
    return condition;
  }

  private where(): string {
    return this.gathered.into === null ? 'this list' : 'this list or the study';
  }

  /** By its number in the list, before one of its questions where that is given; else by its name in the study. */
  private known(number: string, before: DraftQuestion | null = null): Known | null {
    const wanted = number.trim().toLowerCase();
    const listed = this.gathered.sections.flatMap(({ entries }) => entries);
    const end = before === null ? listed.length : listed.indexOf(before);
    for (const entry of listed.slice(0, end))
      if ('number' in entry && entry.number.toLowerCase() === wanted)
        return { name: entry.name, answer: answerFrom(entry), options: entry.options };
    for (const { items } of this.gathered.into?.document.sections ?? [])
      for (const item of items)
        if (item.kind === 'question' && [wanted, `q${wanted}`].includes(item.name.toLowerCase()))
          return { name: item.name, answer: item.answer, options: optionsOf(item.answer) };
    return null;
  }

  private targetOf({ to, section }: DraftSkip): Target | null {
    const plain = to.trim();
    if (SCREEN.test(plain)) return { ending: this.ending('screened_out') };
    if (CLOSE.test(plain)) {
      const kind = this.sections[section]?.kind;
      return { ending: this.ending(kind === undefined ? 'complete' : SECTIONS[kind].sendsTo) };
    }
    const question = this.known(plain.replace(/^(?:question|q)\.?\s*/i, ''));
    if (question !== null) return { item: question.name };
    const title = plain.replace(/^(?:section|part|block)\s+/i, '').toLowerCase();
    if (title === 'next section') {
      const next = this.order[this.order.indexOf(this.sections[section]?.id ?? '') + 1];
      return next === undefined ? null : { section: next };
    }
    const letter = /^[a-z]$/.test(title) ? title.charCodeAt(0) - 97 : -1;
    const all = this.gathered.into?.document.sections ?? [];
    const titled = [...this.sections, ...all].find((each) => each.title.toLowerCase() === title);
    const found = titled ?? this.sections[letter] ?? all[letter];
    return found === undefined ? null : { section: found.id };
  }

  /** The ending of a kind that the study has; one is added where it has none. */
  private ending(kind: EndingKind): string {
    const { into } = this.gathered;
    const base = emptyQuestionnaire('').endings;
    if (into === null) return kind;
    const own = [...into.document.endings, ...this.endings].find((ending) => ending.kind === kind);
    if (own !== undefined) return own.id;
    const added = base.find((ending) => ending.kind === kind);
    if (added === undefined) return kind;
    const taken = into.document.endings.some(({ id }) => id.toLowerCase() === added.id);
    const ending = { ...added, id: taken ? `${added.id}_2` : added.id };
    this.endings.push(ending);
    return ending.id;
  }
}

/** The type of an answer in a few words. */
function answerWords(answer: Answer): string {
  const { type } = answer;
  switch (type) {
    case 'single':
      return answer.options.length === 1 ? 'a single answer' : `one of ${answer.options.length} answers`;
    case 'multiple':
      return `several of ${answer.options.length} answers`;
    case 'rank':
      return `a ranking of ${answer.options.length}`;
    case 'grid':
      return `a grid of ${answer.rows.length} rows`;
    case 'scale':
      return `a scale from ${answer.min} to ${answer.max}`;
    case 'number':
      return `a number from ${answer.min} to ${answer.max}`;
    case 'text':
      return answer.lines === 'many' ? 'a long text' : 'a text';
    case 'date':
    case 'time':
      return `a ${type}`;
    case 'datetime':
      return 'a date and time';
    default:
      return type satisfies never;
  }
}

function firstOf(sections: readonly { readonly items: readonly Item[] }[]): string | null {
  for (const { items } of sections)
    for (const item of items) if (item.kind !== 'page_break') return item.name;
  return null;
}
