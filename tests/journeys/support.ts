/** What journeys share: starting a study by hand, and no error left unseen. */
import AxeBuilder from '@axe-core/playwright';
import { expect, test as base, type Locator, type Page } from '@playwright/test';

/** Fails a journey in which the page threw or logged an error. */
export const test = base.extend<{ watched: undefined }>({
  watched: [
    async ({ page }, use) => {
      const problems: string[] = [];
      page.on('pageerror', (error) => problems.push(error.message));
      page.on('console', (message) => {
        // A refused request is logged by the browser itself; journeys look at the message on the page instead.
        if (message.type() === 'error' && !message.text().startsWith('Failed to load resource'))
          problems.push(message.text());
      });
      await use(undefined);
      expect(problems).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/** The list of studies, once it takes what is done to it: its page comes ready drawn and is brought to life after. */
export async function home(page: Page): Promise<void> {
  await page.goto('/');
  await page.locator('astro-island:not([ssr])').first().waitFor({ state: 'attached' });
}

/** Opens an empty study and gives the id it was saved under. */
export async function newStudy(page: Page, title: string): Promise<string> {
  await home(page);
  await page.getByRole('button', { name: 'New study' }).click();
  await page.waitForURL('**/script');
  const field = page.getByRole('textbox', { name: 'Title of the study' });
  await field.fill(title);
  return new URL(page.url()).pathname.split('/')[2] ?? '';
}

/** A copy of a demo study, so that journeys do not meet in one; gives its id. */
export async function copyOf(page: Page, demo: string): Promise<string> {
  const document = (await (await page.request.get(`/api/studies/${demo}/file`)).json()) as unknown;
  const reply = await page.request.post('/api/studies', { data: { document } });
  return ((await reply.json()) as { id: string }).id;
}

/** Scrolls the sheet, of which only what is near the view is on the page, from its top down to something. */
export async function scrolledTo(page: Page, wanted: Locator): Promise<Locator> {
  const sheet = page.getByRole('region', { name: 'Sheet' });
  await sheet.waitFor();
  await sheet.evaluate((node) => node.scrollTo(0, 0));
  await sheet.hover();
  await expect
    .poll(
      async () => {
        if ((await wanted.count()) > 0) return true;
        await page.mouse.wheel(0, 500);
        return false;
      },
      { intervals: [100] },
    )
    .toBe(true);
  await wanted.scrollIntoViewIfNeeded();
  return wanted;
}

export async function saved(page: Page): Promise<void> {
  await expect(page.getByText(/^Saved /)).toBeVisible();
}

/** Does one thing of the menu of the study. */
export async function inMenu(page: Page, words: string): Promise<void> {
  await page.getByRole('button', { name: 'Menu of the study' }).click();
  await page.getByRole('menuitem', { name: words }).click();
}

/** No violation of WCAG 2.2 A and AA that a machine can find. */
export async function accessible(page: Page): Promise<void> {
  // Only what is wrong is told, and of this one page, which has no frames: gathering all the rest took most of the time.
  const results = await new AxeBuilder({ page })
    .options({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
      resultTypes: ['violations'],
    })
    .setLegacyMode(true)
    .analyze();
  const found = results.violations.map(
    ({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`,
  );
  expect(found).toEqual([]);
}
