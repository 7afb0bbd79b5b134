/** Finding anything, replacing, going back in the history by name, and comments that follow what they are about. */
import { accessible, copyOf, expect, inMenu, test, scrolledTo } from './support';

test('find, replace, go back by name, comment, rename and settle', async ({ page }) => {
  const id = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${id}/script`);
  const slip = page.getByRole('complementary', { name: 'Slip' });
  const contents = page.getByRole('navigation', { name: 'Contents' });
  const finder = page.getByRole('dialog', { name: 'Find anything' });

  // By keyboard to an item that is far down.
  await expect(contents).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('heat pump draw');
  await expect(finder.getByRole('option', { selected: true })).toContainText('hp_kind');
  // What a screen reader is told of while the focus stays in the field is the entry that Enter takes.
  const told = await finder.getByRole('combobox').getAttribute('aria-activedescendant');
  await expect(page.locator(`[id="${told}"]`)).toContainText('hp_kind');
  await accessible(page);
  await page.keyboard.press('Enter');
  await expect(finder).toHaveCount(0);
  await expect(slip.getByRole('heading', { name: /hp_kind/ })).toBeVisible();
  // The keys go on from there.
  await expect(page.locator('[data-field="@whole/item:hp_kind"]')).toBeFocused();

  // A word is replaced everywhere; one step of the history takes it back.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('boiler');
  await finder.getByRole('button', { name: 'Replace', exact: true }).click();
  await finder.getByRole('textbox', { name: 'Replace by' }).fill('furnace');
  await finder.getByRole('checkbox', { name: 'in names' }).check();
  await finder.getByRole('button', { name: 'Replace all' }).click();
  await expect(finder).toContainText('Replaced:');
  await page.keyboard.press('Escape');
  await expect(contents.getByRole('button', { name: /furnace and stove/ })).toBeVisible();
  await scrolledTo(page, page.locator('[data-field="furnace_swap/name"]'));
  await inMenu(page, 'History');
  const history = page.getByRole('region', { name: 'History' });
  await expect(history).toContainText('Replace “boiler” by “furnace”');
  await history.getByRole('button', { name: 'As it was opened' }).click();
  await page.keyboard.press('Escape');
  await expect(contents.getByRole('button', { name: /Boiler and stove/ })).toBeVisible();

  // A comment on an item is counted in its section, and goes along when the item is renamed.
  await (await scrolledTo(page, page.locator('[data-field="tenure/text"]'))).click();
  await slip.getByRole('button', { name: 'Comment on this' }).click();
  await slip.getByRole('textbox', { name: 'Comment' }).fill('Lodgers as well?');
  await slip.getByRole('textbox', { name: 'Your name' }).fill('Ada Brook');
  await slip.getByRole('button', { name: 'Add the comment' }).click();
  await expect(contents.getByRole('button', { name: /B Screening.*1 open comment/ })).toBeVisible();
  await page.getByRole('textbox', { name: 'Variable name' }).fill('home_tenure');
  await page.keyboard.press('Enter');
  await expect(slip.getByRole('heading', { name: /home_tenure/ })).toBeVisible();
  await expect(slip).toContainText('Lodgers as well?');
  await expect
    .poll(async () => await (await page.request.get(`/api/studies/${id}/comments`)).json())
    .toMatchObject([{ place: 'item:home_tenure', author: 'Ada Brook', settledBy: null }]);
  await accessible(page);

  await page.reload();
  await contents.getByRole('button', { name: /^Comments/ }).click();
  await slip.getByRole('button', { name: 'Settled' }).click();
  await expect(slip).toContainText('Settled by Ada Brook');
  await expect(contents.getByRole('button', { name: /1 open comment/ })).toHaveCount(0);

  // The history has lived through the reload.
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.locator('[data-field="tenure/name"]')).toHaveCount(1);
});
