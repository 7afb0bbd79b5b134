/** Conditions picked and typed: both say the same; and a skip straight from a range. */
import type { Question, Questionnaire } from '../../src/core/document/types';
import { accessible, copyOf, expect, scrolledTo, test } from './support';

test('a nested condition is picked, the text follows; it is typed, what is picked follows', async ({
  page,
}) => {
  const id = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${id}/script`);
  await (await scrolledTo(page, page.locator('[data-field="rent_help/text"]'))).click();
  const text = page.getByRole('textbox', { name: 'rent_help is asked if' });
  const before = await text.textContent();
  await page.getByRole('button', { name: 'Pick', exact: true }).click();
  const picker = page.getByRole('group', { name: 'Pick the condition' });
  await picker.getByRole('button', { name: 'or', exact: true }).click();
  await expect(picker.getByRole('combobox', { name: 'Which of these hold' })).toHaveValue('or');
  const second = picker.getByRole('group', { name: /^Test/ }).nth(1);
  await second.getByRole('combobox', { name: 'Question' }).selectOption('rooms_heated');
  await second.getByRole('combobox', { name: 'Relation' }).selectOption('is between');
  await second.getByRole('textbox', { name: 'To' }).fill('4');
  await page.keyboard.press('Enter');
  await second.getByRole('button', { name: 'and', exact: true }).click();
  await picker.getByRole('group', { name: /^Test/ }).nth(0).getByRole('button', { name: 'not' }).click();
  await expect(text).toHaveText(/^not tenure = 2 or rooms_heated in \(0\.\.4\) and /);
  await accessible(page);

  await text.fill('not (tenure = 3 or rooms_heated >= 2) and adult = 1');
  await expect(picker.getByRole('combobox', { name: 'Which of these hold' })).toHaveCount(2);
  await expect(picker.getByRole('combobox', { name: 'Relation' }).nth(1)).toHaveValue('is at least');
  await picker.getByRole('button', { name: 'Take the group away' }).first().click();
  await expect(text).toHaveText('adult = 1');
  await text.fill('tenure =');
  await expect(picker).toHaveCount(0);
  await expect(page.getByText('cannot be read yet')).toBeVisible();
  await text.fill(before ?? '');
});

test('people of some ages are skipped on in one go', async ({ page }) => {
  const id = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${id}/script`);
  await (await scrolledTo(page, page.locator('[data-field="age/text"]'))).click();
  await page.getByRole('button', { name: 'Skip from a range …' }).click();
  await page.keyboard.type('18');
  await page.keyboard.press('Tab');
  await page.keyboard.type('24');
  await page.keyboard.press('Enter');
  await page.keyboard.type('closing');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('complementary', { name: 'Slip' })).toContainText('is 18 to 24');
  const age = async () => {
    const { sections } = (await (await page.request.get(`/api/studies/${id}/file`)).json()) as Questionnaire;
    return sections
      .flatMap(({ items }) => items)
      .find((item) => 'name' in item && item.name === 'age') as Question;
  };
  await expect.poll(async () => (await age()).skips?.[0]).toMatchObject({ if: 'age in (18..24)' });
  await accessible(page);
});
