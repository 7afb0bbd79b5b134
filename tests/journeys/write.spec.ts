/** Writing a questionnaire of five sections from nothing, by keyboard, and taking it away as a file. */
import { readFile } from 'node:fs/promises';
import type { Questionnaire, Question } from '../../src/core/document/types';
import { expect, home, inMenu, newStudy, saved, test } from './support';

test('five sections from nothing, by keyboard; then out and in again as the same file', async ({
  page,
}, info) => {
  await newStudy(page, 'Bus shelter survey');
  const key = (name: string) => page.keyboard.press(name);
  const type = (text: string) => page.keyboard.type(text);

  // Consent is there already: a question with two answers, the second of which ends the interview.
  await page.getByRole('button', { name: 'Add a question' }).click();
  await type('May we ask you a few questions?');
  await key('Enter');
  await expect(page.getByRole('textbox', { name: 'Answer 1', exact: true })).toBeFocused();
  await key('ArrowRight');
  await type(', go ahead');
  await page.getByRole('textbox', { name: 'Answer 2', exact: true }).focus();
  await key('Alt+ArrowRight');
  await expect(page.getByRole('combobox', { name: 'Go to' })).toBeFocused();
  await type('decl');
  await key('Enter');
  await expect(page.getByRole('button', { name: 'Where answer 2 leads', exact: true })).toContainText(
    'Declined',
  );

  for (const title of ['Screening', 'Waiting', 'About you', 'Closing']) {
    await page.getByRole('button', { name: 'Add a section' }).last().click();
    await expect(page.getByRole('textbox', { name: 'Title of the section' })).toBeFocused();
    await type(title);
    await key('Enter');
    await key('Enter');
    await expect(page.getByRole('textbox', { name: 'Words of the question' })).toBeFocused();
    await type(`Question of ${title}?`);
  }
  await expect(page.getByRole('navigation', { name: 'Contents' })).toContainText('Closing');

  // A skip in two keystrokes: from the second answer of Screening over Waiting.
  await page.getByText('Question of Screening?').click();
  await page.getByRole('textbox', { name: 'Answer 2', exact: true }).focus();
  await key('Alt+ArrowRight');
  await key('1');
  await expect(page.getByRole('button', { name: 'Where answer 2 leads', exact: true })).toContainText(
    'C Waiting',
  );
  await page.getByRole('button', { name: 'Where answer 2 leads', exact: true }).click();
  await type('about');
  await key('Enter');
  await expect(page.getByRole('button', { name: 'Where answer 2 leads', exact: true })).toContainText(
    'D About you',
  );

  // Names, types and limits in place.
  await page.getByText('Question of Waiting?').click();
  await page.getByRole('textbox', { name: 'Variable name' }).fill('wait');
  await key('Enter');
  await page.getByRole('button', { name: /^Answer type/ }).click();
  await page
    .getByRole('listbox', { name: 'Answer types' })
    .getByRole('option', { name: /^number/ })
    .click();
  await page.getByRole('textbox', { name: 'to', exact: true }).fill('60');
  await key('Tab');
  await page.getByText('Question of Closing?').click();
  await page.getByRole('button', { name: 'Ask all, or only if …' }).click();
  await type('wait >= 10');
  await saved(page);
  // That nobody is screened out yet, and so never comes to that ending, is told; labels are still to be written.
  await expect(page.getByRole('button', { name: '2 snags · 5 notes' })).toBeVisible();

  const download = async (name: string) => {
    await inMenu(page, 'Save as a file');
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Questionnaire alone' }).click(),
    ]);
    const path = info.outputPath(name);
    await file.saveAs(path);
    await page.keyboard.press('Escape');
    return { path, text: await readFile(path, 'utf8') };
  };
  const first = await download('bus.fork.json');
  const written = JSON.parse(first.text) as Questionnaire;
  expect(written.sections.map(({ title, kind }) => [title, kind])).toEqual([
    ['Consent', 'consent'],
    ['Screening', 'screening'],
    ['Waiting', 'topic'],
    ['About you', 'background'],
    ['Closing', 'closing'],
  ]);
  const [screening, waiting, , closing] = written.sections.slice(1).map(({ items }) => items[0] as Question);
  expect(screening?.skips).toEqual([{ if: 'q2 = 2', to: { section: 'about_you' } }]);
  expect(waiting?.answer).toEqual({ type: 'number', min: 0, max: 60 });
  expect(closing?.askIf).toBe('wait >= 10');

  await home(page);
  await page.getByLabel('Questionnaire file').setInputFiles(first.path);
  await page.waitForURL('**/script');
  const second = await download('bus-again.fork.json');
  expect(second.text).toBe(first.text);
});

test('everything is undone and redone, also after a reload, which loses nothing', async ({ page }) => {
  await newStudy(page, 'Undo');
  await page.getByRole('button', { name: 'Add a question' }).click();
  await page.keyboard.type('First?');
  await page.keyboard.press('Control+Enter');
  await page.keyboard.type('Second?');
  // Reloaded at once: what was typed last may not have been saved yet.
  await page.reload();
  await expect(page.getByText('Second?')).toBeVisible();
  await saved(page);

  await page.keyboard.press('Control+z');
  await expect(page.getByText('Second?')).toBeHidden();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('First?')).toBeHidden();
  for (let n = 0; n < 3; n += 1) await page.keyboard.press('Control+Shift+z');
  await expect(page.getByText('First?')).toBeVisible();
  await expect(page.getByText('Second?')).toBeVisible();

  // Moved, deleted, and back.
  await page.getByText('Second?').click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Alt+ArrowUp');
  const names = page.locator('[data-anchor^="item:"]');
  await expect(names.first()).toHaveAttribute('data-anchor', 'item:q2');
  await page.keyboard.press('Delete');
  await expect(names).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(names.first()).toHaveAttribute('data-anchor', 'item:q1');
  await expect(names).toHaveCount(2);
  await saved(page);
});

test('items and sections are dragged to another place', async ({ page }) => {
  await newStudy(page, 'Dragging');
  for (const text of ['One?', 'Two?', 'Three?']) {
    await page.getByRole('button', { name: 'Add a question' }).click();
    await page.keyboard.type(text);
  }
  await page.getByRole('button', { name: 'Add a section' }).last().click();
  await page.keyboard.type('Later');
  await page.getByText('One?').hover();
  const grip = await page.getByRole('button', { name: 'Drag q1' }).boundingBox();
  const end = await page.getByText('Nothing is asked in this section yet').boundingBox();
  if (grip === null || end === null) throw new Error('nothing to drag');
  await page.mouse.move(grip.x + 5, grip.y + 5);
  await page.mouse.down();
  await page.mouse.move(grip.x + 20, grip.y + 40, { steps: 4 });
  // Each step is told to those who cannot see it.
  const over = (words: RegExp) => page.getByRole('status').filter({ hasText: words });
  // Places are measured once something is dragged: whoever lets go sooner than that drops it where it was.
  await expect(async () => {
    await page.mouse.move(end.x + 40, end.y + 4, { steps: 2 });
    await page.mouse.move(end.x + 60, end.y + 8, { steps: 6 });
    await expect(over(/q1 is over the end of Later/)).toBeAttached({ timeout: 1000 });
  }).toPass();
  await page.mouse.up();
  await expect(page.getByRole('region', { name: 'Later' })).toContainText('One?');

  await page.getByRole('button', { name: 'B Later' }).focus();
  await page.keyboard.press('Space');
  await expect(over(/section Later is over section Later/)).toBeAttached();
  // What drags hears no key until it has measured the places, which it does not tell; a person is never as fast.
  await expect(async () => {
    await page.keyboard.press('ArrowUp');
    await expect(over(/section Later is over section Consent/)).toBeAttached({ timeout: 1000 });
  }).toPass();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'A Later' })).toBeVisible();
});
