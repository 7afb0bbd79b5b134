/** Who audits the pieces of a file: this worker for a small one, and for a large one as many as the machine has cores. */
import assert from 'node:assert/strict';
import { afterEach, it } from 'node:test';
import { fakeWorkers, made } from '../../../tests/support/fake-worker';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { pieceApi } from '../../core/collected/piece-through';
import { openAuditors } from './auditors';

const plan = planFor(questionnaire([section('a', [ask('own', 2, { required: true })])]));
const SETTING = {
  ...{ header: ['own', 'ending'], options: {}, said: {}, caseColumn: null, newline: '\n' },
  ...{ format: { delimiter: ',', quote: '"' }, keepsRows: true, tabulates: false },
};
const LARGE = 4_000_000;

function onCores(hardwareConcurrency: number) {
  Object.defineProperty(globalThis, 'navigator', { value: { hardwareConcurrency }, configurable: true });
  fakeWorkers(pieceApi);
}
afterEach(() => void Reflect.deleteProperty(globalThis, 'navigator'));

it('begins a worker for each core where the file is worth it, at most eight', () => {
  for (const [cores, size, auditors, workers] of [
    [4, LARGE - 1, 1, 0],
    [4, LARGE, 4, 4],
    [1, LARGE, 1, 0],
    [2, LARGE, 2, 2],
    [8, LARGE, 8, 8],
    [9, LARGE, 8, 8],
  ] as const) {
    onCores(cores);
    const opened = openAuditors(plan, SETTING, size);
    assert.deepEqual([opened.length, made.length], [auditors, workers], `${cores} cores, ${size} bytes`);
    for (const each of opened) each.end();
    assert.ok(made.every(({ terminated }) => terminated));
  }
});

it('audits in a worker as here', async () => {
  onCores(2);
  const piece = [
    ['1', 'done'],
    ['3', 'done'],
  ];
  const found = [];
  for (const size of [0, LARGE]) {
    const [auditor, other] = openAuditors(plan, SETTING, size);
    found.push(await auditor?.audit(piece));
    auditor?.end();
    other?.end();
  }
  assert.deepEqual(found[0], found[1]);
  assert.deepEqual([found[1]?.counts.rows, found[1]?.counts.clean], [2, 1]);
});

it('tells what its worker broke down with', async () => {
  for (const [message, says] of [
    ['out of memory', /^Error: out of memory$/],
    [
      '',
      /^Error: A part of the program could not be loaded: see that the server runs, and reload the page.$/,
    ],
  ] as const) {
    onCores(2);
    const [auditor, other] = openAuditors(plan, SETTING, LARGE);
    made[0]?.dispatchEvent(Object.assign(new Event('error'), { message }));
    await assert.rejects(async () => auditor?.audit([['1', 'done']]), says);
    auditor?.end();
    other?.end();
  }
});
