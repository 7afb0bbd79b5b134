/** A respondent on both sides, and the two sheets: what a reader of a comparison is shown. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Item, Questionnaire } from '../document/types';
import { bothSides } from './both-sides';
import { compareThese } from './compare';
import { differingRoutes, type Differing } from './differing-routes';
import { marked, percent, twoSheets, type SheetLine } from './two-sheets';
import { versionsOf } from './versions';

const option = (code: number, label: string) => ({ code, label });
const must = { required: true } as const;
const tenure = ask(
  'tenure',
  { type: 'single', options: [option(1, 'Own it'), option(2, 'Rent it')] },
  { ...must, text: 'Do you own or rent your home?' },
);
const rent = ask(
  'rent',
  { type: 'number', min: 0, max: 9 },
  { ...must, text: 'What do you pay?', askIf: 'tenure = 2' },
);
const last = ask('last', 2, { ...must, text: 'Is there anything else?' });
const study = (items: readonly Item[], rest: Partial<Questionnaire> = {}) =>
  questionnaire([section('a', items, { title: 'Home' })], rest);
const OLD = study([tenure, rent, last]);

/** Each row as `old | now`, a star before those that differ. */
function sides(now: Questionnaire, which: Differing, k = 1n, old = OLD) {
  const versions = versionsOf(old, now);
  const found = bothSides(versions, differingRoutes(versions), which, k);
  if (found === null) return null;
  const words = (step: (typeof found.rows)[number]['old']) =>
    step === null ? '–' : `${step.key}: ${step.answer}${step.isMadeUp ? ' (made up)' : ''}`;
  return {
    rows: found.rows.map(
      ({ old: was, now: is, isOther }) => `${isOther ? '* ' : ''}${words(was)} | ${words(is)}`,
    ),
    old: [found.old.number, found.old.ending ?? found.old.stopped],
    now: [found.now.number, found.now.ending ?? found.now.stopped],
  };
}

describe('somebody on both sides', () => {
  it('takes a lost route in the old version, and another in the new one', () => {
    const now = study([tenure, last]);
    assert.deepEqual(sides(now, 'lost'), {
      rows: ['tenure: Rent it | tenure: Rent it', '* rent: 5 | –', 'last: Answer 1 | last: Answer 1'],
      old: [1n, 'Complete'],
      now: [1n, 'Complete'],
    });
    assert.equal(sides(now, 'lost', 2n), null);
    assert.equal(sides(now, 'gained'), null);
  });

  it('answers what the other version alone asks for, and that is said', () => {
    const heat = ask('heat', 2, { ...must, text: 'Is it warm?' });
    const found = sides(study([tenure, rent, heat, last]), 'lost');
    assert.match(found?.rows[2] ?? '', /^\* – \| heat: Answer \d \(made up\)$/);
    assert.equal(found?.now[1], 'Complete');
  });

  it('is told why they cannot go on where their answer is not allowed any more', () => {
    const tight: Item = { ...rent, answer: { type: 'number', min: 5, max: 9 } };
    const more = ask('more', 2, { askIf: 'rent = 0' });
    const found = sides(study([tenure, tight, last]), 'lost', 1n, study([tenure, rent, more, last]));
    assert.equal(found?.now[0], null);
    assert.match(String(found?.now[1]), /^rent: .*5/);
  });

  it('is carried over to other names and codes', () => {
    const home: Item = {
      ...tenure,
      name: 'home',
      answer: { type: 'single', options: [option(1, 'Own it'), option(7, 'Rent it')] },
    };
    const found = sides(study([home, { ...rent, askIf: 'home = 7' }]), 'lost');
    assert.deepEqual(found?.rows, [
      '* home: Rent it | home: Rent it',
      'rent: 5 | rent: 5',
      '* last: Answer 1 | –',
    ]);
    assert.deepEqual(found.now, [1n, 'Complete']);
  });
});

/** A chapter's entries: title, tag, and both sides with what differs in brackets. */
function sheets(now: Questionnaire, old = OLD) {
  const versions = versionsOf(old, now);
  const found = twoSheets(versions, compareThese(versions, differingRoutes(versions)));
  const words = (lines: readonly SheetLine[]) =>
    lines.map(({ part, pieces, code }) => {
      const text = pieces.map((piece) => (piece.isOther ? `[${piece.text}]` : piece.text)).join('');
      return `${part === null ? '' : `${part}: `}${text}${code === null ? '' : ` ${code}`}`;
    });
  return Object.fromEntries(
    found.map(({ chapter, entries }) => [
      chapter,
      entries.map(({ title, tag, isBreak, old: was, now: is }) => [
        `${isBreak ? '! ' : ''}${title}: ${tag}`,
        words(was),
        words(is),
      ]),
    ]),
  );
}

describe('two sheets', () => {
  it('are empty where nothing is other', () => {
    assert.deepEqual(sheets(OLD), {});
  });

  it('have the words that differ marked, and all codes of a list of which some differ', () => {
    const list = [option(1, 'Own it'), option(2, 'Rent all of it'), option(3, 'Lodge')];
    const now = study([
      { ...tenure, text: 'Do you own or rent this home?', answer: { type: 'single', options: list } },
      rent,
      { ...last, note: 'In short.' },
    ]);
    assert.deepEqual(sheets(now), {
      words: [
        [
          '! tenure: another question under the same name',
          ['Do you own or rent [your] home?'],
          ['Do you own or rent [this] home?'],
        ],
        ['last: note', [], ['note: [In short.]']],
      ],
      codes: [
        [
          '! tenure: code 2 means something else: “Rent it” before, “Rent all of it” now',
          ['Own it 1', 'Rent it 2'],
          ['Own it 1', 'Rent [all of ]it 2', '[Lodge] 3'],
        ],
      ],
    });
  });

  it('say who is asked in sentences with shares, where items went, and what is new', () => {
    const now = study([last, tenure, { ...rent, askIf: 'tenure in (1, 2)' }, ask('heat')], {
      endings: [...OLD.endings, { id: 'full', kind: 'quota_full', messages: [{ text: 'Full.' }] }],
    });
    const found = sheets(now);
    assert.deepEqual(found.bases, [
      ['! rent: base 50% → 100%', ['[If tenure is “Rent it”]'], ['[Everyone]']],
    ]);
    assert.deepEqual(found.items, [
      ['heat: new', [], ['[heat?]']],
      ['last: moved', ['in A Home, [after rent]'], ['in A Home, [first]']],
    ]);
    assert.deepEqual(found.conditions, [
      ['rent: asked if', ['asked if: tenure [=] 2'], ['asked if: tenure [in] [(1, ]2[)]']],
    ]);
    assert.deepEqual(found.endings, [['full: new', [], ['[Quota full]']]]);
  });

  it('tell shares with as many digits as tell', () => {
    assert.deepEqual([0, 1, 0.5, 0.1046, 0.0999, 0.001234, 0.9996].map(percent), [
      '0%',
      '100%',
      '50%',
      '10.5%',
      '10%',
      '0.12%',
      '100%',
    ]);
  });

  it('mark a text whole that one side has not', () => {
    assert.deepEqual(marked(null, 'New'), [[], [{ text: 'New', isOther: true }]]);
  });
});
