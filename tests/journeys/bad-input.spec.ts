/** Whatever is wrong gets a message that names the place and the mend, and the document stays as it was. */
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import Database from 'better-sqlite3';
import { accessible, expect, home, newStudy, test } from './support';

test('a malformed file is refused with the path inside it', async ({ page }) => {
  await home(page);
  const refused = async (name: string, text: string) => {
    await page
      .getByLabel('Questionnaire file')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
    return page.getByRole('alert');
  };
  await expect(await refused('half.fork.json', '{"format": "jolly-')).toContainText(
    '“half.fork.json” cannot be used',
  );
  const file = await (await page.request.get('/api/studies/winter-diary/file')).json();
  file.sections[0].items[0].colour = 'red';
  await expect(await refused('odd.fork.json', JSON.stringify(file))).toContainText(
    'sections[0].items[0].colour: unknown property "colour"',
  );
  await expect(page).toHaveURL(/\/$/);
});

test('a condition that does not parse, a name used twice and a deleted target are told where they stand', async ({
  page,
}) => {
  await newStudy(page, 'Mistakes');
  for (const text of ['One?', 'Two?', 'Three?']) {
    await page.getByRole('button', { name: 'Add a question' }).click();
    await page.keyboard.type(text);
  }
  // A name used twice: refused at the field, which keeps what was typed.
  const name = page.getByRole('textbox', { name: 'Variable name' });
  await name.fill('q1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('“q1” is the name of something else already');
  await expect(name).toHaveValue('q1');
  await expect(page.locator('[data-anchor="item:q3"]')).toBeVisible();
  await page.keyboard.press('Escape');

  // A condition with an error: the message, and the mark under the very character.
  await page.getByRole('button', { name: 'Ask all, or only if …' }).click();
  await page.keyboard.type('q1 = 7');
  await page.keyboard.press('Escape');
  const item = page.locator('[data-anchor="item:q3"]');
  await expect(item.getByText('“q1” has no code 7: its codes are 1, 2')).toBeVisible();
  await expect(item.locator('.cm-lintRange-error')).toHaveText('7');
  await page.getByRole('button', { name: /^4 snags/ }).click();
  const panel = page.getByRole('region', { name: 'Snags' });
  await expect(panel.getByRole('heading', { name: /^2 errors/ })).toBeVisible();
  await expect(panel.getByText('No route ends here')).toHaveCount(2);
  await page.keyboard.press('Escape');
  // Mended by picking.
  await item.getByRole('textbox', { name: 'q3 is asked if' }).fill('');
  await item.getByRole('button', { name: 'Pick', exact: true }).click();
  await item.getByRole('button', { name: 'Add a test' }).click();
  await item.getByRole('combobox', { name: 'Question' }).selectOption('q1');
  await item.getByRole('checkbox', { name: 'No 2' }).check();
  await item.getByRole('checkbox', { name: 'Yes 1' }).uncheck();
  await expect(item.getByRole('textbox', { name: 'q3 is asked if' })).toHaveText('q1 = 2');
  await expect(page.getByRole('button', { name: /^3 snags/ })).toBeVisible();

  // A target that is deleted.
  await page.getByText('One?', { exact: true }).click();
  await page.getByRole('textbox', { name: 'Answer 1', exact: true }).focus();
  await page.keyboard.press('Alt+ArrowRight');
  await page.keyboard.press('1');
  await expect(page.getByRole('button', { name: 'Where answer 1 leads', exact: true })).toContainText('q3');
  await page.getByText('Three?', { exact: true }).click();
  await page.getByRole('button', { name: 'Delete question' }).click();
  await page.getByRole('button', { name: /^4 snags/ }).click();
  await expect(panel).toContainText('There is no item “q3”: choose another target');
  await panel.getByRole('button', { name: 'Skip 1 of item q1' }).click();
  await expect(page.getByRole('textbox', { name: 'Words of the question' })).toHaveText('One?');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Three?', { exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: /^3 snags/ })).toBeVisible();
});

test('requests with a wrong body or id are refused in words, and change nothing', async ({
  request,
  page,
}) => {
  const before = await (await request.get('/api/studies/winter-diary')).json();
  for (const door of ['/_image', '/%5Fimage'])
    expect((await request.get(`${door}?href=%2Ffork.svg&w=20000&h=20000&f=avif`)).status(), door).toBe(404);
  const put = (body: unknown) => request.put('/api/studies/winter-diary', { data: body as object });
  for (const [body, status, words] of [
    [{ revision: 'one', document: before.document }, 400, /revision/],
    [{ revision: before.revision }, 400, /document/],
    [{ revision: before.revision, document: { ...before.document, sections: [] } }, 422, /sections/],
    [{ revision: before.revision - 1, document: before.document }, 409, /changed elsewhere/],
  ] as const) {
    const reply = await put(body);
    expect(reply.status()).toBe(status);
    expect((await reply.json()).problem).toMatch(words);
  }
  const patch = (operation: object) =>
    request.patch('/api/studies/winter-diary', {
      data: { revision: before.revision, operations: [operation] },
    });
  const set = { do: 'set', part: 'item:people', field: 'text', before: 'not this', after: 'x' };
  for (const [operation, status] of [
    [set, 422],
    [{ ...set, field: '__proto__.text' }, 400],
    [{ do: 'set', part: 'study', field: 'title', before: before.document.title, after: 7 }, 422],
    [{ do: 'invent' }, 400],
  ] as const)
    expect((await patch(operation)).status()).toBe(status);
  const foreign = await request.post('/api/demo', { headers: { origin: 'https://example.org' } });
  expect(foreign.status()).toBe(403);
  expect((await request.get('/api/studies/nowhere')).status()).toBe(404);
  expect(await (await request.get('/api/studies/winter-diary')).json()).toEqual(before);

  const missing = await page.goto('/studies/nowhere/script');
  expect(missing?.status()).toBe(404);
  await expect(page.getByText('There is nothing here')).toBeVisible();
});

test('a study that cannot be read leaves the list whole, is saved as it is, and removed', async ({
  page,
}) => {
  const file = path.join(process.env.JOURNEYS_DATA ?? '', 'jolly-fork.sqlite');
  const database = new Database(file, { fileMustExist: true });
  const row =
    "INSERT INTO studies (id, document, revision, created_at, changed_at) VALUES ('cut-short', ?, 1, 1, 1)";
  database.prepare(row).run('{"format": "jolly-fork/questionn');
  database.close();
  await home(page);
  await expect(page.getByRole('link', { name: 'Tern Valley Home Heating Study' }).first()).toBeVisible();
  const broken = page.getByRole('group', { name: 'A study that cannot be read' });
  await expect(broken).toContainText('this is not JSON');
  await accessible(page);
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    broken.getByRole('link', { name: 'Save it as it is' }).click(),
  ]);
  expect(await readFile(await saved.path(), 'utf8')).toBe('{"format": "jolly-fork/questionn');
  await broken.getByRole('button', { name: 'Remove it' }).click();
  await expect(broken).toHaveCount(0);
  await expect(page.getByRole('status')).toContainText('Removed “A study that cannot be read”');
});
