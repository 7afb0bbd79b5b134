/** Walking routes, changing an answer on the way back, and giving verdicts that are kept. */
import { accessible, copyOf, expect, test } from './support';

test('two routes walked and signed off, an answer changed on the way, all kept over a reload', async ({
  page,
}) => {
  const id = await copyOf(page, 'winter-diary');
  await page.goto(`/studies/${id}/routes`);
  await expect(page.getByText('routes, counted exactly')).toBeVisible();
  const ledger = page.getByRole('listbox', { name: /^Routes/ });
  const rows = ledger.getByRole('option');
  await expect(rows).toHaveCount(5);
  await ledger.focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'Route 2' })).toBeVisible();
  await page.keyboard.press('Enter');

  // Followed by the keyboard alone: "Next" has the focus on every page.
  await expect(page.getByText('Route 2 of 5', { exact: false })).toBeVisible();
  const next = page.getByRole('button', { name: 'Next' });
  await expect(next).toBeFocused();
  const verdict = page.getByRole('button', { name: 'Pass route 2, walk 3' });
  while (await next.isVisible()) await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: 'Complete' })).toBeVisible();
  await verdict.click();
  await expect(page.getByRole('alert')).toContainText('Give your name first');
  await page.getByRole('textbox', { name: 'Your name' }).fill('Ada Fenn');
  await verdict.click();
  await expect(page.getByText('Route 3 of 5', { exact: false })).toBeVisible();

  // Sent back, with a remark about one item.
  await page.getByRole('button', { name: 'Send back with a remark' }).click();
  await page.getByRole('textbox', { name: 'Remark' }).fill('The third question repeats the second.');
  // What was begun is still there after another route was followed, and the way back.
  for (const number of [4, 3]) {
    await page.getByRole('textbox', { name: 'Route to follow' }).fill(String(number));
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { name: `Verdict on route ${number}`, exact: true }).waitFor();
  }
  await expect(page.getByRole('textbox', { name: 'Remark' })).toHaveValue(/^The third question/);
  await page.getByRole('button', { name: 'Send back route 3' }).click();
  await expect(page.getByText('Sent back', { exact: false }).first()).toBeVisible();

  await page.goto(`/studies/${id}/routes`);
  await expect(rows.nth(1)).toHaveAccessibleName(/Route 2.*passed/);
  await expect(rows.nth(2)).toHaveAccessibleName(/Route 3.*sent back/);
  await expect(page.getByText('1 walked and passed · 1 sent back · 3 to go')).toBeVisible();
  await page.getByRole('combobox', { name: 'Verdict' }).selectOption('Walked');
  await expect(rows).toHaveCount(2);
  await accessible(page);
});

test('choosing freely: messages, a change of mind that drops answers, and the ending', async ({ page }) => {
  await page.goto('/studies/tern-valley-home-heating/walk');
  await page.getByRole('button', { name: 'Choose freely' }).click();
  const form = page.getByRole('form', { name: 'Respondent’s page' });
  const next = page.getByRole('button', { name: 'Next' });
  const trail = page.getByRole('navigation', { name: 'Trail' });

  // Nothing answered: the required questions say so, and the first has the focus.
  await next.click();
  await expect(form.getByRole('alert')).toContainText('to look at before going on');
  await expect(page.getByRole('radio', { name: 'Yes', exact: true }).first()).toBeFocused();
  // Digits answer the question in hand.
  await page.keyboard.press('1');
  await page.keyboard.press('Tab');
  await page.keyboard.press('1');
  await expect(page.getByRole('radio', { name: 'Yes, I agree' })).toBeChecked();
  await next.click();

  await page.getByRole('radio', { name: 'Rent it' }).check();
  await expect(page.getByText('Who is your landlord?')).toBeVisible();
  await page.getByRole('radio', { name: 'A council or housing association' }).check();
  await page.getByRole('radio', { name: 'Someone else in the household' }).check();
  await next.click();
  await expect(trail).toContainText('-1 not applicable');
  await expect(page.getByText('How old are you?', { exact: false })).toBeVisible();

  // Back: owning the home puts the landlord off the route.
  await page.getByRole('button', { name: 'Back' }).click();
  await page.getByRole('radio', { name: 'Own it, with or without a mortgage' }).check();
  await expect(page.getByText('Who is your landlord?')).toBeHidden();
  const why = page.getByRole('complementary', { name: 'Why, and the verdict' });
  await expect(why).toContainText('tenure was 2');
  await expect(why).toContainText('Going on drops landlord');
  await next.click();
  await expect(trail).toContainText('Dropped answers');
  await expect(trail.getByText('was 2')).toBeVisible();

  // Out of limits: the message is at the place, and nothing is lost.
  await page.getByRole('textbox', { name: 'How old are you?', exact: false }).fill('130');
  await next.click();
  await expect(form.getByRole('alert')).toContainText('from');
  await expect(page.getByRole('textbox', { name: 'How old are you?', exact: false })).toHaveValue('130');
  await accessible(page);
});

test('an edit re-opens just the routes on which something is shown differently', async ({ page }) => {
  const id = await copyOf(page, 'street-lighting-doorstep');
  await page.goto(`/studies/${id}/walk?route=1`);
  await page.getByRole('textbox', { name: 'Your name' }).fill('Ben Carr');
  await page.getByRole('button', { name: 'I have read it in the script' }).click();
  await page.getByRole('button', { name: /^Pass route 1/ }).click();
  await expect(page.getByText('Route 2 of 20', { exact: false })).toBeVisible();
  await page.getByRole('link', { name: 'Script' }).click();
  const talk = page.locator('[data-anchor="item:talk"]');
  await talk.getByText('Would you answer').click();
  // A rename changes nothing for the respondent.
  await page.getByRole('textbox', { name: 'Variable name' }).fill('talks');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: 'Routes' }).click();
  await expect(page.getByText('1 walked and passed · 19 to go')).toBeVisible();
  await page.getByRole('link', { name: 'Script' }).click();
  await page.getByText('Would you answer').click();
  await page.keyboard.type('Please: ');
  await page.getByRole('link', { name: 'Routes' }).click();
  await expect(page.getByText('0 walked and passed · 1 changed since · 20 to go')).toBeVisible();
});

test('a walk kept as a test respondent raises a snag when an edit changes it for them', async ({ page }) => {
  const id = await copyOf(page, 'street-lighting-doorstep');
  await page.goto(`/studies/${id}/walk?route=12`);
  await expect(page.getByText('Route 12 of 20', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'To the end' }).click();
  await page.getByRole('textbox', { name: 'Name of the test respondent' }).fill('Mrs Lund');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  const aside = page.getByRole('complementary', { name: 'Why, and the verdict' });
  await expect(aside).toContainText('✓ as kept');
  await accessible(page);

  await page.getByRole('link', { name: 'Script' }).click();
  await page.locator('[data-anchor="item:talk"]').getByText('Would you answer').click();
  await page.keyboard.type('Please: ');
  await page.getByRole('button', { name: /snags/ }).click();
  const snag = page.getByText(
    'For test respondent “Mrs Lund” something is different: talk shows something else',
    { exact: false },
  );
  await expect(snag).toBeVisible();
  await page.keyboard.press('Escape');
  await page.reload();
  await page.getByRole('link', { name: 'Walk' }).click();
  await expect(aside).toContainText('↻ talk shows something else');
  await page.getByRole('button', { name: 'Keep as it is now' }).click();
  await expect(aside).toContainText('✓ as kept');
});

test('what each answer leads to, the routes still possible, and the coded row are told as one walks', async ({
  page,
}) => {
  await page.goto('/studies/tern-valley-home-heating/walk');
  await page.getByRole('button', { name: 'Choose freely' }).click();
  // What a blank leads to is told where one is allowed: not here.
  await expect(page.getByText('Why adult is asked')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Left blank' })).toBeHidden();
  await page.getByRole('radio', { name: 'Yes', exact: true }).first().check();
  await page.getByRole('radio', { name: 'Yes, I agree' }).check();
  await page.getByRole('button', { name: 'Next' }).click();
  const trail = page.getByRole('navigation', { name: 'Trail' });
  await expect(trail).toContainText('2,048,261 routes still possible');
  await page.getByRole('radio', { name: 'Rent it' }).check();
  await expect(trail).toContainText('1,365,507 routes still possible');
  const aside = page.getByRole('complementary', { name: 'Why, and the verdict' });
  await expect(aside).toContainText('heat_say Own it, with or without a mortgage');
  await page.getByText('The coded row as it stands').click();
  await expect(page.getByRole('row', { name: 'tenure 2' })).toBeVisible();
  await expect(page.getByRole('row', { name: 'moved_in -4' })).toBeVisible();
  // A name goes on after an underscore, never in the middle of a word.
  const name = page.getByRole('rowheader', { name: 'moved_in' });
  expect(await name.evaluate((cell) => [cell.innerHTML, getComputedStyle(cell).overflowWrap])).toEqual([
    'moved_<wbr>in',
    'break-word',
  ]);
  await accessible(page);
});

test('a hand-off is walked on into its follow-up, with what was carried and one closing thanks', async ({
  page,
}) => {
  await page.goto('/studies/tern-valley-home-heating/walk?route=1');
  await expect(page.getByText('Route 1 of', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'To the end' }).click();
  await expect(page.getByRole('heading', { name: 'Handed on' })).toBeVisible();
  await page.getByRole('button', { name: 'Walk on' }).click();
  const trail = page.getByRole('navigation', { name: 'Trail' });
  await expect(trail).toContainText('Winter Diary');
  await expect(page.getByRole('complementary', { name: 'Why' })).toContainText('heat_main = 2, people = 2');
  await accessible(page);
  // A page a question; logs are asked of those with a stove only, which was carried along.
  const next = page.getByRole('button', { name: 'Next' });
  await page.getByRole('radio', { name: 'Yes' }).check();
  await next.click();
  await page.getByLabel('Which day are you writing about?').fill('2026-12-01');
  await next.click();
  await page
    .getByRole('radio', { name: 'It was not on' })
    .or(page.getByRole('checkbox', { name: 'It was not on' }))
    .check();
  await next.click();
  await page.getByRole('radio').nth(3).check();
  await next.click();
  await page.getByRole('radio', { name: 'No', exact: true }).check();
  await next.click();
  await next.click();
  await expect(page.getByRole('heading', { name: 'Complete' })).toBeVisible();
  await page.getByRole('button', { name: 'Back to the first questionnaire' }).first().click();
  await expect(page.getByRole('heading', { name: 'Handed on' })).toBeVisible();
});

test('a section with a time limit shows its clock, and moves on when the time is over', async ({ page }) => {
  const question = (name: string) => ({
    kind: 'question',
    name,
    text: `Question ${name}?`,
    required: true,
    answer: { type: 'single', options: [{ code: 1, label: `Yes to ${name}` }] },
  });
  const empty = (await (await page.request.get('/api/studies/winter-diary/file')).json()) as object;
  const document = {
    ...empty,
    title: 'Against the clock',
    given: [],
    sections: [
      { id: 'quick', title: 'Quick', kind: 'topic', timeLimit: 3, items: [question('one'), question('two')] },
      { id: 'calm', title: 'Calm', kind: 'topic', items: [question('three')] },
    ],
    settings: { pages: 'item' },
  };
  const reply = await page.request.post('/api/studies', { data: { document } });
  expect(reply.ok()).toBe(true);
  const { id } = (await reply.json()) as { id: string };
  await page.goto(`/studies/${id}/walk`);
  await page.getByRole('button', { name: 'Choose freely' }).click();
  await expect(page.getByRole('timer', { name: 'Time left in this section' })).toHaveText(/^0:0[123]$/);
  await expect(page.getByText('Question three?')).toBeVisible();
  await expect(page.getByRole('timer')).toHaveCount(0);
  const trail = page.getByRole('navigation', { name: 'Trail' });
  await expect(trail.getByText('two')).toBeVisible();
  await page.getByText('The coded row as it stands').click();
  await expect(page.getByRole('row', { name: 'one -3' })).toBeVisible();
  await expect(page.getByRole('row', { name: 'two -4' })).toBeVisible();
});

test('a human check comes before the first page of a free walk, and is no part of the route', async ({
  page,
}) => {
  const id = await copyOf(page, 'winter-diary');
  await page.goto(`/studies/${id}/script`);
  await page.getByRole('button', { name: 'Settings of the study' }).click();
  await page.getByRole('checkbox', { name: /Human check/ }).check();
  await expect(page.getByText(/^Saved/)).toBeVisible();
  await page.goto(`/studies/${id}/walk`);
  await page.getByRole('button', { name: 'Choose freely' }).click();
  const check = page.getByRole('form', { name: 'Human check' });
  const field = check.getByRole('textbox');
  await expect(field).toBeFocused();
  await field.fill('none of them');
  await page.keyboard.press('Enter');
  await expect(check.getByRole('alert')).toContainText('Here is another one');
  await accessible(page);

  const numbers = ['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];
  const task = (await check.locator('label').textContent()) ?? '';
  const named = numbers.filter((word) => new RegExp(`\\b${word}\\b`).test(task.split(':')[1] ?? ''));
  await field.fill((task.includes('smallest') ? named[0] : named.at(-1)) ?? '');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('form', { name: 'Respondent’s page' })).toBeVisible();
  await expect(check).toBeHidden();
});
