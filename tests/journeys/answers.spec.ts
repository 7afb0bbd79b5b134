/** Answer lists and skips at the keyboard of an author: common lists, codes carried through, skips written as ask-ifs. */
import type { Question, Questionnaire } from '../../src/core/document/types';
import { accessible, copyOf, expect, test } from './support';

test('a skip becomes an ask-if and comes back; a list is numbered anew and taken over; an answer is hidden', async ({
  page,
}) => {
  const id = await copyOf(page, 'tern-valley-home-heating');
  const question = async (name: string): Promise<Question> => {
    const { sections } = (await (await page.request.get(`/api/studies/${id}/file`)).json()) as Questionnaire;
    const found = sections.flatMap(({ items }) => items).find((item) => 'name' in item && item.name === name);
    return found as Question;
  };
  await page.goto(`/studies/${id}/script`);
  const slip = page.getByRole('complementary', { name: 'Slip' });
  const stops = page.getByRole('navigation', { name: 'Stops' });
  await expect(stops).toContainText('2,048,263 in all');

  // How many go where, and the same written the other way: not one route changes.
  await page.locator('[data-field="tenure/text"]').click();
  await expect(slip).toContainText('of the sample');
  await slip.getByRole('button', { name: /^if Tenure is/ }).click();
  await slip.getByRole('button', { name: 'Write as ask if' }).click();
  await expect.poll(async () => (await question('landlord')).askIf).toBe('not (tenure = 1)');
  expect((await question('tenure')).skips).toBeUndefined();
  await expect(stops).toContainText('2,048,263 in all');
  await page.locator('[data-field="landlord/text"]').click();
  await slip.getByRole('button', { name: 'Write as a skip from the item before' }).click();
  await expect
    .poll(async () => (await question('tenure')).skips?.[0])
    .toEqual({ if: 'tenure = 1', to: { item: 'heat_say' } });

  // A code is changed where it stands, and everything that names it goes along.
  await page.locator('[data-field="tenure/text"]').click();
  await page.getByRole('textbox', { name: 'Code of answer 1', exact: true }).fill('7');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await question('tenure')).skips?.[0]?.if).toBe('tenure = 7');
  await page.getByRole('combobox', { name: 'Answer list of tenure' }).selectOption('renumber');
  await expect.poll(async () => (await question('tenure')).skips?.[0]?.if).toBe('tenure = 1');
  await expect(stops).toContainText('2,048,263 in all');

  // Several answers lead to one place at once.
  await page.getByRole('button', { name: 'Where answer 2 leads', exact: true }).click();
  await page.getByRole('checkbox', { name: 'Live there rent-free' }).check();
  await page.getByRole('option', { name: /Screened out/ }).click();
  await expect
    .poll(async () => (await question('tenure')).skips?.[1])
    .toEqual({ if: 'tenure in (2, 3)', to: { ending: 'screened_out' } });
  await page.keyboard.press('Control+z');

  // An answer shown to some only; checks, instructions and what else a question can have.
  await page.getByRole('combobox', { name: 'Kind of answer 3' }).selectOption('askIf');
  await page.getByRole('textbox', { name: 'Answer 3 is shown if' }).fill('agree = 1');
  await page.getByRole('combobox', { name: 'Add to tenure' }).selectOption('instruction');
  await page.getByRole('textbox', { name: 'an instruction for the interviewer' }).fill('Read out.');
  await page.getByRole('combobox', { name: 'Add to tenure' }).selectOption('checks');
  await page.getByRole('textbox', { name: 'Check 1 of tenure holds if' }).fill('tenure = 3 and adult = 2');
  await page.getByRole('textbox', { name: 'Words of check 1' }).fill('Please look again.');
  await accessible(page);
  await expect
    .poll(async () => await question('tenure'))
    .toMatchObject({
      instruction: 'Read out.',
      checks: [{ if: 'tenure = 3 and adult = 2', kind: 'hard', message: 'Please look again.' }],
      answer: { options: [{}, {}, { askIf: 'agree = 1' }] },
    });

  // The answers of another question, and a common list.
  await page.locator('[data-field="heat_say/text"]').click();
  const lists = page.getByRole('combobox', { name: 'Answer list of heat_say' });
  await lists.selectOption('common:agreement');
  await expect(page.getByRole('textbox', { name: 'Answer 5', exact: true })).toHaveValue('Strongly disagree');
  await lists.selectOption('as:adult');
  await expect(page.getByRole('textbox', { name: 'Answer 2', exact: true })).toHaveValue('No');
});
