/** What is told of a new version beside an old one, on versions whose differences are known. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, say, section } from '../../../tests/support/questionnaire';
import type { Item, Questionnaire } from '../document/types';
import { compareVersions, routesDiffer } from './compare';
import { comparisonReport } from './report';

const option = (code: number, label = `Answer ${code}`) => ({ code, label });
const must = { required: true } as const;
const study = (items: readonly Item[], rest: Partial<Questionnaire> = {}) =>
  questionnaire([section('a', items)], rest);

const tenure = ask(
  'tenure',
  { type: 'single', options: [option(1, 'Own it'), option(2, 'Rent it'), option(3, 'Live there rent-free')] },
  { ...must, text: 'Do you own or rent your home?', assume: { shares: { '1': 0.5, '2': 0.4, '3': 0.1 } } },
);
const rent = ask(
  'rent',
  { type: 'number', min: 0, max: 9 },
  { ...must, text: 'What do you pay in rent each month?', askIf: 'tenure = 2' },
);
const last = ask('last', 2, { ...must, text: 'Is there anything you would add to this?' });
const OLD = study([tenure, rent, last]);
const counts = (now: Questionnaire, old = OLD) => {
  const { lost, gained, changed, share } = compareVersions(old, now).routes;
  return [lost, gained, changed, share === null ? null : Math.round(share * 1e6) / 1e6];
};

describe('a new version beside an old one', () => {
  it('that is the same has no difference', () => {
    const found = compareVersions(OLD, OLD);
    assert.deepEqual(counts(OLD), [0n, 0n, 0n, 0]);
    assert.ok(!routesDiffer(found));
    assert.deepEqual(
      [found.bases, found.words, found.codes, found.conditions, found.breaks],
      [[], [], [], [], []],
    );
    assert.deepEqual(comparisonReport(OLD, OLD, found).slice(0, 5), [
      'Test',
      '',
      'Routes',
      '  2 before, 2 now',
      '  the same routes in both',
    ]);
  });

  it('asks others: bases, the routes of both, and who meets that', () => {
    const wider = study([tenure, { ...rent, askIf: 'tenure in (2, 3)' }, last]);
    const found = compareVersions(OLD, wider);
    // The same routes are there, by other people: a tenth of the sample is asked something else.
    assert.deepEqual(counts(wider), [0n, 0n, 0n, 0.1]);
    assert.deepEqual(
      found.bases.map(({ name, old, now, oldShare, nowShare }) => [name, old, now, oldShare, nowShare]),
      [['rent', 'tenure = 2', 'tenure <> 1', 0.4, 0.5]],
    );
    assert.deepEqual(found.conditions, [
      { at: { item: 'rent' }, part: 'asked if', old: 'tenure = 2', now: 'tenure in (2, 3)' },
    ]);
    assert.deepEqual(found.breaks, [
      { name: 'rent', why: 'asked of others: tenure = 2 before, tenure <> 1 now', by: 'base' },
    ]);
    // Another condition that holds for the same people is told as a condition, and is no other base.
    const same = compareVersions(OLD, study([tenure, { ...rent, askIf: 'not tenure in (1, 3)' }, last]));
    assert.deepEqual([same.bases.length, same.conditions.length, same.breaks.length], [0, 1, 0]);
    assert.equal(same.routes.share, 0);
  });

  it('has items more and less, renamed and moved', () => {
    const more = study([tenure, rent, ask('heat', 2, { ...must, askIf: 'tenure = 1' }), last]);
    // Who lives there rent-free goes the old way, so none is lost.
    assert.deepEqual(counts(more), [0n, 1n, 0n, 0.5]);
    assert.deepEqual(compareVersions(OLD, more).items, { added: ['heat'], gone: [], renamed: [], moved: [] });
    assert.deepEqual(compareVersions(more, OLD).items.gone, ['heat']);
    assert.deepEqual(counts(OLD, more), [1n, 0n, 0n, 0.5]);
    const renamed = study([{ ...tenure, name: 'home' }, { ...rent, askIf: 'home = 2' }, last]);
    const found = compareVersions(OLD, renamed);
    assert.deepEqual(found.items.renamed, [['tenure', 'home']]);
    assert.deepEqual([found.conditions, found.bases, found.breaks], [[], [], []]);
    assert.deepEqual(counts(renamed), [0n, 0n, 0n, 0]);
    const moved = study([last, tenure, rent]);
    assert.deepEqual(compareVersions(OLD, moved).items.moved, ['last']);
    assert.deepEqual(counts(moved), [2n, 2n, 0n, 1]);
  });

  it('asks the same people where a question that steers stands elsewhere', () => {
    const [x, y] = [ask('x', 2, must), ask('y', 2, must)];
    const both = ask('both', 2, { ...must, askIf: 'x = 1 and y = 1' });
    const old = study([tenure, x, y, rent, both, last]);
    for (const items of [
      [x, y, tenure, rent, both, last],
      [x, tenure, y, rent, both, last],
      [y, x, tenure, rent, both, last],
    ]) {
      const { bases, breaks, items: matched } = compareVersions(old, study(items));
      assert.ok(matched.moved.includes('tenure'));
      assert.deepEqual([bases, breaks], [[], []]);
    }
  });

  it('shows an answer to others: nobody is asked anything else, and who sees it meets a difference', () => {
    const choice = (askIf: string) =>
      ask('choice', { type: 'single', options: [option(1), { ...option(2), askIf }] }, must);
    const found = compareVersions(
      study([tenure, choice('tenure = 1')]),
      study([tenure, choice('tenure = 2')]),
    );
    assert.deepEqual([found.routes.changed, found.routes.share, found.bases], [1n, 1, []]);
  });

  it('finds each its own where several were renamed', () => {
    const several = study([
      { ...tenure, name: 'home', text: 'Do you own or rent your home?' },
      { ...rent, name: 'pay', askIf: 'home = 2' },
      last,
    ]);
    assert.deepEqual(compareVersions(OLD, several).items.renamed, [
      ['tenure', 'home'],
      ['rent', 'pay'],
    ]);
    const other = study([tenure, ask('fuel', 2, { text: 'Which fuel heats it?' }), last]);
    assert.deepEqual(compareVersions(OLD, other).items, {
      added: ['fuel'],
      gone: ['rent'],
      renamed: [],
      moved: [],
    });
  });

  it('words things otherwise: told word for word, a break only where another question is asked', () => {
    const worded = study([
      { ...tenure, text: 'Do you own, or rent your home?' },
      rent,
      { ...last, note: 'In short.' },
    ]);
    const found = compareVersions(OLD, worded);
    assert.deepEqual(
      found.words.map(({ at, part, old, now }) => [at, part, old, now]),
      [
        [{ item: 'tenure' }, 'words', 'Do you own or rent your home?', 'Do you own, or rent your home?'],
        [{ item: 'last' }, 'note', null, 'In short.'],
      ],
    );
    assert.deepEqual(found.breaks, []);
    assert.deepEqual(counts(worded), [0n, 0n, 2n, 1]);
    const another = study([{ ...tenure, text: 'Who pays for your heating?' }, rent, last]);
    assert.deepEqual(compareVersions(OLD, another).breaks, [
      { name: 'tenure', why: 'another question under the same name', by: 'words' },
    ]);
    const typed = study([tenure, rent, ask('last', { type: 'text' }, { text: last.text })]);
    assert.deepEqual(compareVersions(OLD, typed).breaks, [
      { name: 'last', why: 'another type of answer: single before, text now', by: 'type' },
    ]);
  });

  it('codes answers otherwise: a code that means something else breaks the series', () => {
    const list = (...options: readonly { readonly code: number; readonly label: string }[]) =>
      study([{ ...tenure, answer: { type: 'single', options } }, rent, last]);
    const told = (now: Questionnaire) => {
      const { codes, breaks, bases } = compareVersions(OLD, now);
      return {
        codes: codes.map(({ code, old, now: is }) => `${code} ${old} > ${is}`),
        breaks: breaks.filter(({ name }) => name === 'tenure').map(({ why }) => why),
        bases: bases.map(({ name }) => name),
      };
    };
    const [own, let_, free] = [option(1, 'Own it'), option(2, 'Rent it'), option(3, 'Live there rent-free')];
    assert.deepEqual(told(list(own, let_, free, option(4, 'Other'))), {
      codes: ['4 null > Other'],
      breaks: [],
      bases: [],
    });
    assert.deepEqual(told(list(own, option(2, 'Rent it.'), free)), {
      codes: ['2 Rent it > Rent it.'],
      breaks: [],
      bases: [],
    });
    assert.deepEqual(told(list(own, let_, option(3, 'Lodge there'))).breaks, [
      'code 3 means something else: “Live there rent-free” before, “Lodge there” now',
    ]);
    // The same words under another code: whoever is led by the code is led as before once it is followed.
    const renumbered = study([
      { ...tenure, answer: { type: 'single', options: [own, option(7, 'Rent it'), free] } },
      { ...rent, askIf: 'tenure = 7' },
      last,
    ]);
    assert.deepEqual(told(renumbered), {
      codes: ['7 null > Rent it', '2 Rent it > null'],
      breaks: ['“Rent it” has another code: 2 before, 7 now'],
      bases: [],
    });
    assert.deepEqual(counts(renumbered), [0n, 0n, 2n, 1]);
  });

  it('tells labels of codes once, with their codes: of answers, missing reasons and cases', () => {
    const derived = (label: string) => ({
      derived: [{ name: 'own', label: 'Owns', cases: [{ if: 'tenure = 1', code: 1, label }] }],
    });
    const labelled = study([tenure, rent, last], derived('Owner'));
    const found = compareVersions(labelled, {
      ...study([tenure, rent, last], derived('Owns it')),
      missing: OLD.missing.map((entry) => ({ ...entry, label: `${entry.label}!` })),
    });
    assert.deepEqual(found.words, []);
    assert.equal(found.codes.length, 5);
  });

  it('codes what is missing otherwise, and ends otherwise', () => {
    const missing = OLD.missing.map((entry) =>
      entry.reason === 'no_answer' ? { ...entry, code: -9 } : entry,
    );
    const found = compareVersions(OLD, { ...OLD, missing });
    assert.deepEqual(
      found.codes.map(({ name, code, now }) => [name, code, now]),
      [
        ['no_answer', -9, 'no_answer'],
        ['no_answer', -3, null],
      ],
    );
    assert.equal(found.routes.changed, 2n);
    // A break of what is no question of the new version is told behind the others.
    const labelled = OLD.missing.map((entry) => ({ ...entry, label: `${entry.label} at all` }));
    const both = compareVersions(OLD, {
      ...study([{ ...tenure, text: 'Who pays?' }, rent, last]),
      missing: labelled,
    });
    assert.deepEqual(
      both.breaks.map(({ name }) => name),
      ['tenure', 'not_applicable', 'not_drawn', 'no_answer', 'not_reached'],
    );
    const skips = [{ if: 'tenure = 3', to: { ending: 'out' } }];
    const screened = study([{ ...tenure, skips }, rent, last]);
    assert.deepEqual(counts(screened), [0n, 1n, 0n, 0.1]);
    const { endings } = compareVersions(OLD, {
      ...OLD,
      endings: [
        ...OLD.endings.slice(0, 1),
        { id: 'full', kind: 'quota_full', messages: [{ text: 'Full.' }] },
      ],
    });
    assert.deepEqual(endings, { added: ['full'], gone: ['out'] });
    const thanks = {
      ...OLD,
      endings: [{ ...OLD.endings[0], messages: [{ text: 'Thanks!' }] }],
    } as Questionnaire;
    assert.deepEqual(counts(thanks), [0n, 0n, 2n, 1]);
  });

  it('takes what is known beforehand as the new version does, and tells messages apart by their place', () => {
    const arm = (...codes: number[]) => [
      {
        name: 'arm',
        label: 'Arm',
        answer: { type: 'single' as const, options: codes.map((code) => option(code)) },
      },
    ];
    const split = (codes: number[], message: string) =>
      study([ask('x', 2, { ...must, askIf: 'arm = 2' }), last], {
        given: arm(...codes),
        endings: [
          { id: 'done', kind: 'complete', messages: [{ if: 'arm = 2', text: 'A.' }, { text: message }] },
        ],
      });
    const found = compareVersions(split([1, 2], 'B.'), split([1, 2, 3], 'C.'));
    assert.deepEqual(
      found.words.map(({ at, part, old, now }) => [at, part, old, now]),
      [[{ ending: 'done' }, 'words', 'B.', 'C.']],
    );
    assert.deepEqual(
      found.codes.map(({ name, code, now }) => [name, code, now]),
      [['arm', 3, 'Answer 3']],
    );
    // Where it is not known exactly who is led otherwise, the conditions are compared.
    const drawn = (draw: number) =>
      questionnaire([
        section('a', [ask('d1', 2, must), ask('d2', 2, must)], { draw }),
        section('b', [ask('x', 2, { ...must, askIf: draw === 1 ? 'd1 = 1' : 'd1 = 2' })]),
      ]);
    const lines = comparisonReport(drawn(2), drawn(1), compareVersions(drawn(2), drawn(1)));
    assert.ok(
      lines.some((line) => /x: .* before, .* now/.test(line)),
      lines.join('\n'),
    );
    const lost = compareVersions(study([tenure, rent, last]), study([tenure, last, rent]));
    assert.ok(
      comparisonReport(OLD, OLD, lost).includes('  1 lost, 1 gained, 0 worded, coded or answered otherwise'),
      comparisonReport(OLD, OLD, lost).join('\n'),
    );
  });

  it('does not guess who had a value that is known beforehand no more', () => {
    const given = [
      { name: 'arm', label: 'Arm', answer: { type: 'single' as const, options: [option(1), option(2)] } },
    ];
    const x = ask('x', 2, must);
    const found = compareVersions(study([{ ...x, askIf: 'arm = 2' }, last], { given }), study([x, last]));
    assert.deepEqual([found.routes.lost, found.routes.gained, found.routes.share], [1n, 0n, null]);
    assert.deepEqual(
      found.bases.map(({ name, old, now }) => [name, old, now]),
      [['x', 'arm = 2', 'always']],
    );
  });

  it('goes on with passes: more of them are other people, and an item of them is told once', () => {
    const rooms = (max: number) =>
      questionnaire([
        section('a', [ask('n', { type: 'number', min: 0, max: 3 }, must)]),
        section('b', [ask('warm', 2, must), say('then')], { repeat: { times: 'n', max } }),
      ]);
    const found = compareVersions(rooms(2), rooms(3));
    assert.deepEqual(counts(rooms(3), rooms(2)), [0n, 1n, 0n, 0.25]);
    assert.deepEqual(
      found.bases.map(({ name }) => name),
      ['warm', 'then'],
    );
  });
});
