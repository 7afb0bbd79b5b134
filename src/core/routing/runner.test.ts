/** Many are led as one is, by every kind of test there is and whatever was answered before. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import fc from 'fast-check';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { passKey } from '../document/addresses';
import type { Answer, Option, Value } from '../document/types';
import { Runner } from './runner';
import { walk } from './walk';

const UNKNOWN: Option = { code: 98, label: 'Don’t know', missing: 'dont_know' };
/** More than one word of bits holds, and codes that no table of small codes does. */
const LISTED: readonly Option[] = [
  ...Array.from({ length: 39 }, (_, n) => ({ code: n + 1, label: `No. ${n + 1}` })),
  { code: 70_000, label: 'No. 40' },
  UNKNOWN,
];
const ANSWERS = {
  n: { type: 'number', min: -5, max: 5_000_000_000, decimals: 1, specials: [UNKNOWN] },
  m: { type: 'single', options: [1, 2, 3].map((code) => ({ code, label: String(code) })).concat(UNKNOWN) },
  list: { type: 'multiple', options: LISTED },
  when: { type: 'time' },
  words: { type: 'text' },
} as const satisfies Readonly<Record<string, Answer>>;

const TESTS = [
  ...['n = 2', 'n <> 2', 'n < 2', 'n <= 2', 'n > 2', 'n >= 2', 'n = 98', 'n <> 98', 'n = -1', 'n < 0'],
  ...['n = 2.5', 'n > 2.5', 'n <> 2.5', 'n = 3000000000', 'n >= 3000000000', 'n = 0'],
  ...['2 = n', 'n = m', 'n <> m', 'n < m', 'n + m > 3', 'n - m = 0.5', 'm = 98', 'm <> 1', 'g = 1', 'g <> 1'],
  ...[
    'n in (1, 3)',
    'n not in (1, 98)',
    'n in (1..2, 98)',
    'n not in (0..2)',
    'n in (2.5)',
    'm not in (2..3)',
  ],
  ...[
    'list has 1',
    'list has 70000',
    'list has any (1, 34)',
    'list has all (1, 70000)',
    'list has all (33, 34)',
  ],
  ...[
    'list has none (1, 70000)',
    'list has none (34)',
    'list has 98',
    'list has all (98)',
    'list has any (98, 1)',
  ],
  ...['count(list) = 2', 'count(list) > 1', 'count(list) <> 1', 'several = 1', 'several <> 0'],
  ...['when < 12:00', 'when = 09:00', 'when in (08:00..10:00)', "words = 'no'", "words <> 'no'"],
  ...['asked', 'not asked', 'answered', 'unanswered'].flatMap((state) =>
    ['n', 'list', 'when', 'words', 'g'].map((name) => `${name} ${state}`),
  ),
];

const asked = Object.entries(ANSWERS).map(([name, answer]) =>
  ask(name, answer, { askIf: `ask_${name} = 1` }),
);
const gates = Object.keys(ANSWERS).map((name) => ask(`ask_${name}`));
const given = [{ name: 'g', label: 'Given', answer: ask('g').answer }];
const derived = [
  {
    name: 'several',
    label: 'Several',
    cases: [{ code: 1, label: 'Yes', if: 'count(list) > 1' }],
    else: { code: 0, label: 'No' },
  },
];
const planWith = (tests: readonly string[]) =>
  planFor(
    questionnaire(
      [
        section('a', [...gates, ...asked]),
        section(
          'b',
          tests.map((askIf, n) => ask(`t${n}`, 2, { askIf })),
        ),
      ],
      { given, derived },
    ),
  );

const picked = fc.constantFrom<(Value | null)[]>(null, [1], [1, 70_000], [33, 34], [2, 33, 39], [98]);
const person = fc.record({
  ...Object.fromEntries(Object.keys(ANSWERS).map((name) => [`ask_${name}`, fc.constantFrom(1, 2)])),
  g: fc.constantFrom(1, 2),
  n: fc.constantFrom<(Value | null)[]>(null, -1, 0, 1, 2, 2.5, 3, 3_000_000_000, 98),
  m: fc.constantFrom<(Value | null)[]>(null, 1, 2, 3, 98),
  list: picked,
  when: fc.constantFrom<(Value | null)[]>(null, '09:00', '09:00:00', '17:30'),
  words: fc.constantFrom<(Value | null)[]>(null, '', 'no', 'other'),
});
const leaf = fc.constantFrom(...TESTS);
const { condition } = fc.letrec<{ condition: string }>((tie) => ({
  condition: fc.oneof(
    { depthSize: 'small' },
    leaf,
    fc.tuple(tie('condition'), fc.constantFrom('and', 'or'), tie('condition')).map((t) => `(${t.join(' ')})`),
    tie('condition').map((part) => `not (${part})`),
  ),
}));

/** Whom each of some people meets, one after the other: by one runner, and by a walk for each. */
function met(tests: readonly string[], people: readonly Readonly<Record<string, Value | null>>[]) {
  const plan = planWith(tests);
  assert.deepEqual(plan.problems, []);
  const runner = new Runner(plan);
  return people.map(({ g = null, ...answers }) => {
    runner.clear();
    for (const [name, value] of Object.entries({ ...answers, g })) {
      const slot = runner.slots.get(passKey(name, null));
      assert.ok(slot !== undefined, name);
      runner.put(slot, value);
    }
    runner.run({ isDrawn: () => true });
    const one = walk(plan, { answers, given: { g } });
    assert.ok(one.ok);
    return [runner.itemsPresented().map(({ key }) => key), one.walk.steps.map(({ key }) => key)] as const;
  });
}

it('sees every test as the walk of one respondent does', () => {
  fc.assert(
    fc.property(fc.array(person, { minLength: 1, maxLength: 40 }), (people) => {
      for (const [quick, one] of met(TESTS, people)) assert.deepEqual(quick, one);
    }),
    { numRuns: 20 },
  );
});

it('puts tests together with and, or and not', () => {
  fc.assert(
    fc.property(
      fc.array(condition, { minLength: 10, maxLength: 10 }),
      fc.array(person, { minLength: 10, maxLength: 10 }),
      (tests, people) => {
        for (const [quick, one] of met(tests, people)) assert.deepEqual(quick, one);
      },
    ),
    { numRuns: 60 },
  );
});
