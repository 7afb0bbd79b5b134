/** Forecast: shares are set, the base that is too small is found, the sample is doubled, and the sheet is kept. */
import { readFileSync } from 'node:fs';
import { columnsOf } from '../../src/core/coding/columns';
import { assume } from '../../src/core/forecast/sets';
import { applyChange } from '../../src/core/editing/change';
import { planOf } from '../../src/core/routing/planner';
import { madeUpRespondents } from '../../src/core/simulate/respondents';
import type { Page } from '@playwright/test';
import { accessible, copyOf, expect, saved, test } from './support';
import { demo } from '../support/demo';

test('shares of heat pumps are set, the sample is doubled until a base is large enough, and the sheet is kept', async ({
  page,
}) => {
  const { base } = await forecastOf(page);
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

  for (const leaf of ['How many', 'Minutes', 'Who is lost']) {
    await page.getByRole('button', { name: leaf, exact: true }).click();
    await accessible(page);
  }
  await expect(page.getByRole('row', { name: /^to_diary/ })).toBeVisible();
  await saved(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Forecast, .csv' }).click();
  const rows = readFileSync(await (await download).path(), 'utf8').split('\r\n');
  // In full: what is shown is rounded.
  const [, , , ofAll, expected] = rows.find((row) => row.startsWith('item,hp_noise_when,'))?.split(',') ?? [];
  expect([Number(ofAll).toFixed(4), Number(expected).toFixed(1)]).toEqual(['0.0413', '82.6']);

  // All of it is in the document: it is there when the page comes again.
  await page.reload();
  await expect(base('hp_noise_when')).toContainText('83');
  await expect(source).toHaveValue('pilot 2026, n = 212');
});

/** The forecast of a copy of the demo, with its first figures. `base`: the line of an item. */
async function forecastOf(page: Page) {
  const id = await copyOf(page, 'tern-valley-home-heating');
  await page.goto(`/studies/${id}/forecast`);
  const base = (name: string) => page.getByRole('button', { name: new RegExp(`^${name}\\b`) });
  await expect(base('hp_kind')).toContainText('91');
  return { id, base };
}

/** Collected rows of people of whom twice as many have a heat pump as the study assumes, one of them with an answer that cannot be. */
function collected(): Buffer {
  const shares = { 1: 0.54, 2: 0.24, 3: 0.12, 4: 0.07, 5: 0.03 };
  const plan = planOf(applyChange(demo(), assume(null, 'heat_main', { shares })).document);
  const header = columnsOf(plan).map(({ name }) => name);
  const rows = [...madeUpRespondents(plan, 900, 4)].map((person) => [...person.row()]);
  const [first] = rows;
  if (first !== undefined) first[header.indexOf('adult')] = 7;
  return Buffer.from([header, ...rows].map((row) => row.map((cell) => `"${cell}"`).join(',')).join('\r\n'));
}

test('a collected file says where the forecast parts from it, its shares are assumed in a set, and a block is split', async ({
  page,
}) => {
  const { id, base } = await forecastOf(page);
  await expect(base('hp_kind')).toContainText(/\d+ to \d+ over all sets/);

  await page.getByRole('button', { name: 'What came', exact: true }).click();
  const file = page.getByLabel('Collected file');
  await file.setInputFiles({ name: 'nothing.csv', mimeType: 'text/csv', buffer: Buffer.from('a,b\n1,2\n') });
  await expect(page.getByRole('alert')).toContainText('No column of these rows is one of the codebook');
  await file.setInputFiles({ name: 'wave-1.csv', mimeType: 'text/csv', buffer: collected() });
  await expect(page.getByText('899 respondents; 1 row left out')).toBeVisible();
  const against = page.getByRole('region', { name: 'Forecast against what came' });
  await expect(against.getByRole('row', { name: /^hp_kind 82 \d+ below 0\.0001 ▲ more/ })).toBeVisible();
  await expect(against.getByRole('row', { name: /^welcome 899 899 1\.00$/ })).toBeVisible();
  await expect(against.getByText(/exact binomial test.*Holm’s method/)).toBeVisible();
  await accessible(page);

  // Taken into a set of its own; what stands at the questions stays.
  await page.getByRole('button', { name: 'Another set of assumptions' }).click();
  const naming = page.getByRole('textbox', { name: 'Name of the set' });
  await naming.fill('low');
  await naming.press('Enter');
  await expect(page.getByRole('alert')).toHaveText(
    'There is a set “low” already: give this one another name.',
  );
  await naming.fill('wave 1');
  await naming.press('Enter');
  const seen = page.getByRole('region', { name: 'Shares that were seen' });
  await seen.getByRole('checkbox', { name: 'tenure' }).uncheck();
  await seen.getByRole('button', { name: /^Assume the shares of \d+ questions in “wave 1”$/ }).click();
  await expect(seen.getByRole('status')).toContainText('undo takes it back');
  await expect(against.getByRole('row', { name: /^hp_kind \d+ \d+ 1\.00$/ })).toBeVisible();
  const assumed = page.getByRole('region', { name: 'Assumed answers to heat_main' });
  await expect(assumed.getByRole('textbox', { name: 'Source of the shares of heat_main' })).toHaveValue(
    'wave-1.csv',
  );
  await expect(assumed.getByText(/^\d{3} answers$/)).toBeVisible();
  await page.getByRole('button', { name: 'Sets', exact: true }).click();
  await expect(
    page.getByRole('row', { name: /^heat_main Heat pump 12% 7% 18% 2\d(\.\d+)?%$/ }),
  ).toBeVisible();
  await accessible(page);

  // A table from elsewhere, pasted: what cannot be read is told by its line.
  await page.getByRole('button', { name: 'expected', exact: true }).click();
  await page.getByRole('button', { name: 'What came', exact: true }).click();
  await page.getByRole('button', { name: 'Paste a frequency table' }).click();
  await page.getByRole('combobox', { name: 'It is about' }).selectOption('heat_main');
  const table = page.getByRole('textbox', { name: 'Frequency table' });
  await table.fill('Gas boiler\t600\nHeat pum\t400');
  await expect(page.getByRole('alert')).toContainText('Line 2: “Heat pum” is no answer of heat_main');
  await table.fill('Gas boiler\t600\nHeat pump\t400');
  await page.getByRole('button', { name: 'Take the shares of 1 question' }).click();
  await page.getByRole('button', { name: 'Assume the shares of 1 question in “expected”' }).click();
  await expect(assumed.getByText('1,000 answers')).toBeVisible();
  await page.getByRole('button', { name: 'Bases', exact: true }).click();
  await expect(base('hp_kind')).toContainText('303');
  await page.locator('body').press('Control+z');
  await expect(base('hp_kind')).toContainText('91');

  // Of those who rent another share, by what is known of them.
  await assumed.getByRole('button', { name: 'heat_main' }).click();
  await assumed.getByRole('button', { name: 'other shares for some …' }).click();
  const some = assumed.getByRole('textbox', { name: /^Those who have shares of their own at heat_main/ });
  await some.click();
  await page.keyboard.type('tenur = 2');
  await page.keyboard.press('Escape');
  await assumed.getByRole('button', { name: 'Add' }).click();
  await expect(assumed.getByRole('alert')).toContainText('tenur');
  await some.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('tenure = 2');
  await page.keyboard.press('Escape');
  await assumed.getByRole('button', { name: 'Add' }).click();
  const renters = assumed.getByRole('textbox', {
    name: 'Share of “Heat pump” at heat_main where tenure = 2, in per cent',
  });
  await renters.fill('2');
  await renters.press('Enter');
  await expect(base('hp_kind')).toContainText('60');
  await accessible(page);

  // A block of questions, each half of which is asked of a random half of the sample.
  await base('worry').click();
  const slip = page.getByRole('complementary', { name: 'Selected' });
  await expect(slip.getByText(/2,000 who start instead of 1,000/)).toBeVisible();
  const before = await base('worry').locator('b').textContent();
  await slip.getByRole('button', { name: /^Split “Costs” at random in halves$/ }).click();
  await expect(slip.getByRole('status')).toContainText(/with the random arm half_of_\w+/);
  await expect
    .poll(async () => Number(await base('worry').locator('b').textContent()) * 2)
    .toBeCloseTo(Number(before), -1);
  await saved(page);
  await page.goto(`/studies/${id}/script`);
  await expect(page.getByText(/half_of_\w+/).first()).toBeVisible();
});
