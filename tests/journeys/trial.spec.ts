/** Links for respondents: made in Release, answered on phones, over networks that fail, in one sitting with a follow-up. */
import { readFileSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Browser, BrowserContextOptions, Page } from '@playwright/test';
import Papa from 'papaparse';
import { accessible, expect, test } from './support';

const PHONE: BrowserContextOptions = {
  viewport: { width: 320, height: 640 },
  hasTouch: true,
  isMobile: true,
};

const codes = (...labels: string[]) => labels.map((label, n) => ({ code: n + 1, label }));
const single = (name: string, text: string, labels: string[], more: object = {}) => ({
  ...{ kind: 'question', name, text, required: true },
  answer: { type: 'single', options: codes(...labels) },
  ...more,
});
const HEATING = ['Gas boiler', 'Heat pump', 'Electric heaters', 'Wood or coal stove', 'Something else'];

/** A short questionnaire that hands on to the winter diary, and takes one household with a heat pump. */
const KETTLE = {
  ...{ format: 'jolly-fork/questionnaire', version: 1 },
  title: 'Kettles & <b>kitchens</b>',
  language: 'en',
  missing: [
    { reason: 'not_applicable', code: -1, label: 'Not applicable' },
    { reason: 'not_drawn', code: -2, label: 'Not drawn' },
    { reason: 'no_answer', code: -9, label: 'No answer' },
    { reason: 'not_reached', code: -8, label: 'Not reached' },
  ],
  quotas: [
    {
      id: 'pumps',
      label: 'Heat pumps',
      if: 'heat_main = 2',
      target: 1,
      at: 'heat_main',
      to: { ending: 'enough' },
    },
  ],
  sections: [
    {
      id: 'start',
      title: 'Before we begin',
      kind: 'consent',
      items: [
        single('agree', 'Will you take part?', ['Yes, gladly', 'No, thank you'], {
          skips: [{ if: 'agree = 2', to: { ending: 'declined' } }],
        }),
      ],
    },
    {
      id: 'home',
      title: 'Your home',
      kind: 'topic',
      items: [
        single('heat_main', 'What heats your home?', HEATING),
        {
          ...{ kind: 'question', name: 'people', text: 'How many people live there?', required: true },
          answer: { type: 'number', min: 1, max: 12 },
        },
      ],
    },
    {
      id: 'more',
      title: 'One more thing',
      kind: 'topic',
      items: [
        single('diary', 'Will you keep a diary?', ['Yes', 'No'], {
          skips: [{ if: 'diary = 1', to: { ending: 'to_diary' } }],
        }),
      ],
    },
  ],
  endings: [
    { id: 'complete', kind: 'complete', messages: [{ text: 'Thank you for your kettle.' }] },
    { id: 'declined', kind: 'declined', messages: [{ text: 'Nothing has been kept.' }] },
    { id: 'enough', kind: 'quota_full', messages: [{ text: 'We have enough heat pumps already.' }] },
    {
      ...{ id: 'to_diary', kind: 'hand_off', messages: [{ text: 'The diary comes next.' }] },
      next: { questionnaire: 'winter-diary.fork.json', carry: ['heat_main', 'people'] },
    },
  ],
};

async function added(page: Page, document: object): Promise<string> {
  const reply = await page.request.post('/api/studies', { data: { document } });
  expect(reply.status()).toBe(201);
  return ((await reply.json()) as { id: string }).id;
}

/** Makes a link in Release, by its form. */
async function made(page: Page, study: string, name: string, settle: () => Promise<void>) {
  await page.goto(`/studies/${study}/release?leaf=trial`);
  await page.getByLabel('What the link is for').fill(name);
  await page.getByText('What holds under it').click();
  await settle();
  await page.getByRole('button', { name: 'Make a link for the draft' }).click();
  await expect(page.getByRole('heading', { name, exact: true })).toBeVisible();
}

/** Likewise, and gives its address. */
async function linked(page: Page, study: string, name: string, settle = async () => undefined as void) {
  await made(page, study, name, settle);
  return page.getByRole('textbox', { name: `Address of ${name}` }).inputValue();
}

/** A browser of its own, as respondents have one: nothing of ours is sent along. */
async function opened(browser: Browser, address: string, options: BrowserContextOptions = {}) {
  const context = await browser.newContext({ ...options, extraHTTPHeaders: {} });
  const page = await context.newPage();
  await page.goto(address);
  return { context, page };
}

const choose = (page: Page, name: string) => page.getByRole('radio', { name, exact: true }).check();
const next = (page: Page) => page.getByRole('button', { name: 'Next', exact: true }).click();

async function rowsOf(page: Page, name: string): Promise<Record<string, string>[]> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name }).or(page.getByRole('button', { name })).click(),
  ]);
  const text = readFileSync(await download.path(), 'utf8').replace(/^\uFEFF/, '');
  return Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true }).data;
}

test('somebody answers on a phone, stops, goes on in a new browser, and is handed on to the diary', async ({
  page,
  browser,
}) => {
  const study = await added(page, KETTLE);
  const address = await linked(page, study, 'Colleagues, first round');
  await accessible(page);
  const phone = await opened(browser, address, PHONE);
  await expect(phone.page.getByText('Draft, for trying out.')).toBeVisible();
  await accessible(phone.page);
  expect(await phone.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  await choose(phone.page, 'Yes, gladly');
  await next(phone.page);
  await expect(phone.page.getByText('What heats your home?')).toBeVisible();
  // A new page begins at its top, wherever the last one was left.
  expect(await phone.page.evaluate(() => window.scrollY)).toBe(0);
  const code = await phone.page.getByText(/^[a-z0-9]{4} [a-z0-9]{4}$/).textContent();
  await accessible(phone.page);
  await phone.context.close();

  const desktop = await opened(browser, address);
  const field = desktop.page.getByLabel('You have begun elsewhere? Your code');
  await field.fill('nonsense');
  await field.press('Enter');
  await expect(desktop.page.getByText('This code is not known here.')).toBeVisible();
  await field.fill(code ?? '');
  await field.press('Enter');
  await expect(desktop.page.getByText('What heats your home?')).toBeVisible();
  // By keyboard: digits choose, Enter goes on.
  await desktop.page.keyboard.press('4');
  await desktop.page.getByRole('textbox', { name: /How many people/ }).fill('1');
  await desktop.page.keyboard.press('Enter');
  await choose(desktop.page, 'Yes');
  await next(desktop.page);
  // No thanks in between, and what was said before is known there.
  await expect(desktop.page.getByText('Are you happy to keep a diary for seven days?')).toBeVisible();
  await expect(desktop.page.getByText('The diary comes next.')).toHaveCount(0);
  await desktop.page.getByRole('radio').first().check();
  await next(desktop.page);
  await desktop.page.getByLabel(/Which day/).fill('2026-11-20');
  await next(desktop.page);
  await desktop.page.getByLabel(/heating first come on/).fill('06:30');
  await next(desktop.page);
  await desktop.page.getByRole('textbox', { name: /baskets of logs/ }).fill('2');
  await next(desktop.page);
  await desktop.page.getByRole('radio').first().check();
  await next(desktop.page);
  await next(desktop.page);
  await expect(desktop.page.getByText('Thank you. See you tomorrow.')).toBeVisible();
  await accessible(desktop.page);
  await desktop.context.close();

  await expect(page.getByText('Handed on to Winter Diary, 1 response')).toBeVisible();
  const [first] = await rowsOf(page, 'Responses: coded rows, .csv');
  expect(first).toMatchObject({
    ...{ case: '1', part: '1', state: 'ended', device: 'narrow', version: 'Draft' },
    ...{ agree: '1', heat_main: '4', people: '1', diary: '1', ending: 'to_diary' },
  });
  const [second] = await rowsOf(page, 'Handed on to Winter Diary, 1 response: coded rows, .csv');
  expect(second).toMatchObject({
    case: '1',
    part: '2',
    heat_main: '4',
    people: '1',
    logs: '2',
    ending: 'complete',
  });
});

test('a page is drawn before its program is there, keeps what the network loses, and nobody answers twice', async ({
  page,
  browser,
}) => {
  const study = await added(page, KETTLE);
  const address = await linked(page, study, 'Pilot', async () => {
    await page
      .getByLabel('Who may answer')
      .selectOption({ label: 'everybody with the link, told apart by browser' });
    await page.getByLabel('At the end, under the message of the ending').fill('The kettle is **yours**.');
  });
  const context = await browser.newContext({ extraHTTPHeaders: {} });
  const first = await context.newPage();
  let let_in: () => void = () => undefined;
  const held = new Promise<void>((resolve) => (let_in = resolve));
  await first.route('**/answer/program/*', async (route) => {
    await held;
    await route.continue();
  });
  await first.goto(address, { waitUntil: 'commit' });
  // Chosen and sent before anything of ours runs.
  await choose(first, 'Yes, gladly');
  await next(first);
  let_in();
  await expect(first.getByText('What heats your home?')).toBeVisible();

  await context.setOffline(true);
  await choose(first, 'Heat pump');
  await first.getByRole('textbox', { name: /How many people/ }).fill('3');
  await next(first);
  await expect(
    first.getByText('There is no connection: your answers are kept in this browser.'),
  ).toBeVisible();
  await accessible(first);
  // The tab is closed meanwhile; another one sends what was on its way, and says nothing is lost.
  await first.close();
  await context.setOffline(false);
  const again = await context.newPage();
  await again.goto(address);
  await expect(again.getByText('Will you keep a diary?')).toBeVisible();
  await choose(again, 'No');
  await next(again);
  await expect(again.getByText('Thank you for your kettle.')).toBeVisible();
  await expect(again.getByText('The kettle is yours.')).toBeVisible();

  // The place is taken: whoever else has a heat pump is turned away, and others are not.
  const other = await opened(browser, address);
  await choose(other.page, 'Yes, gladly');
  await next(other.page);
  await choose(other.page, 'Heat pump');
  await other.page.getByRole('textbox', { name: /How many people/ }).fill('2');
  await next(other.page);
  await expect(other.page.getByText('We have enough heat pumps already.')).toBeVisible();
  await other.context.close();

  await again.goto(address);
  await expect(
    again.getByRole('heading', { name: 'You have answered this questionnaire already' }),
  ).toBeVisible();
  await expect(again.getByRole('button', { name: 'Answer once more' })).toHaveCount(0);
  await accessible(again);

  const declined = await opened(browser, address);
  await choose(declined.page, 'No, thank you');
  await next(declined.page);
  await expect(declined.page.getByText('Nothing has been kept.')).toBeVisible();
  const slip = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Pilot' }) });
  await expect(slip.getByText(/declined: only counted\s*1/)).toBeVisible();
  expect(await rowsOf(page, 'Responses: coded rows, .csv')).toHaveLength(2);

  await slip.getByRole('button', { name: 'Close it' }).click();
  await expect(slip.getByText('Closed', { exact: true })).toBeVisible();
  await declined.page.goto(address);
  await expect(
    declined.page.getByText('This questionnaire is closed. Thank you for your interest.'),
  ).toBeVisible();
  await accessible(declined.page);
  await declined.context.close();
  await context.close();
});

test('people are sent links of their own, with what is known of them, inside the one page that may show it', async ({
  page,
  browser,
}) => {
  let inside = '';
  const site = http.createServer((_, response) =>
    response.setHeader('Content-Type', 'text/html').end(inside),
  );
  const port = await new Promise<number>((resolve) =>
    site.listen(0, () => resolve((site.address() as AddressInfo).port)),
  );
  const [start, home, more] = KETTLE.sections;
  const study = await added(page, {
    ...KETTLE,
    title: 'Kettles by mail',
    given: [
      { name: 'town', label: 'Town', answer: { type: 'single', options: codes('Ternford', 'Upper Marl') } },
    ],
    sections: [{ ...start, title: 'Before we begin in {town}' }, home, more],
  });
  await page.goto(`/studies/${study}/release?leaf=trial`);
  await page.getByLabel('What the link is for').fill('By mail');
  await page.getByRole('button', { name: 'Make a link for the draft' }).click();
  await expect(
    page.getByText('town is known before the start, so each person needs a link of their own'),
  ).toBeVisible();
  await made(page, study, 'By mail', async () => {
    await page.getByLabel('Who may answer').selectOption({ label: 'people with links of their own' });
    await page.getByLabel('The one site that may show it inside a page').fill(`http://127.0.0.1:${port}/any`);
    await page.getByLabel('Minutes for the whole, at most').fill('30');
  });
  const file = page.getByLabel('People of By mail, as CSV');
  const csv = (text: string) => ({ name: 'people.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await file.setInputFiles(csv('id,town\nA. Fenn,3\n'));
  await expect(page.getByText('Nobody was added. Line 2, town:')).toBeVisible();
  await file.setInputFiles(csv('id,town\nA. Fenn,2\nB. Moss,1\n'));
  await expect(page.getByText('2 people added.')).toBeVisible();
  const links = await rowsOf(page, 'Save their links, .csv');
  expect(links.map(({ person }) => person)).toEqual(['A. Fenn', 'B. Moss']);

  const address = links[0]?.link?.replace(/\/[^/]+$/, '') ?? '';
  const stranger = await opened(browser, address);
  await expect(stranger.page.getByText('answered by those who were sent a link of their own')).toBeVisible();
  await stranger.page.goto(`${address}x`);
  await expect(stranger.page.getByText('There is no questionnaire at this address')).toBeVisible();
  await accessible(stranger.page);
  // A page of another site shows nothing of it.
  inside = `<iframe src="${links[0]?.link}" title="Questionnaire" width="400" height="600"></iframe>`;
  await stranger.page.goto(`http://localhost:${port}/`);
  const framed = stranger.page.frameLocator('iframe');
  await expect(framed.getByText('Will you take part?')).toHaveCount(0);
  await stranger.page.goto(`http://127.0.0.1:${port}/`);
  await expect(framed.getByText('Before we begin in Upper Marl')).toBeVisible();
  await expect(framed.getByRole('timer')).toHaveText(/^(30:00|29:\d\d)$/);
  await framed.getByRole('radio', { name: 'Yes, gladly' }).check();
  await framed.getByRole('button', { name: 'Next', exact: true }).click();
  await expect(framed.getByText('What heats your home?')).toBeVisible();
  await stranger.context.close();

  // Their own link goes on where they stopped, in any browser.
  const fenn = await opened(browser, links[0]?.link ?? '', PHONE);
  await expect(fenn.page.getByText('What heats your home?')).toBeVisible();
  await fenn.context.close();
  const [row] = await rowsOf(page, 'Responses: coded rows, .csv');
  expect(row).toMatchObject({ person: 'A. Fenn', town: '2', agree: '1', state: 'answering' });
  site.close();
});
