/** Changing a study that stands: sections merged and split, items moved together, what stands around the questions. */
import type { Questionnaire } from '../../src/core/document/types';
import { accessible, copyOf, expect, saved, test, scrolledTo } from './support';

async function fileOf(page: import('@playwright/test').Page, id: string): Promise<Questionnaire> {
  return (await (await page.request.get(`/api/studies/${id}/file`)).json()) as Questionnaire;
}

test('two sections are merged by mistake, put apart again, and items moved and deleted together', async ({
  page,
}) => {
  const id = await copyOf(page, 'tern-valley-home-heating');
  const before = await fileOf(page, id);
  await page.goto(`/studies/${id}/script`);
  const contents = page.getByRole('navigation', { name: 'Contents' });
  const slip = page.getByRole('complementary', { name: 'Slip' });
  const routes = page.getByRole('navigation', { name: 'Stops' });
  await expect(routes).toContainText('2,048,263 in all');

  // Merged: the same people are asked the same, so not one route changes.
  await contents.getByRole('button', { name: /F Rooms/ }).click();
  await slip.getByRole('button', { name: 'Merge with the one above' }).click();
  await expect(contents.getByRole('button', { name: /F Each room/ })).toBeVisible();
  await expect(page.getByRole('group', { name: /^Section E / })).toBeFocused();
  await expect(routes).toContainText('2,048,263 in all');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(contents.getByRole('button', { name: /F Rooms/ })).toBeVisible();
  await expect.poll(() => fileOf(page, id)).toEqual(before);

  // Three items are taken by keyboard and moved down together.
  await (await scrolledTo(page, page.locator('[data-field="tenure/text"]'))).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(slip.getByRole('heading', { name: '3 items selected' })).toBeVisible();
  await accessible(page);
  await page.keyboard.press('Alt+ArrowDown');
  await expect
    .poll(async () =>
      (await fileOf(page, id)).sections[2]?.items.slice(0, 3).map((item) => 'name' in item && item.name),
    )
    .toEqual(['tenure', 'landlord', 'heat_say']);

  // Deleted, they are missed by others: who, and how to take it back.
  await page.keyboard.press('Delete');
  const told = slip.getByRole('status');
  await expect(told).toContainText('“Delete 3 items” leaves');
  await expect(told).toContainText('rent_help');
  await told.getByRole('button', { name: 'Take it back' }).click();
  await expect(told).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect.poll(() => fileOf(page, id)).toEqual(before);
});

test('a section is split, copied and folded, and outlines of titles become sections', async ({ page }) => {
  const id = await copyOf(page, 'winter-diary');
  await page.goto(`/studies/${id}/script`);
  const contents = page.getByRole('navigation', { name: 'Contents' });
  const slip = page.getByRole('complementary', { name: 'Slip' });
  await page.locator('[data-field="logs/text"]').click();
  await slip.getByRole('button', { name: 'Begin a section here' }).click();
  await expect(page.getByRole('textbox', { name: 'Title of the section' })).toBeFocused();
  await expect(contents.getByRole('button', { name: /continued/ })).toBeVisible();
  await contents.getByRole('button', { name: /continued/ }).click();
  await slip.getByRole('button', { name: 'Copy', exact: true }).click();
  await expect(contents.getByRole('button', { name: /\(copy\)/ })).toBeVisible();
  const { sections } = await expect
    .poll(() => fileOf(page, id))
    .toMatchObject({ sections: expect.any(Array) as unknown })
    .then(() => fileOf(page, id));
  const names = sections.flatMap(({ items }) => items.flatMap((item) => ('name' in item ? [item.name] : [])));
  expect(new Set(names).size).toBe(names.length);

  await (await scrolledTo(page, page.getByRole('button', { name: 'Fold section A' }))).click();
  await expect(page.getByText('folded away')).toBeVisible();
  await page.getByRole('button', { name: 'Unfold section A' }).click();

  await page.getByRole('button', { name: 'Add a section' }).last().click();
  await page.getByRole('textbox', { name: 'Title of the section' }).evaluate((field) => {
    const data = new DataTransfer();
    data.setData('text/plain', 'Heating\nDamp\nAbout you');
    field.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  for (const title of ['Heating', 'Damp', 'About you'])
    await expect(contents.getByRole('button', { name: new RegExp(title) })).toBeVisible();
});

test('what stands around the questions: an arm, a quota, a grouping that is tried, an ending that hands on', async ({
  page,
}) => {
  const id = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${id}/script`);
  const add = page.getByRole('combobox', { name: 'Add around the questions' });

  await add.selectOption('arm');
  await page.getByRole('textbox', { name: 'Chance of arm 1 in per cent' }).fill('75');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Chance of arm 2 in per cent' })).toHaveValue('25');

  await add.selectOption('quota');
  await page.getByRole('textbox', { name: 'How many there are to be' }).fill('50');
  await page.keyboard.press('Enter');
  await page.getByRole('combobox', { name: 'The question after which it is tried' }).selectOption('tenure');
  const who = page.getByRole('textbox', { name: 'Who counts for the quota' });
  await who.fill('tenure = 2');
  await accessible(page);

  await add.selectOption('cases');
  await page.getByRole('textbox', { name: 'Case 1 holds if' }).fill('people = 1');
  await page.getByRole('textbox', { name: 'Words of case 1' }).fill('Alone');
  await page.getByRole('button', { name: 'Add what holds otherwise' }).click();
  const tried = page.getByRole('group', { name: 'Try it' });
  await tried.getByRole('textbox', { name: 'people' }).fill('1');
  await expect(tried).toContainText('1 Alone');
  await tried.getByRole('textbox', { name: 'people' }).fill('4');
  await expect(tried).toContainText('2 Otherwise');

  const contents = page.getByRole('navigation', { name: 'Contents' });
  await contents.getByRole('button', { name: 'Quota full' }).click();
  await page.getByRole('button', { name: 'Add a message' }).click();
  await page.getByRole('textbox', { name: 'Message of ending quota_full' }).last().fill('Enough renters.');
  await page.getByRole('button', { name: 'To all, or only if …' }).last().click();
  await page.getByRole('textbox', { name: 'Message 2 is shown if' }).fill('tenure = 2');
  await page.getByRole('button', { name: 'Try it earlier' }).click();
  await page.getByRole('combobox', { name: 'Where ending quota_full leads on to' }).selectOption('address');
  await page.getByRole('textbox', { name: 'Address to go to' }).fill('https://example.org/thanks');
  await page.keyboard.press('Enter');

  await contents.getByRole('button', { name: /Each room/ }).click();
  await page.getByRole('textbox', { name: 'Time limit' }).fill('90');
  await page.keyboard.press('Enter');
  await contents.getByRole('button', { name: 'Settings of the study' }).click();
  await page.getByRole('checkbox', { name: 'is offered' }).check();
  await accessible(page);
  await saved(page);

  await expect
    .poll(async () => {
      const { given, quotas, derived, endings, sections, settings } = await fileOf(page, id);
      return {
        shares: given?.[0]?.assume?.shares,
        quota: quotas?.[0],
        derived: derived?.at(-1),
        ending: endings.at(-1),
        limit: sections.find(({ id: of }) => of === 'each_room')?.timeLimit,
        dontKnow: settings?.defaults?.dontKnow,
      };
    })
    .toMatchObject({
      shares: { 1: 0.75, 2: 0.25 },
      quota: { if: 'tenure = 2', target: 50, at: 'tenure', to: { ending: 'quota_full' } },
      derived: { cases: [{ if: 'people = 1', code: 1, label: 'Alone' }], else: { code: 2 } },
      ending: {
        messages: [{ if: 'tenure = 2', text: 'Enough renters.' }, {}],
        next: { url: 'https://example.org/thanks' },
      },
      dontKnow: true,
    });
});
