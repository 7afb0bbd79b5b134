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

/** Which features must hold (a bit of `value`) or fail; those without a bit in `mask` do not matter. A word holds `WORD` features. */
interface Product {
  readonly mask: readonly number[];
  readonly value: readonly number[];
}

/** By feature, in their order: whether it must hold. */
type Literals = ReadonlyMap<number, boolean>;

/** Of one reading, which features hold: bits as in a product. */
type Vector = readonly number[];

/** Bits of a word; with the sign left out, words stay whole numbers without a sign. */
const WORD = 31;

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
  const all = featuresOf(name, options, inside, outside);
  // Fewer kinds of words first; with more of them something shorter may still be found.
  for (const kinds of [['has'], ['has', 'state'], ['has', 'state', 'count']] as const) {
    const features = all.filter(({ kind }) => (kinds as readonly string[]).includes(kind));
    for (const sum of sumsOfProducts(features, inside, outside)) texts.push(...written(name, features, sum));
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

/** Products whose union holds wherever it must and nowhere that it must not; none where none does. */
function sumsOfProducts(
  features: readonly Feature[],
  inside: readonly Reading[],
  outside: readonly Reading[],
): Literals[][] {
  const [wanted, unwanted] = [vectorsOf(features, inside), vectorsOf(features, outside)];
  if (wanted.length + unwanted.length > MOST_VECTORS) return [];
  const few = ofFewFeatures(features.length, (product) => !unwanted.some((of) => meets(product, of)));
  // Where one feature says it all, no other product is chosen.
  const isSaid = few.some((product) => sizeOf(product) === 1 && wanted.every((of) => meets(product, of)));
  // What holds is left out before what fails, and the other way round.
  return [false, true].flatMap((first) => {
    const products = new Map(few.map((product) => [keyOf(product), product]));
    for (const of of isSaid ? [] : wanted) {
      const product = shortestFor(of, unwanted, features.length, first);
      if (product === null) return [];
      products.set(keyOf(product), product);
    }
    const all = [...products.values()];
    // A list of picks, even a long one, is read more easily than a denial.
    const picks = all.filter((product) => sizeOf(product) === 1 && product.value.some((word) => word !== 0));
    const sums = [fewest(all, wanted), fewest(picks, wanted)];
    return sums
      .filter((sum) => wanted.every((of) => sum.some((product) => meets(product, of))))
      .map((sum) => sum.map((product) => literalsOf(product, features.length)));
  });
}

/** Each once, in the order in which they come first. */
function vectorsOf(features: readonly Feature[], readings: readonly Reading[]): Vector[] {
  const distinct = new Map<string, Vector>();
  for (const reading of readings) {
    const vector = nothing(features.length);
    features.forEach(({ holds }, n) => {
      if (holds(reading)) setBit(vector, n);
    });
    distinct.set(vector.join(), vector);
  }
  return [...distinct.values()];
}

const nothing = (features: number): number[] => new Array<number>(Math.ceil(features / WORD)).fill(0);
const bitOf = (words: readonly number[], n: number) => ((words[Math.floor(n / WORD)] ?? 0) >> (n % WORD)) & 1;
function setBit(words: number[], n: number): void {
  words[Math.floor(n / WORD)] = (words[Math.floor(n / WORD)] ?? 0) | (1 << (n % WORD));
}

function meets({ mask, value }: Product, of: Vector): boolean {
  for (let word = 0; word < mask.length; word += 1)
    if ((((of[word] ?? 0) ^ (value[word] ?? 0)) & (mask[word] ?? 0)) !== 0) return false;
  return true;
}

const keyOf = ({ mask, value }: Product) => `${mask.join()} ${value.join()}`;

function sizeOf({ mask }: Product): number {
  let size = 0;
  for (let word of mask) for (; word !== 0; word &= word - 1) size += 1;
  return size;
}

function literalsOf({ mask, value }: Product, features: number): Literals {
  const literals = new Map<number, boolean>();
  for (let n = 0; n < features; n += 1) if (bitOf(mask, n) === 1) literals.set(n, bitOf(value, n) === 1);
  return literals;
}

/** What of a vector is enough to keep all that is unwanted out; null where not even all of it is. */
function shortestFor(
  of: Vector,
  unwanted: readonly Vector[],
  features: number,
  first: boolean,
): Product | null {
  const mask = nothing(features);
  for (let n = 0; n < features; n += 1) setBit(mask, n);
  const fits = () => !unwanted.some((other) => meets({ mask, value: of }, other));
  if (!fits()) return null;
  const order = Array.from({ length: features }, (_, n) => n).sort(
    (a, b) => (bitOf(of, a) - bitOf(of, b)) * (first ? -1 : 1) || b - a,
  );
  for (const feature of order) {
    const word = Math.floor(feature / WORD);
    const before = mask[word] ?? 0;
    mask[word] = before & ~(1 << (feature % WORD));
    if (!fits()) mask[word] = before;
  }
  return { mask, value: of.map((word, n) => word & (mask[n] ?? 0)) };
}

/** Products of one feature, and of two that neither alone will do for, that `fit`. */
function ofFewFeatures(count: number, fit: (product: Product) => boolean): Product[] {
  const literals = Array.from({ length: 2 * count }, (_, n) => {
    const [mask, value] = [nothing(count), nothing(count)];
    setBit(mask, n >> 1);
    if ((n & 1) === 1) setBit(value, n >> 1);
    return { feature: n >> 1, product: { mask, value } };
  });
  const alone = literals.filter(({ product }) => fit(product));
  const left = literals.filter((literal) => !alone.includes(literal));
  const found: Product[] = alone.map(({ product }) => product);
  for (const [n, one] of left.entries())
    for (const other of left.slice(n + 1)) {
      if (one.feature === other.feature) continue;
      const either = (a: readonly number[], b: readonly number[]) => a.map((word, w) => word | (b[w] ?? 0));
      const product = {
        mask: either(one.product.mask, other.product.mask),
        value: either(one.product.value, other.product.value),
      };
      if (fit(product)) found.push(product);
    }
  return found;
}

/** Greedily those that hold for most of what is left, then without those that others make superfluous. */
function fewest(products: readonly Product[], wanted: readonly Vector[]): Product[] {
  const chosen: Product[] = [];
  const sizes = products.map(sizeOf);
  let left = [...wanted];
  while (left.length > 0) {
    let [best, most] = [0, -1];
    products.forEach((product, n) => {
      let count = 0;
      for (const of of left) if (meets(product, of)) count += 1;
      if (count > most || (count === most && (sizes[n] ?? 0) < (sizes[best] ?? 0))) [best, most] = [n, count];
    });
    const product = products[best];
    if (product === undefined || most <= 0) break;
    chosen.push(product);
    left = left.filter((of) => !meets(product, of));
  }
  return chosen.filter(
    (product, n) =>
      !wanted.every((of) => !meets(product, of) || chosen.some((other, m) => m !== n && meets(other, of))) ||
      chosen.length === 1,
  );
}

/** The sum in the condition language, in every way in which its parts can be put. */
function written(name: string, features: readonly Feature[], sum: readonly Literals[]): string[] {
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
  const codesOf = (products: readonly Literals[]) =>
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

function productTexts(name: string, features: readonly Feature[], product: Literals): string[] {
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
        // Fewer than so many is true only of whoever picked something.
        ...(least.length > 0 && below.length > 0 ? [below.map(({ negative }) => negative)] : []),
      ];
  const states = [
    ...of('state', true).map(({ positive }) => positive),
    ...of('state', false).map(({ negative }) => negative),
  ];
  return none.flatMap((without) =>
    counts.map((count) => [...all, without, ...count, ...states].filter((part) => part !== '').join(' and ')),
  );
}
