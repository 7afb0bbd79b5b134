/** Codes: the codebook changed, paper forms keyed in, collected files audited, rows tabulated. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import Papa from 'papaparse';
import { columnsOf } from '../../src/core/coding/columns';
import { readDocumentText } from '../../src/core/document/read';
import { planOf } from '../../src/core/routing/planner';
import { madeUpRespondents } from '../../src/core/simulate/respondents';
import { accessible, copyOf, expect, test } from './support';

const HEATING = 'tern-valley-home-heating';

const plan = () => {
  const read = readDocumentText(readFileSync(`demo/${HEATING}.fork.json`, 'utf8'));
  if (!read.ok) throw new Error('the demo study cannot be read');
  return planOf(read.document);
};

/** Rows of made-up respondents, blank where nothing was asked, under their header. */
function collected(count: number): string[][] {
  const of = plan();
  const rows = [...madeUpRespondents(of, count, 11)].map((person) => person.row().map(String));
  return [
    columnsOf(of).map(({ name }) => name),
    ...rows.map((row) => row.map((cell) => (cell === '-1' || cell === '-2' ? '' : cell))),
  ];
}

const fileOf = (rows: readonly (readonly string[])[], name = 'rows.csv') => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.from(Papa.unparse(rows as string[][], { delimiter: ';' })),
});

async function textOf(page: Page, press: string): Promise<string> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: press, exact: true }).click(),
  ]);
  return readFileSync(await download.path(), 'utf8');
}

test('a collected file with planted faults: each is found, the rest is coded, and a row is walked', async ({
  page,
}) => {
  const id = await copyOf(page, HEATING);
  const rows = collected(30);
  const [head = []] = rows;
  const at = (name: string) => head.indexOf(name);
  const full = rows.findIndex((row, n) => n > 0 && row.at(-1) === 'complete');
  (rows[full] as string[])[at('tenure')] = '7';
  const other = rows.findIndex((row, n) => n > full && row.at(-1) === 'complete');
  (rows[other] as string[])[at('built')] = '';
  head[at('adult')] = 'Aged 18 or over';
  head[at('agree')] = 'consent';
  await page.goto(`/studies/${id}/codes?part=audit`);
  await accessible(page);
  await page.getByLabel('Collected file').setInputFiles(fileOf(rows));

  // By name, by label, and by hand; what is said by hand is kept for the next file.
  await expect(page.getByText('129 of 130 columns matched')).toBeVisible();
  await page.getByLabel('Variable for the column consent').selectOption('agree');
  await expect(page.getByText('130 of 130 columns matched')).toBeVisible();
  await page.getByRole('button', { name: 'Audit the rows' }).click();
  const found = page.getByRole('region', { name: 'What was found' });
  await expect(found.getByText('without a problem').locator('..')).toContainText('28');
  const table = found.locator('table');
  await expect(table.locator('tbody tr')).toHaveCount(2);
  await expect(table).toContainText('tenure');
  await expect(table).toContainText('unknown code');
  await expect(table).toContainText('missing answer');
  await accessible(page);

  const coded = Papa.parse<string[]>((await textOf(page, 'Coded rows, CSV')).trimEnd()).data;
  expect(coded[0]?.slice(0, 3)).toEqual(['adult', 'agree', 'tenure']);
  expect(coded[full]?.[at('tenure')]).toBe('7');
  expect(coded.slice(1).every((row) => row[at('ending')] !== '')).toBe(true);
  expect(await textOf(page, 'Report')).toContain(`${full},tenure,unknown-code,7,`);
  const changes = Papa.parse<string[]>((await textOf(page, 'List of changes')).trimEnd()).data;
  expect(changes[0]).toEqual(['row', 'column', 'from', 'to', 'why']);
  expect(changes.length).toBeGreaterThan(500);

  await page.getByRole('button', { name: 'Keep for tables' }).click();
  await expect(page.getByRole('button', { name: 'Kept: open the tables' })).toBeVisible();
  await page.getByRole('button', { name: `Walk row ${other}` }).click();
  await expect(page.getByRole('form', { name: 'Respondent’s page' })).toBeVisible();
  // The file is still there on the way back, and rows without a problem can be walked as well.
  await page.getByRole('link', { name: /^Codes/ }).click();
  await page.getByRole('button', { name: 'Audit', exact: true }).click();
  await page.getByLabel('Row', { exact: true }).fill('30');
  await page.getByRole('button', { name: 'Walk it' }).click();
  await expect(page.getByRole('form', { name: 'Respondent’s page' })).toBeVisible();
  await page.getByRole('link', { name: /^Codes/ }).click();
  await page.goto(`/studies/${id}/codes?part=tables`);
  const source = page.getByLabel('Rows of');
  const kept = source.locator('option', { hasText: 'rows: 30 rows' });
  await source.selectOption((await kept.getAttribute('value')) ?? '');
  await expect(page.getByText('rows', { exact: true })).toBeVisible();
  await page.goto(`/studies/${id}/codes?part=audit`);
  // So many that several workers share them; with case numbers, one of which comes twice, far apart, and in one row with
  // an ending that the answers do not lead to.
  (rows[other] as string[])[at('ending')] = 'declined';
  const rounds = 700;
  const many = Array.from({ length: rounds }, () => rows.slice(1)).flat();
  const numbered = [
    ['Case no', ...head],
    ...many.map((row, n) => [n === many.length - 1 ? 'c2' : `c${n + 1}`, ...row]),
  ];
  await page.getByLabel('Collected file').setInputFiles(fileOf(numbered, 'again.csv'));
  await expect(page.getByText('130 of 131 columns matched')).toBeVisible();
  await expect(page.getByLabel('Column with case numbers')).toHaveValue('Case no');
  await page.getByRole('button', { name: 'Audit the rows' }).click();
  await expect(table).toContainText('wrong ending: they lead to Complete');
  await expect(found.locator('dl')).toContainText('rows21,000without a problem19,599');
  await found.getByRole('button', { name: /^duplicate case/ }).click();
  await expect(table.getByRole('row', { name: /^21,000/ })).toContainText('row 2 has it as well');
  await page.getByRole('button', { name: 'Tables', exact: true }).click();
  await source.selectOption('audited');
  await expect(page.getByRole('row', { name: /^All/ })).toContainText('21,000');
});

test('files that cannot be used are refused in clear words, and nothing is done', async ({ page }) => {
  const id = await copyOf(page, HEATING);
  await page.goto(`/studies/${id}/codes?part=audit`);
  const file = page.getByLabel('Collected file');
  const alert = page.getByRole('alert');
  const cases: readonly (readonly [string, Buffer, RegExp])[] = [
    ['empty.csv', Buffer.from(''), /is empty/],
    ['picture.csv', readFileSync('docs/screenshots/script.png'), /is a PNG picture/],
    ['twice.csv', Buffer.from('adult,adult\n1,1\n'), /Columns 1 and 2 are both called “adult”/],
    ['head.csv', Buffer.from('adult,agree\n'), /no row of answers below it/],
    ['broken.xlsx', Buffer.from([0x50, 0x4b, 3, 4, 9, 9, 9, 9]), /cannot be read as a workbook/],
  ];
  for (const [name, buffer, words] of cases) {
    await file.setInputFiles({ name, mimeType: 'text/csv', buffer });
    await expect(alert).toContainText(words);
  }
  await file.setInputFiles({
    name: 'ragged.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('adult,agree\n1,1\n1\n'),
  });
  await page.getByRole('button', { name: 'Audit the rows' }).click();
  await expect(alert).toContainText('Row 2 has 1 cells, and the first row 2');
  await expect(page.getByRole('region', { name: 'What was found' })).toBeHidden();
});

/** Keys what has the cursor, field by field, until the form says that it is done; gives how many fields. A blank takes a look. */
async function keyForm(page: Page, answers: Readonly<Record<string, unknown>>): Promise<number> {
  const done = page.getByText('every field on its route is keyed', { exact: false });
  let keyed = 0;
  for (let before = ''; !(await done.isVisible()); keyed += 1) {
    await page.waitForFunction(
      (last: string) => {
        const key = (document.activeElement as HTMLElement | null)?.dataset.key ?? '';
        return (
          (key !== '' && key !== last) ||
          document.body.innerText.includes('every field on its route is keyed')
        );
      },
      before,
      { timeout: 60_000 },
    );
    const key = await page.evaluate(() => (document.activeElement as HTMLElement | null)?.dataset.key ?? '');
    if (key === '' || (await done.isVisible())) break;
    before = key;
    const value = answers[key] ?? '';
    // An Enter right after a code that went on by itself is taken for a part of it.
    if (value === '') await page.waitForTimeout(400);
    await page.keyboard.type(Array.isArray(value) ? value.join(' ') : String(value));
    // A code that cannot be longer goes on by itself.
    const still = await page.evaluate(
      () => (document.activeElement as HTMLElement | null)?.dataset.key ?? '',
    );
    if (still === key) await page.keyboard.press('Enter');
  }
  return keyed;
}

test('a paper form keyed without the mouse, keyed again by another person, and the two settled', async ({
  page,
}) => {
  test.slow();
  const id = await copyOf(page, HEATING);
  const of = plan();
  const person = [...madeUpRespondents(of, 60, 11)].find(
    ({ ending, presented }) => ending === 0 && presented.length > 44,
  );
  if (person === undefined) throw new Error('nobody made up is asked enough');
  await page.goto(`/studies/${id}/codes?part=key`);
  await page.getByLabel('Keyed by').fill('Ada Fenn');
  await page.keyboard.press('Tab');
  await page.keyboard.type('T-001');
  await page.keyboard.press('Enter');

  await expect(page.getByText('forgets what is being typed', { exact: false })).toBeVisible();
  // A wrong code is refused with what is allowed, and taking back is one key.
  await expect(page.locator('[data-key="adult"]')).toBeFocused();
  await page.keyboard.type('5');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('5 is not allowed. Key one of 1, 2');
  await page.keyboard.press('Backspace');
  await page.keyboard.type('2');
  await expect(page.getByText('Screened out', { exact: false }).first()).toBeVisible();
  await page.locator('[data-key="adult"]').focus();
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-key="adult"]')).toHaveValue('');

  const keyed = await keyForm(page, person.answers);
  expect(keyed).toBeGreaterThan(40);
  await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
  await accessible(page);

  // What is passed over was filled with its code; an answer there is kept, told, and dropped again.
  const away = page.locator('[data-away] input').first();
  const flagged = (await away.getAttribute('data-key')) ?? '';
  await expect(away).toHaveAttribute('placeholder', '-1');
  await away.fill('1');
  await away.press('Enter');
  const settle = page.getByRole('complementary', { name: 'To settle' });
  await expect(settle).toContainText(`${flagged} holds 1, and should be blank`);
  await settle.getByRole('button', { name: `Drop ${flagged}` }).click();
  await expect(settle).toContainText('Nothing on this form speaks against the routing');

  // The second keying is begun by another person; the rest of it, with one answer otherwise, is put in at once.
  await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
  await page.getByLabel('Keyed by').fill('Bo Lark');
  await page.getByLabel('Case on the form').fill('T-001');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Case T-001, second time' })).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
  const cases = `/api/studies/${id}/cases`;
  const [first] = (await (await page.request.get(cases)).json()) as { answers: Record<string, unknown> }[];
  const second = { caseId: 'T-001', entry: 2, keyedBy: 'Bo Lark', settledBy: null };
  await page.request.put(cases, { data: { ...second, answers: { ...first?.answers, built: 1901 } } });
  await page.reload();
  await page.getByRole('button', { name: '1 answer keyed differently' }).click();
  await accessible(page);
  await page.getByRole('button', { name: '1901' }).click();
  await expect(page.getByText('Bo Lark settled where they differed', { exact: false })).toBeVisible();

  // All cases beside each other; then a code is renumbered, and what was keyed follows.
  await page.getByRole('button', { name: 'Grid' }).click();
  await expect(page.getByRole('table', { name: 'Keyed cases by variables' })).toContainText('1901');
  await accessible(page);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('status').filter({ hasText: 'Do you own or rent' })).toBeVisible();
  const rows = Papa.parse<string[]>((await textOf(page, 'Coded rows, CSV')).trimEnd()).data;
  expect(rows[1]?.slice(3)).toEqual(
    person.row().map((cell, n) => (rows[0]?.[n + 3] === 'built' ? '1901' : String(cell))),
  );
  await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
  await page.goto(`/studies/${id}/codes?part=book`);
  await page.getByRole('button', { name: 'Change the codes of tenure' }).click();
  const code = page.getByLabel('Code of “Own it, with or without a mortgage”');
  await code.fill('11');
  await code.press('Enter');
  await expect(page.getByText('tenure <> 11').first()).toBeVisible();
  await expect(page.getByText(/^Saved/).first()).toBeVisible();
  await page.goto(`/studies/${id}/codes?part=key`);
  await page.getByRole('button', { name: /^T-001 Ada Fenn/ }).click();
  const tenure = String(person.answers.tenure);
  await expect(page.locator('[data-key="tenure"]')).toHaveValue(tenure === '1' ? '11' : tenure);
});

test('the codebook: labels and missing codes in place, a convention, and a sheet brought back', async ({
  page,
}) => {
  const id = await copyOf(page, HEATING);
  await page.goto(`/studies/${id}/codes`);
  await expect(page.getByText('130 columns', { exact: true }).last()).toBeVisible();
  await expect(page.getByRole('button', { name: '100% expected' }).first()).toBeVisible();
  await accessible(page);
  // The words of a code are whole.
  const words = page.getByRole('row', { name: /^tenure/ }).getByText('Own it, with or without a mortgage');
  expect(await words.evaluate((cell) => cell.scrollWidth - cell.clientWidth)).toBe(0);
  expect(await words.evaluate((cell) => getComputedStyle(cell).whiteSpace)).toBe('normal');
  await page.getByLabel('Label of tenure').fill('How the home is held');
  await page.keyboard.press('Enter');

  // A code that could be an answer is a snag, with free codes to choose from.
  await page.getByRole('button', { name: 'Change the codes of tenure' }).click();
  const own = page.getByLabel('Code of tenure for Asked, left blank');
  await own.fill('2');
  await own.press('Enter');
  await expect(page.getByRole('button', { name: /^1 snag/ })).toBeVisible();
  await page.getByRole('button', { name: /^1 snag/ }).click();
  await page.getByRole('button', { name: /^Use -3 for “no answer” in tenure/ }).click();
  await expect(page.getByRole('button', { name: /^0 snags/ })).toBeVisible();
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Missing codes' }).click();
  await page.getByLabel('A reason of your own').fill('Page lost');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByLabel('Code for Page lost')).toHaveValue('-5');
  await page.getByRole('button', { name: /^High codes/ }).click();
  await expect(page.getByLabel('Code for Page lost')).toHaveValue('99');
  await expect(page.getByRole('button', { name: /^0 snags/ })).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Code for Page lost')).toHaveValue('-5');

  await page.getByRole('button', { name: 'Take a sheet back' }).click();
  await page
    .locator('#codebook-sheet')
    .fill('variable\tlabel\tcodes\nlandlord\tWho lets it\t1 = Private\nnobody\tx\t');
  await expect(page.getByText('2 changes, 1 row that cannot be taken over')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Make 2 changes' }).click();
  await expect(page.getByLabel('Label of landlord')).toHaveValue('Who lets it');
  expect(await textOf(page, 'Sheet, CSV')).toContain('How the home is held');
});

test('tables on three bases, where a condition holds, against another, taken elsewhere', async ({ page }) => {
  const id = await copyOf(page, HEATING);
  const people = [...madeUpRespondents(plan(), 600, 1)];
  const asked = people.filter(({ presented }) => presented.includes('landlord'));
  await page.goto(`/studies/${id}/codes?part=tables&variable=landlord`);
  const table = page.getByRole('table');
  await expect(table.getByRole('row', { name: /Asked/ })).toContainText(String(asked.length));
  const council = asked.filter(({ answers }) => answers.landlord === 2).length;
  const share = (of: number) => ((100 * council) / of).toFixed(1);
  const row = table.getByRole('row', { name: /council/ });
  await expect(row).toContainText(`${council}${share(600)}${share(asked.length)}`);
  await row.getByRole('button').click();
  const said = page.getByRole('group', { name: 'What may be said' });
  await expect(said).toContainText(
    `Of those made-up respondents asked, where Tenure is not “Own it, with or without a mortgage” (n = ${asked.length})`,
  );
  await expect(said).toContainText('Of all made-up respondents (n = 600)');
  await accessible(page);

  const filter = page.getByLabel('Only where');
  await filter.fill('tenure = 2 and');
  await filter.press('Enter');
  await expect(page.getByRole('alert')).toBeVisible();
  await filter.fill('tenure = 2');
  await filter.press('Enter');
  const renting = people.filter(({ answers }) => answers.tenure === 2).length;
  await expect(page.getByText(`only where tenure = 2: ${renting} of 600 rows`)).toBeVisible();
  await page.getByLabel('Against').selectOption('heat_say');
  await expect(page.getByText('without an answer to', { exact: false })).toBeVisible();
  // Percent of rows from the first row to the last: the last is of everybody.
  const everybody = page.getByRole('row', { name: /^All/ });
  await expect(everybody.getByRole('cell').first()).toHaveText(/^\d+\.\d$/);
  await page.getByRole('button', { name: 'Counts' }).click();
  const cells = Papa.parse<string[]>((await textOf(page, 'CSV')).trimEnd()).data;
  const total = Number(cells.at(-1)?.at(-1));
  const body = cells.slice(3, -1).map((line) => Number(line.at(-1)));
  expect(body.reduce((sum, count) => sum + count, 0)).toBe(total);
  await accessible(page);
});
