/** What is stored with a study follows when a save gives variables other names, or answers other codes. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { gzipSync } from 'node:zlib';
import { ask, questionnaire, section } from '../../tests/support/questionnaire';
import type { Questionnaire } from '../core/document/types';
import { applyChange } from '../core/editing/change';
import { renameVariable } from '../core/editing/rename';
import { listCases, putCase } from './cases';
import { findDataset, listDatasets, putDataset } from './datasets';
import { openStore, type Store } from './open';
import { unpacked } from './packed';
import { listRespondents, putRespondent } from './respondents';
import { addStudy, findStudy, saveStudy } from './studies';
import { listVerdicts, putVerdict } from './verdicts';

const option = (code: number, label: string) => ({ code, label });
const before = questionnaire([
  section('a', [
    ask('fuel', {
      type: 'single',
      options: [option(1, 'Gas'), { ...option(2, 'Other'), specify: true }],
    }),
    ask('cars', { type: 'multiple', options: [option(1, 'Van'), option(2, 'Lorry')] }),
  ]),
]);
const ANSWERS = { fuel: 2, fuel_2_text: 'Peat', cars: [1, 2] };
const walked = { answers: ANSWERS };

function stored(): Store {
  const db = openStore(':memory:');
  addStudy(db, before, 1, 'study');
  addStudy(db, before, 1, 'other');
  for (const id of ['study', 'other']) {
    putCase(db, id, { caseId: '7', entry: 1, keyedBy: 'Ada', answers: ANSWERS, settledBy: null, at: 2 });
    putRespondent(db, id, {
      name: 'Ada',
      walked,
      items: ['fuel', 'cars'],
      marks: ['m1', 'm2'],
      row: { fuel: 2, fuel_2_text: 'Peat', cars_1: 1, cars_2: 1, ending: 'done' },
      at: 2,
    });
    putVerdict(db, id, {
      route: 'r',
      marks: ['m1', 'm2'],
      items: ['fuel', 'cars'],
      walked,
      verdict: 'passed',
      remark: '',
      place: '',
      reviewer: 'Ada',
      at: 2,
    });
    const body = gzipSync('fuel,fuel_2_text,cars_1,cars_2,ending\r\n2,Peat,1,0,done\r\n1,,-3,-3,done\r\n');
    putDataset(db, id, { name: 'pilot', rows: 2, body, at: 2 });
  }
  return db;
}

function held(db: Store, id: string) {
  const [dataset] = listDatasets(db, id);
  return {
    case: listCases(db, id)[0]?.answers,
    respondent: listRespondents(db, id)[0]?.walked.answers,
    row: listRespondents(db, id)[0]?.row,
    verdict: listVerdicts(db, id)[0]?.walked?.answers,
    rows: unpacked(findDataset(db, id, dataset?.id ?? '') ?? Buffer.alloc(0))
      ?.split('\r\n')
      .slice(0, -1),
  };
}

function saved(db: Store, after: Questionnaire): void {
  const revision = findStudy(db, 'study')?.revision ?? 0;
  assert.equal(saveStudy(db, 'study', revision, after, 9)?.saved, true);
}

it('a new name goes through answers, texts to specify, test respondents, verdicts and kept rows', () => {
  const db = stored();
  saved(db, applyChange(before, renameVariable('fuel', 'heating')).document);
  const answers = { heating: 2, heating_2_text: 'Peat', cars: [1, 2] };
  assert.deepEqual(held(db, 'study'), {
    case: answers,
    respondent: answers,
    verdict: answers,
    row: { heating: 2, heating_2_text: 'Peat', cars_1: 1, cars_2: 1, ending: 'done' },
    rows: ['heating,heating_2_text,cars_1,cars_2,ending', '2,Peat,1,0,done', '1,,-3,-3,done'],
  });
  // Those of another study stay as they were.
  assert.deepEqual(held(db, 'other').case, ANSWERS);
});

it('new codes go along by the words they stand for, and codes for what is missing too', () => {
  const db = stored();
  const after = {
    ...before,
    missing: before.missing.map((entry) => (entry.reason === 'no_answer' ? { ...entry, code: -9 } : entry)),
    sections: [
      section('a', [
        ask('fuel', {
          type: 'single',
          options: [option(1, 'Gas'), { ...option(96, 'Other'), specify: true }],
        }),
        ask('cars', { type: 'multiple', options: [option(2, 'Van'), option(1, 'Lorry')] }),
      ]),
    ],
  };
  saved(db, after);
  const now = held(db, 'study');
  assert.deepEqual(now.case, { fuel: 96, fuel_96_text: 'Peat', cars: [2, 1] });
  assert.deepEqual(now.verdict, now.case);
  assert.deepEqual(now.rows, ['fuel,fuel_96_text,cars_2,cars_1,ending', '96,Peat,1,0,done', '1,,-9,-9,done']);
});

it('a save on a revision that is not the last one changes nothing that is stored', () => {
  const db = stored();
  saved(db, { ...before, title: 'Second' });
  const late = saveStudy(db, 'study', 1, applyChange(before, renameVariable('fuel', 'heating')).document, 9);
  assert.equal(late?.saved, false);
  assert.deepEqual(held(db, 'study').case, ANSWERS);
  assert.equal(findStudy(db, 'study')?.document.title, 'Second');
});
