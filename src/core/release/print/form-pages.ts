/** The form to be filled in by hand: circles and boxes to tick, lines to write on, and where to go. */
import type { Plan } from '../../routing/plan';
import { formOf, type FormAnswer, type FormBox, type FormItem } from '../../views/form';
import { markedBlocks, markedRuns } from './marked';
import { apart, bold, heading, plain, soft, textOf, type Block, type Pages, type Runs } from './pages';

/** A circle where one answer is ticked, a box where several can be; a box for each sign that is written. */
const CIRCLE = '○';
const BOX = '[  ]';
const LINE = '_'.repeat(56);

/** `asked`: who is asked each item, by name: what stands in front of a question hangs on it. */
export function formPages(plan: Plan, asked: Readonly<Record<string, string>>, version: string): Pages {
  const reader = plan.document.settings?.mode === 'interviewer' ? 'interviewer' : 'respondent';
  const form = formOf(plan, { routing: 'answers', reader, passes: 'columns' }, asked);
  const { title, language } = plan.document;
  return {
    title,
    what: 'form',
    language,
    version,
    blocks: [
      textOf(plain(`Form ${'_'.repeat(12)}   Date ${'_'.repeat(12)}`)),
      textOf(
        soft(
          'Tick one circle; of boxes, tick all that fit. Where nothing stands behind an answer, go on with the next question.',
        ),
      ),
      ...form.sections.flatMap(
        ({ letter, title: words, intro, only, runs, blocks, columns, onward }): Block[] => [
          heading(2, `${letter}  ${words}`),
          ...(only === null ? [] : [textOf(bold(only))]),
          ...(runs === null ? [] : [textOf(soft(runs))]),
          ...markedBlocks(intro),
          ...blocks.flatMap(({ title: pass, items }): Block[] => [
            ...(pass === null ? [] : [heading(3, pass)]),
            ...items.flatMap((item) => apart(itemBlocks(item, columns))),
          ]),
          ...onward.map((rule) => textOf(soft(rule))),
        ],
      ),
      heading(2, 'Ends'),
      ...form.endings.flatMap(({ label, when, text }): Block[] => [
        textOf([...bold(label), ...(when === null ? [] : plain(` if ${when}`))]),
        ...markedBlocks(text),
      ]),
    ],
  };
}

function itemBlocks(item: FormItem, columns: readonly string[] | null): Block[] {
  const { number, only, instruction, text, note, picks, image, answer, rules } = item;
  return [
    ...(only === null ? [] : [textOf(bold(only))]),
    ...(instruction === null ? [] : [textOf([{ text: instruction, italic: true, soft: true }])]),
    textOf([...(number === null ? [] : bold(`${number}  `)), ...markedRuns(text)]),
    ...(note === null ? [] : [textOf(soft(note))]),
    ...(picks === null ? [] : [textOf(soft(picks))]),
    ...(image === null ? [] : [{ is: 'picture' as const, ...image }]),
    ...(answer === null ? [] : answerBlocks(answer, columns)),
    ...rules.map((rule) => textOf(soft(rule))),
  ];
}

function answerBlocks(answer: FormAnswer, columns: readonly string[] | null): Block[] {
  switch (answer.as) {
    case 'boxes':
      return [boxes(answer.boxes, answer.several ? BOX : CIRCLE, columns)];
    case 'rank': {
      const places = Array.from({ length: answer.places }, (_, n) => textOf(plain(`${n + 1}.  ${LINE}`)));
      return [boxes(answer.boxes, '', null), ...places];
    }
    case 'scale': {
      const [low, middle, high] = answer.ends;
      const rows: Runs[][] = [
        answer.points.map((point) => plain(`${CIRCLE} ${point}`)),
        answer.points.map((_, n) =>
          soft(
            n === 0
              ? low
              : n === answer.points.length - 1
                ? high
                : n === Math.floor(answer.points.length / 2)
                  ? middle
                  : '',
          ),
        ),
      ];
      return [...wideRows(rows), boxes(answer.boxes, CIRCLE, null)];
    }
    case 'grid': {
      const mark = answer.several ? BOX : CIRCLE;
      return [
        {
          is: 'table',
          head: ['', ...answer.boxes.map(({ label }) => label)],
          widths: [40, ...answer.boxes.map(() => 60 / answer.boxes.length)],
          rows: answer.rows.map(({ label }) => [markedRuns(label), ...answer.boxes.map(() => plain(mark))]),
        },
      ];
    }
    case 'digits':
    case 'moment': {
      const unit = answer.as === 'digits' ? answer.unit : '';
      const field = `${answer.digits.replaceAll(/[.:]/g, '$& ').replaceAll(/[A-Za-z0]/g, '_ ')}${unit}`;
      const written = (columns ?? ['']).map((column) =>
        textOf(plain(`${column === '' ? '' : `${column}: `}${field}`)),
      );
      return [
        ...written,
        ...(answer.limits === '' ? [] : [textOf(soft(answer.limits))]),
        boxes(answer.boxes, CIRCLE, columns),
      ];
    }
    case 'lines':
      return Array.from({ length: answer.lines * (columns?.length ?? 1) }, (_, n) =>
        textOf(plain(`${columns === null ? '' : `${columns[Math.floor(n / answer.lines)]}: `}${LINE}`)),
      );
    default:
      return answer satisfies never;
  }
}

/** Points that fit beside each other on a page. */
const MOST_BESIDE = 11;

/** Rows of equal cells, broken where they are wider than a page. */
function wideRows(rows: readonly (readonly Runs[])[]): Block[] {
  const blocks: Block[] = [];
  const count = rows[0]?.length ?? 0;
  for (let from = 0; from < count; from += MOST_BESIDE) {
    const part = rows.map((row) => row.slice(from, from + MOST_BESIDE));
    const widths = Array.from({ length: part[0]?.length ?? 0 }, () => 1);
    blocks.push({ is: 'table', head: null, widths, rows: part });
  }
  return blocks;
}

/** A line for each answer; where passes stand beside each other, a mark for each of them. */
function boxes(list: readonly FormBox[], mark: string, columns: readonly string[] | null): Block {
  const wide = columns ?? [''];
  return {
    is: 'table',
    head: columns === null ? null : ['', '', ...columns, ''],
    widths: [columns === null ? 5 : 1, 52, ...(columns ?? []).map(() => 8), 25],
    rows: list.map(({ label, write, goTo }) => [
      plain(columns === null ? mark : ''),
      [...markedRuns(label), ...(write === null ? [] : soft(`  ${write} ${'_'.repeat(24)}`))],
      ...(columns === null ? [] : wide.map(() => plain(mark))),
      plain(goTo ?? ''),
    ]),
  };
}
