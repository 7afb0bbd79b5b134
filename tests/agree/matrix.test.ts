/**
 * The matrix: every property of a questionnaire and every form of the condition language, by everything that is said
 * of a questionnaire. A cell is exercised where a judge compared a questionnaire that has the one with brute force;
 * a cell that none exercises fails.
 */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import type { Questionnaire } from '../../src/core/document/types';
import { planFor } from '../support/questionnaire';
import { randomChain, randomDocument } from './documents';
import { FEATURED } from './featured';
import { caseOf, JUDGES } from './judges';
import { allProperties, FORMS, formsIn, propertiesIn } from './properties';

const RANDOM = Array.from({ length: 40 }, (_, n) => [randomDocument(9000 + n), randomChain(9000 + n)]).flat();

it('every property and form is exercised in every column', () => {
  const exercised = new Set<string>();
  const judge = (document: Questionnaire, about: string): boolean => {
    const found = caseOf(planFor(document), about, 20_000);
    if (found === null) return false;
    const rows = [...propertiesIn(document), ...formsIn(document)];
    for (const [column, judgeIt] of Object.entries(JUDGES)) {
      judgeIt(found);
      for (const row of rows) exercised.add(`${row} × ${column}`);
    }
    return true;
  };
  FEATURED.forEach((document, n) =>
    assert.ok(judge(document, `featured ${n}`), `featured ${n} is too large`),
  );
  RANDOM.forEach((document, n) => void judge(document, `random ${n}`));
  const open = [...allProperties(), ...FORMS].flatMap((row) =>
    Object.keys(JUDGES).flatMap((column) =>
      exercised.has(`${row} × ${column}`) ? [] : [`${row} × ${column}`],
    ),
  );
  assert.deepEqual(open, []);
});
