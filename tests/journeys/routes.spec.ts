/** The ledger: finding routes, comparing them, what an edit re-opens, and very many of them. */
import { dense } from '../../bench/families/dense';
import { generate } from '../../bench/generate';
import { accessible, copyOf, expect, scrolledTo, test } from './support';

test('the routes of tenants with a heat pump: found, compared, walked by keyboard, passed, and re-opened by one skip', async ({
  page,
}) => {
  const id = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${id}/routes`);
  const ledger = page.getByRole('listbox', { name: /^Routes/ });
  const rows = ledger.getByRole('option');
  await expect(page.getByText('of them take every fork')).toBeVisible();

  // Through the landlord's question and the heat pump's; what is drawn in one row.
  await page.getByRole('combobox', { name: 'Through …' }).selectOption('landlord');
  await page.getByRole('combobox', { name: 'Through …' }).selectOption('hp_kind');
  await page.getByRole('checkbox', { name: 'Fold what is drawn' }).check();
  await expect(page.getByText(/rows listed; in all 2,048,263 routes/)).toBeVisible();
  await expect(rows.first()).toHaveAccessibleName(/and 55 that differ in what was drawn/);
  await page.getByRole('checkbox', { name: 'Fold what is drawn' }).uncheck();
  await page.getByRole('combobox', { name: 'Order' }).selectOption('Shortest first');
  await expect(page.getByText('A respondent who says', { exact: false })).toContainText('Heat pump');
  await accessible(page);

  // By an answer that is written, and by how many rooms are gone through: those say four rooms at least.
  const through = page.getByRole('button', { name: 'Not: Through landlord' });
  await page.getByRole('combobox', { name: 'Answering …' }).selectOption('?rooms_heated');
  const written = page.getByRole('textbox', { name: 'Answer asked for' });
  await written.fill('rooms_heated > tenure');
  await page.keyboard.press('Enter');
  await expect(page.getByText('name one question, and what is answered to it')).toBeVisible();
  await written.fill('rooms_heated > 3');
  await page.keyboard.press('Enter');
  await page.getByRole('combobox', { name: 'Passes …' }).selectOption('each_room/3');
  await expect(page.getByText('No route is left by these choices.')).toBeVisible();
  await page.getByRole('combobox', { name: 'Passes …' }).selectOption('each_room/5');
  await expect(rows.first()).toHaveAccessibleName(/5 passes/);
  await page.getByRole('combobox', { name: 'Answering …' }).selectOption('tenure = 1');
  await expect(page.getByText('No route is left by these choices.')).toBeVisible();
  for (const chip of [/^Not: Answering tenure/, /^Not: Answering rooms_heated/, /^Not: 5 passes/])
    await page.getByRole('button', { name: chip }).click();
  await expect(through).toBeVisible();

  // Two of them beside each other.
  await ledger.focus();
  await expect(ledger).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.getByRole('button', { name: /^Compare with route/ }).click();
  await expect(page.getByRole('region', { name: 'Comparison' })).toContainText('They part before');
  await page.getByRole('button', { name: 'Stop comparing' }).click();

  // Walked by keyboard, and passed.
  await ledger.focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Enter');
  const next = page.getByRole('button', { name: 'Next' });
  await expect(next).toBeFocused();
  const pass = page.getByRole('button', { name: /^Pass route/ });
  while (await next.isVisible()) await page.keyboard.press('Space');
  await page.getByRole('textbox', { name: 'Your name' }).fill('Ada Fenn');
  await page.keyboard.press('Tab');
  await expect(pass).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Walk 1 passed' })).toBeVisible();
  await page.goto(`/studies/${id}/routes`);
  await page.getByRole('button', { name: '1 walked and passed' }).click();
  await expect(rows).toHaveCount(1);
  await expect(rows.first()).toHaveAccessibleName(/passed$/);

  // A question that the route does not meet re-opens nothing; one skip of its own does, and it says what changed.
  await page.getByRole('link', { name: 'Script' }).click();
  const heat = await scrolledTo(page, page.locator('[data-anchor="item:heat_main"]'));
  await heat.getByText('What is the main way', { exact: false }).click();
  await page.getByRole('button', { name: 'Target of skip 2' }).click();
  await page.keyboard.type('boiler_swap');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: 'Routes' }).click();
  await expect(page.getByRole('button', { name: '1 walked and passed' })).toBeVisible();
  await page.getByRole('link', { name: 'Script' }).click();
  await (await scrolledTo(page, heat)).getByText('What is the main way', { exact: false }).click();
  await page.getByRole('button', { name: 'Target of skip 1' }).click();
  await page.keyboard.type('hp_year');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: 'Routes' }).click();
  await page.getByRole('button', { name: '1 changed since' }).click();
  await expect(rows).toHaveCount(1);
  await expect(rows.first()).toHaveAccessibleName(/changed$/);
  await expect(page.getByText('Since then:', { exact: false })).toContainText(
    'hp_kind is not asked any more',
  );
});

test('routes touched by the last edit are just those on which something else is shown', async ({ page }) => {
  const id = await copyOf(page, 'street-lighting-doorstep');
  await page.goto(`/studies/${id}/script`);
  await page.locator('[data-anchor="item:talk"]').getByText('Would you answer').click();
  await page.keyboard.type('Please: ');
  await page.getByRole('link', { name: 'Routes' }).click();
  await page.getByRole('combobox', { name: 'Touched' }).selectOption('Touched by the last edit');
  const ledger = page.getByRole('listbox', { name: /^Routes/ });
  await expect(ledger).toHaveAccessibleName('Routes, 20 listed');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('No route is left by these choices.')).toBeVisible();
  await page.getByRole('button', { name: 'Show all routes' }).click();
  await expect(ledger).toHaveAccessibleName('Routes, 20 listed');
});

test('the search for few routes that take every fork is stopped, and begun again until they stand in front', async ({
  page,
}) => {
  const document = { ...dense(600, 1), title: 'Many forks' };
  const reply = await page.request.post('/api/studies', { data: { document } });
  const { id } = (await reply.json()) as { id: string };
  await page.goto(`/studies/${id}/routes`);
  await page.getByRole('button', { name: 'Every fork first' }).click();
  await page.getByRole('button', { name: 'Stop looking' }).click();
  await expect(page.getByText(/was stopped/)).toBeVisible();
  // The list is there meanwhile, and can be gone through.
  await page.getByRole('listbox', { name: /^Routes/ }).press('End');
  await page.getByRole('button', { name: 'Look again' }).click();
  await expect(page.getByText(/between them take every fork.*The others follow/)).toBeVisible();
  await page.getByRole('listbox', { name: /^Routes/ }).press('Home');
  await expect(page.getByText('◆ One of the', { exact: false })).toContainText('Of them only this one has');
});

test('a ledger of more than 10 to the 30 routes scrolls to its last row', async ({ page }) => {
  const document = { ...generate({ items: 400, longRange: 2 }), title: 'Very many' };
  const reply = await page.request.post('/api/studies', { data: { document } });
  const { id } = (await reply.json()) as { id: string };
  await page.goto(`/studies/${id}/routes`);
  const ledger = page.getByRole('listbox', { name: /^Routes/ });
  await expect(ledger).toBeVisible();
  const total = BigInt(((await ledger.getAttribute('aria-label')) ?? '').replace(/\D/g, ''));
  expect(total > 10n ** 30n).toBe(true);
  await ledger.focus();
  await page.keyboard.press('End');
  const current = ledger.getByRole('option', { selected: true });
  await expect(current).toHaveAccessibleName(new RegExp(`^Route ${total},`));
  // Less room for the sheet leaves its current row in sight.
  const inSight = await ledger.getByRole('option').count();
  await page.setViewportSize({ width: 1280, height: 640 });
  await expect.poll(() => ledger.getByRole('option').count()).toBeLessThan(inSight);
  await expect(current).toHaveAccessibleName(new RegExp(`^Route ${total},`));
  // Nor does a line that goes from above it, and comes again before the sheet is drawn.
  await ledger.evaluate(async (node) => {
    const drawn = () => new Promise(requestAnimationFrame);
    node.style.minHeight = `${node.clientHeight + 120}px`;
    node.scrollTop += 0;
    node.style.minHeight = '';
    for (let n = 0; n < 10; n += 1) await drawn();
  });
  await expect(current).toHaveAccessibleName(new RegExp(`^Route ${total},`));
  await page.keyboard.press('ArrowUp');
  await expect(current).toHaveAccessibleName(new RegExp(`^Route ${total - 1n},`));
  await page.keyboard.press('Home');
  await expect(current).toHaveAccessibleName(/^Route 1,/);
  await page.getByRole('button', { name: 'Wider columns' }).click();
  await accessible(page);
});
