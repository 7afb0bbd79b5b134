/**
 * A questionnaire of a DDI-Lifecycle file, ours or another program's: its instrument followed from construct to construct.
 * What is not understood is told by its line, and nothing is left out in silence.
 */
import { parseCondition } from '../../condition/parse';
import { freshName, nameProblem } from '../../document/names';
import { readDocument } from '../../document/read';
import type { Item, RoutedItem, Section } from '../../document/types';
import { emptyQuestionnaire, guessKind } from '../../editing/structure';
import { allNamed, childOf, childrenOf, downTo, readXml, type ReadElement } from '../../exchange/xml';
import type { Doubt, ReadStudy } from '../format-types';
import { NO_WORK } from '../../exchange/work-file';
import { DdiAnswers } from './read-answers';
import { OWN } from './words';

/** Questions and their places that are taken over at most; a questionnaire has fewer. */
const MOST_TAKEN = 20_000;

export function readDdiLifecycle(bytes: Uint8Array, title: string): ReadStudy {
  const read = readXml(bytes);
  if (!read.ok) return { ok: false, problems: [read.problem] };
  if (!/^ddi:(instance|group|studyunit):3_/.test(read.root.namespace))
    return {
      ok: false,
      problems: [
        `It is no DDI-Lifecycle: it begins with <${read.root.name}>${read.root.namespace === '' ? '' : ` of ${read.root.namespace}`}. A file of DDI 3.3 begins with <DDIInstance>.`,
      ],
    };
  const count = allNamed(read.root, 'QuestionItem').length + allNamed(read.root, 'QuestionConstruct').length;
  if (count > MOST_TAKEN)
    return {
      ok: false,
      problems: [`It has more than ${MOST_TAKEN.toLocaleString('en')} questions: divide it.`],
    };
  return new LifecycleReader(read.root).study(title);
}

type Open<Part> = { -readonly [Key in keyof Part]: Part[Key] };

/** Where one is: the conditions around it, from the outside in. */
interface Around {
  readonly conditions: readonly string[];
  readonly section: Open<Section> | null;
}

class LifecycleReader {
  private readonly doubts: Doubt[] = [];
  private readonly parts = new Map<string, ReadElement>();
  private readonly sections: (Open<Section> & { items: Item[] })[] = [];
  private readonly names = new Set<string>();
  private readonly ids = new Set<string>();
  private readonly answers: DdiAnswers;
  /** Constructs being followed: a file can refer in a circle. */
  private readonly following = new Set<ReadElement>();

  /** What goes along with the instrument under our own names. */
  private readonly ownOfStudy: Readonly<Record<string, unknown>>;

  constructor(private readonly root: ReadElement) {
    const [instrument] = allNamed(root, 'Instrument');
    this.ownOfStudy = instrument === undefined ? {} : ownOf(instrument);
    this.index(root);
    this.answers = new DdiAnswers(
      (reference) => this.referred(reference),
      (at, what) => this.doubt(at, what),
    );
  }

  private index(at: ReadElement): void {
    if (!at.name.endsWith('Reference'))
      for (const key of keysOf(at)) if (!this.parts.has(key)) this.parts.set(key, at);
    at.children.forEach((child) => this.index(child));
  }

  private doubt(at: ReadElement, what: string): void {
    this.doubts.push({ line: at.line, what });
  }

  private referred(reference: ReadElement | undefined): ReadElement | undefined {
    if (reference === undefined) return undefined;
    const found = keysOf(reference)
      .map((key) => this.parts.get(key))
      .find((part) => part !== undefined);
    if (found === undefined) this.doubt(reference, `what it refers to is not in the file`);
    return found;
  }

  study(title: string): ReadStudy {
    const instruments = allNamed(this.root, 'Instrument');
    const [instrument] = instruments;
    for (const other of instruments.slice(1))
      this.doubt(other, 'a second instrument, which was not taken over');
    const start = this.referred(instrument && childOf(instrument, 'ControlConstructReference'));
    if (start !== undefined) this.follow(start, { conditions: [], section: null });
    else this.withoutInstrument();
    const isOurs = this.ownStudy('endings') !== undefined;
    const used = this.sections.filter(({ items }) => isOurs || items.length > 0);
    if (used.length === 0) return { ok: false, problems: ['There is no question in it.'] };
    const citation = downTo(this.root, 'Citation', 'Title') ?? allNamed(this.root, 'Title')[0];
    const language = citation && firstLanguage(citation);
    const { settings, ...base } = emptyQuestionnaire(wordsOf(citation) || title);
    const document = {
      ...base,
      // What ours does not say it has not.
      ...(isOurs ? {} : { settings }),
      ...(language === undefined ? {} : { language }),
      ...(instrument === undefined ? {} : ownOf(instrument)),
      sections: used,
    };
    const sound = readDocument(document);
    if (!sound.ok) return { ok: false, problems: sound.problems.slice(0, 20).map(({ message }) => message) };
    return { ok: true, content: { document: sound.document, work: NO_WORK }, doubts: this.doubts };
  }

  /** Questions of a file that says nothing of their order in an interview. */
  private withoutInstrument(): void {
    const questions = [...allNamed(this.root, 'QuestionItem'), ...allNamed(this.root, 'QuestionGrid')];
    if (questions.length === 0) return;
    this.doubt(
      this.root,
      'there is no instrument: the questions come in the order of the file, for everybody',
    );
    const section = this.open('Questions', {});
    for (const question of questions) this.question(question, question, { conditions: [], section });
  }

  private open(title: string, own: Partial<Section>): Open<Section> & { items: Item[] } {
    const taken = this.ids;
    const wanted = own.id ?? title;
    const id =
      nameProblem(wanted) === null && !taken.has(wanted.toLowerCase())
        ? wanted
        : freshName(wanted || 'section', taken);
    taken.add(id.toLowerCase());
    const section = { kind: guessKind(title), ...own, id, title, items: [] as Item[] };
    this.sections.push(section);
    return section;
  }

  private follow(construct: ReadElement, around: Around): void {
    if (this.following.has(construct)) {
      this.doubt(construct, 'it refers to itself, and was not followed again');
      return;
    }
    this.following.add(construct);
    switch (construct.name) {
      case 'Sequence':
        this.sequence(construct, around);
        break;
      case 'IfThenElse':
        this.branch(construct, around);
        break;
      case 'Loop':
      case 'RepeatWhile':
      case 'RepeatUntil':
        this.loop(construct, around);
        break;
      case 'QuestionConstruct': {
        const question = this.referred(childOf(construct, 'QuestionReference'));
        if (question !== undefined) this.question(question, construct, around);
        break;
      }
      case 'StatementItem':
        this.statement(construct, around);
        break;
      case 'ComputationItem':
        // Ours are among the derived variables already.
        if (this.ownStudy('derived') === undefined)
          this.doubt(
            construct,
            `the computation “${nameOf(construct)}” was not taken over: write it as a derived variable`,
          );
        break;
      default:
        this.doubt(
          construct,
          `<${construct.name}> is not understood, and what stands in it was not taken over`,
        );
    }
    this.following.delete(construct);
  }

  private ownStudy(key: string): unknown {
    return this.ownOfStudy[key];
  }

  private sequence(construct: ReadElement, around: Around): void {
    const own = ownOf(construct);
    const section = own.section as Partial<Section> | undefined;
    if (nameOf(construct) === 'endings' && this.ownStudy('endings') !== undefined) return;
    const label = wordsOf(childOf(construct, 'Label'));
    const isOuter = this.following.size === 1;
    // Of another program, what the instrument is made of are its sections.
    const opens = section !== undefined || (!isOuter && around.section === null && label !== '');
    if (!opens) {
      this.referredIn(construct, around);
      return;
    }
    const intro = wordsOf(childOf(construct, 'Description'));
    const askIf = joined(around.conditions);
    const opened = this.open(label, {
      ...section,
      ...(intro === '' ? {} : { intro }),
      ...(askIf === undefined ? {} : { askIf }),
    });
    this.referredIn(construct, { conditions: [], section: opened });
    const breaks = own.pageBreaks;
    if (Array.isArray(breaks))
      for (const at of breaks) opened.items.splice(Number(at), 0, { kind: 'page_break' });
  }

  private referredIn(construct: ReadElement, around: Around): void {
    for (const reference of childrenOf(construct, 'ControlConstructReference')) {
      const next = this.referred(reference);
      if (next !== undefined) this.follow(next, around);
    }
  }

  private branch(construct: ReadElement, around: Around): void {
    const before: string[] = [];
    const arms = [construct, ...childrenOf(construct, 'ElseIf')].map((arm) => ({
      arm,
      condition: this.conditionOf(childOf(arm, 'IfCondition'), construct),
      then: this.referred(childOf(arm, 'ThenConstructReference')),
    }));
    for (const { condition, then } of arms) {
      const conditions = [...around.conditions, ...before, ...(condition === null ? [] : [condition])];
      if (then !== undefined) this.follow(then, { ...around, conditions });
      if (condition !== null) before.push(`not (${condition})`);
    }
    const otherwise = this.referred(childOf(construct, 'ElseConstructReference'));
    if (otherwise !== undefined)
      this.follow(otherwise, { ...around, conditions: [...around.conditions, ...before] });
  }

  /** Null where it cannot be read: what it is for is then asked of everybody, which is told. */
  private conditionOf(condition: ReadElement | undefined, at: ReadElement): string | null {
    const text = (condition && allNamed(condition, 'CommandContent')[0]?.text.trim()) ?? '';
    if (text !== '' && parseCondition(text).ok) return text;
    const said =
      wordsOf(condition && childOf(condition, 'Description')) || text || 'a condition without words';
    this.doubt(
      condition ?? at,
      `“${said}” is no condition that can be read here: what it is for is asked of everybody`,
    );
    return null;
  }

  private loop(construct: ReadElement, around: Around): void {
    const from = this.sections.length;
    this.referredIn(construct, around);
    const inner = this.sections.slice(from);
    if (inner.length === 0 || inner.some(({ repeat }) => repeat === undefined))
      this.doubt(
        construct,
        `how often “${wordsOf(childOf(construct, 'Label')) || nameOf(construct)}” repeats was not understood: it is asked once`,
      );
  }

  private home(around: Around): Open<Section> & { items: Item[] } {
    return (around.section ?? this.sections.at(-1) ?? this.open('Questions', {})) as Open<Section> & {
      items: Item[];
    };
  }

  private fresh(wanted: string): string {
    const isFree = nameProblem(wanted) === null && !this.names.has(wanted.toLowerCase());
    const name = isFree ? wanted : freshName(wanted || 'item', this.names);
    this.names.add(name.toLowerCase());
    return name;
  }

  private question(question: ReadElement, construct: ReadElement, around: Around): void {
    const wanted = nameOf(question) || nameOf(construct);
    const name = this.fresh(wanted);
    if (name !== wanted)
      this.doubt(
        question,
        `“${wanted}” is no name that can stand here, or stands here twice: it is called ${name}`,
      );
    const label = wordsOf(childOf(construct, 'Label'));
    const instruction = wordsOf(this.referredText(question, 'InterviewerInstructionReference'));
    this.home(around).items.push({
      kind: 'question',
      name,
      text: textIn(question, 'QuestionText'),
      ...(label === '' ? {} : { label }),
      ...(instruction === '' ? {} : { instruction }),
      answer: this.answers.answerOf(question, (words) => this.fresh(words)),
      ...ownOf(question),
      ...ownOf(construct),
      ...askedIf(around),
    } as RoutedItem);
  }

  private referredText(of: ReadElement, name: string): ReadElement | undefined {
    const reference = childOf(of, name);
    return reference && childOf(this.referred(reference) ?? reference, 'InstructionText');
  }

  private statement(construct: ReadElement, around: Around): void {
    this.home(around).items.push({
      kind: 'statement',
      name: this.fresh(nameOf(construct) || 'text'),
      text: textIn(construct, 'DisplayText'),
      ...ownOf(construct),
      ...askedIf(around),
    } as RoutedItem);
  }
}

const askedIf = ({ conditions }: Around) => {
  const askIf = joined(conditions);
  return askIf === undefined ? {} : { askIf };
};

function joined(conditions: readonly string[]): string | undefined {
  if (conditions.length <= 1) return conditions[0];
  return conditions.map((condition) => `(${condition})`).join(' and ');
}

/** By URN, and by agency, id and version: files refer by either. */
function keysOf(at: ReadElement): string[] {
  const own = (name: string) => childOf(at, name)?.text.trim() ?? '';
  const [urn, id] = [own('URN'), own('ID')];
  return [
    ...(urn === '' ? [] : [urn]),
    ...(id === '' ? [] : [`urn:ddi:${own('Agency')}:${id}:${own('Version')}`]),
  ];
}

/** The first words of a label, name or text, in whatever it wraps them. */
function wordsOf(at: ReadElement | undefined): string {
  if (at === undefined) return '';
  let inner = at;
  for (let next = inner.children[0]; next !== undefined; next = inner.children[0]) inner = next;
  return inner.text.trim();
}

function firstLanguage(at: ReadElement): string | undefined {
  return at.attributes.lang ?? at.children.map(firstLanguage).find((found) => found !== undefined);
}

function nameOf(at: ReadElement): string {
  return (
    wordsOf(at.children.find(({ name }) => name.endsWith('Name'))) || (childOf(at, 'ID')?.text.trim() ?? '')
  );
}

function textIn(at: ReadElement, name: string): string {
  return childrenOf(at, name)
    .flatMap((each) => allNamed(each, 'Text'))
    .map(({ text }) => text.trim())
    .join('\n\n');
}

/** What goes along under its own name; whether it is sound is judged with the whole. */
function ownOf(at: ReadElement): Record<string, unknown> {
  const pairs = childrenOf(at, 'UserAttributePair').flatMap((pair): [string, unknown][] => {
    const key = childOf(pair, 'AttributeKey')?.text.trim() ?? '';
    if (!key.startsWith(OWN)) return [];
    try {
      return [[key.slice(OWN.length), JSON.parse(childOf(pair, 'AttributeValue')?.text ?? '')]];
    } catch {
      return [];
    }
  });
  return Object.fromEntries(pairs);
}
