/** What a tab keeps of an open study: read as it was written, the oldest steps let go first where there is little room. */
import assert from 'node:assert/strict';
import { beforeEach, it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { applyChange, type HistoryStep } from '../../core/editing/change';
import { readKept, writeKept, type Kept } from './kept';

const base = questionnaire([section('a', [ask('one')])]);
const titled = (title: string) =>
  applyChange(base, { label: title, apply: (draft) => void (draft.title = title) });
const { document, step } = titled('Two');
const KEPT: Kept = { base, revision: 3, document, sent: null, page: 'p', past: [step], future: [] };

let texts = new Map<string, string>();
let room = Infinity;
beforeEach(() => {
  texts = new Map();
  room = Infinity;
  Object.assign(globalThis, {
    sessionStorage: {
      getItem: (key: string) => texts.get(key) ?? null,
      setItem: (key: string, text: string) => {
        if (text.length > room) throw new DOMException('full', 'QuotaExceededError');
        texts.set(key, text);
      },
      removeItem: (key: string) => texts.delete(key),
    },
  });
});

it('reads what it wrote, of this study alone', () => {
  assert.equal(writeKept('x', KEPT), true);
  assert.deepEqual(readKept('x'), KEPT);
  assert.equal(readKept('y'), null);
  const other = { ...KEPT, document: null, sent: document, past: [] };
  writeKept('x', other);
  assert.deepEqual(readKept('x'), other);
});

it('reads nothing of what is no keeping of its own, and only sound documents', () => {
  writeKept('x', KEPT);
  const [key = ''] = texts.keys();
  const text = texts.get(key) ?? '';
  for (const broken of ['{', 'null', '[]', text.replace('"revision":3', '"revision":"3"')]) {
    texts.set(key, broken);
    assert.equal(readKept('x'), null, broken.slice(0, 20));
  }
  texts.set(key, JSON.stringify({ ...KEPT, base: { title: 'no document' } }));
  assert.equal(readKept('x'), null);
  texts.set(key, JSON.stringify({ ...KEPT, document: { title: 'no document' } }));
  assert.deepEqual(readKept('x'), { ...KEPT, document: null });
});

it('takes what the page came with for what it kept, where they are the same', () => {
  writeKept('x', KEPT);
  const current = structuredClone(base);
  assert.equal(readKept('x', current)?.base, current);
  assert.deepEqual(readKept('x', document), KEPT);
});

it('lets half of its steps go, the oldest first, until there is room; and forgets what is older where there is none', () => {
  const past = ['1', '2', '3', '4', '5'].map((title) => titled(title).step);
  const whole = (steps: readonly HistoryStep[]) => JSON.stringify({ ...KEPT, past: steps }).length;
  room = whole(past.slice(-2)) + 5;
  assert.equal(writeKept('x', { ...KEPT, past }), true);
  assert.deepEqual(readKept('x')?.past, past.slice(-2));
  room = whole([]);
  assert.equal(writeKept('x', { ...KEPT, past }), true);
  assert.deepEqual(readKept('x')?.past, []);
  room -= 1;
  assert.equal(writeKept('x', { ...KEPT, past }), false);
  assert.equal(texts.size, 0);
});
