/** The codebook to read: every column of the data, what was asked, of whom, and what its codes mean. */
import type { Analysis } from '../../analysis';
import type { Plan } from '../../routing/plan';
import { codebook, type BookRow } from '../../views/codebook';
import { bookBases } from '../book-bases';
import { markedRuns } from './marked';
import { code, heading, plain, soft, textOf, type Block, type Pages, type Runs } from './pages';

export function codebookPages(
  plan: Plan,
  analysis: Pick<Analysis, 'asked' | 'passes'>,
  version: string,
): Pages {
  const rows = codebook(plan);
  const baseIn = bookBases(plan, analysis);
  const { title, language, missing } = plan.document;
  let group = '';
  return {
    title,
    what: 'codebook',
    language,
    version,
    blocks: [
      textOf(
        soft(
          `${rows.length.toLocaleString('en')} columns. Where there is no answer, a column holds one of these codes, unless it has its own:`,
        ),
      ),
      {
        is: 'table',
        head: ['Code', 'Meaning', 'Reason'],
        widths: [12, 58, 30],
        rows: missing.map((each) => [code(String(each.code)), plain(each.label), plain(each.reason)]),
      },
      ...rows.flatMap((row): Block[] => {
        const head = row.group === group ? [] : [heading(2, row.group)];
        group = row.group;
        return [...head, ...rowBlocks(row, baseIn(row))];
      }),
    ],
  };
}

function rowBlocks(row: BookRow, base: string): Block[] {
  const { column, label, text, type, measure, values, range, missing } = row;
  const facts = [`${type}, ${measure}`, range].filter((part) => part !== '').join('; ');
  const own = missing.filter(({ isOwn }) => isOwn);
  const codes: Runs[][] = [
    ...values.map((value) => [
      code(String(value.code)),
      plain(value.label),
      soft(value.missing ? 'no answer' : ''),
    ]),
    ...own.map((each) => [code(String(each.code)), plain(each.label), soft('missing, its own code')]),
  ];
  return [
    { is: 'heading', level: 3, runs: [...code(column), ...plain(label === '' ? '' : `  ${label}`)] },
    ...(text === '' || text === label ? [] : [textOf(markedRuns(text))]),
    textOf(soft(base === '' ? facts : `${facts}. ${askedWords(base)}.`)),
    ...(codes.length === 0 ? [] : [{ is: 'table' as const, head: null, widths: [12, 62, 26], rows: codes }]),
  ];
}

/** “Asked if Tenure is “Rent it””, “Asked: everyone”. */
function askedWords(base: string): string {
  const words = `${base.charAt(0).toLowerCase()}${base.slice(1)}`;
  return words.startsWith('if ') ? `Asked ${words}` : `Asked: ${words}`;
}
