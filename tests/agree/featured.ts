/**
 * Small questionnaires written by hand that between them have every property of a questionnaire and every form of the
 * condition language, each where it makes a difference if it can make one.
 */
import type { Answer, Ending, Item, Question, Questionnaire } from '../../src/core/document/types';
import { ask, questionnaire, say, section } from '../support/questionnaire';

const PIXEL =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
const image = { src: PIXEL, alt: 'A dot' };
const must = { required: true } as const;
const code = (of: number, rest: object = {}) => ({ code: of, label: `Answer ${of}`, ...rest });
const dontKnow = code(98, { missing: 'dont_know' });
const refused = code(99, { missing: 'refused' });
const notAvailable = code(97, { missing: 'not_available' });

const ENDINGS: readonly Ending[] = [
  { id: 'done', kind: 'complete', messages: [{ if: 'agree = 1', text: 'Thanks.' }, { text: 'Bye.' }] },
  { id: 'out', kind: 'screened_out', messages: [], next: { url: 'https://example.org' } },
  { id: 'no', kind: 'declined', messages: [{ text: 'Well.' }] },
  { id: 'full', kind: 'quota_full', messages: [{ text: 'Full.' }] },
  {
    id: 'on',
    kind: 'hand_off',
    messages: [{ text: 'Next.' }],
    next: { questionnaire: 'diary', carry: ['agree'] },
  },
];

/** Consent to closing, with everything that is shown and steers nothing. */
function looks(settings: Questionnaire['settings']): Questionnaire {
  const agree = ask(
    'agree',
    {
      type: 'single',
      columns: 2,
      shuffleOptions: true,
      options: [
        code(1, { image }),
        code(2, { specify: true, specifyLabel: 'Which?', specifyOptional: true }),
      ],
    },
    {
      ...must,
      label: 'Agrees',
      note: 'Help',
      instruction: 'Read out.',
      image,
      agrees: [1],
      measure: 'nominal',
      requiredMessage: 'Please.',
      comment: 'Anything else?',
      seconds: 4,
      assume: { shares: { '1': 0.9 }, blank: 0 },
      skips: [{ if: 'agree = 2', to: { ending: 'no' } }],
    },
  );
  const many: Answer = {
    type: 'multiple',
    columns: 2,
    minPicks: 1,
    maxPicks: 2,
    picksMessage: 'One or two.',
    shuffleOptions: true,
    options: [code(1), code(2), code(3, { exclusive: true }), refused],
  };
  const scale: Answer = {
    type: 'scale',
    min: 0,
    max: 4,
    step: 2,
    lowLabel: 'Low',
    midLabel: 'Middle',
    highLabel: 'High',
    specials: [dontKnow],
  };
  return questionnaire(
    [
      section('consent', [agree], { kind: 'consent', intro: 'Welcome.', timeLimit: 60 }),
      section(
        'screen',
        [
          ask('many', many, {
            measure: 'nominal',
            sensitive: true,
            skips: [{ if: 'many has 99', to: { ending: 'out' } }],
          }),
        ],
        { kind: 'screening' },
      ),
      section(
        'about',
        [
          say('hello', {
            instruction: 'Smile.',
            image,
            seconds: 3,
            askIf: 'many has none (1, 2)',
            skips: [{ if: 'many has 3', to: { item: 'amount' } }],
          }),
          { kind: 'page_break' },
          ask('scale', scale, {
            measure: 'ordinal',
            limitMessage: 'A mark.',
            missingCodes: { not_applicable: -91 },
          }),
          ask('amount', { type: 'number', min: 0, max: 1, unit: 'pounds' }, { measure: 'ratio' }),
        ],
        { kind: 'background' },
      ),
      section('last', [ask('again', 2, { measure: 'interval', askIf: 'scale = 98 or amount > 0' })], {
        kind: 'closing',
        onward: [{ if: 'again = 1', to: { ending: 'on' } }, { to: { ending: 'done' } }],
      }),
    ],
    { endings: ENDINGS, ...(settings ? { settings } : {}) },
  );
}

function study(items: readonly Item[], rest: Partial<Questionnaire> = {}): Questionnaire {
  return questionnaire([section('a', items)], rest);
}

/** Numbers, texts and dates that steer. */
const LINES: readonly Questionnaire[] = [
  study([
    ask('size', { type: 'number', min: -1, max: 0.5, decimals: 1, specials: [dontKnow] }, must),
    ask('more', 2, { askIf: 'size < -0.5 or size = 98 or size = 0.5' }),
    ask('less', 2, { askIf: 'size in (-1..0) and not more answered' }),
  ]),
  study([
    ask('words', {
      type: 'text',
      lines: 'one',
      minLength: 1,
      maxLength: 5,
      pattern: 'none',
      placeholder: 'Say',
    }),
    ask('same', 2, { askIf: "words = 'a'" }),
    ask('mail', { type: 'text', lines: 'many', pattern: 'email' }, must),
    ask('phone', { type: 'text', pattern: 'phone' }, { askIf: 'mail answered and words unanswered' }),
    ask('page', { type: 'text', pattern: 'url' }, { askIf: 'phone asked' }),
  ]),
  study([
    ask('day', { type: 'date', min: '2024-01-01', max: '2024-01-02', specials: [notAvailable] }, must),
    ask('hour', { type: 'time', min: '08:00', max: '09:30', specials: [dontKnow] }),
    ask(
      'moment',
      { type: 'datetime', min: '2024-01-01T08:00', max: '2024-01-01T09:00', specials: [refused] },
      {
        askIf: 'day <= 2024-01-01',
      },
    ),
    ask('early', 2, { askIf: 'hour >= 08:30 or moment = 2024-01-01T09:00 or day = 97' }),
  ]),
];

/** Ranks and grids. */
const LISTS: readonly Questionnaire[] = [
  study([
    ask('first', { type: 'rank', options: [code(1), code(2)], top: 1, shuffleOptions: true }, must),
    ask('both', { type: 'rank', options: [code(1, { askIf: 'first has 2' }), code(2)] }),
    ask('after', 2, { askIf: 'both has all (1, 2) or both has any (2)' }),
  ]),
  study([
    ask('grid', {
      type: 'grid',
      pick: 'one',
      shuffleOptions: true,
      rows: [
        { name: 'top', label: 'Top' },
        { name: 'low', label: 'Low', askIf: 'top = 1' },
      ],
      options: [code(1), code(2)],
    }),
    ask('some', 2, { askIf: 'grid answered and low <> 2' }),
    ask('pairs', {
      type: 'grid',
      pick: 'many',
      rows: [{ name: 'p', label: 'P' }],
      options: [code(1), code(2, { exclusive: true })],
    }),
    ask('two', 2, { askIf: 'count(p) >= 1 and p has none (2)' }),
  ]),
];

/** What is known beforehand, quotas, derived variables and sums. */
const KNOWN: readonly Questionnaire[] = [
  study(
    [
      ask(
        'n',
        { type: 'number', min: 0, max: 2 },
        {
          ...must,
          assume: {
            ranges: [
              { from: 0, to: 1, share: 0.6 },
              { from: 2, to: 2, share: 0.4 },
            ],
            blank: 0.1,
            source: 'pilot 2025',
            base: 312,
            where: [
              { if: 'arm = 2', ranges: [{ from: 1, to: 2, share: 1 }], shares: { '0': 0.2 }, blank: 0 },
            ],
          },
          checks: [
            { if: 'n = 0 and arm = 2', kind: 'hard', message: 'No.' },
            { if: 'n = 2', kind: 'soft', message: 'Sure?' },
          ],
        },
      ),
      ask('m', { type: 'number', min: 0, max: 2 }),
      ask('same', 2, { askIf: 'n = m' }),
      ask('sum', 2, { askIf: 'n + m > 2 and n * 2 - m >= 1' }),
      ask('late', 2, { askIf: 'group = 2 or total >= 4' }),
      ask('group_only', 2, { askIf: 'group <> 1 and never or always and arm = 1' }),
    ],
    {
      given: [
        {
          name: 'arm',
          label: 'Arm',
          answer: { type: 'single', options: [code(1), code(2)] },
          random: true,
          assume: { shares: { '1': 0.5, '2': 0.5 } },
        },
      ],
      derived: [
        {
          name: 'group',
          label: 'Group',
          cases: [{ if: 'n < 1', code: 1, label: 'Low' }],
          else: { code: 2, label: 'High' },
        },
        { name: 'total', label: 'Total', value: '(n + 1) * m' },
      ],
      quotas: [
        { id: 'q1', label: 'Ones', if: 'n = 1', target: 5, at: 'n', to: { item: 'late' } },
        { id: 'q2', label: 'Twos', if: 'n = 2', target: 5, at: 'm', to: { ending: 'out' } },
      ],
    },
  ),
];

/** Repeats, draws and shuffles. */
const PASSES: readonly Questionnaire[] = [
  questionnaire(
    [
      section('a', [
        ask('who', { type: 'multiple', options: [code(1), code(2), code(3, { exclusive: true })] }, must),
      ]),
      section(
        'b',
        [
          ask('near', 2, { ...must, skips: [{ if: 'each = 1 and near = 2', to: { nextPass: true } }] }),
          ask('far', 2, { askIf: 'pass > 1' }),
        ],
        { repeat: { each: 'who', max: 2 } },
      ),
      section('c', [ask('c1'), ask('c2'), say('c3')], { draw: 1, onward: { section: 'e' } }),
      section('d', [ask('d1')], { shuffle: true, onward: { item: 'e1' } }),
      section('e', [ask('e1', 2, { askIf: 'count(near = 1) >= 1 and c1 not asked' })], {
        onward: { ending: 'out' },
      }),
    ],
    {},
  ),
  questionnaire([
    section('a', [ask('times', { type: 'number', min: 0, max: 2 }, must)]),
    section('b', [ask('in1', 2, { ...must, skips: [{ if: 'in1 = 2', to: { section: 'd' } }] }), ask('in2')], {
      repeat: { times: 'times', max: 2 },
      // Onward is taken once, past the last pass: there is no pass to go on to.
      onward: { nextPass: true },
    }),
    section('c', [ask('c1'), ask('c2', 2, { askIf: 'times not in (1, 2)' })], { shuffle: true }),
    section('d', [ask('d1')], { askIf: 'times in (0..1)' }),
  ]),
];

export const FEATURED: readonly Questionnaire[] = [
  looks({
    numbers: 'running',
    pages: 'section',
    progress: true,
    humanCheck: true,
    mode: 'self',
    maxMinutes: 15,
    forecast: {
      starts: 1200,
      least: 100,
      breakOff: 0.01,
      response: 0.24,
      designEffect: 1.4,
      prices: { start: 1.5, screenOut: 2, complete: 8.25, currency: 'EUR' },
      wanted: [
        { of: 'agree', n: 400 },
        { of: 'inner', pass: 2, n: 50 },
      ],
      sets: [
        {
          name: 'low',
          assume: [
            {
              of: 'agree',
              shares: { '1': 0.7 },
              ranges: [{ from: 0, to: 1, share: 0.5 }],
              blank: 0.05,
              source: 'a guess',
              base: 40,
              where: [
                { if: 'agree = 1', shares: { '1': 0.6 }, ranges: [{ from: 2, to: 3, share: 1 }], blank: 0 },
              ],
            },
          ],
        },
      ],
    },
    pace: {
      words: 200,
      single: 3,
      pick: 2,
      scale: 4,
      number: 6,
      shortText: 9,
      longText: 30,
      gridRow: 3.5,
      rankPlace: 2.5,
      source: 'timed in the pilot',
    },
    defaults: { required: true, dontKnow: false },
    theme: { accent: '#1f6b58', font: 'Instrument Sans', logo: PIXEL },
  }),
  looks({ numbers: 'fixed', pages: 'item', mode: 'interviewer' }),
  looks({ numbers: 'none' }),
  ...LINES,
  ...LISTS,
  ...KNOWN,
  ...PASSES,
] satisfies readonly (Questionnaire & { sections: readonly { items: readonly (Item | Question)[] }[] })[];
