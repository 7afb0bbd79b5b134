/** The script as it is printed and edited: sections, numbered questions with their codes, and where to go. */
import { ENDINGS } from '../../document/vocabularies';
import type { Plan } from '../../routing/plan';
import { ALL, paperOf, type PaperItem, type PaperLine } from '../../views/paper';
import { markedBlocks, markedRuns } from './marked';
import { apart, bold, code, heading, plain, soft, textOf, type Block, type Pages, type Runs } from './pages';

/** `asked`: who is asked each item, by name. */
export function scriptPages(plan: Plan, asked: Readonly<Record<string, string>>, version: string): Pages {
  const paper = paperOf(plan, asked);
  const { title, language } = plan.document;
  return {
    title,
    what: 'script',
    language,
    version,
    blocks: [
      textOf(
        soft(
          `Codes stand behind the answers; ${paper.missing.join(', ')}. Without a go-to, carry on with the next question.`,
        ),
      ),
      ...paper.sections.flatMap(({ section, letter, askIf, runs, items, onward }): Block[] => [
        heading(2, `${letter}  ${section.section.title}`),
        ...(askIf === null ? [] : [textOf(soft(`Ask this section if: ${askIf}`))]),
        ...(runs === null ? [] : [textOf(soft(runs))]),
        ...markedBlocks(section.section.intro ?? ''),
        ...items.flatMap((item) => apart(itemBlocks(item))),
        ...onward.map((words) => textOf(soft(`At the end of ${letter}: ${words}`))),
      ]),
      heading(2, 'Endings'),
      ...paper.endings.flatMap(({ kind, label, messages }): Block[] => [
        textOf([...bold(label), ...soft(`  ${ENDINGS[kind].word}`)]),
        ...messages.flatMap(({ when, text }) => [
          ...(when === null ? [] : [textOf(soft(`If ${when}:`))]),
          ...markedBlocks(text),
        ]),
      ]),
    ],
  };
}

function itemBlocks({ planItem, number, askIf, text, note, picks, lines }: PaperItem): Block[] {
  const { item } = planItem;
  const head: Runs = [
    ...(number === null ? [] : bold(`${number}  `)),
    ...markedRuns(text),
    ...soft('  '),
    ...code(item.name),
  ];
  return [
    ...(askIf === null
      ? []
      : [textOf([{ text: askIf === ALL ? 'Ask all who come here' : `Ask if: ${askIf}`, italic: true }])]),
    ...(item.instruction === undefined
      ? []
      : [textOf([{ text: `Interviewer: ${item.instruction}`, italic: true, soft: true }])]),
    textOf(head),
    ...(note === null ? [] : [textOf(soft(note))]),
    ...(picks === null ? [] : [textOf(soft(picks))]),
    ...(item.image === undefined ? [] : [{ is: 'picture' as const, ...item.image }]),
    ...(lines.length === 0
      ? []
      : [{ is: 'table' as const, head: null, widths: [58, 14, 28], rows: lines.map(lineCells) }]),
  ];
}

function lineCells({ label, tag, code: of, goTo }: PaperLine): Runs[] {
  return [[...markedRuns(label), ...(tag === '' ? [] : soft(`  ${tag}`))], code(of), plain(goTo ?? '')];
}
