/** A reviewer's link: reading, walking, commenting and judging, without changing; and the script on paper. */
import { accessible, copyOf, expect, home, inMenu, test } from './support';

test('a reviewer reads, comments and passes a route under their own name, changes nothing, and is shut out again', async ({
  page,
  browser,
}, info) => {
  const id = await copyOf(page, 'street-lighting-doorstep');
  await page.goto(`/studies/${id}/script`);
  await inMenu(page, 'Links for reviewers');
  const panel = page.getByRole('region', { name: 'Reviewers' });
  await panel.getByRole('textbox', { name: 'Whom the link is for' }).fill('Ethics board');
  await page.keyboard.press('Enter');
  const address = await panel.getByRole('textbox', { name: 'Link for Ethics board' }).inputValue();
  expect(address).toMatch(/\/review\/[\w-]{32}$/);
  await accessible(page);

  // The reviewer, in a browser of their own.
  const visitor = await (await browser.newContext()).newPage();
  await visitor.goto(address);
  const paper = visitor.getByRole('article', { name: 'Script on paper' });
  await expect(paper).toContainText('Street Lighting Doorstep Survey');
  await expect(visitor.getByRole('textbox', { name: 'Title of the study' })).toHaveCount(0);
  await expect(visitor.getByRole('button', { name: 'Undo' })).toHaveCount(0);
  expect(await visitor.content()).not.toContain(id);
  await accessible(visitor);
  await paper.getByRole('button', { name: 'talk', exact: true }).click();
  await visitor.getByRole('button', { name: 'Comment on this' }).click();
  await visitor.getByRole('textbox', { name: 'Comment' }).fill('Say how long it takes.');
  // The name is that of the link.
  await expect(visitor.getByRole('textbox', { name: 'Your name' })).toHaveCount(0);
  await visitor.getByRole('button', { name: 'Add the comment' }).click();
  await expect(visitor.getByText('Say how long it takes.')).toBeVisible();
  await visitor.getByRole('button', { name: 'Comment on this' }).click();
  await visitor.getByRole('textbox', { name: 'Comment' }).fill('Written too soon.');
  await visitor.getByRole('button', { name: 'Add the comment' }).click();
  await visitor.getByText('Written too soon.').locator('..').getByRole('button', { name: 'Remove' }).click();
  await expect(visitor.getByText('Written too soon.')).toBeHidden();

  await visitor.getByRole('link', { name: 'Routes' }).click();
  const ledger = visitor.getByRole('listbox', { name: /^Routes/ });
  // There is a route to walk once the first row is there.
  await expect(ledger.getByRole('option').first()).toBeVisible();
  await ledger.focus();
  await visitor.keyboard.press('Enter');
  // It can be passed once it was seen to its end.
  await expect(visitor.getByRole('button', { name: /^Pass route 1/ })).toBeHidden();
  await visitor.getByRole('button', { name: 'To the end' }).click();
  await visitor.getByRole('button', { name: /^Pass route 1/ }).click();
  await expect(visitor.getByText('Route 2 of 20', { exact: false })).toBeVisible();

  // Nothing else is open to them.
  const api = address.replace('/review/', '/api/review/');
  for (const door of ['links', 'file', 'asides', 'draw']) {
    const reply = await visitor.request.put(`${api}/${door}`, { data: {} });
    expect([403, 404]).toContain(reply.status());
  }
  expect((await visitor.request.patch(`${api}/comments`, { data: {} })).status()).toBe(403);

  // The author finds the verdict and the comment.
  await page.goto(`/studies/${id}/routes`);
  await expect(
    page
      .getByRole('listbox', { name: /^Routes/ })
      .getByRole('option')
      .first(),
  ).toHaveAccessibleName(/passed$/);
  await expect(page.getByRole('region', { name: 'Current route' })).toContainText('passed by Ethics board');
  await page.goto(`/studies/${id}/script`);
  await page.locator('[data-anchor="item:talk"]').getByText('Would you answer').click();
  await expect(page.getByText('Say how long it takes.')).toBeVisible();

  // The study leaves with the work on it in one file, and comes back with it.
  await inMenu(page, 'Save as a file');
  const saving = page.getByRole('region', { name: 'Save as a file' });
  await expect(saving.getByRole('checkbox', { name: /^1 comment/ })).toBeChecked();
  await accessible(page);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    saving.getByRole('link', { name: 'Questionnaire and work' }).click(),
  ]);
  const kept = info.outputPath('lighting.zip');
  await file.saveAs(kept);
  await home(page);
  await page.getByLabel('Questionnaire file').setInputFiles(kept);
  await page.waitForURL('**/script');
  await page.locator('[data-anchor="item:talk"]').getByText('Would you answer').click();
  await expect(page.getByText('Say how long it takes.')).toBeVisible();
  await page.getByRole('link', { name: 'Routes' }).click();
  await expect(page.getByRole('region', { name: 'Current route' })).toContainText('passed by Ethics board');
  // A study that is removed is, to a reviewer, not there, and was never.
  await page.request.delete(`/api/studies/${id}`);
  const gone = await visitor.request.get(`${api}/verdicts`);
  expect([gone.status(), (await gone.text()).includes(id)]).toEqual([404, false]);
  await page.request.post(`/api/studies/${id}`);

  await page.goto(`/studies/${id}/script`);
  await inMenu(page, 'Links for reviewers');
  await panel.getByRole('button', { name: 'Withdraw' }).click();
  await expect(panel).toContainText('No link is open.');
  await visitor.goto(address);
  await expect(visitor.getByRole('heading', { name: 'This link opens nothing' })).toBeVisible();
  expect((await visitor.request.get(`${api}/verdicts`)).status()).toBe(404);
  await visitor.context().close();
});

test('the script on paper says where to go, and marks the walk', async ({ page }) => {
  await page.goto('/studies/tern-valley-home-heating/walk?route=1');
  await expect(page.getByText('Route 1 of', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Paper', exact: true }).click();
  const paper = page.getByRole('article', { name: 'Script on paper' });
  await expect(paper.getByText('→ go to B3')).toBeVisible();
  await expect(paper.getByText('→ end: Declined')).toBeVisible();
  await expect(paper.getByText('Ask if: Tenure is', { exact: false }).first()).toBeVisible();
  await accessible(page);
  // A form to fill in says the way once: at the answers, or by whom a question is for.
  await page.getByRole('button', { name: 'Form to fill in' }).click();
  const form = page.getByRole('article', { name: 'Form to fill in' });
  const tools = page.getByRole('toolbar', { name: 'What is printed' });
  await expect(form.getByText('→ go to B3')).toBeVisible();
  await expect(form.getByText('C1 to C3: only if B3', { exact: false })).toHaveCount(0);
  await expect(form.getByRole('columnheader', { name: '6', exact: true }).first()).toBeAttached();
  await accessible(page);
  await tools.getByLabel('the way').selectOption('questions');
  await expect(form.getByText('C1 to C3: only if B3', { exact: false })).toBeVisible();
  await expect(form.getByText('→ go to B3')).toHaveCount(0);
  await tools.getByLabel('passes').selectOption('blocks');
  await expect(form.getByRole('heading', { name: 'Each room 6' })).toBeAttached();
  await tools.getByLabel('with codes').check();
  await page.emulateMedia({ media: 'print' });
  await expect(form).toBeVisible();
  await expect(tools).toBeHidden();
  await page.emulateMedia({ media: 'screen' });
  await page.getByRole('button', { name: 'Coded script' }).click();

  // On the printer there is nothing but the paper.
  await page.emulateMedia({ media: 'print' });
  await expect(paper).toBeVisible();
  await expect(page.getByRole('link', { name: 'Routes' })).toBeHidden();
  await expect(page.getByRole('navigation', { name: 'Trail' })).toBeHidden();
});
