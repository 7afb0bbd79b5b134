/**
 * An audit against the coding it undoes: rows as they are coded are clean, blanks come back as they were, and of faults
 * planted in a row each is found, and only those.
 */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import heating from '../../demo/tern-valley-home-heating.fork.json';
import { Auditor } from '../../src/core/audit/auditor';
import type { ProblemKind } from '../../src/core/audit/problems';
import { columnsOf } from '../../src/core/coding/columns';
import { codedCells, type Cell } from '../../src/core/coding/row';
import type { Questionnaire } from '../../src/core/document/types';
import type { Plan } from '../../src/core/routing/plan';
import { walk, type Walk } from '../../src/core/routing/walk';
import { madeUpRespondents } from '../../src/core/simulate/respondents';
import { cellReason } from '../../src/core/wording/cell-reasons';
import { planFor } from '../support/questionnaire';
import { randomChain, randomDocument } from './documents';
import { FEATURED } from './featured';
import { seedsToTry } from './seeds';

const SEEDS = seedsToTry([], 100);

interface Person {
  readonly about: string;
  readonly walk: Walk;
  readonly cells: readonly Cell[];
}

/** People who came to an ending, and the same people stopped at an item on their way. */
function* peopleOf(plan: Plan, about: string, count: number): Generator<Person> {
  const columns = columnsOf(plan);
  let n = 0;
  for (const { answers, given, draws, ending } of madeUpRespondents(plan, count, 7)) {
    n += 1;
    if (ending === null) continue;
    const done = walk(plan, { answers, given, draws });
    assert.ok(done.ok);
    // A full quota is not in the input that is kept: leave those out.
    if (done.walk.ending !== ending) continue;
    yield { about: `${about}, ${n}`, walk: done.walk, cells: codedCells(plan, done.walk, answers, columns) };
    const at = done.walk.steps[n % done.walk.steps.length]?.key;
    if (at === undefined) continue;
    const stopped = walk(plan, { answers, given, draws, stoppedAt: at });
    assert.ok(stopped.ok);
    yield {
      about: `${about}, ${n} stopped at ${at}`,
      walk: stopped.walk,
      cells: codedCells(plan, stopped.walk, answers, columns),
    };
  }
}

const written = (cells: readonly Cell[]) => cells.map(({ value }) => String(value));

function judgeClean(plan: Plan, about: string, count: number): void {
  const auditor = new Auditor(plan);
  for (const person of peopleOf(plan, about, count)) {
    const coded = written(person.cells);
    const clean = auditor.judge(coded);
    assert.deepEqual(clean.problems, [], person.about);
    assert.deepEqual(clean.filled, [], person.about);
    if (person.walk.ending !== null)
      assert.deepEqual(clean.came, { to: 'ending', ending: person.walk.ending }, person.about);

    // Of a blank row nothing says at which statement after the last question somebody stopped.
    if (person.walk.ending === null && person.walk.steps.at(-1)?.parts.length === 0) continue;
    // Nor which question was drawn of which nothing could be shown.
    const isHidden = ({ section, why }: Walk['passedOver'][number]) =>
      why.because === 'nothing-shown' && plan.sections[section]?.section.draw !== undefined;
    if (person.walk.passedOver.some(isHidden)) continue;
    const explained = new Set(['not_applicable', 'not_drawn', 'not_reached']);
    const blanked = person.cells.map(({ value, reason, column }) =>
      reason !== null && explained.has(reason) && column !== 'ending' ? '' : String(value),
    );
    const refilled = auditor.judge(blanked);
    assert.deepEqual(refilled.problems, [], `${person.about}, blanked`);
    const back = blanked.slice();
    for (const { column, value } of refilled.filled) back[column] = String(value);
    assert.deepEqual(back, coded, `${person.about}, filled again`);
  }
}

describe('rows as they are coded', () => {
  it('are clean, and blanks of them come back, on questionnaires with every property', () => {
    FEATURED.forEach((document, n) => judgeClean(planFor(document), `featured ${n}`, 60));
  });
  it(`are clean, and blanks of them come back, on ${SEEDS.words}`, () => {
    for (const seed of SEEDS.all) {
      judgeClean(planFor(randomDocument(seed)), `document ${seed}`, 12);
      judgeClean(planFor(randomChain(seed)), `chain ${seed}`, 12);
    }
  });
  it('are clean, and blanks of them come back, on the heating study', () => {
    judgeClean(planFor(heating as unknown as Questionnaire), 'heating', 150);
  });
});

describe('the coded row', () => {
  it(`holds an answer, or a reason in words, and never both, on ${SEEDS.words}`, () => {
    for (const seed of SEEDS.all) {
      const plan = planFor(randomDocument(seed));
      const columns = columnsOf(plan);
      for (const { about, cells, walk: of } of peopleOf(plan, `document ${seed}`, 4)) {
        cells.forEach((cell, n) => {
          const column = columns[n] as (typeof columns)[number];
          const where = `${about}: ${cell.column}`;
          const words = cellReason(of, column, cell);
          assert.equal(words !== '', cell.reason !== null, where);
          if (!('source' in column) || column.source.of !== 'item' || cell.reason === 'no_answer') return;
          const { variable, pass } = column.source;
          const key = pass === null ? variable : `${variable}#${pass}`;
          const asked = of.steps.some((step) =>
            step.parts.some(({ name }) => (step.pass === null ? name : `${name}#${step.pass}`) === key),
          );
          if (cell.reason !== null) assert.equal(asked, false, where);
          else if (column.kind !== 'specify' && column.kind !== 'remark') assert.equal(asked, true, where);
        });
      }
    }
  });
});

/** A fault that can be put into a cell, whatever the row: what to write there, and what is to be found. */
interface Fault {
  readonly problem: ProblemKind;
  plant(cell: Cell, column: ReturnType<typeof columnsOf>[number]): string | null;
}

const FAULTS: readonly Fault[] = [
  {
    problem: 'missing-answer',
    plant: ({ reason, value }, { kind }) => (kind === 'value' && reason === null && value !== '' ? '' : null),
  },
  {
    problem: 'unexpected-answer',
    plant: ({ reason }, column) => {
      if (column.kind !== 'value' || reason !== 'not_applicable') return null;
      const { answer } = column.source;
      return answer.type === 'single' ? String(answer.options[0]?.code) : null;
    },
  },
  {
    problem: 'unknown-code',
    plant: ({ reason }, column) =>
      reason === null && column.kind === 'value' && column.source.answer.type === 'single' ? '777' : null,
  },
  {
    problem: 'out-of-limits',
    plant: ({ reason }, column) =>
      reason === null && column.kind === 'value' && column.source.answer.type === 'number' ? '98765' : null,
  },
  {
    problem: 'wrong-ending',
    plant: ({ value }, { kind }) =>
      kind === 'ending' ? (value === 'complete' ? 'screened_out' : 'complete') : null,
  },
];

it('of faults planted in the heating study each is found where it is, and only those', () => {
  const plan = planFor(heating as unknown as Questionnaire);
  const columns = columnsOf(plan);
  const auditor = new Auditor(plan);
  const endings = plan.endings.map(({ ending }) => ending.id);
  let planted = 0;
  for (const { cells, about, walk: of } of peopleOf(plan, 'heating', 40)) {
    if (of.ending === null) continue;
    for (const { problem, plant } of FAULTS) {
      columns.forEach((column, index) => {
        const text = plant(cells[index] as Cell, column);
        if (text === null) return;
        const value =
          column.kind === 'ending' ? (endings.find((id) => id !== cells[index]?.value) ?? '') : text;
        const row = written(cells);
        row[index] = value;
        planted += 1;
        const { problems } = auditor.judge(row);
        // Of a draw one cannot say which of the blanks it was.
        const drawn =
          'source' in column &&
          column.source.of === 'item' &&
          plan.sections[column.source.planItem.section]?.section.draw !== undefined;
        if (drawn) assert.equal(problems.length, 1, `${about} ${column.name}`);
        else {
          // What the answers lead to is told with an ending that is not it.
          const more = problem === 'wrong-ending' ? { instead: String(cells[index]?.value) } : {};
          assert.deepEqual(
            problems,
            [{ problem, column: column.name, value, ...more }],
            `${about}: ${problem} at ${column.name}`,
          );
        }
      });
    }
  }
  assert.ok(planted > 1000);
});
