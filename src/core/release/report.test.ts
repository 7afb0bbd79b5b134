/** The report of a comparison, line by line: it is read in mails and by researchers' own checks. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Comparison, RoutesCompared } from './compare';
import { comparisonReport } from './report';

const now = questionnaire([section('a', [ask('rent')])], { title: 'Wave 2' });
const NOTHING: Comparison = {
  routes: { old: 5n, now: 5n, lost: 0n, gained: 0n, changed: 0n, share: 0, exact: true },
  bases: [],
  items: { added: [], gone: [], renamed: [], moved: [] },
  words: [],
  codes: [],
  conditions: [],
  endings: { added: [], gone: [] },
  breaks: [],
};
const report = (found: Partial<Comparison>, old = now) =>
  comparisonReport(old, now, { ...NOTHING, ...found });
const routes = (of: Partial<RoutesCompared>) => report({ routes: { ...NOTHING.routes, ...of } }).slice(3);

it('says of routes how many differ, who meets it, and where not all is known', () => {
  assert.deepEqual(routes({}), [
    '  5 before, 5 now',
    '  the same routes in both',
    '  0% of the sample meets a difference',
  ]);
  for (const of of [{ lost: 1n }, { gained: 1n }, { changed: 1n }])
    assert.ok(!routes(of).includes('  the same routes in both'), Object.keys(of).join());
  assert.deepEqual(routes({ lost: 2n, gained: 3n, changed: 4n, share: 0.25, exact: false }), [
    '  5 before, 5 now',
    '  2 lost, 3 gained, 4 worded, coded or answered otherwise',
    '  25% of the sample meets a difference',
    '  not all routes could be counted',
  ]);
  assert.ok(routes({ share: null }).includes('  who meets a difference is not known exactly'));
  for (const of of [{ lost: null }, { gained: null }, { changed: null }])
    assert.deepEqual(routes(of), ['  5 before, 5 now', '  too entangled to tell which of them differ']);
});

it('tells everything else in its order, and is silent about what did not change', () => {
  assert.deepEqual(report({}).slice(0, 3), ['Wave 2', '', 'Routes']);
  const at = { item: 'rent' };
  const found = report(
    {
      bases: [
        { name: 'rent', old: 'everyone', now: 'tenure = 2', oldShare: 1, nowShare: 0.4 },
        { name: 'last', old: 'everyone', now: 'nobody', oldShare: null, nowShare: null },
      ] as Comparison['bases'],
      items: { added: ['n'], gone: ['g'], renamed: [['o', 'p']], moved: ['m'] },
      words: [
        { at, part: 'words', old: 'Rent?', now: 'Your rent?' },
        { at, part: 'note', old: null, now: 'Each month' },
      ],
      codes: [
        { name: 'rent', code: 1, old: null, now: 'Yes' },
        { name: 'rent', code: 2, old: 'No', now: null },
        { name: 'rent', code: 3, old: 'A', now: 'B' },
      ] as Comparison['codes'],
      conditions: [{ at, part: 'asked if', old: 'a = 1', now: null }],
      endings: { added: ['full'], gone: ['out'] },
      breaks: [{ name: 'rent', why: 'code 3 means something else', by: 'codes' }] as Comparison['breaks'],
    },
    { ...now, title: 'Wave 1' },
  );
  assert.equal(found[0], 'Wave 2, before: Wave 1');
  assert.deepEqual(found.slice(found.indexOf('Who is asked') - 1), [
    '',
    'Who is asked',
    '  rent: everyone (100%) before, tenure = 2 (40%) now',
    '  last: everyone before, nobody now',
    '',
    'Items',
    ...['  new: n', '  gone: g', '  renamed: o is p', '  moved: m'],
    '',
    'Words',
    ...['  item rent, words:', '  - Rent?', '  + Your rent?', '  item rent, note:', '  + Each month'],
    '',
    'Codes and labels',
    ...['  rent: 1 “Yes” is new', '  rent: 2 “No” is gone', '  rent: 3 was “A”, is “B”'],
    '',
    'Conditions',
    ...['  item rent, asked if:', '  - a = 1'],
    '',
    'Endings',
    ...['  new: full', '  gone: out'],
    '',
    'Breaks in the series',
    '  rent: code 3 means something else',
  ]);
});
