/** What the hands do all day: lists written with Enter, lists that close on Escape, deleting and taking back. */
import type { Locator } from '@playwright/test';
import { copyOf, expect, home, newStudy, saved, scrolledTo, test } from './support';

test('answers are written line by line, and the list ends on an empty line', async ({ page }) => {
  await newStudy(page, 'Ferry riders');
  const key = (name: string) => page.keyboard.press(name);
  const type = (text: string) => page.keyboard.type(text);
  const answer = (n: number) => page.getByRole('textbox', { name: `Answer ${n}`, exact: true });
  await page.getByRole('button', { name: 'Add a question' }).click();
  await type('How often do you take the ferry?');
  await key('Enter');
  await expect(page.getByText('a suggestion: write or paste')).toBeVisible();
  for (const label of ['Every day', 'Some weeks', 'Hardly ever']) {
    await type(label);
    await key('Enter');
  }
  await expect(page.getByText('a suggestion: write or paste')).toBeHidden();
  // The empty one ends the list: the next question is begun.
  await key('Enter');
  await expect(page.getByRole('textbox', { name: 'Words of the question' })).toBeFocused();
  await type('Why?');
  await page.getByText('How often do you take the ferry?').click();
  for (const [n, label] of ['Every day', 'Some weeks', 'Hardly ever'].entries()) {
    await expect(answer(n + 1)).toHaveValue(label);
    await expect(page.getByRole('textbox', { name: `Code of answer ${n + 1}` })).toHaveValue(String(n + 1));
  }
  await expect(answer(4)).toBeHidden();
  // In the middle Enter goes on, and Shift+Enter makes room.
  await answer(1).focus();
  await key('Enter');
  await expect(answer(2)).toBeFocused();
  await key('Shift+Enter');
  await type('On Sundays');
  await expect(answer(3)).toHaveValue('On Sundays');
  await saved(page);
});

test('Escape closes a list alone; what is deleted is said, and comes back where it was', async ({ page }) => {
  await newStudy(page, 'Ferry riders');
  const key = (name: string) => page.keyboard.press(name);
  const items = page.locator('[data-anchor^="item:"]');
  const last = page.getByRole('status', { name: 'Last change' });
  await page.getByRole('button', { name: 'Add a question' }).click();
  await page.keyboard.type('Is there a roof?');
  await key('Control+Enter');
  await page.keyboard.type('Is it dry?');
  await page.getByRole('button', { name: 'Ask all, or only if …' }).click();
  await page.keyboard.type('q');
  await expect(page.locator('.cm-tooltip-autocomplete')).toBeVisible();
  await key('Escape');
  await expect(page.locator('.cm-tooltip-autocomplete')).toBeHidden();
  await key('Backspace');
  await key('Backspace');
  await expect(items).toHaveCount(2);
  await expect(page.getByRole('textbox', { name: 'q2 is asked if' })).toBeFocused();

  // Out of the field, and the question itself is selected: now it goes, and that is said.
  await key('Escape');
  await key('Escape');
  await key('Backspace');
  await expect(items).toHaveCount(1);
  await expect(last).toContainText('q2 (“Is it dry?”) is deleted.');
  await last.getByRole('button', { name: 'Take it back' }).click();
  await expect(items).toHaveCount(2);
  await expect(last).toContainText('Taken back: Delete q2.');
});

test('an undo says what it took back and shows it, one thing at a time, and can be done again', async ({
  page,
}) => {
  const id = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${id}/script`);
  const undo = () => page.keyboard.press('Control+z');
  const last = page.getByRole('status', { name: 'Last change' });
  // Two answers taken away one right after the other are two steps.
  const kind = await scrolledTo(page, page.locator('[data-anchor="item:home_type"]'));
  await kind.click({ position: { x: 200, y: 12 } });
  const answers = kind.getByRole('textbox', { name: /^Answer \d+$/ });
  const before = await answers.count();
  await answers.nth(1).fill('');
  await page.keyboard.press('Backspace');
  await expect(answers).toHaveCount(before - 1);
  await answers.nth(1).fill('');
  await page.keyboard.press('Backspace');
  await expect(answers).toHaveCount(before - 2);

  await page.getByRole('region', { name: 'Sheet' }).evaluate((node) => node.scrollTo(0, 0));
  await undo();
  await expect(last).toContainText('Taken back: Delete an answer.');
  await expect(kind).toBeInViewport();
  await expect(answers).toHaveCount(before - 1);
  await undo();
  await undo();
  await expect(answers).toHaveCount(before);
  await undo();
  for (let n = 0; n < 4; n += 1) await page.keyboard.press('Control+Shift+z');
  await expect(last).toContainText('Done again: Delete an answer.');
  await expect(answers).toHaveCount(before - 2);
});

test('where a skip leads is chosen inside the window, also at the narrowest width', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 640 });
  await page.goto('/studies/tern-valley-home-heating/script');
  const item = await scrolledTo(page, page.locator('[data-anchor="item:tenure"]'));
  await item.click({ position: { x: 200, y: 12 } });
  await page.getByRole('button', { name: 'Add a skip' }).click();
  const field = page.getByRole('combobox', { name: 'Go to' });
  await expect(field).toBeFocused();
  const list = page.getByRole('listbox', { name: 'Targets' });
  // Each corner is inside the window, and nothing lies over it; measured at one moment, since the sheet may still move.
  const hiddenCorners = (part: Locator) =>
    part.evaluate((node) => {
      const { left, right, top, bottom } = node.getBoundingClientRect();
      const corners = [left + 3, right - 3].flatMap((x) => [top + 3, bottom - 3].map((y) => [x, y] as const));
      return corners.filter(
        ([x, y]) => document.elementFromPoint(x, y)?.closest('div:has(> [role=combobox])') == null,
      );
    });
  for (const part of [field, list]) await expect.poll(() => hiddenCorners(part)).toEqual([]);
  await page.keyboard.press('Escape');
  await expect(field).toBeHidden();

  // What kind an answer is stands whole, below it where there is no room beside it.
  const kind = item.getByRole('combobox', { name: 'Kind of answer 2' });
  await item.getByRole('textbox', { name: 'Answer 2', exact: true }).focus();
  const narrow = (await kind.boundingBox())?.width ?? 0;
  await kind.evaluate((select) => select.removeAttribute('data-plain'));
  expect((await kind.boundingBox())?.width).toBeGreaterThan(Math.max(narrow, 150));

  // The strip has room for two stops more, in every view.
  for (const stop of ['script', 'forks', 'routes', 'walk', 'codes']) {
    await page.goto(`/studies/tern-valley-home-heating/${stop}`);
    const strip = page.getByRole('banner');
    await expect(strip.getByRole('link', { name: /^Routes/ })).toContainText('in all');
    const over = await strip.evaluate((bar) => {
      const stops = bar.querySelector('nav');
      for (const name of ['Release', 'Forecast']) {
        const more = stops?.lastElementChild?.cloneNode(true) as HTMLElement;
        if (more.firstChild) more.firstChild.textContent = name;
        stops?.append(more);
      }
      return [bar.scrollWidth - bar.clientWidth, document.documentElement.scrollWidth - innerWidth];
    });
    expect(over, stop).toEqual([0, 0]);
  }
});

test('a section comes after the one that is selected, and Alt with the arrows moves it', async ({ page }) => {
  await newStudy(page, 'Ferry riders');
  const contents = page.getByRole('navigation', { name: 'Contents' });
  const titles = () => contents.locator('[data-field^="@contents/"]').allInnerTexts();
  const add = async (title: string) => {
    await contents.getByRole('button', { name: 'Add a section' }).click();
    await page.keyboard.type(title);
    await page.keyboard.press('Enter');
  };
  await add('Crossing');
  await add('About you');
  await contents.getByRole('button', { name: /Crossing/ }).click();
  await add('On board');
  const order = async () =>
    (await titles()).map((text) => /(Crossing|On board|About you)/.exec(text)?.[1] ?? '-');
  await expect.poll(order).toEqual(['-', 'Crossing', 'On board', 'About you']);
  const moved = contents.getByRole('button', { name: /On board/ });
  await moved.focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(order).toEqual(['-', 'On board', 'Crossing', 'About you']);
  await expect(moved).toBeFocused();
});

test('labels for all questions are drawn from their words, looked at, and given in one step', async ({
  page,
}) => {
  await home(page);
  await page.getByRole('button', { name: 'Paste a list' }).click();
  await page
    .getByRole('textbox', { name: 'Questions' })
    .fill('CROSSING\n1. Do you own a boat?\nYes / No\n2. How old is it?\n____\n3. Is it dry?\nYes / No');
  await page.getByRole('button', { name: 'Make the questionnaire' }).click();
  await page.waitForURL('**/script');
  await page.getByRole('button', { name: /3 notes/ }).click();
  await page.getByRole('button', { name: 'Label all from the questions' }).click();
  await expect(page.getByRole('textbox', { name: 'Label of q1' })).toBeFocused();
  await expect(page.getByRole('textbox', { name: 'Label of q1' })).toHaveValue('Own a boat');
  await page.getByRole('textbox', { name: 'Label of q2' }).fill('Age of the boat');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Label of q3' })).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Label all from the questions')).toBeHidden();
  await page.keyboard.press('Escape');
  await page.goto(page.url().replace('/script', '/codes'));
  for (const label of ['Own a boat', 'Age of the boat', 'Is it dry'])
    await expect(page.getByRole('row', { name: label })).toBeVisible();
});

test('the keys of a view are told under ?, which is a mere letter while something is written', async ({
  page,
}) => {
  await page.goto('/studies/tern-valley-home-heating/routes');
  await page.getByText('of them take every fork').waitFor();
  const keys = page.getByRole('region', { name: 'Keys' });
  await page.getByRole('listbox', { name: /^Routes/ }).focus();
  await page.keyboard.press('?');
  await expect(keys).toContainText('Keys in Routes');
  await expect(keys).toContainText('walk the route');
  await page.keyboard.press('Escape');
  await expect(keys).toBeHidden();
  await page.getByRole('textbox', { name: 'Go to route' }).focus();
  await page.keyboard.press('?');
  await expect(keys).toBeHidden();
});
