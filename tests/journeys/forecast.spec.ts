/** Forecast: shares are set, the base that is too small is found, the sample is doubled, and the sheet is kept. */
import { readFileSync } from 'node:fs';
import { accessible, copyOf, expect, saved, test } from './support';

test('shares of heat pumps are set, the sample is doubled until a base is large enough, and the sheet is kept', async ({
  page,
}) => {
  const id = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${id}/forecast`);
  const base = (name: string) => page.getByRole('button', { name: new RegExp(`^${name}\\b`) });
  await expect(base('hp_kind')).toContainText('91');
  await expect(page.getByText('8 of 55 bases below 100.')).toBeVisible();
  await accessible(page);

  // By the keyboard, a point at a time: what one answer gains its neighbour loses.
  const assumed = page.getByRole('region', { name: 'Assumed answers to heat_main' });
  const tick = assumed.getByRole('slider', { name: 'Between “Gas boiler” and “Heat pump” of heat_main' });
  await expect(tick).toHaveAttribute('aria-valuetext', 'Gas boiler 66%, Heat pump 12%');
  await tick.focus();
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await expect(tick).toHaveAttribute('aria-valuetext', 'Gas boiler 64%, Heat pump 14%');
  await expect(base('hp_kind')).toContainText('106');
  // By hand: the line is 0 to 100 wide.
  const line = await tick.locator('..').boundingBox();
  const handle = await tick.boundingBox();
  if (line === null || handle === null) throw new Error('the ruler is not on the page');
  const [x, y] = [handle.x + handle.width / 2, handle.y + handle.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + line.width / 20, y, { steps: 4 });
  await expect(base('hp_kind')).toContainText('68');
  await page.mouse.up();
  await expect(tick).toHaveAttribute('aria-valuetext', 'Gas boiler 69%, Heat pump 9%');
  // Typed: the others keep their proportions.
  await assumed.getByRole('button', { name: 'heat_main' }).click();
  const share = assumed.getByRole('textbox', { name: 'Share of “Heat pump” at heat_main, in per cent' });
  await share.fill('140');
  await share.press('Enter');
  await expect(assumed.getByRole('alert')).toHaveText('A number from 0 to 100 is needed.');
  await share.fill('12');
  await share.press('Enter');
  await expect(base('hp_kind')).toContainText('91');
  const source = assumed.getByRole('textbox', { name: 'Source of the shares of heat_main' });
  await source.fill('pilot 2026, n = 212');
  await source.press('Enter');

  // The base is too small: what it hangs on, and how many it takes.
  await base('hp_noise_when').click();
  const slip = page.getByRole('complementary', { name: 'Selected' });
  await expect(slip.getByText('Too few to report: 100 wanted.')).toBeVisible();
  await expect(slip.getByRole('row', { name: /^heat_main Heat pump/ })).toContainText('+3.4');
  await expect(slip.getByRole('row', { name: '50% 2,414' })).toBeVisible();
  await accessible(page);
  const starts = page.getByRole('textbox', { name: 'People who start' });
  await starts.fill('2,000');
  await starts.press('Enter');
  await expect(base('hp_noise_when')).toContainText('83');
  const response = page.getByRole('textbox', { name: 'Response rate, in per cent of those invited' });
  await response.fill('24');
  await response.press('Enter');
  await expect(slip.getByRole('row', { name: /^95% 2,825 1\d,\d\d\d$/ })).toBeVisible();
  const wanted = slip.getByRole('textbox', { name: 'Wanted of hp_noise_when' });
  await wanted.fill('50');
  await wanted.press('Enter');
  await expect(slip.getByRole('row', { name: /^50% 1,2\d\d / })).toBeVisible();

  // Where nobody gets there, it is said in words.
  await share.fill('0');
  await share.press('Enter');
  await expect(slip.getByText(/No number of starts is enough/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.locator('body').press('Control+z');
  await expect(base('hp_noise_when')).toContainText('83');

  for (const leaf of ['Minutes', 'Where people are lost']) {
    await page.getByRole('button', { name: leaf, exact: true }).click();
    await accessible(page);
  }
  await expect(page.getByRole('row', { name: /^to_diary/ })).toBeVisible();
  await saved(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Forecast, .csv' }).click();
  const rows = readFileSync(await (await download).path(), 'utf8').split('\r\n');
  expect(rows.find((row) => row.startsWith('item,hp_noise_when,'))).toMatch(
    /^item,hp_noise_when,,0\.0413,82\.6,/,
  );

  // All of it is in the document: it is there when the page comes again.
  await page.reload();
  await expect(base('hp_noise_when')).toContainText('83');
  await expect(source).toHaveValue('pilot 2026, n = 212');
});
