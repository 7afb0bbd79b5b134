/** Keys and addresses: what is made is taken apart as it was, and what is none is no key. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import {
  address,
  ADDRESS_KINDS,
  addressOfField,
  ANSWER_LISTS,
  fieldId,
  fieldOfElement,
  listKey,
  nameAt,
  nameInKey,
  numberedPart,
  parseAddress,
  parseList,
  parsePart,
  parsePassCount,
  parseWay,
  PART_NAMED_BY,
  partKey,
  passCount,
  passKey,
  readAddress,
  readField,
  readList,
  readPart,
  readPassKey,
  renamedKey,
  renamedPart,
  STUDY_LISTS,
  STUDY_PART,
  wayKey,
  WHOLE_STUDY,
  wholeField,
  type AddressKind,
  type AnswerList,
  type PartKey,
  type PartKind,
} from '.';

const name = fc.stringMatching(/^[A-Za-z][A-Za-z0-9_]{0,31}$/);
const count = fc.integer({ min: 0, max: 500 });
const pass = fc.option(fc.integer({ min: 1, max: 500 }));

describe('addresses', () => {
  it('reads what it wrote, of every kind', () => {
    const kind = fc.constantFrom(...ADDRESS_KINDS.filter((each) => each !== 'study'));
    fc.assert(
      fc.property(name, pass, kind, fc.option(count), name, (of, at, what, detail, other) => {
        const key = passKey(of, at);
        assert.deepEqual(
          [readPassKey(key), nameInKey(key), renamedKey(key, other)],
          [{ name: of, pass: at }, of, passKey(other, at)],
        );
        const to = address(what, of, detail ?? undefined);
        assert.deepEqual(readAddress(to), {
          kind: what,
          name: of,
          detail: detail === null ? null : String(detail),
        });
        assert.equal(parseAddress(to), to);
        for (const each of ADDRESS_KINDS) assert.equal(nameAt(to, each), each === what ? of : null);
        assert.equal(addressOfField(wholeField(to)), to);
        const index = detail ?? 0;
        for (const way of [
          { item: of, skip: index },
          { section: of, onward: index },
        ])
          assert.deepEqual(parseWay(wayKey(way)), way);
        assert.deepEqual(parsePassCount(passCount(of, index)), { section: of, count: index });
        assert.deepEqual(readField(fieldId(of, 'label', index)), {
          owner: of,
          parts: ['label', String(index)],
        });
      }),
    );
  });

  it('reads parts and lists as they were made, numbered ones too', () => {
    const own = Object.keys(PART_NAMED_BY) as (keyof typeof PART_NAMED_BY)[];
    fc.assert(
      fc.property(
        name,
        name,
        fc.constantFrom(...own),
        fc.integer({ min: 1, max: 9 }),
        (of, item, kind, times) => {
          const owner = Object.values<PartKind>(ANSWER_LISTS).includes(kind) ? item : null;
          const key = numberedPart(partKey(kind, of, owner), times);
          assert.deepEqual(readPart(key), { kind, name: times === 1 ? of : `${of}#${times}`, owner });
          assert.equal(parsePart(key), key);
          assert.equal(renamedPart(partKey(kind, of, owner), of, item), partKey(kind, item, owner));
          for (const list of Object.keys(ANSWER_LISTS) as AnswerList[])
            assert.deepEqual(readList(listKey(list, readPart(key).name)), {
              list,
              owner: readPart(key).name,
            });
        },
      ),
    );
    for (const list of Object.keys(STUDY_LISTS) as (keyof typeof STUDY_LISTS)[])
      assert.equal(parseList(listKey(list)), list);
    for (const list of ['items:a', 'options:one', 'rows:g']) assert.equal(parseList(list), list);
    assert.deepEqual(readPart(STUDY_PART), { kind: 'study', name: '', owner: null });
    assert.equal(renamedPart(partKey('item', 'one'), 'two', 'three'), null);
  });

  it('tells what is meant as a whole from what is named', () => {
    assert.deepEqual(readAddress(WHOLE_STUDY), {
      kind: 'study' satisfies AddressKind,
      name: '',
      detail: null,
    });
    assert.equal(parseAddress('study'), WHOLE_STUDY);
    assert.equal(nameAt(null, 'item'), null);
    assert.equal(addressOfField(fieldId('one', 'text')), null);
    assert.deepEqual([undefined, '', 'one/text'].map(fieldOfElement), [null, null, 'one/text']);
  });

  const NONE: readonly (readonly [string, (text: string) => unknown, readonly string[]])[] = [
    ['address', parseAddress, ['', 'item', 'thing:one', 'Item:one', 'comments', 'study:']],
    ['part', parsePart, ['', 'item', 'toString:x', 'options:one', 'thing:one']],
    ['list', parseList, ['', 'items', 'options', 'toString', 'given:one', 'valueOf:one']],
    ['way', parseWay, ['', 'one', 'one/', '/1', 'one/x', 'one/-1']],
    ['pass count', parsePassCount, ['', 'one', '/2', 'one/x', 'one/1.5']],
  ];
  for (const [what, parse, texts] of NONE)
    it(`takes no other text for a ${what}`, () => {
      for (const text of texts) assert.equal(parse(text), null, text);
    });

  it('takes for a name what has no pass at its end', () => {
    for (const text of ['one', 'one#', 'one#x', 'one#1x', '#', 'one#-1'])
      assert.deepEqual(readPassKey(text), { name: text, pass: null }, text);
    assert.deepEqual(readPassKey('a#2#3'), { name: 'a#2', pass: 3 });
  });

  it('keeps a part apart from those of the same name in other answers', () => {
    const keys: PartKey[] = [
      partKey('option', '1', 'one'),
      partKey('option', '1', 'two'),
      partKey('row', '1', 'one'),
    ];
    assert.equal(new Set(keys).size, 3);
  });
});
