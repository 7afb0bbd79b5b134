/**
 * Rows judged at once against rows weighed: whatever a row holds, both say the same; and rows as they come from the field
 * are judged at once.
 */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import heating from '../../demo/tern-valley-home-heating.fork.json';
import winter from '../../demo/winter-diary.fork.json';
import { Auditor } from '../../src/core/audit/auditor';
import type { RowJudgement } from '../../src/core/audit/types';
import { columnsOf, type Column } from '../../src/core/coding/columns';
import { optionsOf } from '../../src/core/document/shape';
import type { Questionnaire } from '../../src/core/document/types';
import type { Plan } from '../../src/core/routing/plan';
import { madeUpRespondents } from '../../src/core/simulate/respondents';
import { planFor } from '../support/questionnaire';
import { randomChain, randomDocument } from './documents';
import { FEATURED } from './featured';
import { seedsToTry } from './seeds';

const SEEDS = seedsToTry([], 60);

class Watched extends Auditor {
  weighed = 0;
  override weigh(texts: readonly string[]): RowJudgement {
    this.weighed += 1;
    return super.weigh(texts);
  }
}

/** What people write where they should not, or where the codebook writes otherwise. */
const ODD = [
  '',
  '',
  '0',
  '1',
  '2',
  '9',
  '-1',
  '-2',
  '-3',
  '-4',
  '777',
  '07',
  '-0',
  ' 1',
  '1.0',
  'yes',
  'words',
  '2026-01-05',
];

function words(column: Column): string[] {
  if (column.kind === 'ending') return ['done', 'Done', 'out'];
  return 'source' in column ? optionsOf(column.source.answer).map(({ label }) => label) : [];
}

/** Rows of made-up people as coded, as collected, and with some cells that hold something else. */
function agree(plan: Plan, about: string, people: number): { judged: number; weighed: number } {
  const columns = columnsOf(plan);
  const random = xoroshiro128plus(people);
  const upTo = (most: number) => uniformInt(random, 0, most);
  const oneOf = <Item>(list: readonly Item[]) => list[upTo(list.length - 1)] as Item;
  const everything = columns.map(() => true);
  const lacking = columns.map(() => upTo(9) > 0);
  const auditors = [{}, { codeBlanks: true }, { blankPicks: true }].flatMap((options) =>
    [everything, lacking].map((isThere) => ({ isThere, auditor: new Watched(plan, options, isThere) })),
  );
  let judged = 0;
  let weighed = 0;
  for (const person of madeUpRespondents(plan, people, 3)) {
    const coded = person.row().map(String);
    const collected = coded.map((cell) => (['-1', '-2'].includes(cell) ? '' : cell));
    const open = [...collected.slice(0, -1), ''];
    const changed = [coded, collected, open].map((row) => {
      const other = row.slice();
      for (let n = upTo(2); n >= 0; n -= 1) {
        const at = upTo(row.length - 1);
        other[at] = oneOf([...ODD, ...words(columns[at] as Column)]);
      }
      return other;
    });
    [coded, collected, open, ...changed].forEach((row, variant) => {
      for (const { isThere, auditor } of auditors) {
        const before = auditor.weighed;
        const cells = row.map((cell, n) => (isThere[n] === true ? cell : ''));
        const quick = auditor.judge(cells);
        // As they are coded and collected they should not have to be weighed.
        if (variant < 2 && auditor === auditors[0]?.auditor && person.ending !== null) {
          judged += 1;
          weighed += auditor.weighed - before;
        }
        assert.deepEqual(quick, auditor.weigh(cells), `${about}, ${JSON.stringify(cells)}`);
      }
    });
  }
  return { judged, weighed };
}

describe('a row judged at once is judged as one that is weighed', () => {
  it('on questionnaires with every property', () => {
    FEATURED.forEach((document, n) => agree(planFor(document), `featured ${n}`, 30));
  });
  it(`on ${SEEDS.words}`, () => {
    for (const seed of SEEDS.all) {
      agree(planFor(randomDocument(seed)), `document ${seed}`, 8);
      agree(planFor(randomChain(seed)), `chain ${seed}`, 8);
    }
  });
  it('on two studies, of which none has to be weighed as it is coded or collected', () => {
    for (const study of [heating, winter]) {
      const plan = planFor(study as unknown as Questionnaire);
      assert.deepEqual(agree(plan, study.title, 60), { judged: 120, weighed: 0 });
    }
  });
});
