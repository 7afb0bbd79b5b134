/** Patterns of texts, judged by plain rules: what is split, and what the parts hold. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import fc from 'fast-check';
import { ask } from '../../../tests/support/questionnaire';
import { refusal } from './answers';

const accepts = (pattern: 'email' | 'url', value: string) => {
  const question = ask('q', { type: 'text', pattern });
  return refusal(question, question.answer, value, { options: [], rows: [] }) === null;
};
const isDotted = (text: string) => {
  const labels = text.split('.');
  return labels.length > 1 && labels.every((label) => label !== '');
};

function isEmail(text: string): boolean {
  const [name, domain, more] = text.split('@');
  return !/\s/.test(text) && more === undefined && !!name && domain !== undefined && isDotted(domain);
}

function isUrl(text: string): boolean {
  const rest = /^https?:\/\/(.*)$/s.exec(text)?.[1];
  if (rest === undefined || /\s/.test(rest)) return false;
  // Up to the first sign that ends a host: of a path, a port, a question or a mark in the page.
  const host = rest.split(/[/:?#]/)[0] ?? '';
  return isDotted(host);
}

it('e-mail and web addresses are told by their parts', () => {
  const bits = fc.constantFrom(
    'a',
    'b1',
    '.',
    '@',
    '/',
    ' ',
    '-',
    'https://',
    'http://',
    ':80',
    '?',
    '#',
    '\n',
  );
  fc.assert(
    fc.property(fc.array(bits, { maxLength: 9 }), (parts) => {
      const text = parts.join('');
      if (text.trim() === '') return;
      assert.equal(accepts('email', text), isEmail(text), JSON.stringify(text));
      assert.equal(accepts('url', text), isUrl(text), JSON.stringify(text));
    }),
    { numRuns: 5_000 },
  );
  // Looked at once, however long: with each dot tried as the last, this would not end.
  assert.equal(accepts('email', `a@${'.a'.repeat(200_000)} `), false);
  assert.equal(accepts('email', `a@${'a.'.repeat(200_000)}@`), false);
});
