/** What the sheet draws: where answers lead, the lines of each answer, arcs in their lanes, what reads an answer later. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { ask, planFor, questionnaire, say, section } from '../../../tests/support/questionnaire';
import type { PlanItem } from '../routing/plan';
import { answerLines } from './answer-lines';
import { arcsOf, packLanes } from './arcs';
import { leadOf } from './leads';
import { contentMarks, fingerprint, routeMarks } from '../routing/route-content';
import { usedLaterBy } from './used-later';

const options = [
  { code: 1, label: 'One' },
  { code: 2, label: 'Two', specify: true },
  { code: 98, label: 'Don’t know', missing: 'dont_know' as const },
];
const plan = planFor(
  questionnaire([
    section('a', [
      ask(
        'pick',
        { type: 'single', options },
        {
          skips: [
            { if: 'pick = 2', to: { ending: 'out' } },
            { if: 'pick in (98)', to: { item: 'late' } },
          ],
        },
      ),
      ask(
        'age',
        { type: 'number', min: 0, max: 99, unit: 'years' },
        { skips: [{ if: 'age < 18', to: { ending: 'out' } }] },
      ),
      ask('mixed', 2, { skips: [{ if: 'mixed = 1 and age > 60', to: { section: 'b' } }] }),
      say('told', { skips: [{ to: { section: 'b' } }] }),
    ]),
    section(
      'b',
      [
        ask('table', { type: 'grid', rows: [{ name: 'r1', label: 'Row' }], options: options.slice(0, 2) }),
        ask(
          'late',
          { type: 'multiple', options },
          { text: 'After {age}?', skips: [{ if: 'late has 1', to: { ending: 'done' } }] },
        ),
      ],
      { askIf: 'pick answered', onward: [{ if: 'r1 = 1', to: { ending: 'out' } }] },
    ),
  ]),
);
const item = (name: string) =>
  plan.sections.flatMap(({ items }) => items).find((entry) => entry.item.name === name) as PlanItem;

describe('where an answer leads', () => {
  const lead = (name: string, code: number) => {
    const { target, sometimes } = leadOf(plan, item(name), code);
    return [target?.label ?? 'carry on', sometimes];
  };
  it('is told by the question alone where it alone decides', () => {
    assert.deepEqual(lead('pick', 1), ['carry on', false]);
    assert.deepEqual(lead('pick', 2), ['Screened out', false]);
    assert.deepEqual(lead('pick', 98), ['late', false]);
    assert.deepEqual(lead('mixed', 1), ['B b', true]);
    assert.deepEqual(lead('late', 1), ['Complete', true]);
  });
});

describe('the lines of an answer', () => {
  const lines = (name: string) =>
    answerLines(plan, item(name)).map(({ kind, label, code, lead }) => [
      kind,
      label,
      code,
      lead?.target?.label ?? null,
    ]);
  it('are options, ranges, rows and the rules that no single answer decides', () => {
    assert.deepEqual(lines('pick'), [
      ['option', 'One', '1', null],
      ['option', 'Two', '2', 'Screened out'],
      ['option', 'Don’t know', '98', 'late'],
    ]);
    assert.deepEqual(lines('age'), [
      ['range', '0 to 99', 'years', null],
      ['rule', 'age < 18', '', 'Screened out'],
    ]);
    assert.deepEqual(lines('told'), [['rule', 'everyone else', '', 'B b']]);
    assert.deepEqual(lines('table'), [
      ['row', 'Row', 'r1', null],
      ['codes', '1 One · 2 Two', 'one a row', null],
    ]);
  });
});

describe('arcs', () => {
  it('share a target, and leave from the answers that take them', () => {
    assert.deepEqual(
      arcsOf(plan).map(({ id, sources }) => [id, sources]),
      [
        ['ending:out', ['option:pick/2', 'item-skips:age', 'onward:b']],
        ['item:late', ['option:pick/98']],
        ['section:b', ['item-skips:mixed', 'item-skips:told']],
        ['ending:done', ['option:late/1']],
      ],
    );
  });

  it('never overlap in a lane, and the shortest lie nearest the text', () => {
    const stretch = fc.tuple(fc.nat(500), fc.integer({ min: 1, max: 200 }));
    fc.assert(
      fc.property(fc.array(stretch, { maxLength: 25 }), (list) => {
        const stretches = list.map(([top, height], n) => ({ id: String(n), top, bottom: top + height }));
        const lanes = packLanes(stretches);
        for (const a of stretches) {
          for (const b of stretches) {
            if (a.id >= b.id || lanes.get(a.id) !== lanes.get(b.id)) continue;
            assert.ok(a.bottom < b.top || b.bottom < a.top);
          }
        }
        const shortest = [...stretches].sort(
          (a, b) => a.bottom - a.top - (b.bottom - b.top) || a.top - b.top,
        )[0];
        if (shortest !== undefined) assert.equal(lanes.get(shortest.id), 0);
      }),
    );
  });

  it('share a lane where just the gap lies between them, above or below', () => {
    const at = (id: string, top: number, bottom: number) => ({ id, top, bottom });
    const lanesOf = (...stretches: Parameters<typeof packLanes>[0]) => [...packLanes(stretches, 6).values()];
    assert.deepEqual(lanesOf(at('a', 0, 10), at('b', 16, 40)), [0, 0]);
    assert.deepEqual(lanesOf(at('a', 30, 40), at('b', 0, 24)), [0, 0]);
    assert.deepEqual(lanesOf(at('a', 0, 10), at('b', 15, 40)), [0, 1]);
    assert.deepEqual(lanesOf(at('a', 30, 40), at('b', 0, 25)), [0, 1]);
  });
});

describe('what reads an answer later', () => {
  it('is found in conditions, pipes and repeats', () => {
    assert.deepEqual(usedLaterBy(plan, 'age'), ['mixed', 'late']);
    assert.deepEqual(usedLaterBy(plan, 'pick'), ['b']);
    assert.deepEqual(usedLaterBy(plan, 'told'), []);
  });
});

describe('what a route shows', () => {
  const print = (of: typeof plan, names: readonly string[]) =>
    fingerprint(routeMarks(contentMarks(of), names, 'done'));
  it('changes with words and answers, not with names and conditions', () => {
    const before = print(plan, ['pick', 'age']);
    const changed = (edit: (text: string) => string) =>
      planFor(JSON.parse(edit(JSON.stringify(plan.document))));
    const renamed = changed((text) => text.replaceAll('"pick"', '"chosen"').replaceAll('pick ', 'chosen '));
    assert.equal(print(renamed, ['chosen', 'age']), before);
    assert.equal(
      print(
        changed((text) => text.replace('age < 18', 'age < 21')),
        ['pick', 'age'],
      ),
      before,
    );
    assert.notEqual(
      print(
        changed((text) => text.replace('pick?', 'Pick one')),
        ['pick', 'age'],
      ),
      before,
    );
    assert.notEqual(
      print(
        changed((text) => text.replace('"max":99', '"max":120')),
        ['pick', 'age'],
      ),
      before,
    );
    assert.notEqual(
      print(
        changed((text) => text.replace('Thank you.', 'Thanks.')),
        ['pick', 'age'],
      ),
      before,
    );
    assert.notEqual(print(plan, ['age', 'pick']), before);
  });
});
