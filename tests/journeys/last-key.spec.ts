/** What was written last is there again, however the page, the browser or the server went. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { copyOf, expect, test } from './support';

const title = (page: Page) => page.getByRole('textbox', { name: 'Title of the study' });

test('a key pressed just before the tab is closed is saved, every time', async ({ page, context }) => {
  const study = `/studies/${await copyOf(page, 'winter-diary')}/script`;
  for (const letter of 'abcde') {
    const tab = await context.newPage();
    await tab.goto(study);
    await title(tab).press('End');
    await title(tab).pressSequentially(`${letter}`);
    await tab.close();
  }
  await page.goto(study);
  await expect(title(page)).toHaveValue(/abcde$/);
});

test('somebody who types on without a pause is saved in between', async ({ page }) => {
  const study = `/studies/${await copyOf(page, 'winter-diary')}/script`;
  await page.goto(study);
  const saves: string[] = [];
  page.on('request', (request) => request.method() === 'PATCH' && saves.push(request.url()));
  await title(page).press('End');
  await title(page).pressSequentially('without a pause '.repeat(3), { delay: 120 });
  expect(saves.length).toBeGreaterThanOrEqual(2);
});

test('what was written without a server outlives the browser, and is offered and taken up with what others wrote', async ({
  page,
  baseURL,
}) => {
  const study = `/studies/${await copyOf(page, 'winter-diary')}/script`;
  const profile = mkdtempSync(path.join(tmpdir(), 'jolly-fork-profile-'));
  const { launchOptions, extraHTTPHeaders } = test.info().project.use;
  const open = () =>
    chromium.launchPersistentContext(profile, { ...launchOptions, extraHTTPHeaders, baseURL });

  const before = await open();
  const alone = await before.newPage();
  await alone.goto(study);
  await title(alone).press('End');
  await before.setOffline(true);
  await title(alone).pressSequentially(', written alone');
  await expect(alone.getByText('Not saved; kept in this browser.')).toBeVisible();
  await before.close();

  // Meanwhile somebody else adds a section.
  await page.goto(study);
  await expect(title(page)).not.toHaveValue(/written alone/);
  await page.getByRole('button', { name: 'Add a section' }).last().click();
  await expect(page.getByText(/^Saved/)).toBeVisible();

  const after = await open();
  const back = await after.newPage();
  await back.goto(study);
  const offer = back.getByText('did not reach the server. This browser has kept it.');
  await expect(offer).toBeVisible();
  await back.getByRole('button', { name: 'Take it up' }).click();
  await expect(title(back)).toHaveValue(/, written alone$/);
  await expect(back.getByText(/^Saved/)).toBeVisible();
  await expect(offer).toBeHidden();
  await back.reload();
  await expect(title(back)).toHaveValue(/, written alone$/);
  await expect(offer).toBeHidden();
  await after.close();
  await page.reload();
  await expect(title(page)).toHaveValue(/, written alone$/);
});

test('a browser without room says so, and warns before what it could not keep is left', async ({
  page,
  context,
}) => {
  await page.addInitScript(() => {
    const full = () => {
      throw new DOMException('no room', 'QuotaExceededError');
    };
    Storage.prototype.setItem = full;
    IDBObjectStore.prototype.put = full;
  });
  await page.goto(`/studies/${await copyOf(page, 'winter-diary')}/script`);
  await title(page).press('End');
  await context.setOffline(true);
  await title(page).pressSequentially(', no room');
  await expect(page.getByText('this browser has no room to keep it: save as a file.')).toBeVisible();
  const asked = page.waitForEvent('dialog');
  void page.close({ runBeforeUnload: true });
  const dialog = await asked;
  expect(dialog.type()).toBe('beforeunload');
  await dialog.dismiss();
  await context.setOffline(false);
  await expect(page.getByText(/^Saved/)).toBeVisible();
});
