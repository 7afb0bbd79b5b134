/** How long an item takes a respondent: reading what is shown, and the act of answering. A route takes the sum. */
import { nameInKey } from '../document/addresses';
import { hasEnds, picksMany, rowsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Assume, Item } from '../document/types';
import { expectedPicks, slopeOfPicks } from './assumed';
import { paceOf, type Pace } from './pace';
import type { Plan } from './plan';

/** Seconds, all options and rows shown; the author's own estimate where there is one. */
export function secondsOf(item: Item, pace: Pace): number {
  if (item.kind === 'page_break') return 0;
  if (item.seconds !== undefined) return item.seconds;
  const question = item.kind === 'question' ? item : null;
  const texts = [item.text, question?.note, ...(question ? textsIn(question.answer) : [])];
  const words = texts.reduce((sum, text) => sum + wordsIn(text ?? ''), 0);
  return (60 * words) / pace.words + (question ? answering(question.answer, pace, question.assume) : 0);
}

/** How fast the seconds change on the way from one assumption to another: with every pick that is made more often. */
export function slopeOfSeconds(item: Item, from: Assume, toward: Assume, pace: Pace): number {
  if (item.kind !== 'question' || item.seconds !== undefined || !picksMany(item.answer)) return 0;
  return pace.pick * slopeOfPicks(item.answer, from, toward);
}

/** Of each item, by name. */
export function secondsByName({ document }: Pick<Plan, 'document'>): (name: string) => number {
  const pace = paceOf(document);
  const seconds = new Map(
    document.sections.flatMap(({ items }) =>
      items.flatMap((item) =>
        item.kind === 'page_break' ? [] : [[item.name, secondsOf(item, pace)] as const],
      ),
    ),
  );
  return (name) => seconds.get(name) ?? 0;
}

/** Of the items presented on a route, `name` or `name#pass`; by what `secondsByName` gives. */
export function secondsAlong(seconds: (name: string) => number, keys: readonly string[]): number {
  return keys.reduce((sum, key) => sum + seconds(nameInKey(key)), 0);
}

function textsIn(answer: Answer): (string | undefined)[] {
  const labels = optionsOf(answer).map(({ label }) => label);
  const rows = rowsOf(answer).map(({ label }) => label);
  const ends = hasEnds(answer) ? [answer.lowLabel, answer.midLabel, answer.highLabel] : [];
  return [...labels, ...rows, ...ends];
}

/** Pipes count as a word, marks of emphasis as none. */
function wordsIn(text: string): number {
  return text.split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word)).length;
}

/** Seconds for the act of answering. */
function answering(answer: Answer, pace: Pace, assume?: Assume): number {
  switch (answer.type) {
    case 'single':
      return pace.single;
    case 'multiple':
      return pace.pick * expectedPicks(answer, assume);
    case 'scale':
      return pace.scale;
    case 'number':
    case 'date':
    case 'time':
    case 'datetime':
      return pace.number;
    case 'text':
      return answer.lines === 'many' ? pace.longText : pace.shortText;
    case 'grid':
      return pace.gridRow * answer.rows.length;
    case 'rank':
      return pace.rankPlace * (answer.top ?? answer.options.length);
    default:
      return answer satisfies never;
  }
}
