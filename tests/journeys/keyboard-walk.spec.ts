/** Every answer type answered by keyboard alone, as a respondent without a mouse would. */
import type { Page } from '@playwright/test';
import type { Answer, Item, Questionnaire } from '../../src/core/document/types';
import { questionnaire, section } from '../support/questionnaire';
import { expect, test } from './support';

const options = [
  { code: 1, label: 'Red' },
  { code: 2, label: 'Green' },
  { code: 3, label: 'Another', specify: true },
  { code: 9, label: 'None of these', exclusive: true },
];
const specials = [{ code: 98, label: 'Don’t know', missing: 'dont_know' as const }];
const ask = (name: string, answer: Answer, more: object = {}): Item => ({
  kind: 'question',
  name,
  text: `About ${name}`,
  answer,
  required: true,
  ...more,
});

const EVERY_TYPE: Questionnaire = questionnaire([
  section('all', [
    { kind: 'statement', name: 'hello', text: 'Hello **there**.' },
    ask('one', { type: 'single', options }),
    ask('many', { type: 'multiple', options, maxPicks: 2 }),
    ask('mark', { type: 'scale', min: -1, max: 10, specials }),
    ask('age', { type: 'number', min: 18, max: 99, unit: 'years', specials }),
    ask('words', { type: 'text', lines: 'one', minLength: 3 }, { comment: 'Anything unclear?' }),
    ask('story', { type: 'text', lines: 'many' }),
    ask('day', { type: 'date', min: '2026-01-01', specials }),
    ask('hour', { type: 'time' }),
    ask('moment', { type: 'datetime' }),
    ask('table', {
      type: 'grid',
      rows: [
        { name: 'row_a', label: 'Row A' },
        { name: 'row_b', label: 'Row B' },
      ],
      options: options.slice(0, 2),
    }),
    ask('order', { type: 'rank', options: options.slice(0, 3), top: 2 }),
    ask('echo', { type: 'single', options: [{ code: 1, label: 'Was it {one}?' }] }),
  ]),
]);

async function answerAll(page: Page): Promise<void> {
  const key = (name: string) => page.keyboard.press(name);
  const type = (text: string) => page.keyboard.type(text);
  const focused = (name: string) => expect(page.locator(':focus')).toHaveAccessibleName(name);

  await focused('Red');
  await key('3');
  await key('Tab');
  await focused('Another: please specify');
  await type('Blue');
  await key('Tab');
  await focused('Red');
  await key('1');
  await key('2');
  await key('4'); // None of these takes the others away,
  await key('2'); // and the other way round.
  for (let n = 0; n < 3; n += 1) await key('Tab');
  await focused('-1');
  await key('7');
  await key('1'); // The number of the mark, not its place; ten by two digits.
  await key('0');
  await key('Tab'); // Don't know beside the scale
  await key('Tab');
  await focused('About age');
  await type('17');
  await key('Tab');
  await key('Tab');
  await focused('About words');
  await type('ab');
  await key('Tab');
  await focused('Anything unclear?');
  await type('No');
  await key('Tab');
  await type('Two lines,');
  await key('Enter');
  await type('as it were');
  await key('Tab');
  await type('02032026');
  for (let n = 0; n < 3; n += 1) await key('Tab'); // its calendar, don't know, the next field
  await focused('About hour');
  await type('0830AM');
}

test('each type takes its answer from the keyboard, messages move the focus, and pipes are filled', async ({
  page,
}) => {
  const reply = await page.request.post('/api/studies', { data: { document: EVERY_TYPE } });
  const { id } = (await reply.json()) as { id: string };
  await page.goto(`/studies/${id}/walk`);
  await page.getByRole('button', { name: 'Choose freely' }).focus();
  await page.keyboard.press('Enter');
  await answerAll(page);

  const question = (name: string) => page.locator(`[data-question="${name}"]`);
  await expect(question('one').getByRole('radio', { name: 'Another' })).toBeChecked();
  await expect(question('many').getByRole('checkbox', { checked: true })).toHaveCount(1);
  await expect(question('many').getByRole('checkbox', { name: 'Green' })).toBeChecked();
  await expect(question('mark').getByRole('radio', { name: '10' })).toBeChecked();
  await expect(question('hour').getByLabel('About hour')).toHaveValue('08:30');
  await expect(question('echo')).toContainText('Was it Another?');

  // The rest: date and time in one field, a grid by digits row by row, places of a rank by arrow keys.
  const key = (name: string) => page.keyboard.press(name);
  await question('moment').getByLabel('About moment').focus();
  await page.keyboard.type('02032026');
  await key('Tab');
  await page.keyboard.type('0915AM');
  await question('table').getByRole('radio', { name: 'Row A: Red' }).focus();
  await key('2');
  await key('Tab');
  await key('1');
  await question('order').getByRole('combobox', { name: 'Place of Green' }).focus();
  await key('ArrowDown');
  await question('order').getByRole('combobox', { name: 'Place of Red' }).focus();
  await key('ArrowDown');
  await expect(question('order').getByRole('combobox', { name: 'Place of Green' })).toHaveValue('2');
  await question('echo').getByRole('radio').focus();
  await key('Space');

  // On: two answers break their limits; the first has the focus, what was typed stays.
  await key('Enter');
  const alert = page.getByRole('form').getByRole('alert');
  await expect(alert).toContainText('Please give a number from 18 to 99.');
  await expect(alert).toContainText('Please write at least 3 characters.');
  await expect(question('age').getByLabel('About age')).toBeFocused();
  await key('Control+a');
  await page.keyboard.type('71');
  // It is mended, and the focus is still there: only Enter goes on, here to the next message.
  await expect(alert).not.toContainText('18 to 99');
  await expect(question('age').getByLabel('About age')).toBeFocused();
  await key('Enter');
  await expect(question('words').getByLabel('About words')).toBeFocused();
  await key('End');
  await page.keyboard.type('c');
  await key('Enter');
  await expect(page.getByRole('heading', { name: 'Complete' })).toBeFocused();
  await expect(page.getByText('Thank you.')).toBeVisible();
});
