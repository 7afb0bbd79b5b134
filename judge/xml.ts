/** xmllint: whether the DDI files are XML and in the order of the standards, and what is in pages and in the picture of the map. */
import { spawnSync } from 'node:child_process';
import { columnsOf } from '../src/core/coding/columns';
import { called, fileOf, type Unpacked } from './package';
import { lackingWords, type Verdict } from './verdict';

export function byXmllint(study: Unpacked): Verdict[] {
  return [...ofArchives(study), ofPicture(study), ...PAGES.map((ending) => ofPage(study, ending))];
}

/** What has to be somewhere in each page. */
const WANTED = {
  'paper.html': ({ questions }) => questions.map(({ name }) => name),
  // Questions have numbers there.
  'form.html': ({ questions }) => questions.map(({ text }) => firstWords(text)),
  'codebook.html': ({ plan }) => columnsOf(plan).map(({ name }) => name),
  'routes.html': ({ questions }) => questions.map(({ text }) => firstWords(text)),
  'forecast.html': ({ questions }) => questions.map(({ name }) => name),
  'steps.html': ({ questions }) => questions.map(({ text }) => firstWords(text)),
} as const satisfies Readonly<Record<string, (study: Unpacked) => readonly string[]>>;
const PAGES = Object.keys(WANTED) as (keyof typeof WANTED)[];

function ofPage(study: Unpacked, ending: keyof typeof WANTED): Verdict {
  const file = fileOf(study, ending);
  const { stdout, stderr, status } = spawnSync(
    'xmllint',
    ['--html', '--nonet', '--xpath', 'string(//body)', file],
    { encoding: 'utf8', maxBuffer: 1e9 },
  );
  // libxml2 knows HTML 4: it minds tags that came after, and nothing else is to be minded.
  const minded = stderr.split('\n').filter((line) => /error :/.test(line) && !/Tag \w+ invalid/.test(line));
  const lacking = WANTED[ending](study).filter((words) => !stdout.includes(words));
  const isMarked =
    called('xmllint', ['--html', '--nonet', '--xpath', 'string(//title)', file]).includes(
      study.document.title,
    ) && stdout.includes('Draft');
  return {
    file: ending,
    reader: 'xmllint, as HTML',
    saw: `${stdout.length.toLocaleString('en')} signs of text, ${isMarked ? 'marked as the draft' : 'not marked'}; ${minded.length === 0 ? 'nothing minded' : minded[0]}; ${lackingWords(lacking)}`,
    ok: status === 0 && minded.length === 0 && isMarked && lacking.length === 0,
  };
}

/** Up to where a text has emphasis, or something piped into it. */
function firstWords(text: string): string {
  return (/^[^*_{\n]*/.exec(text)?.[0] ?? '').trim();
}

function ofPicture(study: Unpacked): Verdict {
  const count = (path: string) =>
    Number(called('xmllint', ['--nonet', '--xpath', `count(${path})`, fileOf(study, 'map.svg')]));
  const items = count("//*[@data-node and starts-with(@data-node, 'item:')]");
  const wanted = study.document.sections
    .flatMap(({ items: all }) => all)
    .filter(({ kind }) => kind !== 'page_break').length;
  return {
    file: 'map.svg',
    reader: 'xmllint',
    saw: `sound XML; ${items} items, ${count('//*[@data-ribbon]')} ribbons and early ends`,
    ok: items === wanted && count("/*[namespace-uri() = 'http://www.w3.org/2000/svg']") === 1,
  };
}

function ofArchives(study: Unpacked): Verdict[] {
  return (['ddi33.xml', 'ddi25.xml'] as const).map((ending) => {
    const schema = ending === 'ddi33.xml' ? 'ddi-lifecycle.rng' : 'ddi-codebook.rng';
    const args = ['--noout', '--nonet', '--relaxng', `tests/schemas/${schema}`, fileOf(study, ending)];
    const { status, stderr } = spawnSync('xmllint', args, { encoding: 'utf8' });
    return {
      file: ending,
      reader: 'xmllint',
      saw: status === 0 ? `sound XML, in the order of ${schema}` : stderr.slice(0, 200),
      ok: status === 0,
    };
  });
}
