/**
 * Broken questionnaires stay walkable: whatever a file says that still is a questionnaire, everything can be asked of it
 * without a fault of the program.
 */
import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, it } from 'node:test';
import { fileURLToPath } from 'node:url';
import { analyse, sharesOf, transitionsOf } from '../../src/core/analysis';
import { codedRow } from '../../src/core/coding/row';
import { readDocument } from '../../src/core/document/read';
import { planOf } from '../../src/core/routing/planner';
import { madeUpRespondents } from '../../src/core/simulate/respondents';
import { allSnagsOf } from '../../src/core/snags';
import { walk } from '../../src/core/routing/walk';
import { randomDocument } from './documents';
import { FEATURED } from './featured';
import { mutated } from './mutations';
import { seedsToTry } from './seeds';

const here = path.dirname(fileURLToPath(import.meta.url));
const files = (folder: string) =>
  readdirSync(path.join(here, folder))
    .filter((name) => name.endsWith('.fork.json'))
    .map((name) => ({
      name,
      json: JSON.parse(readFileSync(path.join(here, folder, name), 'utf8')) as object,
    }));

/** With the seeds that once failed. */
const SEEDS = seedsToTry([], 150);

/** Asks everything; throws where something fails. False where it is no questionnaire. */
function askEverything(json: unknown, about: string): boolean {
  const read = readDocument(json);
  if (!read.ok) return false;
  try {
    const plan = planOf(read.document);
    const analysis = analyse(plan);
    for (const route of [analysis.route(1n), ...analysis.cover.routes.slice(0, 3)]) {
      if (route === null) continue;
      const again = walk(plan, { ...route, lenient: true });
      if (again.ok) codedRow(plan, again.walk, route.answers);
    }
    assert.ok(analysis.asked.size >= 0);
    const failed = allSnagsOf(plan, analysis).filter(({ message }) =>
      message.includes('fault of the program'),
    );
    assert.deepEqual(failed, []);
    transitionsOf(plan, sharesOf(plan));
    for (const person of madeUpRespondents(plan, 3, 1)) assert.ok(person.presented.length >= 0);
  } catch (error) {
    throw new Error(`${about}: ${error instanceof Error ? (error.stack ?? '') : String(error)}`, {
      cause: error,
    });
  }
  return true;
}

describe('questionnaires with errors', () => {
  for (const { name, json } of files('../findings'))
    it(`${name}, which broke something once, is analysed and checked, or refused`, () => {
      askEverything(json, name);
    });

  it(`are analysed and checked, on ${SEEDS.words} and as many demo studies, each broken in some places`, () => {
    const demos = files('../../demo').map(({ json }) => json);
    const featured = FEATURED;
    let usable = 0;
    for (const seed of SEEDS.all) {
      const from = [
        randomDocument(seed),
        demos[seed % demos.length] as object,
        featured[seed % featured.length] as object,
      ];
      from.forEach((document, n) => {
        if (askEverything(mutated(document, seed * 3 + n), `seed ${seed}, ${n}`)) usable += 1;
      });
    }
    assert.ok(usable > SEEDS.count, `only ${usable} were still questionnaires`);
  });
});
