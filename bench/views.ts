/**
 * How long Routes, Forks and Walk take, in the built app in Chromium: the first rows of the ledger and a jump to any
 * other, the map of forks unfolded, a key on the respondent's page. Writes docs/performance-views.md.
 */
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import path from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { format, resolveConfig } from 'prettier';
import { add, at, keyToPaint } from './interface';
import { figureKeeper } from './figures';
import { markdown, times } from './timing';

const SIZES = [60, 300, 400, 1000];
const JUMPS = 12;

interface Row {
  readonly items: number;
  /** Digits of the number of routes. */
  readonly digits: number;
  readonly firstRows: number;
  readonly jump: number;
  /** Null where the map is not unfolded. */
  readonly layout: number | null;
  /** The longest time in which no frame was drawn while it was laid out. */
  readonly blocked: number | null;
  readonly walkMedian: number;
  readonly walkP95: number;
}

/** From going to Routes, with the analysis done, to the first rows. */
async function firstRows(page: Page): Promise<number> {
  return page.evaluate(async () => {
    const link = [...document.querySelectorAll('nav a')].find((a) => a.textContent?.startsWith('Routes'));
    const began = performance.now();
    (link as HTMLElement).click();
    while (document.querySelector('[role="option"]') === null) await new Promise(requestAnimationFrame);
    return performance.now() - began;
  });
}

/** From the key to the row, back and forth between the first row and the last, then down by pages. */
async function jumps(page: Page): Promise<number> {
  const times = await page.evaluate(async (turns) => {
    const grid = document.querySelector('[role="listbox"]') as HTMLElement;
    const current = () => document.querySelector('[role="option"][aria-selected="true"]')?.id ?? '';
    const took: number[] = [];
    for (let turn = 0; turn < turns; turn += 1) {
      const before = current();
      const began = performance.now();
      const key = turn % 3 === 0 ? 'End' : turn % 3 === 1 ? 'PageUp' : 'Home';
      grid.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      while (current() === before || current() === '') await new Promise(requestAnimationFrame);
      took.push(performance.now() - began);
      await new Promise((resolve) => setTimeout(resolve, 150));
    }
    return took;
  }, JUMPS);
  return at(
    times.sort((a, b) => a - b),
    0.5,
  );
}

async function unfolding(page: Page, base: string, id: string, items: number): Promise<[number, number]> {
  await page.goto(`${base}/studies/${id}/forks`);
  await page.locator('[data-node]').first().waitFor();
  await page.waitForTimeout(1500);
  return page.evaluate(async (wanted) => {
    const button = [...document.querySelectorAll('button')].find((each) => each.textContent === 'Unfold all');
    const began = performance.now();
    (button as HTMLElement).click();
    let [last, longest] = [began, 0];
    while (document.querySelectorAll('[data-node]').length < wanted) {
      await new Promise(requestAnimationFrame);
      const now = performance.now();
      longest = Math.max(longest, now - last);
      last = now;
    }
    return [performance.now() - began, longest] as [number, number];
  }, items * 0.8);
}

async function measure(browser: Browser, base: string, items: number): Promise<Row> {
  const id = await add(base, items);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${base}/studies/${id}/script`);
  await page.getByRole('link', { name: /in all/ }).waitFor();
  await page.waitForTimeout(6000);
  const first = await firstRows(page);
  await page.waitForTimeout(3000);
  const jump = await jumps(page);
  const label = await page.getByRole('listbox', { name: /^Routes/ }).getAttribute('aria-label');
  const digits = (label ?? '').replace(/\D/g, '').length;
  const [layout, blocked] = items <= 300 ? await unfolding(page, base, id, items) : [null, null];
  await page.goto(`${base}/studies/${id}/walk`);
  await page.getByRole('button', { name: 'Choose freely' }).click();
  await page.waitForTimeout(3000);
  await page.getByRole('radio').first().focus();
  const { median, p95 } = await keyToPaint(page, (turn) => (turn % 2 === 0 ? '1' : '2'));
  await page.close();
  return { items, digits, firstRows: first, jump, layout, blocked, walkMedian: median, walkP95: p95 };
}

/** `base`: the address of the served app, over which generated studies are added. */
export async function measureViews(browser: Browser, base: string): Promise<void> {
  const keepFigures = await figureKeeper();
  const rows: Row[] = [];
  for (const items of SIZES) rows.push(await measure(browser, base, items));
  const ms = (value: number | null) => (value === null ? '' : `${Math.round(value)} ms`);
  const table = markdown(
    [
      'items',
      'routes',
      'ledger: first rows',
      'jump to another row',
      'forks unfolded',
      'longest without a frame',
      'walk, key to paint: median',
      '95 of 100 within',
      'to 60 items',
    ],
    rows.map((row) => [
      String(row.items),
      `about 10^${row.digits - 1}`,
      ms(row.firstRows),
      ms(row.jump),
      ms(row.layout),
      ms(row.blocked),
      ms(row.walkMedian),
      ms(row.walkP95),
      `${(row.walkP95 / (rows[0]?.walkP95 ?? 1)).toFixed(1)}×`,
    ]),
  );
  const text = `# How fast Routes, Forks and Walk are

Written by \`npm run bench -- views\` on ${new Date().toISOString().slice(0, 10)}: the built app in Chromium without a graphics card, Node ${process.versions.node}, ${cpus().length} cores of ${cpus()[0]?.model ?? 'an unknown processor'}, shared with others, the server and the measuring itself.

_First rows_ is from going to Routes, the analysis being done, until rows are on the page; _jump_ from a key until another row far away is (median of ${JUMPS}, a frame of up to 17 ms included). _Forks unfolded_ is from the press of “Unfold all” until every item is drawn; it is laid out in a worker, and _longest without a frame_ is the longest the page stood still meanwhile. _Key to paint_ is on a respondent's page, answers being changed.

${table}
`;
  const file = path.join(process.cwd(), 'docs', 'performance-views.md');
  writeFileSync(file, await format(text, { ...(await resolveConfig(file)), parser: 'markdown' }));
  console.log(text);
  const first = rows.find(({ items }) => items === 400);
  const last = rows.find(({ items }) => items === 1000);
  const least = rows[0];
  if (first === undefined || last === undefined || least === undefined) return;
  const to = (value: number, other: number) => `${times(value, other)} at 10^${least.digits - 1}`;
  await keepFigures({
    firstRows: { reached: first.firstRows, beside: to(first.firstRows, least.firstRows) },
    jump: { reached: last.jump, beside: to(last.jump, least.jump) },
  });
}
