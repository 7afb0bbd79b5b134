/** The published JSON Schema accepts and refuses what the document's own schema does; another program checks it. */
import assert from 'node:assert/strict';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { it } from 'node:test';
import { fileURLToPath } from 'node:url';
import { Ajv2020 } from 'ajv/dist/2020.js';
import * as v from 'valibot';
import { randomChain, randomDocument } from '../../../tests/agree/documents';
import { FEATURED } from '../../../tests/agree/featured';
import { mutated } from '../../../tests/agree/mutations';
import { seedsToTry } from '../../../tests/agree/seeds';
import { QuestionnaireSchema } from '../document/schema';
import type { Questionnaire } from '../document/types';
import { questionnaireJsonSchema, questionnaireJsonSchemaText } from './json-schema';

const SEEDS = seedsToTry([], 600);
const FILE = path.join(
  path.dirname(fileURLToPath(import.meta.url)),
  ...['..', '..', '..', 'docs', 'questionnaire.schema.json'],
);

const accepts = new Ajv2020({ strict: true, allowUnionTypes: true }).compile(questionnaireJsonSchema());

function agree(document: unknown, about: string): boolean {
  const own = v.safeParse(QuestionnaireSchema, document);
  const theirs = accepts(document);
  assert.equal(
    theirs,
    own.success,
    `${about}: ${own.success ? JSON.stringify(accepts.errors?.[0]) : own.issues[0].message}`,
  );
  return own.success;
}

it('is published as it is made', () => {
  const text = questionnaireJsonSchemaText();
  if (process.env.WRITE_SCHEMA === '1') writeFileSync(FILE, text);
  assert.equal(readFileSync(FILE, 'utf8'), text);
});

it('accepts every property of a questionnaire, and the demo', () => {
  for (const [n, document] of FEATURED.entries()) assert.ok(agree(document, `featured ${n + 1}`));
  for (const name of ['tern-valley-home-heating', 'street-lighting-doorstep', 'winter-diary'])
    assert.ok(agree(JSON.parse(readFileSync(`demo/${name}.fork.json`, 'utf8')), name));
});

it(`refuses just what is refused here, ${SEEDS.words} broken at random`, () => {
  let [good, bad] = [0, 0];
  for (const seed of SEEDS.all)
    for (const document of [
      FEATURED[seed % FEATURED.length] as Questionnaire,
      randomDocument(seed),
      randomChain(seed),
    ])
      if (agree(JSON.parse(JSON.stringify(mutated(document, seed))), `seed ${seed}`)) good += 1;
      else bad += 1;
  assert.ok(good > SEEDS.count / 4 && bad > SEEDS.count / 4, `${good} accepted, ${bad} refused`);
});

it('knows names from other words, whatever their case, and how long they are', () => {
  const named = (name: string) => {
    const document = JSON.parse(JSON.stringify(FEATURED[0])) as { sections: { items: { name: string }[] }[] };
    const item = document.sections[0]?.items[0];
    assert.ok(item !== undefined);
    item.name = name;
    return agree(document, name);
  };
  for (const name of ['a', 'A_1', 'android', 'notes', 'x'.repeat(32)]) assert.ok(named(name), name);
  for (const name of ['', '1a', 'a b', 'and', 'AND', 'Ending', 'é', 'x'.repeat(33), '_a'])
    assert.ok(!named(name), name);
});
