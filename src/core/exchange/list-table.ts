/** A list of questions pasted as a table from a sheet: one row a question, its columns told by their headings. */

/** A line with its number in the source, from 1. */
export interface ListLine {
  readonly raw: string;
  readonly line: number;
}

/** What a column holds, by words of its heading. */
const COLUMNS = {
  section: /^(?:section|part|block|topic)\b/i,
  number: /^(?:no\.?|nr\.?|number|#|q(?:uestion)? ?(?:no\.?|number|#|id)?|id|item)$/i,
  question: /^(?:question(?: text| wording)?|wording|text|item text)$/i,
  answers:
    /^(?:answers?|options?|responses?|response options|answer options|categories|codes?|answer codes)\b/i,
  hint: /^(?:type|answer type|format|instruction|note|help)\b/i,
  ask: /^(?:ask (?:if|of|only)|filter|base|asked of|condition)\b/i,
  skip: /^(?:skip|skips|routing|go to|route|next|skip to|jump)\b/i,
} as const;

type ListColumn = keyof typeof COLUMNS;

/** The same as plain lines, each with the number of its row; null where the source is no such table. */
export function tableLines(source: string): ListLine[] | null {
  const rows = source.split(/\r?\n/).map((raw) => raw.split('\t').map((cell) => cell.trim()));
  const at = rows.findIndex((cells) => cells.some((cell) => cell !== ''));
  const head = rows[at] ?? [];
  const columns = new Map<ListColumn, number>();
  head.forEach((cell, index) => {
    for (const [name, heading] of Object.entries(COLUMNS) as [ListColumn, RegExp][])
      if (!columns.has(name) && ![...columns.values()].includes(index) && heading.test(cell))
        columns.set(name, index);
  });
  // Under “Question” a single word is a question all the same (“Age?”), under “Id” it is a name.
  const isNumber = (index: number) => {
    const single = /^(?:question|item)$/i.test(head[index] ?? '') ? /^(?:\S*\d\S*)?$/ : /^\S*$/;
    return rows.slice(at + 1).every((cells) => single.test(cells[index] ?? ''));
  };
  // A column headed “Question” holds the words, unless there is another for them.
  const numbers = columns.get('number');
  if (!columns.has('question') && numbers !== undefined && !isNumber(numbers)) {
    columns.set('question', numbers);
    columns.delete('number');
  }
  if (head.length < 2 || !columns.has('question')) return null;
  const lines: ListLine[] = [];
  let section = '';
  let count = 0;
  rows.slice(at + 1).forEach((cells, n) => {
    const line = at + 2 + n;
    const of = (column: ListColumn) => cells[columns.get(column) ?? -1] ?? '';
    const put = (raw: string) => lines.push({ raw, line });
    if (of('section') !== '' && of('section') !== section) {
      section = of('section');
      put('');
      put(`# ${section}`);
    }
    if (of('question') === '') {
      for (const answer of answersIn(of('answers'))) put(`- ${answer}`);
      return;
    }
    count += 1;
    put('');
    if (of('ask') !== '' && !/^(?:all|everyone|always|ask all)$/i.test(of('ask')))
      put(`(ask if ${of('ask').replace(/^(?:ask\s+)?if\s+/i, '')})`);
    const hint = of('hint') === '' ? '' : ` (${of('hint').replace(/[()]/g, '')})`;
    put(
      `Q${(of('number') || String(count)).replace(/^q/i, '').replace(/[.):]+$/, '')}. ${of('question')}${hint}`,
    );
    for (const answer of answersIn(of('answers'))) put(`- ${answer}`);
    for (const skip of of('skip')
      .split(/\s*[;|]\s*/)
      .filter((part) => part !== ''))
      put(/^if\b/i.test(skip) ? skip : `go to ${skip.replace(/^(?:skip|go|jump)\s+to\s+/i, '')}`);
  });
  return lines;
}

/** The answers in one cell: by lines, semicolons, bars, or, where there are none of these, commas. */
function answersIn(cell: string): string[] {
  const by = /\n|;|\|/.test(cell) ? /\s*[\n;|]\s*/ : /\s*(?:,|\/)\s+|\//;
  return cell
    .split(by)
    .map((part) => part.trim())
    .filter((part) => part !== '');
}
