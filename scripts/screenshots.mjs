/** `npm run screenshots`: pictures of the main views, from the demo data, into docs/screenshots. */
import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { served } from './served.mjs';
import { root } from './setup.mjs';

const PORT = process.env.PORT ?? '4398';
const base = `http://127.0.0.1:${PORT}`;
const folder = path.join(root, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });

const { server, browser } = await served(PORT);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const heating = `${base}/studies/tern-valley-home-heating`;

async function picture(name) {
  await page.mouse.move(640, 4);
  await page.waitForTimeout(400);
  await page.screenshot({ path: path.join(folder, `${name}.png`) });
  console.log(`docs/screenshots/${name}.png`);
}

async function counted() {
  await page.getByRole('link', { name: /Routes.*in all/ }).waitFor();
}

/** Made-up respondents as somebody collected them: blank where nothing was asked, and a few faults. */
function collectedFile() {
  const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-pictures-'));
  const file = path.join(folder, 'collected.csv');
  const study = path.join(root, 'demo', 'tern-valley-home-heating.fork.json');
  const command = path.join(root, 'bin', 'jolly-fork');
  spawnSync('node', [command, 'simulate', study, '-n', '600', '--seed', '4', '--out', file]);
  const [head, ...rows] = readFileSync(file, 'utf8')
    .trimEnd()
    .split('\r\n')
    .map((line) => line.split(','));
  const blank = rows.map((row) => row.map((cell) => (cell === '-1' || cell === '-2' ? '' : cell)));
  const plant = (row, column, cell) => (blank[row][head.indexOf(column)] = cell);
  plant(3, 'tenure', '7');
  plant(8, 'landlord', '2');
  plant(21, 'built', '1200');
  plant(33, 'adult', '');
  plant(40, 'ending', 'declined');
  writeFileSync(file, [head, ...blank].map((row) => row.join(',')).join('\n'));
  return file;
}

const LIST = `${readFileSync(path.join(root, 'demo', 'drafted-list.txt'), 'utf8')}4. Which do you have? (tick all that apply)
- A loft
- A cellar
- None of these
If perhaps, skip to 9`;

try {
  // Verdicts first, so that the list of studies and the ledger have something to show.
  await page.goto(`${heating}/walk?route=1`);
  await page.getByRole('textbox', { name: 'Your name' }).fill('Ada Fenn');
  for (const number of [1, 2]) {
    await page.getByRole('heading', { name: `Verdict on route ${number}`, exact: true }).waitFor();
    await page.getByRole('button', { name: 'I have read it in the script' }).click();
    await page.getByRole('button', { name: `Pass route ${number}, walk ${number + 1}` }).click();
  }
  await page.getByRole('heading', { name: 'Verdict on route 3', exact: true }).waitFor();
  await page.getByRole('button', { name: 'Send back with a remark' }).click();
  await page.getByRole('textbox', { name: 'Remark' }).fill('Say what counts as a cold room.');
  await page.getByRole('combobox', { name: 'About' }).selectOption('room_cold#1');
  await page.getByRole('button', { name: 'Send back route 3' }).click();
  await page.getByText('↩ Sent back').waitFor();

  await page.goto(base);
  await page.getByText('2,048,263').first().waitFor();
  await page.getByText('counting its routes').first().waitFor({ state: 'hidden' });
  await picture('studies');
  await page.getByRole('button', { name: 'Paste a list' }).click();
  await page.getByRole('textbox', { name: 'Questions' }).fill(LIST);
  await picture('paste-a-list');

  await page.goto(`${heating}/script`);
  await counted();
  await page.getByText('Who is your landlord?').click();
  await page.locator('[data-anchor="item:tenure"]').scrollIntoViewIfNeeded();
  await picture('script');
  await page.getByRole('button', { name: 'Ask all, or only if …' }).click();
  await page.keyboard.type('tenure in (2, 7)');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Pick', exact: true }).click();
  await picture('script-condition');
  await page.keyboard.press('Control+z');

  await page.goto(`${base}/studies/street-lighting-doorstep/script`);
  await counted();
  await page.getByRole('button', { name: /snag/ }).click();
  await picture('snags');

  await page.goto(`${heating}/forks`);
  const map = page.getByRole('application', { name: /^Map of forks/ });
  await map.locator('[data-node="section:home"]').waitFor();
  await counted();
  await map.focus();
  for (const key of ['ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowRight']) await page.keyboard.press(key);
  await page.getByText('Main heating is “Heat pump”.').waitFor();
  await picture('forks');

  await page.goto(`${heating}/routes`);
  await page.getByText('of them take every fork').waitFor();
  await page.getByRole('listbox', { name: /^Routes/ }).focus();
  for (let n = 0; n < 8; n += 1) await page.keyboard.press('ArrowDown');
  for (let n = 0; n < 26; n += 1) await page.keyboard.press('ArrowRight');
  await page.getByRole('heading', { name: 'Route 9' }).waitFor();
  await page.getByText(/asked: |not applicable: /).waitFor();
  await picture('routes');
  await page.getByRole('button', { name: 'Every fork first' }).click();
  await page.getByRole('checkbox', { name: 'Fold what is drawn' }).check();
  await page.getByText('between them take every fork').waitFor();
  await page.getByRole('listbox', { name: /^Routes/ }).focus();
  await page.keyboard.press('ArrowDown');
  await page.getByRole('button', { name: /^Compare with route/ }).click();
  await page.getByText('They part before').waitFor();
  await picture('routes-compared');

  await page.goto(`${heating}/walk?route=9`);
  await page.getByRole('heading', { name: 'Verdict on route 9', exact: true }).waitFor();
  for (let n = 0; n < 3; n += 1) await page.getByRole('button', { name: 'Next' }).click();
  await page.getByText('What is the main way you heat your home?').waitFor();
  await picture('walk');
  await page.getByRole('button', { name: 'Paper' }).click();
  await page.getByRole('article', { name: 'Script on paper' }).waitFor();
  await picture('paper');

  await page.goto(`${heating}/codes`);
  await page.getByRole('button', { name: '100% expected' }).first().waitFor();
  await page.getByRole('button', { name: 'Change the codes of tenure' }).click();
  await picture('codes-book');
  await page.getByRole('button', { name: 'Key in', exact: true }).click();
  await page.getByLabel('Keyed by').fill('Ada Fenn');
  await page.getByLabel('Case on the form').fill('T-001');
  await page.keyboard.press('Enter');
  await page.locator('[data-key="adult"]:focus').waitFor();
  for (const code of ['1', '1', '1', '1']) {
    await page.keyboard.type(code);
    await page.waitForTimeout(200);
  }
  // An Enter right after a code that ended by itself is taken for a part of it.
  await page.waitForTimeout(400);
  await page.locator('[data-key="landlord"]').fill('2');
  await page.keyboard.press('Enter');
  await page.getByText('landlord holds 2, and should be blank', { exact: false }).waitFor();
  await picture('codes-key-in');
  await page.getByRole('button', { name: 'Audit', exact: true }).click();
  await page.getByLabel('Collected file').setInputFiles(collectedFile());
  await page.getByRole('button', { name: 'Audit the rows' }).click();
  await page.getByText('without a problem').waitFor();
  await picture('codes-audit');
  await page.goto(`${heating}/codes?part=tables&variable=walls`);
  await page.getByText('Of all made-up respondents', { exact: false }).waitFor();
  await picture('codes-tables');

  await page.goto(`${heating}/forecast`);
  await page.getByText(/of 55 bases below 100/).waitFor();
  await page.getByRole('button', { name: /^hp_noise_when/ }).click();
  await page.getByRole('row', { name: /^heat_main/ }).waitFor();
  await page.getByRole('heading', { name: 'Consent' }).scrollIntoViewIfNeeded();
  await picture('forecast');

  // A version is frozen with a reason; then an answer is worded otherwise, others are asked, and a question is new.
  await page.goto(`${heating}/release`);
  await page.getByRole('button', { name: 'Freeze all the same, with a reason …' }).click();
  await page.getByLabel('Why it is frozen all the same').fill('The pilot begins on Monday.');
  await page.getByLabel('Note, if any').fill('for the pilot');
  await page.keyboard.press('Enter');
  await page.getByText('Nothing is other').waitFor();
  const study = await (await page.request.get(`${base}/api/studies/tern-valley-home-heating`)).json();
  for (const item of study.document.sections.flatMap(({ items }) => items)) {
    if (item.name === 'tenure') item.answer.options[2].label = 'Rent from a housing association';
    if (item.name === 'loft') item.askIf = `(${item.askIf}) and tenure = 1`;
    if (item.name === 'heat_say') item.text = 'Who mostly decides how your home is heated?';
  }
  await page.request.put(`${base}/api/studies/tern-valley-home-heating`, {
    data: { revision: study.revision, document: study.document },
    headers: { origin: base },
  });
  await page.reload();
  await page.getByRole('button', { name: /routes? lost/ }).waitFor();
  await page.getByText(/^\d+ in the way/).waitFor();
  await picture('release');

  // A link for the frozen version, under which some have answered.
  await page.getByRole('button', { name: 'Trial', exact: true }).click();
  await page
    .getByRole('navigation', { name: 'Versions' })
    .getByRole('button', { name: /version 1/ })
    .click();
  await page.getByLabel('What the link is for').fill('Colleagues, first round');
  await page.getByText('What holds under it').click();
  await page
    .getByLabel('Who may answer')
    .selectOption({ label: 'everybody with the link, told apart by browser' });
  await page.getByLabel('Responses in all, at most').fill('40');
  await page.getByRole('button', { name: 'Make a link for version 1' }).click();
  const link = await page.getByRole('textbox', { name: /^Address of Colleagues/ }).inputValue();
  const answered = async (adult, agree) => {
    const phone = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await phone.goto(link);
    const group = phone.getByRole('group');
    await group.first().getByRole('radio', { name: adult, exact: true }).check();
    if (agree !== null) await phone.getByRole('radio', { name: agree }).check();
    await phone.getByRole('button', { name: 'Next', exact: true }).click();
    return phone;
  };
  await answered('Yes', 'No, I do not');
  await answered('No', null).catch(() => undefined);
  for (let n = 0; n < 3; n += 1) await answered('Yes', 'Yes, I agree');
  const respondent = await answered('Yes', 'Yes, I agree');
  await respondent.getByRole('radio', { name: 'Rent it' }).check();
  await respondent.screenshot({ path: path.join(folder, 'answer.png') });
  console.log('docs/screenshots/answer.png');
  await page.getByText(/begun\s*6/).waitFor();

  // A made-up panel, four days on.
  await page.getByRole('button', { name: 'Make up a panel …' }).click();
  await page.keyboard.type('Dry run before the pilot');
  await page.getByLabel('People in the sample').fill('200');
  await page.getByRole('button', { name: 'Make up a panel for version 1' }).click();
  await page.getByLabel('Speed').selectOption('as fast as it goes');
  await page
    .getByRole('button', { name: /^Thu .* Run to the end of this day/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'an hour' }).click({ timeout: 120_000 });
  await page.getByRole('button', { name: /^First reminder/ }).click();
  await page.getByRole('article').waitFor();
  await page.mouse.move(0, 0);
  await picture('trial');
  await page.getByRole('button', { name: 'Watch it come in' }).first().click();
  await page.getByText('RR1').waitFor();
  await page.getByRole('button', { name: /^Broken off: / }).click();
  await page
    .getByRole('link', { name: /^Walk response/ })
    .first()
    .waitFor();
  await picture('monitor');
} finally {
  await browser.close();
  server.kill();
}
