/** How many answers respondents are told to choose. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask } from '../../../tests/support/questionnaire';
import type { Answer } from '../document/types';
import { pickWords } from './picks';

const options = [1, 2, 3, 4].map((code) => ({ code, label: `Answer ${code}` }));
const many = (rest: object = {}): Answer => ({ type: 'multiple', options, ...rest });
const words = (answer: Answer, rest: object = {}) => pickWords(ask('q', answer, rest));

it('says how many may be chosen, by the limits there are', () => {
  assert.equal(words(many()), 'Choose all that apply.');
  assert.equal(words(many({ maxPicks: 3 })), 'Choose at most 3.');
  assert.equal(words(many({ minPicks: 2 })), 'Choose at least 2.');
  assert.equal(words(many({ minPicks: 2, maxPicks: 3 })), 'Choose 2 to 3.');
  assert.equal(words(many({ minPicks: 2, maxPicks: 2 })), 'Choose exactly 2.');
});

it('is silent about a single answer, and where the author has said it', () => {
  assert.equal(words({ type: 'single', options }), null);
  assert.equal(words(many({ maxPicks: 3 }), { text: 'Which up to three matter most?' }), null);
  assert.equal(words(many(), { note: 'Please tick all that apply.' }), null);
});
