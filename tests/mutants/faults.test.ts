/** Planting faults: each is one change that still reads as a program, and functions tell that they were called. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import ts from 'typescript';
import { faultsIn, planted, watched } from '../../scripts/mutants/faults.mjs';

const CASES: readonly (readonly [text: string, faults: readonly string[]])[] = [
  [
    'const f = (a: number) => a < 2;',
    ['const f = (a: number) => a <= 2;', 'const f = (a: number) => a < 3;'],
  ],
  [
    'const f = (a: boolean, b: boolean) => a && !b;',
    ['const f = (a: boolean, b: boolean) => a || !b;', 'const f = (a: boolean, b: boolean) => a && (b);'],
  ],
  ["const f = (a: string) => 'x' + a;", []],
  ['type A = 1 | 2; interface B { readonly c: true }', []],
  [
    'function f(a: boolean) { if (a) g(); }',
    ['function f(a: boolean) { if (!(a)) g(); }', 'function f(a: boolean) { if (a) ; }'],
  ],
  [
    'const f = (a: number) => (a === 1 ? true : false);',
    [
      'const f = (a: number) => (!(a === 1) ? true : false);',
      'const f = (a: number) => (a !== 1 ? true : false);',
      'const f = (a: number) => (a === 2 ? true : false);',
      'const f = (a: number) => (a === 1 ? false : false);',
      'const f = (a: number) => (a === 1 ? true : true);',
    ],
  ],
];

for (const [text, expected] of CASES)
  it(`finds the faults of ${text}`, () => {
    const found = faultsIn('a.ts', text).map((fault) => planted(text, fault));
    assert.deepEqual(found.sort(), [...expected].sort());
    for (const each of found)
      assert.deepEqual(ts.transpileModule(each, { reportDiagnostics: true }).diagnostics, []);
  });

it('says of which function a fault is, by where the function begins', () => {
  const text = 'const a = 1;\nconst f = (b: number) => [b].map((c) => c + 1);';
  const within = faultsIn('a.ts', text).map((fault) => [fault.line, fault.within]);
  assert.deepEqual(within, [
    [1, null],
    [2, text.indexOf('(c)')],
    [2, text.indexOf('(c)')],
  ]);
});

it('has functions tell that they were called, whatever they look like', () => {
  const text = `
    const short = (n) => n + 1;
    const object = () => ({ n: 1 });
    function long(n) { return short(n); }
    class Some { get one() { return object().n; } never() { return long(1); } }
    result.push(long(1), new Some().one);`;
  const met = new Set<string>();
  const result: number[] = [];
  // The runner of faults may be watching this test itself.
  const before = (globalThis as { __met?: Set<string> }).__met;
  Object.assign(globalThis, { __met: met });
  new Function('result', watched('a.js', text))(result);
  Object.assign(globalThis, { __met: before });
  assert.deepEqual(result, [2, 1]);
  const begins = ['(n) => n', '() => ({', 'function long', 'get one'].map(
    (words) => `a.js:${text.indexOf(words)}`,
  );
  assert.deepEqual([...met].sort(), begins.sort());
});
