/** Every state of the script view that an author gets into, read by a machine that knows WCAG. */
import { accessible, copyOf, newStudy, expect, test } from './support';

test('nothing in the script keeps anybody out, whatever is selected', async ({ page }) => {
  test.slow();
  const id = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${id}/script`);
  const contents = page.getByRole('navigation', { name: 'Contents' });
  await contents.waitFor();
  await accessible(page);

  for (const name of [
    /Screening/,
    /Each room/,
    /Views/,
    /^Declined/,
    /Handed on/,
    'age_band',
    'cold_rooms',
  ]) {
    await contents.getByRole('button', { name }).first().click();
    await accessible(page);
  }
  for (const what of ['given', 'arm', 'quota', 'cases', 'value']) {
    await page.getByRole('combobox', { name: 'Add around the questions' }).selectOption(what);
    await accessible(page);
  }
  for (const name of ['Settings of the study', 'Comments']) {
    await contents.getByRole('button', { name }).click();
    await accessible(page);
  }
});

test('nothing about a question keeps anybody out, whatever is open beside it', async ({ page }) => {
  test.slow();
  const id = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${id}/script`);
  const slip = page.getByRole('complementary', { name: 'Slip' });
  await slip.waitFor();
  // A question of each kind, found by name; one with a skip open, one with its target being chosen.
  for (const name of ['aims', 'hp_noise', 'bill', 'remarks', 'moved_in', 'diary_mail']) {
    await page.keyboard.press('Control+k');
    await page.keyboard.type(name);
    await page.keyboard.press('Enter');
    await accessible(page);
  }
  await page.keyboard.press('Control+k');
  await page.keyboard.type('tenure');
  await accessible(page);
  await page.keyboard.press('Enter');
  await expect(slip.getByRole('heading', { name: /tenure/ })).toBeVisible();
  await slip.getByRole('button', { name: /^if Tenure/ }).click();
  await accessible(page);
  await page.getByRole('button', { name: 'Where answer 2 leads', exact: true }).click();
  await accessible(page);
  await page.keyboard.press('Escape');
  for (const words of ['History', 'Bank of all studies']) {
    await page.getByRole('button', { name: 'Menu of the study' }).click();
    await accessible(page);
    await page.getByRole('menuitem', { name: words }).click();
    await accessible(page);
    await page.keyboard.press('Escape');
  }
  await page.getByRole('button', { name: /snags?$/ }).click();
  await accessible(page);
});

test('nor in a study that is empty, or broken', async ({ page }) => {
  await newStudy(page, '');
  await accessible(page);
  await page.getByRole('button', { name: 'Add a question' }).click();
  await accessible(page);
  await page.getByRole('button', { name: 'Ask all, or only if …' }).click();
  await page.keyboard.type('nobody = 7');
  await accessible(page);
  await page.goto('/studies/street-lighting-doorstep/script');
  await page.getByRole('button', { name: /snags/ }).click();
  await accessible(page);
});
