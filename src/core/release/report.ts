/** What a comparison of two versions found, as lines that can be read in a mail. */
import type { Questionnaire } from '../document/types';
import { placeWords } from '../wording/places';
import type { Comparison } from './compare';
import type { TextChange } from './text-changes';
import { percent } from './two-sheets';

/** Routes first, then who is asked what, items, words, codes, conditions, endings, and what breaks the series. */
export function comparisonReport(old: Questionnaire, now: Questionnaire, found: Comparison): string[] {
  const { routes, bases, items, words, codes, conditions, endings, breaks } = found;
  const parts: readonly (readonly [title: string, lines: readonly string[]])[] = [
    ['Routes', routeLines(routes)],
    [
      'Who is asked',
      bases.map(
        ({ name, old: was, now: is, oldShare, nowShare }) =>
          `${name}: ${was}${shareWords(oldShare)} before, ${is}${shareWords(nowShare)} now`,
      ),
    ],
    [
      'Items',
      [
        ...items.added.map((name) => `new: ${name}`),
        ...items.gone.map((name) => `gone: ${name}`),
        ...items.renamed.map(([from, to]) => `renamed: ${from} is ${to}`),
        ...items.moved.map((name) => `moved: ${name}`),
      ],
    ],
    ['Words', words.flatMap((change) => textLines(now, change))],
    [
      'Codes and labels',
      codes.map(({ name, code, old: was, now: is }) =>
        was === null
          ? `${name}: ${code} “${is}” is new`
          : is === null
            ? `${name}: ${code} “${was}” is gone`
            : `${name}: ${code} was “${was}”, is “${is}”`,
      ),
    ],
    ['Conditions', conditions.flatMap((change) => textLines(now, change))],
    ['Endings', [...endings.added.map((id) => `new: ${id}`), ...endings.gone.map((id) => `gone: ${id}`)]],
    ['Breaks in the series', breaks.map(({ name, why }) => `${name}: ${why}`)],
  ];
  const head = old.title === now.title ? now.title : `${now.title}, before: ${old.title}`;
  const told = parts.filter(([, lines]) => lines.length > 0);
  return [head, ...told.flatMap(([title, lines]) => ['', title, ...lines.map((line) => `  ${line}`)])];
}

function routeLines({ old, now, lost, gained, changed, share, exact }: Comparison['routes']): string[] {
  const counts = [`${old} before, ${now} now`];
  if (lost === null || gained === null || changed === null)
    return [...counts, 'too entangled to tell which of them differ'];
  const differing =
    lost + gained + changed === 0n
      ? ['the same routes in both']
      : [`${lost} lost, ${gained} gained, ${changed} worded, coded or answered otherwise`];
  const met =
    share === null
      ? ['who meets a difference is not known exactly']
      : [`${percent(share)} of the sample meets a difference`];
  return [...counts, ...differing, ...met, ...(exact ? [] : ['not all routes could be counted'])];
}

function textLines(now: Questionnaire, { at, part, old, now: is }: TextChange): string[] {
  const head = `${placeWords(now, at)}, ${part}:`;
  return [head, ...(old === null ? [] : [`- ${old}`]), ...(is === null ? [] : [`+ ${is}`])];
}

const shareWords = (share: number | null) => (share === null ? '' : ` (${percent(share)})`);
