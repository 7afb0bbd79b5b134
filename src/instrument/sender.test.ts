/** Cases on the shelf of a device, and on their way to a receiver. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../tests/support/questionnaire';
import { caseBegun, caseStopped, type KeptCase } from '../core/responding/kept-case';
import type { Tried } from '../core/responding/sending';
import { Sender, type Outside } from './sender';
import { Shelf, type Kept } from './shelf';

const plan = planFor(questionnaire([section('a', [ask('drives')])]));
const ASKED = { title: 'Cars', version: 'Draft', checksum: 'abc' };

/** `room`: how many letters it holds. */
function storage(room = Infinity): Kept & { readonly texts: Map<string, string> } {
  const texts = new Map<string, string>();
  return {
    texts,
    get length() {
      return texts.size;
    },
    key: (n) => [...texts.keys()][n] ?? null,
    getItem: (name) => texts.get(name) ?? null,
    setItem: (name, text) => {
      const others = [...texts].reduce((sum, [of, each]) => sum + (of === name ? 0 : each.length), 0);
      if (others + text.length > room) throw new Error('QuotaExceededError');
      texts.set(name, text);
    },
    removeItem: (name) => void texts.delete(name),
  };
}

const begun = (n: number): KeptCase =>
  caseBegun(
    plan,
    { key: `00000000-0000-4000-8000-00000000000${n}`, id: String(n), seed: 1, given: {} },
    n * 1000,
  );
const closed = (n: number) => caseStopped(plan, begun(n), n * 1000 + 500);

describe('the shelf', () => {
  it('gives back what was put there, the latest first, to whoever opens the page again', () => {
    const kept = storage();
    const shelf = new Shelf(kept, 'abc');
    for (const n of [1, 3, 2]) shelf.put(begun(n));
    assert.deepEqual(new Shelf(kept, 'abc').all(), [begun(3), begun(2), begun(1)]);
    assert.deepEqual(new Shelf(kept, 'other').all(), []);
    shelf.remove([begun(3).key]);
    assert.deepEqual(
      new Shelf(kept, 'abc').all().map(({ id }) => id),
      ['2', '1'],
    );
  });

  it('takes over cases that were begun before, with the draws that they were begun with, as soon as there is room', () => {
    const kept = storage();
    const before = JSON.stringify(begun(1));
    for (const name of [`jolly-fork abc ${begun(1).key}`, 'jolly-fork abcd 1']) kept.texts.set(name, before);
    const full = { ...kept, length: 2, setItem: storage(10).setItem };
    assert.deepEqual([new Shelf(full, 'abc').all(), kept.texts.size], [[], 2]);
    for (let opened = 1; opened <= 2; opened += 1)
      assert.deepEqual(new Shelf(kept, 'abc').all(), [{ ...begun(1), seed: -2 }]);
    assert.deepEqual([...kept.texts.keys()], ['jolly-fork abcd 1', `jolly-fork 2 abc ${begun(1).key}`]);
  });

  it('leaves alone what it cannot read', () => {
    const kept = storage();
    new Shelf(kept, 'abc').put(begun(1));
    const [name = ''] = [...kept.texts.keys()];
    for (const text of ['{', 'null', '{"key":"1"}']) {
      kept.texts.set(name, text);
      assert.deepEqual(new Shelf(kept, 'abc').all(), []);
      assert.equal(kept.texts.get(name), text);
    }
  });

  it('says so where there is no room, or no storage at all, and goes on with what is in hand', () => {
    const full = new Shelf(storage(10), 'abc');
    assert.equal(full.problem, null);
    full.put(begun(1));
    assert.match(full.problem ?? '', /no room left/);
    assert.equal(full.get(begun(1).key)?.id, '1');
    assert.match(new Shelf(null, 'abc').problem ?? '', /keeps nothing/);
  });

  it('holds on to what found no room, whatever is read anew, until there is some', () => {
    const kept = storage(JSON.stringify(begun(1)).length + 10);
    const shelf = new Shelf(kept, 'abc');
    for (const n of [1, 2]) shelf.put(begun(n));
    shelf.reread();
    assert.deepEqual(
      shelf.all().map(({ id }) => id),
      ['2', '1'],
    );
    assert.match(shelf.problem ?? '', /no room left/);
    shelf.remove([begun(1).key]);
    assert.equal(shelf.problem, null);
    assert.deepEqual(new Shelf(kept, 'abc').all(), [begun(2)]);
  });
});

/** A network and a clock that do as they are told. */
class Told implements Outside {
  readonly posted: { key: string; body: { case: string } }[] = [];
  readonly answers: Tried[] = [];
  time = 100_000;
  waits: { call: () => void; wait: number }[] = [];

  post(_address: string, key: string, body: string): Promise<Tried> {
    this.posted.push({ key, body: JSON.parse(body) as { case: string } });
    return Promise.resolve(this.answers.shift() ?? { status: 201 });
  }
  now = () => this.time;
  chance = () => 0.5;
  later(call: () => void, wait: number) {
    const own = { call, wait };
    this.waits.push(own);
    return () => void (this.waits = this.waits.filter((each) => each !== own));
  }
  alone = (work: () => Promise<void>) => work();
}

describe('the sender', () => {
  it('sends what is closed, the oldest first, and nothing twice', async () => {
    const shelf = new Shelf(storage(), 'abc');
    const outside = new Told();
    const sender = new Sender(plan, ASKED, 'https://example.org/', shelf, outside);
    for (const kept of [closed(2), begun(3), closed(1)]) shelf.put(kept);
    await sender.send();
    await sender.send();
    assert.deepEqual(
      outside.posted.map(({ key, body }) => `${body.case} ${key === closed(Number(body.case)).key}`),
      ['1 true', '2 true'],
    );
    assert.deepEqual(
      shelf.all().map(({ id, sending }) => [id, sending.takenAt]),
      [
        ['3', null],
        ['2', 100_000],
        ['1', 100_000],
      ],
    );
    assert.equal(outside.waits.length, 0);
  });

  it('comes back for what met no answer once it is due, with the same key and bytes, and not for what was refused', async () => {
    const shelf = new Shelf(storage(), 'abc');
    const outside = new Told();
    outside.answers.push({ fault: 'there is no network' }, { status: 422 });
    const sender = new Sender(plan, ASKED, 'https://example.org/', shelf, outside);
    shelf.put(closed(1));
    shelf.put(closed(2));
    await sender.send();
    assert.deepEqual(
      outside.waits.map(({ wait }) => wait),
      [2000],
    );
    // Too early: it is not due.
    await sender.send();
    assert.equal(outside.posted.length, 2);
    outside.time += 2000;
    await sender.send();
    assert.deepEqual(
      outside.posted.map(({ body }) => body.case),
      ['1', '2', '1'],
    );
    assert.deepEqual(outside.posted[2], outside.posted[0]);
    assert.deepEqual(
      shelf.all().map(({ id, sending }) => `${id} ${sending.takenAt} ${sending.problem}`),
      ['2 null the receiver answered 422', '1 102000 null'],
    );
    assert.equal(outside.waits.length, 0);
  });

  it('sends what waits as soon as the network is back, and what was refused once somebody asks', async () => {
    const shelf = new Shelf(storage(), 'abc');
    const outside = new Told();
    outside.answers.push({ fault: 'there is no network' }, { status: 403 });
    const sender = new Sender(plan, ASKED, 'https://example.org/', shelf, outside);
    for (const n of [1, 2]) shelf.put(closed(n));
    await sender.send();
    await sender.sendNow(false);
    assert.deepEqual(
      outside.posted.map(({ body }) => body.case),
      ['1', '2', '1'],
    );
    await sender.sendNow(true);
    await sender.sendNow(true);
    assert.deepEqual(
      outside.posted.map(({ body }) => body.case),
      ['1', '2', '1', '2'],
    );
  });

  it('does not send what another tab has sent meanwhile', async () => {
    const kept = storage();
    const [here, there] = [new Shelf(kept, 'abc'), new Shelf(kept, 'abc')];
    here.put(closed(1));
    there.reread();
    const outside = new Told();
    await new Sender(plan, ASKED, 'https://example.org/', there, outside).send();
    await new Sender(plan, ASKED, 'https://example.org/', here, outside).send();
    assert.equal(outside.posted.length, 1);
  });
});
