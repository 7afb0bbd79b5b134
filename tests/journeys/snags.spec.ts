/** The snags: found, walked, mended in one press, set aside with a reason. */
import { accessible, copyOf, expect, saved, test } from './support';

test('finds every mistake of the unfinished study, and mends one in one press', async ({ page }) => {
  const id = await copyOf(page, 'street-lighting-doorstep');
  await page.goto(`/studies/${id}/script`);
  const pill = page.getByRole('button', { name: /snags · 1 note/ });
  await expect(pill).toHaveText('7 snags · 1 note');
  await pill.click();
  const panel = page.getByRole('region', { name: 'Snags' });
  await expect(panel.getByRole('heading', { level: 3 })).toHaveText([
    '2 errors: to be mended before anybody is interviewed',
    '5 warnings: likely to go wrong for somebody',
    '1 note: worth a look',
  ]);
  await accessible(page);

  await panel.getByRole('button', { name: 'Lead “Newer residents” on to “Lamps”' }).click();
  await expect(page.getByRole('button', { name: /^6 snags/ })).toBeVisible();
  await saved(page);
  await page.keyboard.press('Escape');
  await expect(page.getByText('At the end of C').locator('..')).toContainText('Lamps');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^7 snags/ })).toBeVisible();
});

test('walks somebody who meets a snag, from any view', async ({ page }) => {
  const id = await copyOf(page, 'street-lighting-doorstep');
  await page.goto(`/studies/${id}/routes`);
  await page.getByRole('button', { name: /^7 snags/ }).click();
  const panel = page.getByRole('region', { name: 'Snags' });
  const broken = panel.getByRole('listitem').filter({ hasText: 'a blank goes the way of 1 (“Yes”)' });
  await broken.getByRole('button', { name: 'Walk one' }).click();
  await expect(page).toHaveURL(/\/walk\?route=\d+$/);
  await expect(page.getByRole('group', { name: /Have you seen a broken lamp/ })).toBeVisible();
  await page.getByRole('button', { name: 'Next' }).click();
  await expect(page.getByText('Whom did you tell?', { exact: true })).toBeVisible();

  await page.getByRole('button', { name: /^7 snags/ }).click();
  await panel.getByRole('button', { name: 'Item reply' }).click();
  await expect(page).toHaveURL(/\/script$/);
  await expect(page.getByRole('complementary', { name: 'Slip' })).toContainText(
    'people write the same thing in many ways',
  );
});

test('sets a snag aside with a reason that is kept, and brings it back', async ({ page }) => {
  const id = await copyOf(page, 'street-lighting-doorstep');
  await page.goto(`/studies/${id}/script`);
  await page.getByRole('button', { name: /^7 snags/ }).click();
  const panel = page.getByRole('region', { name: 'Snags' });
  const told = panel.getByRole('listitem').filter({ hasText: 'a free text' });
  await told.getByRole('button', { name: 'Set aside …' }).click();
  await told.getByRole('button', { name: 'Set aside', exact: true }).click();
  await expect(told.getByRole('alert')).toHaveText('Say why it may stay, and who says so.');
  await told.getByLabel('Why it may stay').fill('The interviewer picks from a card');
  await told.getByLabel('Your name').fill('Ada');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^6 snags/ })).toBeVisible();

  await page.reload();
  await page.getByRole('button', { name: /^6 snags/ }).click();
  await expect(panel).toContainText('“The interviewer picks from a card” Ada');
  await panel.getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByRole('button', { name: /^7 snags/ })).toBeVisible();
});
