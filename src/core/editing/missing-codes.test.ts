/** Codes of the missing-code plan: conventions with their exceptions, what is free beside an answer, and reasons of one's own. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Answer, Questionnaire } from '../document/types';
import { applyChange } from './change';
import { addReason, followConvention, nearestFreeCodes, type Convention } from './missing-codes';

const options = (...codes: number[]) => codes.map((code) => ({ code, label: `${code}` }));
const single = (...codes: number[]): Answer => ({ type: 'single', options: options(...codes) });
const number = (min: number, max: number): Answer => ({ type: 'number', min, max });
const study = (answers: Readonly<Record<string, Answer>>, rest: Partial<Questionnaire> = {}) =>
  questionnaire(
    [
      section(
        'a',
        Object.entries(answers).map(([name, answer]) => ask(name, answer)),
      ),
    ],
    rest,
  );

function followed(document: Questionnaire, convention: Convention) {
  const { missing, sections } = applyChange(document, followConvention(document, convention)).document;
  const own = sections.flatMap(({ items }) =>
    items.flatMap((item) =>
      item.kind === 'question' && item.missingCodes ? [[item.name, Object.values(item.missingCodes)]] : [],
    ),
  );
  return { plan: missing.map(({ code }) => code), own: Object.fromEntries(own) as Record<string, number[]> };
}

it('negative codes are the same for all, further down where they could be answers', () => {
  const answers = { yes: single(1, 2), cold: number(-3, 9), colder: number(-30, 9), below: single(-2, 1) };
  assert.deepEqual(followed(study(answers), 'negative'), {
    plan: [-1, -2, -3, -4],
    own: { cold: [-4, -5, -6, -7], colder: [-31, -32, -33, -34], below: [-3, -4, -5, -6] },
  });
});

it('high codes are the last that fit beside the answers of each', () => {
  const answers = {
    yes: single(1, 2),
    many: single(1, 6),
    wide: single(1, 100),
    rooms: number(0, 20),
    old: number(0, 98),
    picks: { type: 'multiple', options: options(1, 20) },
  } as const;
  assert.deepEqual(followed(study(answers), 'high'), {
    plan: [96, 97, 98, 99],
    own: {
      yes: [6, 7, 8, 9],
      wide: [996, 997, 998, 999],
      old: [996, 997, 998, 999],
      picks: [6, 7, 8, 9],
    },
  });
});

it('the plan is free of what is given and derived, which have no exceptions', () => {
  const given = [{ name: 'area', label: 'Area', answer: number(-2, 98) }];
  const derived = [
    {
      name: 'kind',
      label: 'Kind',
      cases: [{ if: 'yes = 1', code: -5, label: 'X' }],
      else: { code: 997, label: 'Y' },
    },
  ];
  assert.deepEqual(followed(study({ yes: single(1) }, { given }), 'negative').plan, [-3, -4, -5, -6]);
  assert.deepEqual(
    followed(study({ yes: single(1) }, { given, derived }), 'negative').plan,
    [-6, -7, -8, -9],
  );
  assert.deepEqual(
    followed(study({ yes: single(1) }, { given, derived }), 'high').plan,
    [9996, 9997, 9998, 9999],
  );
});

it('beside a code that is taken, more nines and the first negative are free', () => {
  assert.deepEqual(nearestFreeCodes(single(1, 97), 97, new Set()), [997, -1]);
  assert.deepEqual(nearestFreeCodes(number(0, 1000), 97, new Set()), [9997, -1]);
  assert.deepEqual(nearestFreeCodes(number(-2, 10), 9, new Set([99, -3])), [999, -4]);
  assert.deepEqual(nearestFreeCodes(single(1), -1, new Set([-1])), [-2]);
  assert.deepEqual(nearestFreeCodes(number(0, 999_999_999), 9, new Set()), [-1]);
});

it('a reason of one’s own goes on in the manner of the plan, under a name of its own', () => {
  const document = study({ yes: single(1) });
  const added = (of: Questionnaire, ...labels: string[]) =>
    labels
      .reduce((now, label) => applyChange(now, addReason(now, label)).document, of)
      .missing.slice(of.missing.length)
      .map(({ reason, code, label }) => `${reason} ${code} ${label}`);
  assert.deepEqual(added(document, 'Ill today!', 'Ill today', '  3 — ', 'no answer'), [
    'ill_today -5 Ill today!',
    'ill_today_2 -6 Ill today',
    'reason -7   3 — ',
    'no_answer_2 -8 no answer',
  ]);
  const high = { ...document, missing: document.missing.map((entry, n) => ({ ...entry, code: 94 + n })) };
  const given = [{ name: 'area', label: 'Area', answer: single(98, 99) }];
  assert.deepEqual(added({ ...high, given }, 'Ill'), ['ill 100 Ill']);
});
