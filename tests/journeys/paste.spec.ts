/** A list pasted from a document becomes a questionnaire, its skips included; nothing is taken over unseen. */
import { expect, home, saved, test } from './support';

const LIST = `CONSENT
1. Are you aged 18 or over?
- Yes
- No (screen out)

HOME
2. Do you rent your home?
- Yes
- No
If no, skip to 4
3. Who is your landlord?
- A private landlord
- A council
4. Which of these do you have? (tick all that apply)
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
