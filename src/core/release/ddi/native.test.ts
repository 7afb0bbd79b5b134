/** As much of an answer as DDI tells by its own elements. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import type { Answer } from '../../document/types';
import { nativeAnswer } from './native';

const option = (code: number, rest: object = {}) => ({ code, label: `Answer ${code}`, ...rest });
const specials = [option(98, { missing: 'refused' })] as never;
const missing = option(98, { missing: 'not_available' });

it('keeps domains, limits, codes and labels, and of what stands for no answer only that it does', () => {
  for (const [answer, native] of [
    [
      {
        type: 'single',
        options: [option(1, { specify: true, askIf: 'a = 1' }), option(98, { missing: 'refused' })],
      },
      { type: 'single', options: [option(1), missing] },
    ],
    [
      { type: 'rank', options: [option(1)], places: 1 },
      { type: 'rank', options: [option(1)] },
    ],
    [
      {
        type: 'grid',
        pick: 'many',
        rows: [{ name: 'r', label: 'Row', askIf: 'a = 1' }],
        options: [option(1)],
      },
      { type: 'grid', pick: 'many', rows: [{ name: 'r', label: 'Row' }], options: [option(1)] },
    ],
    [
      { type: 'grid', pick: 'one', rows: [], options: [option(1)] },
      { type: 'grid', rows: [], options: [option(1)] },
    ],
    [
      { type: 'number', min: 0, max: 9, decimals: 1, unit: 'm', specials },
      { type: 'number', min: 0, max: 9, decimals: 1, specials: [missing] },
    ],
    [
      { type: 'number', min: 0, max: 9, decimals: 0 },
      { type: 'number', min: 0, max: 9 },
    ],
    [
      { type: 'scale', min: 0, max: 9, step: 3, lowLabel: 'Bad' },
      { type: 'scale', min: 0, max: 9 },
    ],
    [
      { type: 'date', min: '2020-01-01' },
      { type: 'date', min: '2020-01-01' },
    ],
    [
      { type: 'time', max: '12:00', specials },
      { type: 'time', max: '12:00', specials: [missing] },
    ],
    [{ type: 'text', lines: 'many' }, { type: 'text' }],
    [
      { type: 'text', minLength: 2 },
      { type: 'text', minLength: 2 },
    ],
    [
      { type: 'text', maxLength: 9, pattern: 'email' },
      { type: 'text', maxLength: 9 },
    ],
  ] as readonly (readonly [Answer, object])[])
    assert.deepEqual(nativeAnswer(answer), native, JSON.stringify(answer));
});
