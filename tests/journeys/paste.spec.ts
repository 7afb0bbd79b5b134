/** A list pasted from a document becomes a questionnaire, its skips included; nothing is taken over unseen. */
import { readFileSync } from 'node:fs';
import { expect, home, newStudy, saved, test } from './support';

const LIST = `${readFileSync('demo/drafted-list.txt', 'utf8')}4. Which of these do you have? (tick all that apply)
- A loft
- A cellar
- None of these
If perhaps, skip to 9
`;

test('a pasted list shows what it understood, then becomes a study', async ({ page }) => {
  await home(page);
  await page.getByRole('button', { name: 'Paste a list' }).click();
  await page.getByRole('textbox', { name: 'Title' }).fill('Pasted study');
  await page.getByRole('textbox', { name: 'Questions' }).fill(LIST);
  await expect(
    page.getByText('2 sections, 4 questions, 2 skips; 1 line not used', { exact: false }),
  ).toBeVisible();
  const lines = page.getByRole('list', { name: 'What was understood' });
  await expect(lines.getByText('“9” is no question or section of this list', { exact: false })).toBeVisible();
  // A line is read as something else by a key, and as it looks again.
  const heading = lines.getByRole('combobox', { name: 'Line 6 is read as' });
  await heading.selectOption('note');
  await expect(page.getByText('1 section, 4 questions', { exact: false })).toBeVisible();
  await heading.selectOption('as it looks');
  await expect(page.getByText('2 sections, 4 questions', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Make the questionnaire' }).click();
  await page.waitForURL('**/script');

  await expect(page.getByRole('button', { name: 'B Home' })).toBeVisible();
  const rent = page.locator('[data-anchor="item:q2"]');
  await expect(rent).toContainText('Do you rent your home?');
  await expect(rent.locator('[data-anchor="option:q2/2"]')).toContainText('q4');
  // Three ways in: under 18; renting; not renting.
  await expect(page.getByRole('link', { name: 'Routes' })).toContainText('3 in all');

  // Who is asked what.
  await page.getByText('Who is your landlord?').click();
  const slip = page.getByRole('complementary', { name: 'Slip' });
  await expect(slip).toContainText('1 of 3');
  // What led past it is worked out, not only what stands at the question itself.
  await expect(slip.getByText('q2 = 1', { exact: true })).toBeVisible();

  // Answers pasted into the list of one question, with the codes they bring.
  await page.getByRole('textbox', { name: 'Answer 2', exact: true }).focus();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', '7 = An employer\n98 = Don’t know');
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect(page.getByRole('textbox', { name: 'Answer 4', exact: true })).toHaveValue('Don’t know');
  await expect(page.getByRole('textbox', { name: 'Code of answer 3' })).toHaveValue('7');
  await saved(page);
});

test('a list fills the sections of a sketch, and goes behind a question or into a section', async ({
  page,
}) => {
  await newStudy(page, 'Sketch');
  const sheet = page.getByRole('region', { name: 'Sheet' });
  const panel = page.getByRole('region', { name: 'Paste a list' });
  const list = panel.getByRole('textbox', { name: 'Questions' });
  await expect(page.getByRole('link', { name: 'Routes' })).toContainText('in all');

  // Over all of it, from Find anything: Consent is there already, Home comes after it.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('paste a list');
  await page.keyboard.press('Enter');
  await expect(list).toBeFocused();
  await list.fill(LIST.replace('CONSENT', 'Section A: CONSENT'));
  await expect(panel.getByText('section A Consent, which is there already')).toBeVisible();
  await expect(panel.getByText('new section Home')).toBeVisible();
  await panel.getByRole('button', { name: 'Put it in' }).click();
  await expect(panel).toBeHidden();
  await expect(page.locator('[data-field="@whole/item:q1"]')).toBeFocused();
  await expect(sheet.getByRole('region', { name: 'Home' })).toContainText('Who is your landlord?');

  // Pasted on the sheet, behind the question that is selected; it can speak of those that are there.
  await page.locator('[data-field="@whole/item:q3"]').focus();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', '1. Since when? (date)\n2. Is the rent fair?\nYes\nNo -> q4');
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect(panel.getByRole('combobox', { name: 'Put it' })).toHaveValue('item:q3');
  await expect(panel.getByText('skip to q4 if q6 = 2')).toBeVisible();
  // What was pasted is kept while the panel is closed.
  await page.keyboard.press('Escape');
  await expect(panel).toBeHidden();
  await sheet.getByRole('region', { name: 'Home' }).getByRole('button', { name: 'Paste a list' }).click();
  await expect(list).toHaveValue(/Is the rent fair/);
  await panel.getByRole('combobox', { name: 'Put it' }).selectOption('section:consent');
  await panel.getByRole('button', { name: 'Put it in' }).click();
  await expect(sheet.getByRole('region', { name: 'Consent' })).toContainText('Is the rent fair?');
  await page.keyboard.press('Control+z');
  await expect(sheet.getByText('Is the rent fair?')).toBeHidden();
  await saved(page);
});
