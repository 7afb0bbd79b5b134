/** Lists in one cell of an item list: answers with codes, rows of a grid, skips; written and read. */
import { OPTION_MISSING, type GridRow, type Option, type Skip, type Target } from '../../document/types';

const BETWEEN = ' | ';

/** A bar in somebody's words is written behind a backslash. */
const kept = (words: string) => words.replaceAll(/[\\|]/g, (sign) => `\\${sign}`);

/** Parted at bars and at line breaks; where there is neither, at semicolons. */
export function partsIn(cell: string): string[] {
  const parts: string[] = [''];
  for (let at = 0; at < cell.length; at += 1) {
    const sign = cell[at] ?? '';
    if (sign === '\\' && /[\\|]/.test(cell[at + 1] ?? '')) {
      parts[parts.length - 1] += cell[at + 1] ?? '';
      at += 1;
    } else if (sign === '|' || sign === '\n') parts.push('');
    else parts[parts.length - 1] += sign;
  }
  const found = parts.map((part) => part.trim()).filter((part) => part !== '');
  return found.length === 1 && (found[0] ?? '').includes(';')
    ? (found[0] ?? '')
        .split(';')
        .map((part) => part.trim())
        .filter((part) => part !== '')
    : found;
}

/** `1 = Yes | 2 = No | 8 = Don't know [dont_know]`. */
export function optionsWritten(options: readonly Option[]): string {
  return options
    .map(({ code, label, specify, exclusive, missing, askIf }) => {
      const flags = [
        ...(missing === undefined ? [] : [missing]),
        ...(specify ? ['specify'] : []),
        ...(exclusive ? ['exclusive'] : []),
        ...(askIf === undefined ? [] : [`if ${askIf}`]),
      ];
      return `${code} = ${kept(label)}${flags.length === 0 ? '' : ` [${kept(flags.join(', '))}]`}`;
    })
    .join(BETWEEN);
}

const CODED = /^(-?\d{1,15})\s*(?:=|:|\.|\)|-|–)\s*(.*)$/s;
const FLAGGED = /^(.*?)\s*\[([^[\]]*)\]$/s;

/** Without codes, they are numbered from 1. `doubts`: flags that mean nothing here. */
export function optionsRead(cell: string): {
  readonly options: Option[];
  readonly doubts: readonly string[];
} {
  const doubts: string[] = [];
  const parts = partsIn(cell);
  const coded = parts.map((part) => CODED.exec(part));
  const allCoded = coded.every((found) => found !== null);
  const options = parts.map((part, n): Option => {
    const words = allCoded ? (coded[n]?.[2] ?? '') : part;
    const code = allCoded ? Number(coded[n]?.[1]) : n + 1;
    const flagged = FLAGGED.exec(words);
    if (flagged === null) return { code, label: words };
    const [, label = '', flags = ''] = flagged;
    const option: { -readonly [Key in keyof Option]: Option[Key] } = { code, label };
    let isFlag = true;
    const [before = '', askIf] = flags.split(/(?:^|, )if /);
    for (const flag of before.split(',').map((each) => each.trim())) {
      const missing = OPTION_MISSING.find((each) => each === flag);
      if (missing !== undefined) option.missing = missing;
      else if (flag === 'specify') option.specify = true;
      else if (flag === 'exclusive') option.exclusive = true;
      else if (flag !== '') isFlag = false;
    }
    if (askIf !== undefined) option.askIf = askIf;
    // Brackets that an author put there are words.
    return isFlag ? option : { code, label: words };
  });
  if (!allCoded && coded.some((found) => found !== null))
    doubts.push('some answers have a code and some have none: all are numbered anew');
  return { options, doubts };
}

export function rowsWritten(rows: readonly GridRow[]): string {
  return rows
    .map(
      ({ name, label, askIf }) =>
        `${name} = ${kept(label)}${askIf === undefined ? '' : ` [if ${kept(askIf)}]`}`,
    )
    .join(BETWEEN);
}

/** Names are given to rows that have none. */
export function rowsRead(cell: string, fresh: (words: string) => string): GridRow[] {
  return partsIn(cell).map((part): GridRow => {
    const named = /^([A-Za-z][A-Za-z0-9_]{0,31})\s*=\s*(.*)$/s.exec(part);
    const words = named === null ? part : (named[2] ?? '');
    const asked = /^(.*?)\s*\[if ([^\]]*)\]$/s.exec(words);
    return {
      name: fresh(named?.[1] ?? words),
      label: asked?.[1] ?? words,
      ...(asked === null ? {} : { askIf: asked[2] ?? '' }),
    };
  });
}

function targetWritten(to: Target): string {
  if ('item' in to) return `item ${to.item}`;
  if ('section' in to) return `section ${to.section}`;
  return 'ending' in to ? `ending ${to.ending}` : 'next pass';
}

/** `if tenure = 1 -> item q7 | -> ending complete`. */
export function skipsWritten(skips: readonly Skip[]): string {
  return skips
    .map(
      ({ if: condition, to }) =>
        `${condition === undefined ? '' : `if ${kept(condition)} `}-> ${targetWritten(to)}`,
    )
    .join(BETWEEN);
}

const SKIP = /^(?:if\s+(.*?)\s+)?(?:->|→)\s*(?:(item|section|ending)\s+(\S+)|(next pass))$/s;

/** Parts that are no skip come back as they are. */
export function skipsRead(cell: string): { readonly skips: Skip[]; readonly rest: readonly string[] } {
  const skips: Skip[] = [];
  const rest: string[] = [];
  for (const part of partsIn(cell)) {
    const found = SKIP.exec(part);
    if (found === null) {
      rest.push(part);
      continue;
    }
    const [, condition, kind, name = ''] = found;
    const to = kind === undefined ? { nextPass: true as const } : ({ [kind]: name } as Target);
    skips.push(condition === undefined ? { to } : { if: condition, to });
  }
  return { skips, rest };
}
