/** Signing in, by passphrase and by proxy, on a database of its own. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { openStore } from '../store/open';
import { SESSION_IDLE, SESSION_LASTS } from '../store/sessions';
import { ledOn } from './entrance';
import { COST } from './passphrase';
import { readReach } from './reach';
import { Entrance } from './signed-in';

const PASSPHRASE = 'clear water, old bridge';
/** A try takes no time here; once below it is as it is. */
const CHEAP = { ...COST, N: 16 };
const HERE = { 'x-jolly-fork-from': '10.0.0.9' };

function reachOf(settings: Record<string, string>) {
  const read = readReach(settings);
  assert.ok(read.ok);
  return read.reach;
}
const entranceOf = (settings: Record<string, string>, db = openStore(':memory:')) =>
  new Entrance(db, reachOf(settings), CHEAP);
const guarded = (db = openStore(':memory:')) => entranceOf({ JOLLY_FORK_PASSPHRASE: PASSPHRASE }, db);

const headers = (more: Record<string, string> = {}) => new Headers({ ...HERE, ...more });

async function signedIn(entrance: Entrance, name: string, now: number): Promise<Headers> {
  const result = await entrance.signIn(name, PASSPHRASE, headers(), now);
  assert.ok(result.ok);
  return headers({ cookie: `other=1; ${result.cookie.split(';')[0] ?? ''}` });
}

describe('the entrance', () => {
  it('stands open where nobody signs in, and shut where they do', async () => {
    assert.deepEqual(await entranceOf({}).asker(headers(), 0), { name: null, canSignOut: false });
    const entrance = guarded();
    for (const cookie of ['', 'jolly_fork_session=', `jolly_fork_session=${'a'.repeat(43)}`])
      assert.equal(await entrance.asker(headers({ cookie }), 0), null);
    assert.deepEqual(await entrance.asker(headers({ 'x-jolly-fork-program': 'yes' }), 0), {
      name: null,
      canSignOut: false,
    });
  });

  it('lets in by the passphrase, under the name given, with a cookie that no script reads', async () => {
    const entrance = new Entrance(openStore(':memory:'), reachOf({ JOLLY_FORK_PASSPHRASE: PASSPHRASE }));
    const result = await entrance.signIn('  Ines\n Marlow ', PASSPHRASE, headers(), 0);
    assert.ok(result.ok);
    assert.match(
      result.cookie,
      /^jolly_fork_session=[\w-]{43}; Path=\/; HttpOnly; SameSite=Lax; Max-Age=43200$/,
    );
    const cookie = result.cookie.split(';')[0] ?? '';
    assert.deepEqual(await entrance.asker(headers({ cookie }), 1), { name: 'Ines Marlow', canSignOut: true });
    for (const [name, passphrase] of [
      ['Ines', PASSPHRASE.toUpperCase()],
      ['Ines', `${PASSPHRASE} `],
      ['Ines', ''],
      [' ', PASSPHRASE],
    ] as const)
      assert.equal((await entrance.signIn(name, passphrase, headers(), 0)).ok, false);
  });

  it('looks at five tries of an address in a quarter of an hour, the right one not either after them', async () => {
    const entrance = guarded();
    const tried = await Promise.all(
      Array.from({ length: 7 }, () => entrance.signIn('Ines', 'wrong passphrase', headers(), 0)),
    );
    assert.deepEqual(
      tried.map((result) => (result.ok ? 200 : result.status)),
      [401, 401, 401, 401, 401, 429, 429],
    );
    const right = await entrance.signIn('Ines', PASSPHRASE, headers(), 60_000);
    assert.ok(!right.ok && right.status === 429);
    assert.match(right.problem, /Wait 14 minutes/);
    assert.equal(right.waitSeconds, 14 * 60);
    const last = await entrance.signIn('Ines', PASSPHRASE, headers(), 15 * 60_000 - 1500);
    assert.ok(!last.ok && last.waitSeconds === 2);
    assert.match(last.problem, /Wait a minute,/);
    assert.ok(
      (await entrance.signIn('Ines', PASSPHRASE, headers({ 'x-jolly-fork-from': '10.0.0.8' }), 0)).ok,
    );
    assert.ok((await entrance.signIn('Ines', PASSPHRASE, headers(), 15 * 60_000)).ok);
  });

  it('ends a session on signing out, unused, after its time, and with the passphrase; a start ends none', async () => {
    const db = openStore(':memory:');
    const entrance = guarded(db);
    const one = await signedIn(entrance, 'One', 0);
    const two = await signedIn(entrance, 'Two', 0);
    assert.match(await entrance.signOut(one), /^jolly_fork_session=; .*Max-Age=0$/);
    assert.equal(await entrance.asker(one, 1), null);
    assert.equal((await guarded(db).asker(two, 1))?.name, 'Two');
    assert.equal(await entranceOf({ JOLLY_FORK_PASSPHRASE: 'another passphrase' }, db).asker(two, 1), null);

    let now = 0;
    for (; now <= SESSION_LASTS; now += SESSION_IDLE - 1)
      assert.equal((await entrance.asker(two, now))?.name, 'Two', `${now}`);
    assert.equal(await entrance.asker(two, now), null);
    const idle = await signedIn(entrance, 'Idle', 0);
    assert.equal(await entrance.asker(idle, SESSION_IDLE + 1), null);
    assert.equal(await entrance.asker(idle, 0), null);
  });

  it('says nothing of encryption where there is no proxy to tell of it', async () => {
    const way = { 'x-forwarded-proto': 'https' };
    const result = await guarded().signIn('Ines', PASSPHRASE, headers(way), 0);
    assert.ok(result.ok && !result.cookie.includes('Secure'));
  });

  it('gives a browser that signs in once more another session, and takes the first away', async () => {
    const entrance = guarded();
    const first = await signedIn(entrance, 'First', 0);
    assert.ok((await entrance.signIn('Second', PASSPHRASE, first, 1)).ok);
    assert.equal(await entrance.asker(first, 2), null);
  });

  it('believes the name in the header of the proxy, from its address alone', async () => {
    const settings = { JOLLY_FORK_PROXY_HEADER: 'X-User', JOLLY_FORK_PROXY_ADDRESSES: '10.0.0.2' };
    const entrance = entranceOf(settings);
    const from = (address: string, more: Record<string, string> = {}) =>
      new Headers({ 'x-jolly-fork-from': address, ...more });
    const ines = { 'x-user': Buffer.from('Inés Marlow').toString('latin1') };
    assert.deepEqual(await entrance.asker(from('::ffff:10.0.0.2', ines), 0), {
      name: 'Inés Marlow',
      canSignOut: false,
    });
    assert.equal(await entrance.asker(from('10.0.0.3', ines), 0), null);
    assert.equal(await entrance.asker(from('10.0.0.2'), 0), null);
    assert.equal(await entrance.asker(from('10.0.0.3', { ...ines, 'x-forwarded-for': '10.0.0.2' }), 0), null);

    const both = entranceOf({ ...settings, JOLLY_FORK_PASSPHRASE: PASSPHRASE });
    const way = { 'x-forwarded-for': '6.6.6.6, 1.2.3.4, 10.0.0.2', 'x-forwarded-proto': 'https' };
    const result = await both.signIn('Ines', PASSPHRASE, from('10.0.0.2', way), 0);
    assert.ok(result.ok);
    assert.match(result.cookie, /; Secure$/);
    // Only the proxy's word counts, and only where it says that the way to it was encrypted.
    for (const headers of [from('10.0.0.2'), from('10.0.0.3', way)]) {
      const plain = await both.signIn('Ines', PASSPHRASE, headers, 0);
      assert.ok(plain.ok && !plain.cookie.includes('Secure'));
    }
    for (let n = 0; n < 5; n += 1) await both.signIn('Ines', 'wrong passphrase', from('10.0.0.2', way), 0);
    const other = { 'x-forwarded-for': '6.6.6.6, 1.2.3.5' };
    const statuses = [way, other].map((which) => both.signIn('I', PASSPHRASE, from('10.0.0.2', which), 0));
    assert.deepEqual(
      (await Promise.all(statuses)).map(({ ok }) => ok),
      [false, true],
    );
  });

  it('leads on to pages of ours alone', () => {
    for (const to of ['/', '/studies/a-1/script', '/studies/a_1/walk?route=12', '/studies/x'])
      assert.equal(ledOn(to), to);
    for (const to of [
      null,
      '',
      '//evil.example',
      'https://evil.example',
      '/\\evil.example',
      '/studies/../x',
      '/studies/a//b',
      '/review/x',
      '/sign-in',
    ])
      assert.equal(ledOn(to), '/', String(to));
  });
});
