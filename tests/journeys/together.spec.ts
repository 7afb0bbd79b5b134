/** Two day on one study: their edits come together, and where both wrote in one place they choose. */
import { accessible, copyOf, expect, home, saved, test } from './support';

test('edits in two windows come together; in one place, both are shown until one is chosen', async ({
  page,
  browser,
}) => {
  const id = await copyOf(page, 'winter-diary');
  const context = await browser.newContext();
  const other = await context.newPage();
  for (const each of [page, other]) {
    await each.goto(`/studies/${id}/script`);
    await each.locator('[data-field="keep/text"]').waitFor();
  }
  const write = async (where: typeof page, name: string, text: string) => {
    await where.locator(`[data-field="${name}/text"]`).click();
    await where.getByRole('textbox', { name: 'Words of the question' }).fill(text);
  };
  await write(page, 'keep', 'What mainly heats your home?');
  await saved(page);
  // The other window learns of it by itself, while something else is written there.
  await write(other, 'day', 'Which day is it?');
  await expect(other.locator('[data-field="keep/text"]')).toHaveText(/What mainly heats your home\?/);
  await saved(other);
  await expect(page.locator('[data-field="day/text"]')).toHaveText(/Which day is it\?/);

  // What is taken back is one's own.
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.locator('[data-field="day/text"]')).toHaveText(/Which day is it\?/);
  await expect(other.locator('[data-field="keep/text"]')).not.toHaveText(/mainly heats/);

  // Both write in one place, the one without a connection.
  await context.setOffline(true);
  await write(other, 'keep', 'What heats your home most?');
  await expect(other.getByText('Not saved; kept in this browser.')).toBeVisible();
  await write(page, 'keep', 'What heats it?');
  await saved(page);
  await context.setOffline(false);
  const choice = other.getByRole('region', { name: 'Two versions' });
  await expect(choice.getByRole('row', { name: /keep: words/ })).toContainText('What heats it?');
  await expect(choice.getByRole('button', { name: '1 place still to choose' })).toBeDisabled();
  await accessible(other);
  await choice.getByRole('radio', { name: 'keep: words: mine' }).check();
  await choice.getByRole('button', { name: 'Take what is chosen' }).click();
  await saved(other);
  await expect(page.locator('[data-field="keep/text"]')).toHaveText(/What heats your home most\?/);

  // Or one's own becomes a study of its own.
  await context.setOffline(true);
  await other.getByRole('textbox', { name: 'Title of the study' }).fill('Mine');
  await page.getByRole('textbox', { name: 'Title of the study' }).fill('Theirs');
  await saved(page);
  await context.setOffline(false);
  await choice.getByRole('button', { name: /Keep mine as a study of its own/ }).click();
  await expect(other.getByRole('textbox', { name: 'Title of the study' })).toHaveValue('Theirs');
  await home(other);
  await expect(other.getByRole('link', { name: 'Mine (my version)' }).first()).toBeVisible();
  await context.close();
});
