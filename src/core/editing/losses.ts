/** What of an answer another type has no place for. */
import { optionsOf } from '../document/shape';
import type { Answer } from '../document/types';

/** Properties by what they are called where they are lost. */
const CALLED: Readonly<Record<string, string>> = {
  min: 'limits',
  max: 'limits',
  minPicks: 'numbers of picks',
  maxPicks: 'numbers of picks',
  minLength: 'limits',
  maxLength: 'limits',
  decimals: 'decimals',
  unit: 'unit',
  lowLabel: 'words of the ends',
  midLabel: 'words of the ends',
  highLabel: 'words of the ends',
  pattern: 'pattern',
  placeholder: 'placeholder',
  top: 'places ranked',
};

/** In a few words each, like "3 answers"; empty where nothing is lost. */
export function lossesOf(from: Answer, to: Answer): string[] {
  const kept = new Set(optionsOf(to).map(({ code }) => code));
  const options = optionsOf(from).filter(({ code }) => !kept.has(code)).length;
  const rows = from.type === 'grid' && to.type !== 'grid' ? from.rows.length : 0;
  const called = Object.keys(from).flatMap((key) => {
    const words = CALLED[key];
    const stays = (to as unknown as Record<string, unknown>)[key] !== undefined;
    return words === undefined || stays ? [] : [words];
  });
  return [
    ...(rows > 0 ? [`${rows} ${rows === 1 ? 'row' : 'rows'}`] : []),
    ...(options > 0 ? [`${options} ${options === 1 ? 'answer' : 'answers'}`] : []),
    ...new Set(called),
  ];
}
