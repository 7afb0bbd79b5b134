/**
 * Ways to say which sets of picks are meant, of a question answered by picking several or by ranking: as a short sum of
 * products over “has”, “count”, “answered” and “asked”.
 */
import type { Reading } from '../../condition/evaluate';
import type { Option } from '../../document/types';

/** Something that can be said of one reading, and the ways to write it and its opposite. */
interface Feature {
  readonly kind: 'has' | 'count' | 'state';
  /** Code, least count, or none. */
  readonly of: number;
  readonly positive: string;
  readonly negative: string;
  readonly holds: (reading: Reading) => boolean;
}

/** Which features must hold (true) or fail (false); the rest does not matter. */
type Product = ReadonlyMap<number, boolean>;

/** More readings than this, told apart by the features, are not gone through. */
const MOST_VECTORS = 1500;

/**
 * Texts that hold for all readings `inside` and none `outside`; none where the features do not tell them apart. The
 * caller still checks them: `has none` and `count(…) <` fail where there is no value, as `not … has any` does not.
 */
export function setsInWords(
  name: string,
  options: readonly Option[],
  inside: readonly Reading[],
  outside: readonly Reading[],
): string[] {
  const texts: string[] = [];
  // Fewer kinds of words first; with more of them something shorter may still be found.
  for (const kinds of [['has'], ['has', 'state'], ['has', 'state', 'count']] as const) {
    const features = featuresOf(name, options, inside, outside).filter(({ kind }) =>
      (kinds as readonly string[]).includes(kind),
    );
    for (const first of [false, true]) {
      for (const sum of sumsOfProducts(features, inside, outside, first))
        texts.push(...written(name, features, sum));
    }
  }
  return texts;
}

const picksOf = ({ value, missing, presented }: Reading): readonly number[] | null =>
  presented || value !== null
    ? Array.isArray(value) && !missing
      ? (value as readonly number[])
      : null
    : null;

function featuresOf(
  name: string,
  options: readonly Option[],
  inside: readonly Reading[],
  outside: readonly Reading[],
): Feature[] {
  const all = [...inside, ...outside];
  const codes = options.map(({ code }): Feature => ({
    kind: 'has',
    of: code,
    positive: `${name} has ${code}`,
    negative: `not ${name} has ${code}`,
    holds: ({ value }) => Array.isArray(value) && (value as readonly number[]).includes(code),
  }));
  const most = Math.max(0, ...all.map((reading) => picksOf(reading)?.length ?? 0));
  const counts = Array.from({ length: most }, (_, n): Feature => ({
    kind: 'count',
    of: n + 1,
    positive: `count(${name}) >= ${n + 1}`,
    negative: `count(${name}) < ${n + 1}`,
    holds: (reading) => (picksOf(reading)?.length ?? 0) >= n + 1,
  }));
  const states: Feature[] = [
    {
      kind: 'state',
      of: 0,
      positive: `${name} answered`,
      negative: `not ${name} answered`,
      holds: ({ presented, value }) => presented && value !== null,
    },
    {
      kind: 'state',
      of: 1,
      positive: `${name} asked`,
      negative: `${name} not asked`,
      holds: ({ presented }) => presented,
    },
  ];
  // Only what differs between readings can tell them apart.
  return [...codes, ...counts, ...states].filter(({ holds }) => new Set(all.map(holds)).size > 1);
}

/**
 * Products whose union holds wherever it must and nowhere that it must not; none where none does. `first`: whether what
 * holds is left out before what fails.
 */
function sumsOfProducts(
  features: readonly Feature[],
  inside: readonly Reading[],
  outside: readonly Reading[],
  first: boolean,
): Product[][] {
  const vector = (reading: Reading) => features.map(({ holds }) => holds(reading));
  const distinct = (readings: readonly Reading[]) => [
    ...new Map(readings.map((reading) => [vector(reading).map(Number).join(''), vector(reading)])).values(),
  ];
  const [wanted, unwanted] = [distinct(inside), distinct(outside)];
  if (wanted.length + unwanted.length > MOST_VECTORS) return [];
  const meets = (product: Product, of: readonly boolean[]) =>
    [...product].every(([feature, value]) => of[feature] === value);
  const products = new Map<string, Product>();
  for (const product of ofFewFeatures(features.length, (each) => !unwanted.some((of) => meets(each, of))))
    products.set(JSON.stringify([...product]), product);
  for (const of of wanted) {
    let product: Map<number, boolean> = new Map(of.map((value, feature) => [feature, value]));
    if (unwanted.some((other) => meets(product, other))) return [];
    const order = [...product.keys()].sort(
      (a, b) => (Number(product.get(a)) - Number(product.get(b))) * (first ? -1 : 1) || b - a,
    );
    for (const feature of order) {
      const fewer = new Map([...product].filter(([other]) => other !== feature));
      if (!unwanted.some((other) => meets(fewer, other))) product = fewer;
    }
    products.set(JSON.stringify([...product]), product);
  }
  const all = [...products.values()];
  // A list of picks, even a long one, is read more easily than a denial.
  const picks = all.filter((product) => product.size === 1 && [...product.values()][0] === true);
  const sums = [fewest(all, wanted, meets), fewest(picks, wanted, meets)];
  return sums.filter((sum) => wanted.every((of) => sum.some((product) => meets(product, of))));
}

/** Products of one feature, and of two that neither alone will do for, that `fit`. */
function* ofFewFeatures(count: number, fit: (product: Product) => boolean): Generator<Product> {
  const literals = Array.from({ length: 2 * count }, (_, n) => [n >> 1, (n & 1) === 1] as const);
  const alone = literals.filter((literal) => fit(new Map([literal])));
  for (const literal of alone) yield new Map([literal]);
  const left = literals.filter((literal) => !alone.includes(literal));
  for (const [n, one] of left.entries())
    for (const other of left.slice(n + 1)) {
      const product = new Map([one, other]);
      if (one[0] !== other[0] && fit(product)) yield product;
    }
}

/** Greedily those that hold for most of what is left, then without those that others make superfluous. */
function fewest(
  products: readonly Product[],
  wanted: readonly (readonly boolean[])[],
  meets: (product: Product, of: readonly boolean[]) => boolean,
): Product[] {
  const chosen: Product[] = [];
  let left = [...wanted];
  while (left.length > 0) {
    const counts = products.map((product) => left.filter((of) => meets(product, of)).length);
    const best = counts.reduce(
      (at, count, n) =>
        count > (counts[at] ?? 0) ||
        (count === counts[at] && (products[n]?.size ?? 0) < (products[at]?.size ?? 0))
          ? n
          : at,
      0,
    );
    const product = products[best];
    if (product === undefined || (counts[best] ?? 0) === 0) break;
    chosen.push(product);
    left = left.filter((of) => !meets(product, of));
  }
  return chosen.filter(
    (product, n) =>
      !wanted.every(
        (of) =>
          !meets(product, of) || chosen.some((other, m) => m !== n && m < chosen.length && meets(other, of)),
      ) || chosen.length === 1,
  );
}

/** The sum in the condition language, in every way in which its parts can be put. */
function written(name: string, features: readonly Feature[], sum: readonly Product[]): string[] {
  if (sum.some((product) => product.size === 0)) return [];
  const singles = (wanted: boolean) => {
    const found = sum.filter(
      (product) =>
        product.size === 1 &&
        [...product].every(([f, value]) => value === wanted && features[f]?.kind === 'has'),
    );
    return found.length < 2 ? [] : found;
  };
  const [yes, no] = [singles(true), singles(false)];
  const codesOf = (products: readonly Product[]) =>
    products.flatMap((product) => [...product.keys()].map((f) => features[f]?.of ?? 0)).join(', ');
  const others = sum.filter((product) => !yes.includes(product) && !no.includes(product));
  const any = [
    ...(yes.length === 0 ? [] : [`${name} has any (${codesOf(yes)})`]),
    ...(no.length === 0 ? [] : [`not ${name} has all (${codesOf(no)})`]),
  ];
  const ways = others.map((product) => productTexts(name, features, product));
  const styles = Math.max(1, ...ways.map((texts) => texts.length));
  return Array.from({ length: styles }, (_, style) => [
    ...any,
    ...ways.map((texts) => texts[Math.min(style, texts.length - 1)] ?? ''),
  ]).map((parts) => parts.join(' or '));
}

function productTexts(name: string, features: readonly Feature[], product: Product): string[] {
  const of = (kind: Feature['kind'], value: boolean) =>
    [...product].flatMap(([f, wanted]) => {
      const feature = features[f];
      return feature?.kind === kind && wanted === value ? [feature] : [];
    });
  const [has, hasNot] = [of('has', true), of('has', false)];
  const codes = (list: readonly Feature[]) => list.map((feature) => feature.of).join(', ');
  const all = has.length > 1 ? [`${name} has all (${codes(has)})`] : has.map(({ positive }) => positive);
  const none =
    hasNot.length === 0
      ? ['']
      : [
          `${name} has none (${codes(hasNot)})`,
          hasNot.length > 1 ? `not ${name} has any (${codes(hasNot)})` : `not ${name} has ${codes(hasNot)}`,
        ];
  const [least, below] = [of('count', true), of('count', false)];
  const exact = least.length === 1 && below.length === 1 && (least[0]?.of ?? 0) + 1 === below[0]?.of;
  const counts = exact
    ? [[`count(${name}) = ${least[0]?.of ?? 0}`]]
    : [
        [...least.map(({ positive }) => positive), ...below.map(({ negative }) => negative)],
        [...least.map(({ positive }) => positive), ...below.map(({ positive }) => `not ${positive}`)],
      ];
  const states = [
    ...of('state', true).map(({ positive }) => positive),
    ...of('state', false).map(({ negative }) => negative),
  ];
  return none.flatMap((without) =>
    counts.map((count) => [...all, without, ...count, ...states].filter((part) => part !== '').join(' and ')),
  );
}
