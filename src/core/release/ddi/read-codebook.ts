/**
 * A questionnaire of a DDI-Codebook file: its questions, or where it has none its variables, with their codes. A codebook
 * says of whom a question was asked, and seldom how they came there: what is no condition is told.
 */
import { parseCondition } from '../../condition/parse';
import { freshName, nameProblem } from '../../document/names';
import { readDocument } from '../../document/read';
import type { Answer, Item, MissingCode, Option, Question, Section } from '../../document/types';
import { emptyQuestionnaire, guessKind } from '../../editing/structure';
import { NO_WORK } from '../../exchange/work-file';
import { allNamed, childOf, childrenOf, downTo, readXml, type ReadElement } from '../../exchange/xml';
import type { Doubt, ReadStudy } from '../format-types';
import { ASK_IF_NOTE } from './codebook';

/** Variables that are taken over at most; a questionnaire has fewer. */
const MOST_TAKEN = 20_000;

export function readDdiCodebook(bytes: Uint8Array, title: string): ReadStudy {
  const read = readXml(bytes);
  if (!read.ok) return { ok: false, problems: [read.problem] };
  if (read.root.name !== 'codeBook')
    return {
      ok: false,
      problems: [
        `It is no DDI-Codebook: it begins with <${read.root.name}>, and a codebook with <codeBook>.`,
      ],
    };
  if (allNamed(read.root, 'var').length > MOST_TAKEN)
    return {
      ok: false,
      problems: [`It has more than ${MOST_TAKEN.toLocaleString('en')} variables: divide it.`],
    };
  return new CodebookReader(read.root).study(title);
}

interface Home {
  readonly section: { -readonly [Key in keyof Section]: Section[Key] } & { items: Item[] };
  readonly members: ReadonlySet<string>;
}

class CodebookReader {
  private readonly doubts: Doubt[] = [];
  private readonly names = new Set<string>();
  private readonly ids = new Set<string>();
  private readonly variables: readonly ReadElement[];
  private readonly byId: ReadonlyMap<string, ReadElement>;
  private readonly homes: Home[] = [];
  /** Variables that are part of a question of several, and that question's group. */
  private readonly groupOf = new Map<string, ReadElement>();
  private readonly done = new Set<ReadElement>();
  /** Codes that stand for no answer in most variables: the plan. */
  private readonly planned: ReadonlyMap<number, string>;

  /** Of this house: what has no ask-if of its own is reached by skips. */
  private readonly isOurs: boolean;

  constructor(private readonly root: ReadElement) {
    this.variables = allNamed(root, 'var');
    this.byId = new Map(this.variables.map((each) => [each.attributes.ID ?? '', each]));
    for (const group of allNamed(root, 'varGrp')) this.group(group);
    this.planned = plannedIn(this.variables);
    this.isOurs = this.variables.some((variable) =>
      childrenOf(variable, 'notes').some(({ attributes }) => attributes.type === ASK_IF_NOTE),
    );
  }

  private doubt(at: ReadElement, what: string): void {
    this.doubts.push({ line: at.line, what });
  }

  private group(group: ReadElement): void {
    const { type = '', var: members = '' } = group.attributes;
    const ids = members.split(/\s+/).filter((id) => id !== '');
    if (type === 'section' || type === 'repetition') {
      this.homes.push({
        section: this.section(labelOf(group), group.attributes.name),
        members: new Set(ids),
      });
      if (type === 'repetition')
        this.doubt(group, `“${labelOf(group)}” was asked several times: here it is asked once`);
    } else if (
      type === 'multipleResp' ||
      type === 'grid' ||
      (type === 'other' && group.attributes.ID?.startsWith('G_'))
    )
      for (const id of ids) this.groupOf.set(id, group);
  }

  private section(title: string, id: string | undefined): Home['section'] {
    const wanted = id ?? title;
    const isFree = nameProblem(wanted) === null && !this.ids.has(wanted.toLowerCase());
    const own = isFree ? wanted : freshName(wanted || 'section', this.ids);
    this.ids.add(own.toLowerCase());
    return { id: own, title, kind: guessKind(title), items: [] };
  }

  study(title: string): ReadStudy {
    const asked = this.variables.some((variable) => childOf(variable, 'qstn') !== undefined);
    if (!asked && this.variables.length > 0)
      this.doubt(this.root, 'it has no words of questions: the labels of the variables stand in their place');
    for (const variable of this.variables) this.take(variable, asked);
    const sections = this.homes.map(({ section }) => section).filter(({ items }) => items.length > 0);
    if (sections.length === 0) return { ok: false, problems: ['There is no variable in it.'] };
    const words = downTo(this.root, 'stdyDscr', 'citation', 'titlStmt', 'titl')?.text.trim();
    const base = emptyQuestionnaire(words ?? title);
    const language = this.root.attributes.lang;
    const document = {
      ...base,
      ...(language === undefined ? {} : { language }),
      missing: this.missing(base.missing),
      sections,
    };
    const sound = readDocument(document);
    if (!sound.ok) return { ok: false, problems: sound.problems.slice(0, 20).map(({ message }) => message) };
    return { ok: true, content: { document: sound.document, work: NO_WORK }, doubts: this.doubts };
  }

  /** The plan of this house, with the codes that the file has for the same reasons. */
  private missing(base: readonly MissingCode[]): MissingCode[] {
    const byLabel = new Map([...this.planned].map(([code, label]) => [label.toLowerCase(), code]));
    return base.map((entry) => ({ ...entry, code: byLabel.get(entry.label.toLowerCase()) ?? entry.code }));
  }

  private take(variable: ReadElement, asked: boolean): void {
    const { ID: id = '', name = id } = variable.attributes;
    const group = this.groupOf.get(id);
    const question = childOf(variable, 'qstn');
    if (group !== undefined) {
      if (this.done.has(group)) return;
      this.done.add(group);
      this.put(id, variable, this.several(group));
      return;
    }
    // Another column of a question that is told elsewhere.
    if (question?.attributes.qstn !== undefined && childOf(question, 'qstnLit') === undefined) return;
    if (asked && question === undefined) {
      this.doubt(variable, `the variable “${name}” comes of no question, and was not taken over`);
      return;
    }
    // Of a question that is asked several times, the variable is that of one pass.
    const own = /^Q_(\w+)$/.exec(question?.attributes.ID ?? '')?.[1];
    this.put(id, variable, { name: own ?? name, answer: this.answerOf(variable) });
  }

  private put(id: string, variable: ReadElement, made: Pick<Question, 'name' | 'answer'>): void {
    const question = childOf(variable, 'qstn');
    const home = this.homes.find(({ members }) => members.has(id)) ?? this.other();
    const words = (of: string) => childrenOf(question ?? variable, of).map(({ text }) => text.trim());
    for (const text of words('preQTxt'))
      home.section.items.push({ kind: 'statement', name: this.fresh('text'), text });
    const [instruction] = words('ivuInstr');
    const [note] = words('postQTxt');
    const group = this.groupOf.get(id);
    const label = labelOf(group ?? variable);
    const text = words('qstnLit').join('\n\n') || label || made.name;
    const askIf = this.askIf(variable);
    home.section.items.push({
      kind: 'question',
      name: this.fresh(made.name),
      text,
      ...(label === '' || label === text ? {} : { label }),
      ...(note === undefined ? {} : { note }),
      ...(instruction === undefined ? {} : { instruction }),
      ...(askIf === null ? {} : { askIf }),
      answer: made.answer,
    });
    for (const forward of childrenOf(question ?? variable, 'forward'))
      this.doubt(forward, `“${forward.text.trim()}” was not made a skip: aim it in the Script`);
  }

  private other(): Home {
    const last = this.homes.find(({ members }) => members.size === 0);
    if (last !== undefined) return last;
    const made: Home = { section: this.section('Questions', undefined), members: new Set() };
    this.homes.push(made);
    return made;
  }

  private askIf(variable: ReadElement): string | null {
    const note = childrenOf(variable, 'notes')
      .find(({ attributes }) => attributes.type === ASK_IF_NOTE)
      ?.text.trim();
    if (note !== undefined && parseCondition(note).ok) return note;
    const universe = childOf(variable, 'universe')?.text.trim() ?? '';
    if (
      universe !== '' &&
      !/^(everyone|everybody|all|all respondents)\b/i.test(universe) &&
      note === undefined &&
      !this.isOurs
    )
      this.doubt(
        variable,
        `whom it is asked of, “${universe}”, is no condition that can be read here: it is asked of everybody`,
      );
    return null;
  }

  private fresh(wanted: string): string {
    const isFree = nameProblem(wanted) === null && !this.names.has(wanted.toLowerCase());
    const name = isFree ? wanted : freshName(wanted || 'item', this.names);
    this.names.add(name.toLowerCase());
    return name;
  }

  /** A question whose picks, rows or places are variables of their own. */
  private several(group: ReadElement): Pick<Question, 'name' | 'answer'> {
    const members = (group.attributes.var ?? '').split(/\s+/).flatMap((id) => this.byId.get(id) ?? []);
    const name = group.attributes.name ?? group.attributes.ID ?? 'group';
    const [first] = members;
    const codes = first === undefined ? [] : this.options(first);
    const { type: kind } = group.attributes;
    if (kind === 'grid')
      return {
        name,
        answer: {
          type: 'grid',
          rows: members.map((member) => ({
            name: this.fresh(member.attributes.name ?? 'row'),
            label: partOf(member),
          })),
          options: codes.length > 0 ? codes : [{ code: 1, label: '' }],
        },
      };
    if (kind === 'other')
      return {
        name,
        answer: {
          type: 'rank',
          options: codes.length > 0 ? codes : [{ code: 1, label: '' }],
          top: members.length,
        },
      };
    const apart = codes.filter(({ code, missing }) => missing !== undefined && code !== 0 && code !== 1);
    const picks = members.map((member, n): Option => {
      const code = Number(/_(-?\d+)$/.exec(member.attributes.name ?? '')?.[1] ?? n + 1);
      const none = apart.find((each) => each.code === code);
      return {
        code,
        label: partOf(member),
        ...(none === undefined ? {} : { missing: none.missing ?? 'not_available' }),
      };
    });
    return { name, answer: { type: 'multiple', options: picks } };
  }

  /** Without the codes of the plan. */
  private options(variable: ReadElement): Option[] {
    const listed = childrenOf(variable, 'catgry').flatMap((each) => {
      const value = childOf(each, 'catValu')?.text.trim() ?? '';
      return [{ value, label: labelOf(each), missing: each.attributes.missing === 'Y', at: each }];
    });
    const coded = listed.filter(({ value }) => /^-?\d{1,15}$/.test(value));
    for (const { at, value } of listed)
      if (!/^-?\d{1,15}$/.test(value))
        this.doubt(at, `“${value}” is no whole number, and was not made a code`);
    return coded.flatMap(({ value, label, missing }): Option[] => {
      const code = Number(value);
      if (missing && this.planned.get(code) === label) return [];
      return [{ code, label, ...(missing ? { missing: 'not_available' as const } : {}) }];
    });
  }

  private answerOf(variable: ReadElement): Answer {
    const format = childOf(variable, 'varFormat')?.attributes ?? {};
    const options = this.options(variable);
    const answers = options.filter(({ missing }) => missing === undefined);
    const range = childOf(childOf(variable, 'valrng') ?? variable, 'range')?.attributes;
    const specials = options.filter(({ missing }) => missing !== undefined);
    const beside = specials.length === 0 ? {} : { specials };
    if (answers.length > 0 && range === undefined) return { type: 'single', options };
    const [min, max] = [range?.min, range?.max];
    const kinds = ['date', 'time', 'datetime'] as const;
    const type =
      kinds.find((each) => each === format.formatname) ?? kinds.find((each) => each === format.category);
    if (type !== undefined)
      return {
        type,
        ...(min === undefined ? {} : { min }),
        ...(max === undefined ? {} : { max }),
        ...beside,
      };
    if (format.type === 'character' || (range === undefined && format.type === undefined))
      return { type: 'text' };
    const limits = { min: Number(min), max: Number(max) };
    const isLimited = Number.isFinite(limits.min) && Number.isFinite(limits.max);
    if (!isLimited) this.doubt(variable, 'the number has no limits: 0 to 1,000,000 were taken');
    return { type: 'number', ...(isLimited ? limits : { min: 0, max: 1_000_000 }), ...beside };
  }
}

function labelOf(at: ReadElement): string {
  return childOf(at, 'labl')?.text.trim() ?? '';
}

/** What of its question a variable holds. */
function partOf(variable: ReadElement): string {
  return childOf(variable, 'txt')?.text.trim() ?? labelOf(variable);
}

/** A code of the plan stands in nearly all variables that have any; “don't know” in many. */
const NEARLY = 0.9;

/** Codes for no answer that stand in nearly all of the variables, with one label. */
function plannedIn(variables: readonly ReadElement[]): Map<number, string> {
  const counts = new Map<string, number>();
  for (const variable of variables)
    for (const each of childrenOf(variable, 'catgry'))
      if (each.attributes.missing === 'Y') {
        const key = JSON.stringify([Number(childOf(each, 'catValu')?.text), labelOf(each)]);
        counts.set(key, (counts.get(key) ?? 0) + 1);
      }
  const most = Math.max(0, ...counts.values());
  return new Map(
    [...counts].flatMap(([key, count]): [number, string][] =>
      variables.length > 1 && count > 1 && count >= NEARLY * most
        ? [JSON.parse(key) as [number, string]]
        : [],
    ),
  );
}
