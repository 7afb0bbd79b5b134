/** A made-up panel: made in Release, run by its clock, its letters opened, a member whose link somebody else opens, and its monitor. */
import type { Page } from '@playwright/test';
import { accessible, copyOf, expect, test } from './support';

const inDetails = async (page: Page, words: string) =>
  page.getByText(words, { exact: false }).first().click();

test('a panel of 300 goes through the demo by its clock, with letters to all and thanks to those who finished', async ({
  page,
}) => {
  // Some 55 people answer 10 pages each, beside other journeys.
  test.setTimeout(480_000);
  const study = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${study}/release?leaf=trial`);
  await page.getByRole('button', { name: 'Make up a panel …' }).click();
  await page.keyboard.type('Dry run');
  await inDetails(page, 'What is assumed of them');
  await page.getByLabel('begin after the invitation').fill('12');
  await page.getByLabel('begin after the first reminder').fill('5');
  await page.getByLabel('begin after the second reminder').fill('3');
  // The same people every time: what is looked at below is among what they answer.
  await page.getByLabel('Seed of chance').fill('2608');
  await inDetails(page, 'Invitation to all');
  const text = page.getByLabel('Text of the invitation');
  const usual = await text.inputValue();
  await text.fill('Come and answer.');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Make up a panel for the draft' }).click();
  await expect(page.getByRole('alert')).toHaveText(
    'No panel was made. Invitation: put {link} where the link of each is to stand.',
  );
  await text.fill(usual.replace('Dear {person}', 'Dear neighbour {person}'));
  await accessible(page);
  await page.getByRole('button', { name: 'Make up a panel for the draft' }).click();
  await expect(page.getByRole('heading', { name: 'Dry run' })).toBeVisible();

  await page.getByRole('button', { name: 'to the next letters' }).click();
  await expect(page.getByRole('heading', { name: 'Outbox, 300 letters' })).toBeVisible();
  await page.getByRole('button', { name: /^Invitation .*300$/ }).click();
  const letter = page.getByRole('article', { name: 'Invitation to Member 001' });
  await expect(letter.getByText('Dear neighbour Member 001')).toBeVisible();
  await letter.getByLabel('Find the letter to').fill('member 217');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('article', { name: 'Invitation to Member 217' })).toBeVisible();
  await expect(page.getByText('217 of 300')).toBeVisible();
  await accessible(page);
  const [opened] = await Promise.all([
    page.waitForEvent('popup'),
    page.getByRole('article').getByRole('link').click(),
  ]);
  await expect(opened.getByText('Are you aged 18 or over?')).toBeVisible();
  await opened.close();

  await page.getByLabel('Speed').selectOption('as fast as it goes');
  await page.getByRole('button', { name: 'Let it run' }).click();
  await expect(page.getByRole('button', { name: 'Let it rest' })).toBeVisible();
  await expect(page.getByText('the field is closed')).toBeVisible({ timeout: 200_000 });

  const slip = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Dry run' }) });
  const count = async (words: string) =>
    Number((await slip.locator('dl div', { hasText: words }).locator('dd').textContent())?.replace(',', ''));
  const data = await page.request.get(
    (await slip
      .getByRole('link', { name: /trails, \.json/ })
      .first()
      .getAttribute('href')) ?? '',
  );
  const { begun, declined, responses } = (await data.json()) as {
    begun: number;
    declined: number;
    responses: { ending: string | null; device: string }[];
  };
  const complete = responses.filter(({ ending }) => ending === 'complete' || ending === 'to_diary').length;
  // The figures of the slip are asked for every few seconds.
  await expect
    .poll(async () => ({
      begun: await count('begun'),
      complete: await count('complete'),
      declined: await count('declined'),
    }))
    .toEqual({ begun, complete, declined });
  expect(complete).toBeGreaterThan(20);
  expect(new Set(responses.map(({ device }) => device))).toEqual(new Set(['narrow', 'wide']));
  const thanks = await page.getByRole('button', { name: /^Thanks / }).allTextContents();
  const thanked = thanks.reduce((sum, words) => sum + Number(/(\d+)$/.exec(words)?.[1]), 0);
  // Who finished on the last day after the hour of letters gets none any more.
  expect(complete - thanked).toBeLessThanOrEqual(3);

  // What the monitor tells is what is kept, and what the tables count further down.
  await slip.getByRole('button', { name: 'Watch it come in' }).click();
  const asked = (name: string) => page.getByRole('button', { name: `Asked, ${name}: `, exact: false });
  await expect(page.getByRole('button', { name: `Begun: ${begun}`, exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: `Declined: ${declined}`, exact: true })).toBeVisible();
  const behind = page.getByRole('complementary', { name: 'Responses behind the figure' });
  await expect(behind).toContainText(`${responses.length} responses · ${declined} more of whom nothing`);
  const whole = responses.filter(({ ending }) => ending === 'complete').length;
  await page.getByRole('button', { name: `Complete: ${whole}`, exact: true }).click();
  await expect(behind).toContainText(`${whole} response`);
  await expect(page.getByText('RR1')).toBeVisible();
  await page.getByLabel('Partial from').selectOption('B Screening');
  await expect(page.getByText('RR2')).toBeVisible();
  await accessible(page);
  const allItems = page.getByRole('region', { name: 'Items' }).getByRole('button', { name: /^All / });
  if (await allItems.isVisible()) await allItems.click();
  const said = (await asked('income').getAttribute('aria-label')) ?? '';
  const doNotKnow =
    (await page.getByRole('button', { name: 'Don’t know, income: ' }).getAttribute('aria-label')) ?? '';
  const [first] = responses.filter(({ ending }) => ending === 'complete').slice(-1);
  await behind
    .getByRole('link', { name: /^Walk response/ })
    .first()
    .click();
  await expect(page.getByText(/^Response \d+, Member \d+$/)).toBeVisible();
  expect(first).toBeDefined();
  await expect(page.getByText(/^page 1 of \d+, A /)).toBeVisible();
  await page.getByRole('button', { name: 'Page after ›' }).press('Enter');
  await expect(page.getByText(/^page 2 of \d+, B Screening/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Page after ›' })).toBeFocused();
  // The buttons of the page go the same way.
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await expect(page.getByText(/^page 1 of \d+, A /)).toBeVisible();
  await page.getByRole('button', { name: 'Next', exact: true }).click();
  await expect(page.getByText(/^page 2 of \d+, B Screening/)).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Play, ten times as fast' }).click();
  await expect(page.getByText(/^page 3 of \d+/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await page.getByRole('link', { name: 'Back to the monitor' }).click();
  await page.getByRole('button', { name: 'Pause' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'paused' })).toBeVisible();
  await page.getByRole('button', { name: 'All links' }).click();

  await page.getByRole('button', { name: 'Take its shares as assumptions …' }).click();
  await page.getByLabel('Kept by').fill('Ada');
  await accessible(page);
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Taken for \d+ questions, and kept as version 1/)).toBeVisible();
  await expect(page.getByText('Assumes the shares of “Dry run”')).toBeVisible();
  await page.getByRole('button', { name: 'Keep its rows, and open the tables' }).click();
  await expect(page.getByText('Trial: Dry run').first()).toBeAttached();
  await expect(page.getByText(`${responses.length}`, { exact: true }).first()).toBeVisible();
  const number = (words: string) => /: (\d+)$/.exec(words)?.[1] ?? 'none';
  const at = new URL(page.url());
  await page.goto(`${at.pathname}${at.search}&variable=income`);
  const table = page.getByRole('table').first();
  await expect(table.getByRole('row', { name: /^Asked/ })).toContainText(number(said));
  await expect(table.getByRole('row', { name: /Don.t know/ })).toContainText(number(doNotKnow));
  await page.goto(`/studies/${study}/release?leaf=trial`);
  await page.getByRole('button', { name: 'Open in Audit' }).click();
  await page.getByRole('button', { name: 'Audit the rows' }).click();
  await expect(page.getByText('without a problem')).toBeVisible();
  await expect(page.getByText('unknown column')).toHaveCount(0);
  await expect(page.getByText('something stands where the routing says')).toHaveCount(0);
  await expect(page.getByText('the answers lead to another ending')).toHaveCount(0);
});
