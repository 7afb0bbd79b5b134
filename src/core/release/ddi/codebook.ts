/**
 * The data as DDI-Codebook 2.5: every variable with its categories, what stands for no answer, whom it is asked of, and the
 * question with what comes before and after it, for interviewers, and where it leads.
 */
import { columnsOf, type Column } from '../../coding/columns';
import { parseCondition } from '../../condition/parse';
import { eachName } from '../../condition/syntax';
import { hasRows, isNumeric, isWritten, picksMany, ranksOptions } from '../../document/answer-types';
import type { Answer, Item, Question, RoutedItem } from '../../document/types';
import type { Analysis } from '../../analysis';
import { element, type Element } from '../../exchange/element';
import { xmlText } from '../../exchange/xml';
import type { Plan, PlanSection } from '../../routing/plan';
import { endingLabel } from '../../wording/targets';
import { bookBases } from '../book-bases';
import { dataFields, type DataField } from '../data/fields';
import { DATA_FILE } from '../data/tables';
import { sentence } from '../../views/paper-words';

/** Notes that say in our own words what the standard has no place for. */
export const ASK_IF_NOTE = 'ask-if';

export function ddiCodebook(
  plan: Plan,
  analysis: Pick<Analysis, 'asked' | 'passes'>,
  version: string,
): string {
  const { title, language } = plan.document;
  const fields = dataFields(plan);
  const columns = columnsOf(plan);
  const baseIn = bookBases(plan, analysis);
  const writer = new CodebookWriter(plan);
  return xmlText(
    element(
      'codeBook',
      { xmlns: 'ddi:codebook:2_5', version: '2.5', 'xml:lang': language },
      element(
        'stdyDscr',
        {},
        element(
          'citation',
          {},
          element('titlStmt', {}, element('titl', {}, title)),
          element('verStmt', {}, element('version', {}, version)),
        ),
      ),
      element('fileDscr', { ID: 'F1' }, element('fileTxt', {}, element('fileName', {}, DATA_FILE))),
      element(
        'dataDscr',
        {},
        writer.groups(columns),
        columns.map((column, at) =>
          writer.variable(column, fields[at] as DataField, baseIn((fields[at] as DataField).row)),
        ),
      ),
    ),
  );
}

const variableId = (name: string) => `V_${name}`;
const questionId = (name: string) => `Q_${name}`;

class CodebookWriter {
  /** Questions that were told whole; others refer to them. */
  private readonly told = new Set<string>();

  constructor(private readonly plan: Plan) {}

  /** Sections, and questions that take several columns. */
  groups(columns: readonly Column[]): Element[] {
    const of = (matches: (column: Column) => boolean) =>
      columns
        .filter(matches)
        .map(({ name }) => variableId(name))
        .join(' ');
    const sourceOf = (column: Column) =>
      column.kind === 'derived' || column.kind === 'ending' || column.source.of === 'given'
        ? null
        : column.source;
    const sections = this.plan.sections.flatMap(({ section, index }) => {
      const members = of((column) => sourceOf(column)?.planItem.section === index);
      return members === ''
        ? []
        : [
            element(
              'varGrp',
              {
                ID: `S_${section.id}`,
                type: section.repeat === undefined ? 'section' : 'repetition',
                var: members,
                name: section.id,
              },
              element('labl', {}, section.title),
            ),
          ];
    });
    const several = this.plan.sections.flatMap(({ items }) =>
      items.flatMap(({ item }) => {
        const type = item.kind === 'question' ? groupType(item.answer) : null;
        if (type === null || item.kind !== 'question') return [];
        const members = of((column) => {
          const source = sourceOf(column);
          return (
            source?.question === item &&
            column.kind !== 'specify' &&
            column.kind !== 'remark' &&
            (source.pass ?? 1) === 1
          );
        });
        return [
          element(
            'varGrp',
            { ID: `G_${item.name}`, type, var: members, name: item.name },
            element('labl', {}, item.label ?? item.text),
          ),
        ];
      }),
    );
    return [...sections, ...several];
  }

  variable(column: Column, field: DataField, base: string): Element {
    const { name, label, holds, values, missing, least, most, row } = field;
    const source = column.kind === 'derived' || column.kind === 'ending' ? null : column.source;
    const question = source?.of === 'item' ? source.question : null;
    const isCharacter = holds === 'text';
    return element(
      'var',
      {
        ID: variableId(name),
        name,
        files: 'F1',
        intrvl: values.length > 0 || isCharacter ? 'discrete' : 'contin',
      },
      element('labl', {}, label),
      question !== null && source?.of === 'item' && this.question(question, source.planItem.section, column),
      least !== null && most !== null && element('valrng', {}, element('range', { min: least, max: most })),
      missing.length > 0 &&
        element(
          'invalrng',
          {},
          missing.map(({ code }) => element('item', { VALUE: code })),
        ),
      base !== '' && element('universe', {}, base),
      row.part !== '' && element('txt', {}, row.part),
      values.map(({ code, label: words }) => category(code, words, false)),
      missing.map(({ code, label: words }) => category(code, words, true)),
      element('varFormat', {
        type: isCharacter ? 'character' : 'numeric',
        category: holds === 'date' || holds === 'time' ? holds : holds === 'datetime' ? 'date' : 'other',
        schema: 'other',
        formatname: holds,
      }),
      question?.askIf !== undefined && element('notes', { type: ASK_IF_NOTE }, question.askIf),
    );
  }

  private question(question: Question, section: number, { kind }: Column): Element {
    const { name, text, note, instruction, answer, askIf, skips = [] } = question;
    if (this.told.has(name) || kind === 'specify' || kind === 'remark')
      return element('qstn', { qstn: questionId(name) });
    this.told.add(name);
    const home = this.plan.sections[section] as PlanSection;
    const before = statementsBefore(home.section.items, question);
    return element(
      'qstn',
      { ID: questionId(name), responseDomainType: domainType(answer) },
      before.map(({ text: words }) => element('preQTxt', {}, words)),
      element('qstnLit', {}, text),
      note !== undefined && element('postQTxt', {}, note),
      skips.map(({ if: condition, to }) => {
        const where = 'item' in to ? to.item : 'section' in to ? this.firstIn(to.section) : null;
        const words =
          'ending' in to ? `end: ${endingLabel(this.plan.document, to.ending)}` : (where ?? 'next pass');
        const whom =
          condition === undefined ? 'everybody' : `if ${sentence(this.plan, condition) ?? condition}`;
        return element(
          'forward',
          where === null ? {} : { qstn: this.known(where) },
          `${whom}: go to ${words}`,
        );
      }),
      askIf !== undefined &&
        element('backward', { qstn: this.readIn(askIf) }, `asked if ${sentence(this.plan, askIf) ?? askIf}`),
      instruction !== undefined && element('ivuInstr', {}, instruction),
    );
  }

  /** The first question of a section; null where it has none. */
  private firstIn(id: string): string | null {
    const found = this.plan.document.sections.find((section) => section.id === id);
    return found?.items.find((item) => item.kind === 'question')?.name ?? null;
  }

  /** Undefined where nobody is asked it, so that there is nothing to refer to. */
  private known(name: string): string | undefined {
    const found = this.plan.document.sections
      .flatMap(({ items }) => items)
      .some((item) => item.kind === 'question' && item.name === name);
    return found ? questionId(name) : undefined;
  }

  /** The questions that a condition reads, as they are referred to. */
  private readIn(condition: string): string | undefined {
    const parsed = parseCondition(condition);
    if (!parsed.ok) return undefined;
    const read = new Set<string>();
    eachName(parsed.tree, ({ name }) => {
      const variable = this.plan.variables.get(name.toLowerCase());
      if (variable?.of !== 'question' && variable?.of !== 'row') return;
      const id = this.known(variable.question.name);
      if (id !== undefined) read.add(id);
    });
    return read.size === 0 ? undefined : [...read].join(' ');
  }
}

function category(code: number | string, label: string, missing: boolean): Element {
  return element(
    'catgry',
    missing ? { missing: 'Y' } : {},
    element('catValu', {}, String(code)),
    element('labl', {}, label),
  );
}

function groupType(answer: Answer): 'multipleResp' | 'grid' | 'other' | null {
  if (hasRows(answer)) return 'grid';
  if (picksMany(answer)) return 'multipleResp';
  return ranksOptions(answer) ? 'other' : null;
}

function domainType(answer: Answer): string {
  if (picksMany(answer)) return 'multiple';
  if (isNumeric(answer)) return 'numeric';
  if (isWritten(answer)) return 'text';
  return 'options' in answer ? 'category' : 'datetime';
}

/** Statements that come right before a question. */
function statementsBefore(items: readonly Item[], question: Question): RoutedItem[] {
  const found: RoutedItem[] = [];
  for (let at = items.indexOf(question) - 1; at >= 0; at -= 1) {
    const item = items[at];
    if (item?.kind === 'page_break') continue;
    if (item?.kind !== 'statement') break;
    found.unshift(item);
  }
  return found;
}
