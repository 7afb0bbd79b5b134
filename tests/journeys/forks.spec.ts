/** The map of forks: read, unfolded, lit, changed by drag and by keyboard, and saved as pictures. */
import { readFileSync } from 'node:fs';
import { generate } from '../../bench/generate';
import { accessible, copyOf, expect, test } from './support';

test('ribbons say who flows and why, open their routes, and are aimed anew', async ({ page }) => {
  const id = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${id}/forks`);
  const map = page.getByRole('application', { name: /^Map of forks/ });
  const heatPump = map.locator('[data-node="section:heat_pump"]');
  await expect(heatPump).toBeVisible();
  await expect(map.getByText('Screened out', { exact: false }).first()).toBeVisible();
  await accessible(page);

  // Down the flow to “Your home”, across to its first ribbon.
  await map.focus();
  for (const key of ['ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowRight']) await page.keyboard.press(key);
  const card = page.getByRole('complementary', { name: 'Ribbon' });
  await expect(card).toContainText('Main heating is “Heat pump”.');
  await expect(card).toContainText('skip at heat_main');
  await expect(card.getByRole('button', { name: '682,752 of 2,048,263' })).toBeVisible();
  await accessible(page);

  // Aimed at the rooms by keyboard: nobody comes to the heat pump any more.
  await card.getByRole('button', { name: 'Re-aim' }).click();
  await page.keyboard.type('Rooms');
  await page.keyboard.press('Enter');
  await expect(heatPump.locator('title')).toHaveText(/no respondent comes here/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(heatPump.locator('title')).toHaveText('Heat pump');

  // The door opens just these routes.
  await map.focus();
  await page.keyboard.press('Escape');
  for (const key of ['ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowRight']) await page.keyboard.press(key);
  await card.getByRole('button', { name: '682,752 of 2,048,263' }).click();
  await expect(page.getByRole('listbox', { name: 'Routes, 682,752 listed' })).toBeVisible();
});

test('a skip is made by dragging, from an item of an unfolded section to an ending', async ({ page }) => {
  const id = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${id}/forks`);
  const map = page.getByRole('application', { name: /^Map of forks/ });
  const item = async () => {
    const file = (await (await page.request.get(`/api/studies/${id}/file`)).json()) as {
      sections: { items: { name?: string; skips?: { to: object }[] }[] }[];
    };
    return file.sections.flatMap(({ items }) => items).find(({ name }) => name === 'moved_in');
  };
  await map.locator('[data-node="section:home"]').dblclick();
  const moved = map.locator('[data-node="item:moved_in"]');
  await moved.click();
  await expect(page.getByRole('complementary', { name: 'Slip' })).toContainText('moved_in');
  const grip = map.locator('[data-grip] circle');
  const from = await grip.boundingBox();
  const to = await map.locator('[data-node="section:costs"] rect').last().boundingBox();
  if (from === null || to === null) throw new Error('nothing to drag');
  await page.mouse.move(from.x + 3, from.y + 3);
  await page.mouse.down();
  await page.mouse.move(to.x + 20, to.y + 4, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => (await item())?.skips).toEqual([{ to: { section: 'costs' } }]);
  // It is written on in the slip; a step back takes it away again.
  await expect(page.getByRole('complementary', { name: 'Slip' })).toContainText('H Costs');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await item())?.skips).toBe(undefined);
});

test('three hundred items unfold and are found; the picture is saved as SVG and PNG', async ({ page }) => {
  const document = { ...generate({ items: 300, longRange: 2 }), title: 'A long study' };
  const reply = await page.request.post('/api/studies', { data: { document } });
  const { id } = (await reply.json()) as { id: string };
  await page.goto(`/studies/${id}/forks`);
  const map = page.getByRole('application', { name: /^Map of forks/ });
  const nodes = map.locator('[data-node]');
  await expect(nodes.first()).toBeVisible();
  const folded = await nodes.count();
  await page.getByRole('button', { name: 'Unfold all' }).click();
  await expect.poll(() => nodes.count()).toBeGreaterThan(folded + 200);
  await page.getByRole('combobox', { name: 'Find an item' }).fill('s12f0');
  await expect(page.getByRole('complementary', { name: 'Slip' })).toContainText('s12f0');
  await page.getByRole('button', { name: 'Fold all' }).click();
  await expect.poll(() => nodes.count()).toBe(folded);

  const save = async (kind: 'SVG' | 'PNG') => {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: `Save ${kind}` }).click();
    return readFileSync(await (await download).path());
  };
  const svg = (await save('SVG')).toString();
  // The page's policy is about the page: read in it, the file goes without the style that it has by itself.
  const plain = svg.replace(/<style>.*?<\/style>/s, '');
  const sound = await page.evaluate((text) => {
    const read = new DOMParser().parseFromString(text, 'image/svg+xml');
    return [read.querySelector('parsererror') === null, read.querySelectorAll('[data-node]').length];
  }, plain);
  expect(sound).toEqual([true, folded]);
  expect(svg).toContain('@font-face');
  const png = await save('PNG');
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  expect(png.readUInt32BE(16)).toBeGreaterThan(1000);
});
