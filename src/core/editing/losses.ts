/**
 * What is lost when a question gets another type of answer: options, rows, limits and texts that the new type cannot
 * hold, in words.
 */
import { hasRows } from '../document/answer-types';
import { propertiesOf } from '../document/properties';
import { optionsOf } from '../document/shape';
import type { Answer } from '../document/types';

/** In a few words each, like "3 answers"; empty where nothing is lost. */
export function lossesOf(from: Answer, to: Answer): string[] {
  const kept = new Set(optionsOf(to).map(({ code }) => code));
  const options = optionsOf(from).filter(({ code }) => !kept.has(code)).length;
  const rows = hasRows(from) && !hasRows(to) ? from.rows.length : 0;
  const called = Object.keys(from).flatMap((key) => {
    const words = propertiesOf('answer')[key]?.lost;
    const stays = (to as unknown as Record<string, unknown>)[key] !== undefined;
    return words === undefined || stays ? [] : [words];
  });
  return [
    ...(rows > 0 ? [`${rows} ${rows === 1 ? 'row' : 'rows'}`] : []),
    ...(options > 0 ? [`${options} ${options === 1 ? 'answer' : 'answers'}`] : []),
    ...new Set(called),
  ];
}
