/** Many authors on one study at once, each merging what the others saved: nobody's work is lost. */
import assert from 'node:assert/strict';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { readDocument } from '../../src/core/document/read';
import type { Questionnaire, Section } from '../../src/core/document/types';
import { mergeVersions } from '../../src/core/editing/merge';
import { operationsBetween } from '../../src/core/editing/operations';
import { FEATURED } from '../agree/featured';
import { ask, section } from '../support/questionnaire';
import { BuiltServer } from '../support/server';
import { intOf, type Int, type TimedPart } from './part';

const AUTHORS = 12;

interface Version {
  readonly document: Questionnaire;
  readonly revision: number;
}

/** One more edit of an author: of the section that is their own, or a section beside it. */
function edited(
  document: Questionnaire,
  author: number,
  n: number,
  int: Int,
  mine: Map<string, string>,
): Questionnaire {
  const home = `home${author}`;
  const sections = [...document.sections];
  const at = sections.findIndex(({ id }) => id === home);
  if (at < 0) {
    sections.splice(int(0, sections.length), 0, section(home, [ask(`a${author}_0`)]));
    mine.set(`a${author}_0`, 'a');
    return { ...document, sections };
  }
  const own = sections[at] as Section;
  const items = [...own.items];
  switch (int(0, 3)) {
    case 0:
    case 1: {
      const name = `a${author}_${n}`;
      items.splice(int(0, items.length), 0, ask(name, int(2, 5)));
      mine.set(name, 'a');
      break;
    }
    case 2: {
      const which = int(0, items.length - 1);
      const item = items[which];
      if (item === undefined || item.kind === 'page_break') break;
      const text = `Words ${n} of ${author}`;
      items[which] = { ...item, text };
      mine.set(item.name, text);
      break;
    }
    default:
      sections.splice(at, 1);
      sections.splice(int(0, sections.length), 0, own);
      return { ...document, sections };
  }
  sections[at] = { ...own, items };
  return { ...document, sections };
}

export const authors: TimedPart = {
  name: 'authors',
  words: 'many authors on one study at once',
  async run(seconds, seed) {
    const server = new BuiltServer(mkdtempSync(path.join(tmpdir(), 'jolly-fork-authors-')));
    await server.start();
    try {
      const added = await server.call('POST', '/api/studies', { document: FEATURED[0] });
      const api = `/api/studies/${(added.body as { id: string }).id}`;
      const until = Date.now() + seconds * 1000;
      let [saves, merges] = [0, 0];
      const work = Array.from({ length: AUTHORS }, async (_, author) => {
        const int = intOf(seed * 1000 + author);
        const mine = new Map<string, string>();
        let known = (await server.call('GET', api)).body as Version;
        for (let n = 1; Date.now() < until; n += 1) {
          let document = edited(known.document, author, n, int, mine);
          for (;;) {
            const reply = await server.call('PATCH', api, {
              revision: known.revision,
              operations: operationsBetween(known.document, document),
            });
            if (reply.status === 200) {
              known = { document, revision: (reply.body as { revision: number }).revision };
              saves += 1;
              break;
            }
            assert.equal(reply.status, 409, JSON.stringify(reply.body).slice(0, 300));
            const theirs = (reply.body as { study: Version }).study;
            const merged = mergeVersions({ base: known.document, mine: document, theirs: theirs.document });
            assert.deepEqual(merged.clashes, []);
            document = merged.document;
            known = theirs;
            merges += 1;
          }
        }
        return mine;
      });
      const all = await Promise.all(work);
      const last = ((await server.call('GET', api)).body as Version).document;
      assert.ok(readDocument(JSON.parse(JSON.stringify(last))).ok);
      const items = new Map(
        last.sections.flatMap((each) =>
          each.items.map((item) => [item.kind === 'page_break' ? '' : item.name, item]),
        ),
      );
      let kept = 0;
      for (const mine of all)
        for (const [name, text] of mine) {
          const item = items.get(name);
          assert.ok(item !== undefined, `${name} is lost`);
          if (text !== 'a') assert.equal('text' in item ? item.text : '', text, name);
          kept += 1;
        }
      return `${AUTHORS} authors, ${saves} saves, ${merges} merges, all of ${kept} questions there with the last words of their authors`;
    } finally {
      await server.end();
    }
  },
};
