/** Mutated requests to every door: carried out or refused in a sentence, and the study stays readable. */
import assert from 'node:assert/strict';
import { readdirSync } from 'node:fs';
import path from 'node:path';
import type { APIContext, APIRoute } from 'astro';
import { notInArray } from 'drizzle-orm';
import type { Questionnaire } from '../../src/core/document/types';
import { operationsBetween } from '../../src/core/editing/operations';
import { emptyQuestionnaire } from '../../src/core/editing/structure';
import { NO_WORK, writeWork } from '../../src/core/exchange/work-file';
import { fingerprint } from '../../src/core/routing/route-content';
import { faultOf } from '../../src/server/faults';
import { addLink } from '../../src/store/links';
import type { Store } from '../../src/store/open';
import { bank, studies } from '../../src/store/schema';
import { addStudy, findStudy, restoreStudy } from '../../src/store/studies';
import { FEATURED } from '../agree/featured';
import { mutatedBy } from '../agree/mutations';
import { brokenBytes, intOf, type SeededPart } from './part';

process.env.JOLLY_FORK_DATA = ':memory:';

const API = path.join('src', 'pages', 'api');
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'] as const;
const document = FEATURED[0] as Questionnaire;
const marks = ['a', 'b'];

/** Bodies, with the file of the door that takes each; to be broken. */
const BODIES: readonly (readonly [door: string, body: object])[] = [
  ['studies/index', { document }],
  ['[id]/index', { document, revision: 1 }],
  [
    '[id]/index',
    {
      revision: 1,
      operations: operationsBetween(document, {
        ...document,
        title: 'Other',
        endings: [...document.endings].reverse(),
      }),
    },
  ],
  [
    '[id]/index',
    {
      revision: 1,
      operations: operationsBetween(document, { ...document, sections: [...document.sections].reverse() }),
    },
  ],
  ['[id]/index', { revision: 1, operations: operationsBetween(emptyQuestionnaire('x'), document) }],
  ['comments', { place: 'section:a', text: 'Hm', author: 'Ines' }],
  ['comments', { what: 'settle', id: 1, by: 'Ines' }],
  ['comments', { what: 'move', from: 'section:a', to: 'section:b' }],
  [
    'verdicts',
    {
      route: fingerprint(marks),
      marks,
      items: ['q'],
      walked: { answers: { q: 1, w: [1, 2] }, draws: { a: ['q'] } },
      verdict: 'passed',
      remark: '',
      place: '',
      reviewer: 'Ines',
    },
  ],
  ['verdicts', { route: fingerprint(marks) }],
  ['asides', { snag: 'rule at place', reason: 'so', reviewer: 'Ines' }],
  ['cases', { caseId: '7', entry: 1, keyedBy: 'Ines', answers: { q: 1 }, settledBy: null }],
  ['respondents', { name: 'Someone', walked: { answers: {} }, items: [], marks: [], row: { q: 1 } }],
  ['draw', { seed: 1, count: 10 }],
  ['matches', { said: { a: 'b', c: null } }],
  [
    'others',
    { study: 'study', given: { name: 'g', label: 'G', answer: { type: 'number', min: 0, max: 3 } } },
  ],
  ['bank', { kind: 'question', title: 'T', content: document.sections[0]?.items[0] ?? {} }],
  ['bank', { kind: 'section', title: 'T', content: document.sections[0] ?? {} }],
  ['links', { name: 'Board' }],
  ['links', { token: 'x' }],
  ['bank', { id: 1 }],
];
const IDS = ['study', 'other', 'none', '', '..', 'constructor', '__proto__', 'a'.repeat(5000), '\u0000', 'é'];
const QUERIES = [
  '',
  '?after=1',
  '?after=9e99',
  '?with=comments',
  '?with=x',
  '?name=rows&rows=3',
  '?name=&rows=-1',
  '?ending=done',
  `?${'a=b&'.repeat(2000)}`,
  '?%00=%FF',
];

let ready: Promise<{ files: string[]; token: string }> | null = null;

async function begin() {
  const { store } = await import('../../src/store/open');
  for (const id of ['study', 'other']) addStudy(store(), document, 1, id);
  const files = readdirSync(API, { recursive: true })
    .map(String)
    .filter((file) => file.endsWith('.ts'));
  return { files, token: addLink(store(), 'study', 'Board', 1).token };
}

/** What was added piles up. */
function clear(db: Store): void {
  db.delete(studies)
    .where(notInArray(studies.id, ['study', 'other']))
    .run();
  db.delete(bank).run();
}

export const requests: SeededPart = {
  name: 'requests',
  words: 'mutated requests to every door',
  async one(seed) {
    ready ??= begin();
    const { files, token } = await ready;
    const { store } = await import('../../src/store/open');
    if (seed % 200 === 0) clear(store());
    const int = intOf(seed);
    const pick = <T>(from: readonly T[]) => from[int(0, from.length - 1)] as T;
    const file = pick(files);
    const doors = (await import(`../../src/pages/api/${file}`)) as Readonly<
      Record<string, APIRoute | undefined>
    >;
    const has = METHODS.filter((each) => Object.hasOwn(doors, each));
    const method = has.length > 0 && int(0, 9) > 0 ? pick(has) : pick(METHODS);
    const door = Object.hasOwn(doors, method) ? doors[method] : doors.ALL;
    if (door === undefined) return;
    const params = {
      id: int(0, 4) > 0 ? 'study' : pick(IDS),
      dataset: pick(IDS),
      token: int(0, 3) > 0 ? token : pick(IDS),
      door: pick(['verdicts', 'comments', 'draw', 'follow-up', 'links', 'toString']),
    };
    const url = new URL(`http://127.0.0.1/${pick(QUERIES)}`);
    const body = bodyOf(seed, file);
    const request = new Request(url, {
      method,
      ...(method === 'GET' ? {} : { body: body as Uint8Array<ArrayBuffer> }),
    });
    const about = `${method} ${file} ${JSON.stringify(params).slice(0, 200)} ${url.search.slice(0, 60)} ${Buffer.from(body).toString().slice(0, 600)}`;
    let response: Response;
    try {
      const locals = { asker: { name: null, canSignOut: false } };
      response = await door({
        params,
        request,
        url,
        locals,
        redirect: () => new Response(null),
      } as unknown as APIContext);
    } catch (error) {
      throw new Error(
        `${about}: ${faultOf(error).problem} ${error instanceof Error ? (error.stack ?? '') : ''}`,
        { cause: error },
      );
    }
    if (response.status >= 500) assert.fail(`${about}: ${response.status} ${await response.text()}`);
    // What is told as it goes never ends by itself.
    if (response.status < 400) await response.body?.cancel();
    if (response.status >= 400) {
      const { problem } = (await response.json()) as { problem: unknown };
      assert.ok(typeof problem === 'string' && problem !== '', about);
    }
    // Whatever was taken can be read again.
    if (findStudy(store(), 'study') === null) {
      assert.ok(restoreStudy(store(), 'study'), about);
      assert.notEqual(findStudy(store(), 'study'), null, about);
    }
  },
};

function bodyOf(seed: number, file: string): Uint8Array {
  const int = intOf(seed * 7 + 1);
  const kind = int(0, 9);
  const fitting = BODIES.filter(([door]) => file.endsWith(`${door}.ts`) || /review|datasets/.test(file));
  const from = fitting.length > 0 && int(0, 4) > 0 ? fitting : BODIES;
  const [, whole] = from[int(0, from.length - 1)] as (typeof BODIES)[number];
  const bytes = (json: unknown) => new TextEncoder().encode(JSON.stringify(json) ?? '');
  if (kind === 0) return brokenBytes(bytes(whole), int);
  if (kind === 1) return brokenBytes(writeWork(document, NO_WORK), int);
  if (kind <= 4) return bytes(whole);
  return bytes(mutatedBy(whole, int));
}
