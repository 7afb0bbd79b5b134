/** Signing in and out, on a server of its own that asks for it. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { accessible, expect, test } from './support';

const PASSPHRASE = 'clear water, old bridge';

test.describe('where authors sign in', () => {
  // One server for all of them.
  test.describe.configure({ mode: 'default' });
  let server: ChildProcess;
  let at = '';
  let told = '';

  test.beforeAll(async () => {
    const port = await freePort();
    at = `http://127.0.0.1:${port}`;
    server = spawn('node', ['scripts/demo.mjs', '--fresh'], {
      env: {
        ...process.env,
        HOST: '0.0.0.0',
        PORT: String(port),
        JOLLY_FORK_PASSPHRASE: PASSPHRASE,
        JOLLY_FORK_DATA: mkdtempSync(path.join(tmpdir(), 'jolly-fork-signed-')),
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await new Promise<void>((resolve, reject) => {
      server.stdout?.on('data', (text) => {
        told += String(text);
        if (told.includes('is ready')) resolve();
      });
      server.on('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
  });
  test.afterAll(() => {
    server.kill();
  });
  test.use({ extraHTTPHeaders: {} });

  const signIn = async (page: Page, name: string, passphrase: string) => {
    await page.getByLabel('Your name').fill(name);
    await page.getByLabel('Passphrase of this installation').fill(passphrase);
    await page.keyboard.press('Enter');
  };

  test('no page and no door is open without it, but those of reviewers', async ({ page, request }) => {
    expect(told).toContain('Whoever is in the same network reaches it');
    const files = readdirSync(path.join('src', 'pages'), { recursive: true }).map(String);
    const routes = files.filter((file) => /\.(ts|astro)$/.test(file));
    expect(routes.length).toBeGreaterThan(25);
    const shut: string[] = [];
    for (const file of routes) {
      const route = `/${file.replace(/\.(ts|astro)$/, '').replace(/(^|\/)index$/, '')}`
        .replace('[id]', 'winter-diary')
        .replace('[stop]', 'script')
        .replace(/\[\w+\]/, 'x');
      if (/^\/(api\/)?review\/|^\/(404|no-review|sign-in)$/.test(route)) continue;
      for (const written of [
        route,
        route.replace('/', '//'),
        `/review/..${route}`,
        route.replace('s', '%73'),
      ]) {
        const reply = await request.get(at + written, { maxRedirects: 0 });
        expect([301, 303, 401, 404], written).toContain(reply.status());
        expect(await reply.text(), written).not.toContain('Diary');
      }
      if (route.startsWith('/api/'))
        for (const method of ['POST', 'PUT', 'PATCH', 'DELETE']) {
          const reply = await request.fetch(at + route, { method, headers: { origin: at }, data: {} });
          expect([401, 404], `${method} ${route}`).toContain(reply.status());
          if (reply.status() === 401) shut.push(route);
        }
    }
    expect(shut.length).toBeGreaterThan(60);
    expect((await request.get(`${at}/api/review/x/verdicts`)).status()).toBe(404);
    await page.goto(`${at}/review/none/script`);
    await expect(page.getByText('This link opens nothing')).toBeVisible();
  });

  test('an author signs in, is named in what they write, signs out, and loses nothing when a session ends', async ({
    page,
    context,
  }) => {
    await page.goto(`${at}/studies/winter-diary/script`);
    await expect(page.getByRole('heading', { name: 'Sign in to Jolly Fork' })).toBeVisible();
    await accessible(page);
    await signIn(page, 'Ines Marlow', 'clear water, new bridge');
    await expect(page.getByRole('alert')).toHaveText('This is not the passphrase.');
    await expect(page.getByLabel('Your name')).toHaveValue('Ines Marlow');
    await page.keyboard.type(PASSPHRASE);
    await page.keyboard.press('Enter');
    // Led on to where they wanted to go.
    await page.waitForURL('**/studies/winter-diary/script');

    await page.locator('[data-field="keep/text"]').click();
    await page.getByRole('button', { name: 'Comment on this' }).click();
    await page.getByRole('textbox', { name: 'Comment' }).fill('Is this a household or a person?');
    await expect(page.getByLabel('Your name')).toBeHidden();
    await page.getByRole('button', { name: 'Add the comment' }).click();
    await expect(page.getByText('Ines Marlow')).toBeVisible();

    // The session ends elsewhere; what is written then is kept, and saved after signing in again.
    const [cookie] = await context.cookies();
    expect(cookie).toMatchObject({ name: 'jolly_fork_session', httpOnly: true, sameSite: 'Lax' });
    await context.clearCookies();
    const title = page.getByRole('textbox', { name: 'Title of the study' });
    await title.press('End');
    await title.pressSequentially(', signed');
    const out = page.getByText('You are signed out. What is not saved yet is kept in this browser.');
    await expect(out).toBeVisible();
    await page.getByRole('link', { name: 'Sign in again' }).click();
    await signIn(page, 'Ines Marlow', PASSPHRASE);
    await page.waitForURL('**/studies/winter-diary/script');
    await expect(title).toHaveValue(/, signed$/);
    await expect(page.getByText(/^Saved/)).toBeVisible();

    const [later] = await context.cookies();
    await page.getByRole('button', { name: 'Menu of the study' }).click();
    await page.getByRole('menuitem', { name: 'Sign out, Ines Marlow' }).click();
    await page.waitForURL('**/sign-in');
    await page.goto(at);
    await expect(page.getByRole('heading', { name: 'Sign in to Jolly Fork' })).toBeVisible();
    // The cookie that was taken away opens nothing any more either.
    await context.addCookies([{ name: later?.name ?? '', value: later?.value ?? '', url: at }]);
    expect((await page.request.get(`${at}/api/studies`)).status()).toBe(401);
  });
});

function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.on('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });
}
