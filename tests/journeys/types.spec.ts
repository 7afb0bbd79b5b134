/** One question of every answer type, written without touching the mouse. */
import type { Question, Questionnaire } from '../../src/core/document/types';
import { accessible, expect, newStudy, saved, test } from './support';

/** The keys that reach each type in the list of types: its first letter, as often as it takes. */
const TYPES = {
  multiple: 'm',
  scale: 's',
  number: 'number',
  text: 't',
  date: 'd',
  time: 'tt',
  datetime: 'datetime',
  grid: 'g',
  rank: 'r',
  single: 's',
} as const;

test('a question of each type by keyboard alone, with its answers, limits and an emphasised word', async ({
  page,
}) => {
  const id = await newStudy(page, 'Ten ways to ask');
  const keys = async (...names: string[]) => {
    for (const name of names) await page.keyboard.press(name);
  };
  const focused = (name: string | RegExp, role: 'textbox' | 'button' = 'textbox') =>
    expect(
      page.getByRole(role, { name, ...(typeof name === 'string' ? { exact: true } : {}) }),
    ).toBeFocused();

  await page.getByRole('button', { name: 'Add a question' }).focus();
  await keys('Enter');
  for (const [type, letters] of Object.entries(TYPES)) {
    await focused('Words of the question');
    await page.keyboard.type(`What is the ${type}`);
    await keys('Control+b');
    await page.keyboard.type('now');
    await keys('ArrowRight', 'ArrowRight');
    await page.keyboard.type('?');
    await keys('Shift+Tab', 'Shift+Tab');
    await focused(/^Answer type/, 'button');
    await keys('Enter');
    await expect(page.getByRole('listbox', { name: 'Answer types' })).toBeFocused();
    if (type === 'grid') await accessible(page);
    // From the first one on.
    await keys('Home', ...(type === 'single' ? [] : letters.split('')), 'Enter');
    await focused(/^Answer type/, 'button');
    await expect(page.getByRole('button', { name: `Answer type: ${type}` })).toBeFocused();
    await keys('Tab', 'Tab');
    await focused('Words of the question');
    if (type === 'multiple' || type === 'single' || type === 'rank') {
      await keys('Enter');
      await focused('Answer 1');
      await page.keyboard.type('Red');
      await keys('Enter');
      await page.keyboard.type('Green');
      await keys('Control+Enter');
    } else await keys('Control+Enter');
  }
  await focused('Words of the question');
  await page.keyboard.type('Last, without a type chosen');
  await saved(page);
  const document = (await (await page.request.get(`/api/studies/${id}/file`)).json()) as Questionnaire;
  const written = (document.sections[0]?.items ?? []) as Question[];
  expect(written.map(({ answer }) => answer.type)).toEqual([...Object.keys(TYPES), 'single']);
  expect(written.map(({ text }) => text)).toContain('What is the datetime**now**?');
  for (const { answer } of written)
    if (answer.type === 'multiple' || answer.type === 'rank')
      expect(answer.options.slice(0, 2).map(({ label }) => label)).toEqual(['Red', 'Green']);
  await accessible(page);
});
