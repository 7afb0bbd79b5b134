/** Release: a version is frozen once nothing stands in the way, and held against what was changed since. */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import { accessible, expect, home, saved, test } from './support';

const question = (name: string, label: string, text: string, rest: object = {}) => ({
  kind: 'question',
  name,
  label,
  text,
  required: true,
  answer: {
    type: 'single',
    options: [
      { code: 1, label: 'Yes' },
      { code: 2, label: 'No' },
    ],
  },
  ...rest,
});
const STUDY = {
  format: 'jolly-fork/questionnaire',
  version: 1,
  title: 'Allotment Waiting List',
  language: 'en',
  missing: ['not_applicable', 'not_drawn', 'no_answer', 'not_reached'].map((reason, n) => ({
    reason,
    code: -1 - n,
    label: reason.replace('_', ' '),
  })),
  sections: [
    {
      id: 'plot',
      title: 'The plot',
      kind: 'topic',
      items: [
        question('grows', 'Grows food', 'Do you grow any food?'),
        question('wants', 'Wants a plot', 'Would you like an allotment?', { askIf: 'grows = 1' }),
        question('garden', 'Has a garden', 'Do you have a garden?'),
      ],
    },
  ],
  endings: [{ id: 'done', kind: 'complete', messages: [{ text: 'Thank you.' }] }],
};

/** A file of this name, as a person has it. */
function kept(name: string, bytes: Uint8Array): string {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'jolly-fork-release-')), name);
  writeFileSync(file, bytes);
  return file;
}

async function added(page: Page): Promise<string> {
  const reply = await page.request.post('/api/studies', { data: { document: STUDY } });
  return ((await reply.json()) as { id: string }).id;
}

test('a version is refused, then frozen; a lost route is walked on both sides, and the version restored', async ({
  page,
}) => {
  const id = await added(page);
  await page.goto(`/studies/${id}/release`);
  await expect(page.getByRole('heading', { name: 'No version has been kept yet' })).toBeVisible();
  const stop = page.getByRole('link', { name: /^Release/ });
  await expect(stop).toContainText('2 in the way');
  await accessible(page);

  // Without a reason it is not frozen, and what stands in the way is a door to it.
  await page.getByRole('button', { name: 'Freeze all the same, with a reason …' }).click();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('Say why, and who says so.');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^Freeze all the same/ })).toBeFocused();
  await page.getByRole('button', { name: /^Routes not passed/ }).click();
  await page.getByRole('button', { name: '1', exact: true }).click();
  await page.getByLabel('Your name').fill('Ada Fenn');
  for (const number of [1, 2]) {
    await page.getByRole('button', { name: 'To the end' }).click();
    await page.getByRole('button', { name: new RegExp(`^Pass route ${number}`) }).click();
  }
  await expect(stop).toContainText('0 in the way');
  await stop.click();
  await page.getByRole('button', { name: 'Freeze version 1 …' }).click();
  await page.getByLabel('Note, if any').fill('for the pilot');
  await page.keyboard.press('Enter');
  const versions = page.getByRole('navigation', { name: 'Versions' });
  await expect(versions.getByRole('button', { name: /Frozen.*version 1/ })).toContainText('for the pilot');
  await expect(page.getByText('Nothing is other')).toBeVisible();

  // The draft goes on: nobody is asked whether they want a plot any more, and a question is worded otherwise.
  await page.getByRole('link', { name: /^Script/ }).click();
  await page.getByText('Do you have a garden?').click();
  await page
    .getByRole('textbox', { name: 'Words of the question' })
    .fill('Do you have a garden of your own?');
  await page.getByText('Would you like an allotment?').click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Delete');
  await saved(page);
  await stop.click();
  const found = page.getByRole('region', { name: 'Comparison' });
  await expect(found.getByRole('button', { name: '1 route lost' })).toBeVisible();
  await expect(found.getByRole('heading', { name: 'Wording' })).toBeVisible();
  await expect(found.locator('ins')).toContainText(['of your own']);
  await found.getByRole('button', { name: /break/ }).click();
  await expect(found.getByRole('heading', { name: 'Items' })).toBeHidden();
  await found.getByRole('button', { name: /break/ }).click();
  await found.getByRole('button', { name: '1 route lost' }).click();
  const sides = page.getByRole('region', { name: 'Lost route' });
  await expect(sides).toContainText('Would you like an allotment?');
  await expect(sides).toContainText('not asked');
  await accessible(page);
  await sides.getByRole('link', { name: 'Walk it in version 1' }).click();
  await expect(page.getByText('to be read, not changed')).toBeVisible();
  await page.getByRole('button', { name: 'To the end' }).click();
  // What was passed on the draft before it was frozen is passed on the version.
  await expect(page.getByText('✓ Passed')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Pass route/ })).toHaveCount(0);
  await page.getByRole('link', { name: /^Script/ }).click();
  await expect(page.getByRole('article', { name: 'Script on paper' })).toContainText('Do you have a garden?');
  await accessible(page);

  await page.getByRole('link', { name: 'Back to Release' }).click();
  await expect(page.getByRole('heading', { name: /^Version 1, frozen/ })).toBeVisible();
  await page.getByRole('button', { name: 'Restore it as the draft' }).click();
  await expect(page.getByText('Version 1 is the draft again.')).toBeVisible();
  await versions.getByRole('button', { name: /^Draft/ }).click();
  await expect(page.getByText('Nothing is other')).toBeVisible();
  await expect(stop).toContainText('0 in the way');
  await page.keyboard.press('Control+z');
  await expect(found.getByRole('button', { name: '1 route lost' })).toBeVisible();

  // The frozen version leaves the house as a package, and comes in again as DDI: the same questionnaire.
  await versions.getByRole('button', { name: /Frozen.*version 1/ }).click();
  const coming = page.waitForEvent('download');
  const packing = page.getByRole('button', { name: 'Hand-over package, .zip' });
  await packing.press('Enter');
  const download = await coming;
  await expect(packing).toBeFocused();
  expect(download.suggestedFilename()).toBe('allotment-waiting-list-v1.package.zip');
  const files = unzipSync(readFileSync(await download.path()));
  const manifest = JSON.parse(strFromU8(files['manifest.json'] ?? new Uint8Array())) as {
    version: string;
    files: { path: string; bytes: number }[];
  };
  expect(manifest.version).toMatch(/^Version 1, frozen /);
  for (const { path: name, bytes } of manifest.files) expect(files[name]?.length, name).toBe(bytes);
  const ddi = files['archive/allotment-waiting-list.ddi33.xml'];
  await home(page);
  await page.getByLabel('Questionnaire file').setInputFiles(kept('study.xml', ddi ?? new Uint8Array()));
  await page.waitForURL('**/script');
  const copied = new URL(page.url()).pathname.split('/')[2] ?? '';
  const again = (await (await page.request.get(`/api/studies/${copied}/file`)).json()) as unknown;
  expect(again).toEqual(STUDY);
});

test('files of other programs are shown as they were understood, and then taken over', async ({ page }) => {
  await home(page);
  const file = page.getByLabel('Questionnaire file');
  await file.setInputFiles('tests/schemas/foreign-lifecycle.xml');
  const sheet = page.getByRole('region', { name: 'Import a file' });
  await expect(sheet.getByRole('status')).toContainText('2 sections, 4 questions, 0 skips, 2 ask-ifs');
  await expect(sheet.getByRole('region', { name: 'Not understood' })).toContainText(
    '“V1 eq 1” is no condition',
  );
  await accessible(page);

  // A table whose heads mean nothing here until somebody says what they mean; the next one is understood at once.
  const table =
    'Frage,Kurz,answers,filter,owner\nDo you rent?,rent,1 = Yes | 2 = No,,AF\nFrom whom?,from,,rent = 1,\n';
  await file.setInputFiles(kept('rent.csv', new TextEncoder().encode(table)));
  await expect(sheet.getByRole('status')).toContainText('say which column holds the questions');
  await sheet.getByLabel('Meaning of the column Frage').selectOption('text');
  await sheet.getByLabel('Meaning of the column Kurz').selectOption('name');
  await expect(sheet.getByRole('status')).toContainText('1 section, 2 questions, 0 skips, 1 ask-if');
  await expect(sheet.getByRole('region', { name: 'Not understood' })).toContainText('the column “owner”');
  await sheet.getByRole('button', { name: 'Cancel' }).click();
  await file.setInputFiles(kept('rent.csv', new TextEncoder().encode(table)));
  await expect(sheet.getByRole('status')).toContainText('2 questions');
  await sheet.getByRole('button', { name: 'Make a study of it' }).click();
  await page.waitForURL('**/script');
  await expect(page.getByText('From whom?').first()).toBeVisible();
});
