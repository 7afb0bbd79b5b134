/** The shortest way to say which numbers of picks are meant, of a question answered by picking several. */
import { wordiness } from './tests-in-words';

/** Whether each number of picks is meant, from none (which stands for no value too); null where nobody has so many. */
export type Numbers = readonly (boolean | null)[];

/** A test in the condition language that holds for the numbers meant and for no others that somebody has. */
export function countsInWords(name: string, meant: Numbers): string {
  const most = meant.length - 1;
  const numbers = Array.from({ length: most }, (_, n) => n + 1);
  const of = (text: string, is: (count: number) => boolean): Wording[] => {
    const says = (count: number) => count > 0 && is(count);
    const denied = / (?:and|or) /.test(text) ? `not (${text})` : `not ${text}`;
    return [
      { text, says },
      { text: denied, says: (count) => !says(count) },
    ];
  };
  const count = `count(${name})`;
  const [least = 1, greatest = most] = [numbers.find((n) => meant[n]), numbers.findLast((n) => meant[n])];
  const wordings = [
    // Of those as short, the first: a reader knows at once what “at least two” are, but has to think about “other than one”.
    ...numbers.flatMap((n) => of(`${count} >= ${n}`, (c) => c >= n)),
    ...numbers.flatMap((n) => of(`${count} <= ${n}`, (c) => c <= n)),
    ...numbers.flatMap((n) => of(`${count} = ${n}`, (c) => c === n)),
    ...numbers.flatMap((n) => of(`${count} <> ${n}`, (c) => c !== n)),
    ...of(`${count} >= ${least} and ${count} <= ${greatest}`, (c) => c >= least && c <= greatest),
    // Which always says it: one by one, or all that are not meant denied.
    ...[true, false].flatMap((wanted) => {
      const listed = numbers.filter((n) => meant[n] === wanted);
      return of(listed.map((n) => `${count} = ${n}`).join(' or '), (c) => listed.includes(c));
    }),
  ];
  const fits = ({ says }: Wording) => meant.every((is, number) => is === null || says(number) === is);
  const texts = wordings.filter(fits).map(({ text }) => text);
  return texts.reduce((short, text) => (wordiness(text) < wordiness(short) ? text : short));
}

interface Wording {
  readonly text: string;
  readonly says: (count: number) => boolean;
}
