/** The forks of a questionnaire, with every outcome that they are written to have. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import type { ForkEvent } from '../analysis';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { forksOf, leadsToNothingKept } from './forks';

const SKIPS = [
  { if: 'a = 1', to: { item: 'c' } },
  { if: 'a = 2', to: { section: 'kin' } },
];
const options = [1, 2].map((code) => ({ code, label: `${code}`, ...(code === 2 ? { askIf: 'n > 1' } : {}) }));
const rows = ['heat', 'cost'].map((name) => ({
  name,
  label: name,
  ...(name === 'cost' ? { askIf: 'a = 1' } : {}),
}));

/** As few words as tell them apart. */
function words(event: ForkEvent): string {
  switch (event.kind) {
    case 'ask-if':
      return event.holds ? 'asked' : 'not asked';
    case 'pass':
      return `pass ${event.pass}`;
    case 'ending':
      return event.ending;
    case 'presented':
      return event.item;
    default:
      return `${event.kind} ${event.index}`;
  }
}
const told = (...of: Parameters<typeof questionnaire>) =>
  forksOf(planFor(questionnaire(...of))).map(
    ({ at, outcomes }) => `${at}: ${outcomes.map(words).join(', ')}`,
  );

it('has those of sections, items, their parts, ways on and endings, in the order of the questionnaire', () => {
  const forks = told(
    [
      section('a', [
        ask('n', { type: 'number', min: 0, max: 3 }),
        ask('a', 2, { skips: SKIPS }),
        ask('b', { type: 'single', options }),
        ask('c', { type: 'grid', rows, options: options.slice(0, 1) }, { askIf: 'a = 2' }),
      ]),
      section('kin', [ask('d')], {
        askIf: 'n > 0',
        repeat: { times: 'n', max: 2 },
        onward: [{ if: 'a = 1', to: { ending: 'out' } }],
      }),
    ],
    {
      quotas: [{ id: 'q', label: 'Q', if: 'n = 1', target: 2, at: 'c', to: { ending: 'out' } }],
      endings: [
        { id: 'done', kind: 'complete', messages: [{ if: 'a = 1', text: 'One' }, { text: 'Other' }] },
        { id: 'out', kind: 'screened_out', messages: [{ text: 'Out' }] },
      ],
    },
  );
  assert.deepEqual(
    forks.map((fork) => fork.slice(fork.indexOf(': ') + 2)),
    [
      'skip 0, skip 1, skip -1',
      'asked, not asked',
      'asked, not asked',
      'asked, not asked',
      'quota 0, quota -1',
      'asked, not asked',
      'pass 0, pass 1, pass 2',
      'onward 0, onward -1',
      'done, out',
      'message 0, message 1',
    ],
  );
  assert.equal(new Set(forks.map((fork) => fork.slice(0, fork.indexOf(': ')))).size, forks.length);
});

it('tells no way past what always holds, and no pass of very many', () => {
  const sure = [...SKIPS.slice(0, 1), { to: { ending: 'out' } }];
  const forks = (max: number) =>
    told([
      section('a', [ask('n', { type: 'number', min: 0, max: 20 }), ask('a', 2, { skips: sure }), ask('c')], {
        onward: [{ if: 'n = 1', to: { ending: 'out' } }, { to: { ending: 'done' } }],
      }),
      section('kin', [ask('d')], { repeat: { times: 'n', max } }),
    ]).map((fork) => fork.slice(fork.indexOf(': ') + 2));
  const passes = Array.from({ length: 13 }, (_, pass) => `pass ${pass}`).join(', ');
  assert.deepEqual(forks(12), ['skip 0, skip 1', 'onward 0, onward 1', passes, 'done, out']);
  assert.deepEqual(forks(13), ['skip 0, skip 1', 'onward 0, onward 1', 'done, out']);
  // A fork of one way is none.
  assert.deepEqual(
    told([section('a', [ask('a')])], {
      endings: [{ id: 'done', kind: 'complete', messages: [{ text: 'Thanks' }] }],
    }),
    [],
  );
});

it('tells of which outcomes nothing is kept', () => {
  const plan = planFor(
    questionnaire(
      [
        section('a', [
          ask('n', 2, {
            skips: [
              { if: 'n = 1', to: { ending: 'no' } },
              { if: 'n = 2', to: { item: 'c' } },
            ],
          }),
          ask('a', 2, { skips: [{ if: 'n = 1', to: { ending: 'done' } }, { to: { ending: 'no' } }] }),
          ask('c'),
        ]),
        section('b', [ask('d')], {
          onward: [{ if: 'n = 1', to: { ending: 'done' } }, { to: { ending: 'no' } }],
        }),
        section('e', [ask('f')], { onward: [{ to: { section: 'g' } }] }),
        section('g', [ask('h')]),
      ],
      {
        quotas: [
          { id: 'q', label: 'Q', if: 'n = 1', target: 2, at: 'c', to: { ending: 'no' } },
          { id: 'r', label: 'R', if: 'n = 2', target: 2, at: 'c', to: { ending: 'done' } },
        ],
        endings: [
          { id: 'done', kind: 'complete', messages: [{ text: 'Thanks' }] },
          { id: 'no', kind: 'declined', messages: [{ text: 'Goodbye' }] },
        ],
      },
    ),
  );
  const kept = (event: object) => !leadsToNothingKept(plan, event as ForkEvent);
  const skip = (item: string, index: number) => kept({ kind: 'skip', item, index });
  assert.deepEqual([skip('n', 0), skip('n', 1), skip('n', -1)], [false, true, true]);
  assert.deepEqual([skip('a', 0), skip('a', 1), skip('z', 0)], [true, false, true]);
  const quota = (item: string, index: number) => kept({ kind: 'quota', item, index });
  assert.deepEqual([quota('c', 0), quota('c', 1), quota('c', -1), quota('z', 0)], [false, true, true, true]);
  const onward = (of: string, index: number) => kept({ kind: 'onward', section: of, index });
  assert.deepEqual(
    [onward('b', 0), onward('b', 1), onward('b', -1), onward('e', 0), onward('z', 0)],
    [true, false, true, true, true],
  );
  for (const kind of ['ending', 'message'])
    assert.deepEqual(
      ['done', 'no', 'gone'].map((ending) => kept({ kind, ending, index: 0 })),
      [true, false, true],
    );
  for (const kind of ['ask-if', 'pass', 'presented']) assert.ok(kept({ kind }), kind);
});
