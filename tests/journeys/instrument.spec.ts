/** The stand-alone instrument: opened from a disk, with the network off, on a phone and on an interviewer's desktop. */
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import type { Page } from '@playwright/test';
import Papa from 'papaparse';
import { accessible, copyOf, expect, test } from './support';

const folder = () => mkdtempSync(path.join(tmpdir(), 'jolly-fork-instrument-'));

/** Everything that the next page asks for from outside of its file; the one before, which may still ask, is left. */
async function asksOf(page: Page): Promise<string[]> {
  await page.goto('about:blank');
  const asked: string[] = [];
  page.on('request', (request) => {
    if (!/^(file|data|blob):/.test(request.url())) asked.push(request.url());
  });
  return asked;
}

const choose = (page: Page, name: string) => page.getByRole('radio', { name, exact: true }).check();
const next = (page: Page) => page.getByRole('button', { name: 'Next', exact: true }).click();

/** The rows of a file of cases, by the names of its columns. */
async function savedRows(page: Page): Promise<Record<string, string>[]> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the coded rows as CSV' }).click(),
  ]);
  const text = readFileSync(await download.path(), 'utf8').replace(/^\uFEFF/, '');
  return Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true }).data;
}

test('a respondent answers on a phone without a network, closes the tab, goes on, and the row comes out', async ({
  page,
  context,
}) => {
  const file = path.join(folder(), 'heating.html');
  const made = spawnSync(
    process.execPath,
    [
      'bin/jolly-fork',
      'convert',
      'demo/tern-valley-home-heating.fork.json',
      ...['--to', 'instrument', '--out', file],
    ],
    { encoding: 'utf8' },
  );
  expect(made.stderr).toBe('');
  expect(readFileSync(file).length).toBeLessThan(400_000);
  await context.setOffline(true);
  await page.setViewportSize({ width: 320, height: 640 });
  const asked = await asksOf(page);
  await page.goto(pathToFileURL(file).href);
  await page
    .getByRole('group', { name: /Are you aged 18/ })
    .getByRole('radio', { name: 'Yes' })
    .check();
  await page.getByRole('radio', { name: 'Yes, I agree' }).check();
  await accessible(page);
  // Nothing has to be scrolled sideways.
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  await next(page);
  await expect(page.getByRole('radio', { name: 'Yes, I agree' })).toHaveCount(0);
  const second = await page.getByRole('group').first().textContent();
  expect(asked).toEqual([]);
  await page.close();

  const again = await context.newPage();
  await again.goto(pathToFileURL(file).href);
  await expect(again.getByRole('group').first()).toHaveText(second ?? '');
  await again.getByRole('button', { name: 'Back' }).click();
  await expect(again.getByRole('radio', { name: 'Yes, I agree' })).toBeChecked();
  // In another tab the same case cannot be answered meanwhile.
  const other = await context.newPage();
  await other.goto(pathToFileURL(file).href);
  await expect(
    other.getByRole('heading', { name: 'This case is being answered in another tab' }),
  ).toBeVisible();
  await other.close();
  await again
    .getByRole('group', { name: /Are you aged 18/ })
    .getByRole('radio', { name: 'No' })
    .check();
  await next(again);
  await expect(again.getByRole('heading', { name: 'The questionnaire is over' })).toBeFocused();
  await accessible(again);
  await again.getByRole('button', { name: 'Cases on this device' }).click();
  const [row] = await savedRows(again);
  // What was agreed to is off the route once the respondent is too young.
  expect(row).toMatchObject({ case: '1', state: 'ended', adult: '2', agree: '-1', ending: 'screened_out' });
});

test('an interviewer takes cases one after the other, and each is posted once the network is back', async ({
  page,
  context,
}) => {
  const cases = path.join(folder(), 'cases.jsonl');
  const receiver = spawn(process.execPath, ['docs/receiver.mjs', cases, '0']);
  try {
    const port = await new Promise<string>((resolve) =>
      receiver.stdout.on('data', (data: Buffer) => {
        const found = /from port (\d+)/.exec(data.toString())?.[1];
        if (found !== undefined) resolve(found);
      }),
    );
    const study = await copyOf(page, 'street-lighting-doorstep');
    await page.goto(`/studies/${study}/release`);
    const field = page.getByLabel('Post each closed case to');
    await field.fill('example.org/cases');
    await page.getByRole('button', { name: 'Stand-alone instrument, .html' }).click();
    await expect(page.getByText('“example.org/cases” is no address')).toBeVisible();
    await field.fill(`http://127.0.0.1:${port}/cases`);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Stand-alone instrument, .html' }).click(),
    ]);
    const file = path.join(folder(), 'doorstep.html');
    await download.saveAs(file);

    // Other browsers send no header of ours along.
    await context.setExtraHTTPHeaders({});
    await context.setOffline(true);
    const asked = await asksOf(page);
    await page.goto(pathToFileURL(file).href);
    const name = page.getByRole('textbox', { name: 'Case' });
    await name.fill('HH-07');
    await page.keyboard.press('Enter');
    await expect(page.getByText('Case HH-07')).toBeVisible();
    // By keyboard, and fast: a digit picks, Enter goes on.
    for (const key of ['1', '1']) {
      await page.keyboard.press(key);
      await page.keyboard.press('Enter');
    }
    await page.getByRole('textbox').fill('2');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Leave it for now' }).click();
    // The next is called one more.
    await expect(name).toHaveValue('HH-08');
    await page.getByRole('button', { name: 'Begin the case' }).click();
    await choose(page, 'No');
    await next(page);
    await expect(page.getByRole('heading', { name: 'Case HH-08: ended' })).toBeVisible();
    await expect(page.getByText('Not sent yet: there is no network.')).toBeVisible();
    await page.getByRole('button', { name: 'Next case' }).click();
    await page.getByRole('button', { name: 'Go on with case HH-07' }).click();
    await expect(page.getByText('Case HH-07')).toBeVisible();
    // What is printed has every page so far, the answers with it.
    await page.evaluate(() => dispatchEvent(new Event('beforeprint')));
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByText('Would you answer a few questions about the street lights?')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Next' })).toBeHidden();
    await page.emulateMedia({ media: null });
    await page.evaluate(() => dispatchEvent(new Event('afterprint')));
    await page.getByRole('button', { name: 'Leave it for now' }).click();
    const stop = page.getByRole('button', { name: /\(case HH-07\)/ });
    await stop.click();
    await stop.click();
    await accessible(page);

    await context.setOffline(false);
    const items = page.getByRole('listitem');
    await expect(items.filter({ hasText: 'HH-07' })).toContainText('Sent.');
    await expect(items.filter({ hasText: 'HH-08' })).toContainText('Sent.');
    expect(asked.filter((url) => url !== `http://127.0.0.1:${port}/cases`)).toEqual([]);
    const bodies = readFileSync(cases, 'utf8')
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as { key: string; case: string; state: string; row: object });
    expect(bodies.map(({ case: id, state }) => `${id} ${state}`).sort()).toEqual([
      'HH-07 stopped',
      'HH-08 ended',
    ]);
    // A row in the file is the row that was posted.
    const rows = await savedRows(page);
    for (const { case: id, row } of bodies)
      expect(rows.find((each) => each.case === id)).toMatchObject(
        Object.fromEntries(Object.entries(row).map(([column, value]) => [column, String(value)])),
      );
    // What comes a second time is answered, and not written again.
    const [body] = bodies;
    const twice = await page.request.post(`http://127.0.0.1:${port}/cases`, {
      headers: { 'Idempotency-Key': body?.key ?? '', 'Content-Type': 'application/json' },
      data: body,
    });
    expect(twice.status()).toBe(200);
    expect(readFileSync(cases, 'utf8').trim().split('\n')).toHaveLength(2);
  } finally {
    receiver.kill();
  }
});
