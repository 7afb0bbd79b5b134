/** The test pack as files: a table that `verify` reads as well, the same as JSON, and pages to print. */
import { csvLines } from '../exchange/csv';
import { escaped } from '../exchange/markup';
import type { Plan } from '../routing/plan';
import { forkEventWords } from '../views/fork-events';
import { STEP_COLUMNS } from './steps';
import type { PackRespondent, TestPack } from './test-pack';

/** `about`: of which version it is, as it stands on every page. */
export function testPackFiles(
  plan: Plan,
  pack: TestPack,
  about: string,
): { readonly name: string; readonly text: string }[] {
  return [
    { name: 'steps.csv', text: stepsCsv(pack) },
    { name: 'steps.json', text: `${JSON.stringify(stepsJson(plan, pack, about), null, 2)}\n` },
    { name: 'steps.html', text: stepsHtml(plan, pack, about) },
  ];
}

function stepsCsv({ respondents }: TestPack): string {
  const rows = respondents.flatMap(({ name, steps }) =>
    steps.map(({ step, item, answer, words, shows, next }) => [
      name,
      step,
      item,
      answer,
      words,
      oneLine(shows),
      next,
    ]),
  );
  return csvLines([[...STEP_COLUMNS, 'words', 'shows', 'next'], ...rows]);
}

function stepsJson(plan: Plan, { respondents, complete }: TestPack, about: string) {
  return {
    title: plan.document.title,
    about,
    complete,
    respondents: respondents.map(({ name, route, walked, steps, ending, alone }) => ({
      respondent: name,
      route: String(route),
      ...walked,
      steps,
      ending,
      aloneTakes: alone.map((event) => forkEventWords(plan, event)),
    })),
  };
}

const oneLine = (text: string) => text.replaceAll(/\s*\n\s*/g, ' ');

function stepsHtml(plan: Plan, { respondents, complete }: TestPack, about: string): string {
  const { title, language } = plan.document;
  const doubt = complete
    ? ''
    : '<p>The forks of this questionnaire are too many to be sure that these routes take all of them.</p>';
  return `<!doctype html>
<html lang="${escaped(language)}">
<head>
<meta charset="utf-8">
<title>${escaped(title)}: test pack</title>
<style>
body { font: 14px/1.4 sans-serif; color: black; margin: 2em auto; max-width: 60em; padding: 0 1em; }
h1 { font-size: 20px; } h2 { font-size: 16px; margin: 2em 0 .3em; break-before: page; }
table { border-collapse: collapse; width: 100%; } td, th { text-align: left; vertical-align: top; padding: 4px 8px; border-bottom: 1px solid silver; }
thead { display: table-header-group; } tr { break-inside: avoid; } code { font-family: monospace; font-weight: bold; }
.running { display: none; } @media print { .running { display: block; position: fixed; top: 0; right: 0; margin: 0; font-size: 10px; } }
.box { width: 2em; border: 1px solid gray; } small { color: dimgray; }
</style>
</head>
<body>
<p class="running">${escaped(about)}</p>
<h1>${escaped(title)}: test pack</h1>
<p>${escaped(about)}. ${respondents.length} respondents take every fork of the questionnaire between them. Answer as they do, one
after the other: after each step comes what stands in the next line, and nothing else. Tick what did; where something else came,
write down what. <small>The same stands in steps.csv, which the command <code>jolly-fork verify</code> reads: put there what your
program showed.</small></p>
${doubt}${respondents.map((each) => respondentHtml(plan, each)).join('')}</body>
</html>
`;
}

function respondentHtml(plan: Plan, { name, route, steps, alone }: PackRespondent): string {
  const only = alone.map((event) => escaped(forkEventWords(plan, event))).join('; ');
  const rows = steps.map(
    ({ step, item, shows, answer, words }) =>
      `<tr><td>${step === 0 ? '' : step}</td><td><code>${escaped(item)}</code></td><td>${escaped(shows)}</td><td>${escaped(words === '' ? answer : words)}${words !== '' && words !== answer ? ` <small>${escaped(answer)}</small>` : ''}</td><td class="box"></td></tr>\n`,
  );
  return `<h2>Respondent ${escaped(name)}, on route ${route}</h2>
${only === '' ? '' : `<p><small>Nobody else here takes: ${only}.</small></p>\n`}<table>
<thead><tr><th>Step</th><th>Item</th><th>What is shown</th><th>Answer this</th><th>Seen</th></tr></thead>
<tbody>
${rows.join('')}</tbody>
</table>
`;
}
