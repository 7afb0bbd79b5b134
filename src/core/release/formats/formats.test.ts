/** The registry of formats: what is written is read back, what is left out is said, and a file finds its format. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { randomChain, randomDocument } from '../../../../tests/agree/documents';
import { FEATURED } from '../../../../tests/agree/featured';
import { mutated } from '../../../../tests/agree/mutations';
import { seedsToTry } from '../../../../tests/agree/seeds';
import { address, WHOLE_STUDY } from '../../document/addresses';
import { readDocument } from '../../document/read';
import type { Questionnaire } from '../../document/types';
import type { FileFormat, ReadStudy, StudyContent } from '../format-types';
import { FORMATS } from './index';
import { fileNameFor, formatOfFile } from './known';
import { NO_WORK } from '../../exchange/work-file';
import { fileStem } from '../../document/names';
import { lossesBetween } from '../losses';

const SEEDS = seedsToTry([], 25);

const comment = {
  place: address('item', 'q1'),
  text: 'Why?',
  author: 'Ada',
  at: 5,
  settledBy: null,
  settledAt: null,
};
const contents = (FEATURED as readonly Questionnaire[]).map((document): StudyContent => ({
  document,
  work: { ...NO_WORK, comments: [comment] },
}));

for (const [name, { write, read, losses, endings, ofData }] of Object.entries(FORMATS) as [
  string,
  FileFormat,
][]) {
  // Of data, what comes back are its variables: told beside it.
  if (write === null || read === null || ofData) continue;
  it(`reads what it writes, but for what it says is lost: ${name}`, async () => {
    // Its skips come back as structure: what that means is told and proved beside it.
    if (name === 'ddi-lifecycle') return;
    for (const content of contents) {
      const written = await write(content, endings[0]);
      assert.ok(typeof written === 'string' || written instanceof Uint8Array);
      const bytes = typeof written === 'string' ? new TextEncoder().encode(written) : written;
      const back: ReadStudy = await read(bytes, `${fileStem(content.document.title)}.${endings[0]}`);
      assert.ok(back.ok, name);
      const lost = await losses(content);
      const ofWork = lost.filter(({ what }) => what === 'comments');
      assert.deepEqual(back.content.work, ofWork.length > 0 ? NO_WORK : content.work);
      const rest = lost.filter((each) => !ofWork.includes(each));
      assert.deepEqual(lossesBetween(content.document, back.content.document), rest);
      if (rest.length === 0) assert.deepEqual(back.content.document, content.document);
      assert.deepEqual(await write(content, endings[0]), written);
    }
  });
  it(`says what is wrong with a file that it cannot read: ${name}`, async () => {
    const refused = await read(new Uint8Array([1, 2, 3]), 'study');
    assert.ok(!refused.ok && refused.problems.length > 0);
  });
}

it(`of anything that can be written something comes back, ${SEEDS.words} changed at random`, async () => {
  let count = 0;
  for (const seed of SEEDS.all)
    for (const made of [FEATURED[seed % FEATURED.length], randomDocument(seed), randomChain(seed)]) {
      const sound = readDocument(JSON.parse(JSON.stringify(mutated(made as Questionnaire, seed))));
      if (!sound.ok) continue;
      count += 1;
      for (const name of ['items', 'ddi-lifecycle', 'ddi-codebook'] as const) {
        const lost = await FORMATS[name].losses({ document: sound.document, work: NO_WORK });
        assert.ok(
          !lost.some(({ at, what }) => at === WHOLE_STUDY && what === 'all of it'),
          `${name}, seed ${seed}`,
        );
      }
    }
  assert.ok(count > SEEDS.count, `${count} were questionnaires`);
});

it('is lost by its place: everything of a part that does not come back, and each property that is other', () => {
  const [document] = FEATURED as readonly Questionnaire[];
  assert.ok(document !== undefined);
  const [first, ...others] = document.sections;
  assert.ok(first !== undefined);
  assert.deepEqual(lossesBetween(document, document), []);
  const without = lossesBetween(document, { ...document, sections: others });
  assert.ok(without.some(({ at, what }) => at === address('section', first.id) && what === 'all of it'));
  const other = { ...first, title: `${first.title}!` };
  assert.deepEqual(lossesBetween(document, { ...document, sections: [other, ...others] }), [
    { at: address('section', first.id), what: 'title' },
  ]);
});

it('finds the format of a file by its name, and names what it writes', () => {
  const named = ['a.fork.json', 'a.json', 'A.ZIP', 'a.script.txt', 'questions.txt', 'none', 'a.csv'].map(
    formatOfFile,
  );
  assert.deepEqual(named, ['document', 'document', 'work', 'script', 'list', 'document', 'items']);
  assert.equal(fileNameFor({ title: 'Rent & rooms, 2026' }, 'work'), 'rent-rooms-2026.zip');
  assert.equal(fileNameFor({ title: '?' }, 'document'), 'questionnaire.fork.json');
});

it('refuses a script that is too large, or in another encoding, at once', () => {
  const problem = (bytes: Uint8Array) => {
    const read: ReadStudy = FORMATS.script.read(bytes);
    return read.ok ? '' : read.problems[0];
  };
  assert.match(problem(new Uint8Array(30_000_000)) ?? '', /larger than 20 MB/);
  assert.match(problem(new Uint8Array([0xff, 0xfe, 65, 0])) ?? '', /no text in UTF-8/);
  // Nearly as large, and wrong in every line.
  assert.match(
    problem(new TextEncoder().encode(`Jolly Fork script, 1\n${'  no such thing\n'.repeat(1_000_000)}`)) ?? '',
    /^line 2: /,
  );
});

it('makes a questionnaire of a list, and says where there is none', () => {
  const read = FORMATS.list.read(new TextEncoder().encode('1. Do you rent?\n- Yes\n- No\n'), 'rents.txt');
  assert.ok(read.ok && read.content.document.title === 'rents');
  assert.deepEqual(read.doubts, []);
  assert.ok(!FORMATS.list.read(new TextEncoder().encode(' '), 'none.txt').ok);
});
