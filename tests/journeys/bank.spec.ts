/** The bank: kept in one study, found and put into another, with where it is used. */
import type { Questionnaire } from '../../src/core/document/types';
import { accessible, copyOf, expect, newStudy, inMenu, test } from './support';

test('a question, its answers and a section go from one study into another', async ({ page }) => {
  const from = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${from}/script`);
  const slip = page.getByRole('complementary', { name: 'Slip' });
  const bank = page.getByRole('region', { name: 'Bank' });
  await page.locator('[data-field="tenure/text"]').click();
  await slip.getByRole('button', { name: 'Keep in the bank' }).click();
  await expect(slip.getByText('Kept in the bank.')).toBeVisible();
  await slip.getByRole('button', { name: 'Keep its answers' }).click();
  await page
    .getByRole('navigation', { name: 'Contents' })
    .getByRole('button', { name: /Closing/ })
    .click();
  await slip.getByRole('button', { name: 'Keep in the bank' }).click();
  await expect(slip.getByText('Kept in the bank.')).toBeVisible();

  const to = await newStudy(page, 'Valley follow-up');
  await inMenu(page, 'Bank of all studies');
  await bank.getByRole('textbox', { name: 'Search the bank' }).fill('own or rent');
  const entry = bank.getByRole('listitem').filter({ hasText: 'question' }).first();
  await entry.getByRole('button', { name: /^Used \d+ time/ }).click();
  await expect(entry.getByRole('link', { name: 'Tern Valley Home Heating Study' }).first()).toBeVisible();
  await accessible(page);
  await entry.getByRole('button', { name: 'Put in' }).click();
  await expect(entry.getByText('Put in.')).toBeVisible();
  await entry.getByRole('button', { name: 'Take out of the bank' }).click();
  await expect(bank.getByRole('status')).toContainText('was taken out');
  await bank.getByRole('button', { name: 'Put it back' }).click();
  await expect(entry.getByRole('button', { name: 'Put in' })).toBeVisible();
  await bank.getByRole('textbox', { name: 'Search the bank' }).fill('Closing');
  await bank.getByRole('button', { name: 'Put in' }).first().click();
  await page.keyboard.press('Escape');
  await expect
    .poll(async () => {
      const { sections } = (await (
        await page.request.get(`/api/studies/${to}/file`)
      ).json()) as Questionnaire;
      return sections.map(({ title, items }) => [title, items.length]);
    })
    .toEqual([
      ['Consent', 1],
      ['Closing', 3],
    ]);
  // What the section refers to is not here: that is told.
  await expect(slip.getByRole('status').first()).toContainText('leaves 2 places that lead nowhere');
});
