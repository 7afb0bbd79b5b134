/**
 * Broken questionnaires stay walkable: whatever a file says that still is a questionnaire, everything can be asked of it
 * without a fault of the program.
 */
import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, it } from 'node:test';
import { fileURLToPath } from 'node:url';
import { analyse, DEFAULT_CAPS, type Caps } from '../../src/core/analysis';
import { readDocument } from '../../src/core/document/read';
import { planOf } from '../../src/core/routing/planner';
import { MOST_ITEMS, MOST_SECTIONS } from '../../src/core/document/limits';
import { ask, questionnaire, section } from '../support/questionnaire';
import { randomDocument } from './documents';
import { askEverything } from './everything';
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

/** So that all but the smallest questionnaires are stopped on the way. */
const named = (prefix: string, many: number) =>
  Array.from({ length: many }, (_, n) => ask(`${prefix}${n}`, 2, { required: true }));

/** For those that take all the room that is allowed, and longer than a test may. */
const SOME: Caps = { beliefs: 5_000, nodes: 100_000, steps: 500_000 };
const LITTLE: Caps = { beliefs: 40, nodes: 1_500, steps: 3_000 };

/** With the seeds that once failed. */
const SEEDS = seedsToTry([], 50);

describe('questionnaires with errors', () => {
  for (const { name, json } of files('../findings'))
    it(`${name}, which broke something once, is analysed and checked, or refused`, () => {
      askEverything(json, name, /^(draw|askif|xor)/.test(name) ? SOME : DEFAULT_CAPS);
    });

  for (const { name, json } of files('../findings'))
    it(`${name}, with little room, stops and says so`, () => {
      askEverything(json, name, LITTLE);
    });

  it('as long as may be, or with a condition in each of many sections, are worked out or said to be too much', () => {
    const largest = [
      questionnaire([section('a', named('q', MOST_ITEMS))]),
      questionnaire(
        Array.from({ length: MOST_SECTIONS / 4 }, (_, n) =>
          section(`s${n}`, named(`q${n}_`, 5), n === 0 ? {} : { askIf: `q${n - 1}_0 = 1` }),
        ),
      ),
    ];
    largest.forEach((document, n) => {
      assert.ok(askEverything(document, `the largest, ${n}`, SOME));
    });
  });

  it(`with little room, count no more routes than there are, on ${SEEDS.words}`, () => {
    let stopped = 0;
    for (const seed of SEEDS.all) {
      const document = seed % 3 === 0 ? (FEATURED[seed % FEATURED.length] as object) : randomDocument(seed);
      const read = readDocument(document);
      if (!read.ok) continue;
      const caps = { beliefs: 3 + (seed % 5), nodes: 20 + (seed % 7) * 20, steps: 20 + (seed % 11) * 40 };
      askEverything(document, `seed ${seed}`, caps);
      const plan = planOf(read.document);
      const [whole, part] = [analyse(plan), analyse(plan, caps)];
      assert.ok(part.routes <= whole.routes, `seed ${seed}: ${part.routes} of ${whole.routes}`);
      if (part.exact) assert.equal(part.routes, whole.routes, `seed ${seed}`);
      else stopped += 1;
    }
    assert.ok(stopped > SEEDS.count / 10, `only ${stopped} were stopped`);
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
