/**
 * How long the sheet takes on questionnaires of growing size, in the built app in Chromium: opening, from a key to its
 * paint, scrolling. Writes docs/performance-interface.md. Ratios to the smallest, measured in the same run, tell more
 * than milliseconds, which depend on the machine and on what else it does.
 */
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import path from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { format, resolveConfig } from 'prettier';
import { generate } from './generate';
import { figureKeeper } from './figures';
import { markdown, times } from './timing';

const SIZES = [5, 60, 300, 1000];
const KEYS = 60;
/** The machine is shared: of several rounds the calmest tells what the app takes. */
const ROUNDS = 4;
const FRAME = 1000 / 60;

interface Row {
  readonly items: number;
  readonly opening: number;
  readonly counted: number;
  readonly keyMedian: number;
  readonly keyP95: number;
  /** Share of the frames that came late while scrolling. */
  readonly late: number;
  /** Elements on the page. */
  readonly elements: number;
}

export async function add(base: string, items: number): Promise<string> {
  const document = { ...generate({ items, longRange: items > 500 ? 8 : 2 }), title: `${items} items` };
  const reply = await fetch(`${base}/api/studies`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: base },
    body: JSON.stringify({ document }),
  });
  return ((await reply.json()) as { id: string }).id;
}

export function at(sorted: readonly number[], share: number): number {
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;
}

/** In milliseconds since the page was asked for, each the median of three: until questions are there, and the count. */
async function opening(page: Page, address: string): Promise<{ opening: number; counted: number }> {
  const [asked, counted]: [number[], number[]] = [[], []];
  const now = () => page.evaluate(() => performance.now());
  for (let run = 0; run < 3; run += 1) {
    await page.goto(address);
    await page.locator('[data-anchor^="item:"]').first().waitFor();
    asked.push(await now());
    await page.getByRole('link', { name: /in all/ }).waitFor();
    counted.push(await now());
  }
  const median = (times: readonly number[]) =>
    at(
      times.toSorted((a, b) => a - b),
      0.5,
    );
  return { opening: median(asked), counted: median(counted) };
}

/** From the press of a key, in the words of a question in the middle, to after the frame that shows it. */
async function typing(page: Page): Promise<Paints> {
  const sections = page.getByRole('navigation', { name: 'Contents' }).getByRole('button');
  await sections.nth(Math.floor((await sections.count()) / 3)).click();
  await page.locator('[data-field$="/text"]').first().click();
  return keyToPaint(page, (key) => 'abcde fg'[key % 8] ?? 'a');
}

export interface Paints {
  readonly median: number;
  readonly p95: number;
}

/** In milliseconds, from the press of a key to after the frame that shows it; of several rounds the calmest. */
export async function keyToPaint(page: Page, keyOf: (turn: number) => string): Promise<Paints> {
  await page.evaluate(() => {
    const times: number[] = [];
    Object.assign(globalThis, { times });
    const onKey = ({ timeStamp }: KeyboardEvent) =>
      requestAnimationFrame(() => {
        const { port1, port2 } = new MessageChannel();
        port1.onmessage = () => times.push(performance.now() - timeStamp);
        port2.postMessage(null);
      });
    addEventListener('keydown', onKey, { capture: true });
  });
  const rounds: Paints[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    await page.evaluate(() => void ((globalThis as unknown as { times: number[] }).times.length = 0));
    for (let key = 0; key < KEYS; key += 1) {
      await page.keyboard.press(keyOf(key));
      await page.waitForTimeout(110);
    }
    const times = await page.evaluate(() => [...(globalThis as unknown as { times: number[] }).times]);
    times.sort((a, b) => a - b);
    rounds.push({ median: at(times, 0.5), p95: at(times, 0.95) });
  }
  return rounds.sort((a, b) => a.p95 - b.p95)[0] ?? { median: 0, p95: 0 };
}

/** The wheel turns for three seconds; the share of the frames due in that time that did not come. */
async function scrolling(page: Page): Promise<number> {
  await page.getByRole('region', { name: 'Sheet' }).hover();
  await page.evaluate(() => {
    const frames: number[] = [];
    const before = (globalThis as { ticking?: number }).ticking;
    if (before !== undefined) cancelAnimationFrame(before);
    Object.assign(globalThis, { frames });
    const tick = (now: number) => {
      frames.push(now);
      next();
    };
    const next = () => Object.assign(globalThis, { ticking: requestAnimationFrame(tick) });
    next();
  });
  for (let turn = 0; turn < 90; turn += 1) {
    await page.mouse.wheel(0, turn < 45 ? 120 : -120);
    await page.waitForTimeout(33);
  }
  const frames = await page.evaluate(() => (globalThis as unknown as { frames: number[] }).frames);
  const due = ((frames.at(-1) ?? 0) - (frames[0] ?? 0)) / FRAME;
  return Math.max(0, 1 - (frames.length - 1) / due);
}

async function measure(browser: Browser, base: string, items: number): Promise<Row> {
  const id = await add(base, items);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const opened = await opening(page, `${base}/studies/${id}/script`);
  await page.waitForTimeout(5000);
  const tries: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) tries.push(await scrolling(page));
  const late = Math.min(...tries);
  const keys = await typing(page);
  const elements = await page.locator('*').count();
  await page.close();
  return { items, ...opened, keyMedian: keys.median, keyP95: keys.p95, late, elements };
}

async function report(rows: readonly Row[]): Promise<void> {
  const first = rows[0];
  if (first === undefined) return;
  const table = markdown(
    [
      'items',
      'opening',
      'counts stand',
      'key to paint: median',
      '95 of 100 within',
      'to 5 items',
      'frames late',
      'elements',
    ],
    rows.map((row) => [
      String(row.items),
      `${Math.round(row.opening)} ms`,
      `${Math.round(row.counted)} ms`,
      `${row.keyMedian.toFixed(0)} ms`,
      `${row.keyP95.toFixed(0)} ms`,
      `${(row.keyP95 / first.keyP95).toFixed(1)}×`,
      `${(row.late * 100).toFixed(0)}%`,
      String(row.elements),
    ]),
  );
  const text = `# How fast the sheet is

Written by \`npm run bench -- interface\` on ${new Date().toISOString().slice(0, 10)}: the built app in Chromium without a graphics card, Node ${process.versions.node}, ${cpus().length} cores of ${cpus()[0]?.model ?? 'an unknown processor'}, shared with others, the server and the measuring itself.

_Opening_ is until the first questions can be read, _counts stand_ until the number of routes can. _Key to paint_ is measured on ${KEYS} keys in the words of a question, a frame of up to 17 ms included. Of ${ROUNDS} rounds of keys and of scrolling the calmest is shown. _Frames late_ is the share of the frames that did not come while the wheel turned. Only rows near the view are on the page, which is why _elements_ hardly grows (the list of sections does).

${table}
`;
  const file = path.join(process.cwd(), 'docs', 'performance-interface.md');
  writeFileSync(file, await format(text, { ...(await resolveConfig(file)), parser: 'markdown' }));
  console.log(text);
}

/** `base`: the address of the served app, over which generated studies are added. */
export async function measureInterface(browser: Browser, base: string): Promise<void> {
  const keepFigures = await figureKeeper();
  const rows: Row[] = [];
  for (const items of SIZES) rows.push(await measure(browser, base, items));
  await report(rows);
  const [first, largest] = [rows[0], rows.at(-1)];
  if (first === undefined || largest === undefined) return;
  const beside = `${times(largest.counted, first.counted)} ${first.items} items`;
  await keepFigures({ opened: { reached: largest.counted, beside } });
}
