/** The bank: questions, answer lists and sections that all studies share, and how they are put into one. */
import { castDraft, type Draft } from 'immer';
import { problemText, readDocument } from '../document/read';
import { optionsOf } from '../document/shape';
import type { Option, Question, Questionnaire, Section } from '../document/types';
import type { Change } from './change';
import { copiesOfItems, copyOfSection } from './copies';
import { withListOf } from './lists';
import { emptyQuestionnaire, type ItemPlace } from './structure';

export type BankContent =
  | { readonly kind: 'question'; readonly question: Question }
  | { readonly kind: 'answers'; readonly options: readonly Option[] }
  | { readonly kind: 'section'; readonly section: Section };

export type ReadContent =
  { readonly ok: true; readonly content: BankContent } | { readonly ok: false; readonly problem: string };

/** Takes what came from outside for something of the bank, if it could stand in a questionnaire. */
export function readContent(kind: BankContent['kind'], value: unknown): ReadContent {
  const empty = emptyQuestionnaire('Bank');
  const holder = {
    id: 'bank',
    title: 'Bank',
    kind: 'topic',
    items:
      kind === 'answers'
        ? [{ kind: 'question', name: 'bank', text: '', answer: { type: 'single', options: value } }]
        : [value],
  };
  const read = readDocument({ ...empty, sections: kind === 'section' ? [value] : [holder] });
  if (!read.ok) {
    const [problem] = read.problems;
    return { ok: false, problem: problem === undefined ? 'This cannot be used.' : problemText(problem) };
  }
  const [section] = read.document.sections as [Section];
  if (kind === 'section') return { ok: true, content: { kind, section } };
  const [question] = section.items;
  if (question?.kind !== 'question') return { ok: false, problem: 'Only questions are kept in the bank.' };
  return kind === 'question'
    ? { ok: true, content: { kind, question } }
    : { ok: true, content: { kind, options: optionsOf(question.answer) } };
}

/** Where something of the bank goes: after an item, into a question, or after a section. */
export interface BankPlace {
  readonly section: number;
  /** Null: at the end of the section. */
  readonly item: number | null;
}

/** Why it cannot go there; null where it can. */
export function insertProblem(
  document: Questionnaire,
  { section, item }: BankPlace,
  content: BankContent,
): string | null {
  if (content.kind !== 'answers') return null;
  const found = item === null ? undefined : document.sections[section]?.items[item];
  return found?.kind === 'question' && 'options' in found.answer
    ? null
    : 'Select a question with an answer list first: its answers are replaced.';
}

/** Puts a copy in, with names that are free. What it refers to in the study it came from is told of, if it is not here. */
export function insertFromBank(document: Questionnaire, place: BankPlace, content: BankContent): Change {
  switch (content.kind) {
    case 'question': {
      const [copy] = copiesOfItems(document, [content.question]);
      const at = place.item === null ? (document.sections[place.section]?.items.length ?? 0) : place.item + 1;
      return {
        label: `Take “${content.question.name}” from the bank`,
        telling: true,
        apply: (draft) => {
          if (copy !== undefined) draft.sections[place.section]?.items.splice(at, 0, castDraft(copy));
        },
      };
    }
    case 'answers': {
      const from: Question = {
        kind: 'question',
        name: 'the bank',
        text: '',
        answer: { type: 'single', options: content.options },
      };
      return withListOf({ section: place.section, item: place.item ?? 0 } satisfies ItemPlace, from);
    }
    case 'section': {
      const copy: Draft<Section> = castDraft({
        ...copyOfSection(document, content.section),
        title: content.section.title,
      });
      return {
        label: `Take section “${content.section.title}” from the bank`,
        telling: true,
        apply: (draft) => void draft.sections.splice(place.section + 1, 0, copy),
      };
    }
    default:
      return content satisfies never;
  }
}

/** The names of what in a questionnaire says the same as something of the bank: the same words, whatever it is called. */
export function usesOf({ sections }: Questionnaire, content: BankContent): string[] {
  const questions = sections.flatMap(({ items }) =>
    items.filter((item): item is Question => item.kind === 'question'),
  );
  switch (content.kind) {
    case 'question':
      return questions.filter((question) => saysSame(question, content.question)).map(({ name }) => name);
    case 'answers':
      return questions
        .filter(({ answer }) => 'options' in answer && labels(answer.options) === labels(content.options))
        .map(({ name }) => name);
    case 'section':
      return sections
        .filter((section) => sectionWords(section) === sectionWords(content.section))
        .map(({ title }) => title);
    default:
      return content satisfies never;
  }
}

function saysSame(a: Question, b: Question): boolean {
  return (
    a.text === b.text &&
    a.answer.type === b.answer.type &&
    labels(optionsOf(a.answer)) === labels(optionsOf(b.answer))
  );
}

function labels(options: readonly Option[]): string {
  return options.map(({ label }) => label).join('\n');
}

function sectionWords({ items }: Section): string {
  return items.map((item) => (item.kind === 'page_break' ? '' : item.text)).join('\n');
}
