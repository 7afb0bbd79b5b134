/** Where it listens, and who is let in there, by the settings. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { hostsOf, readReach, whoCanReach, type ServerReach } from './reach';

const PASSPHRASE = { JOLLY_FORK_PASSPHRASE: 'two words and more' };
const PROXY = {
  JOLLY_FORK_PROXY_HEADER: 'X-Forwarded-User',
  JOLLY_FORK_PROXY_ADDRESSES: '10.0.0.2, 192.168.7.0/24, fd00::/8',
};

function reach(settings: Record<string, string>): ServerReach {
  const read = readReach(settings);
  assert.ok(read.ok, read.ok ? '' : read.problem);
  return read.reach;
}
function problem(settings: Record<string, string>): string {
  const read = readReach(settings);
  assert.ok(!read.ok);
  return read.problem;
}

describe('reach', () => {
  it('is this machine alone, without signing in, unless something else is said', () => {
    const { host, port, isGuarded } = reach({});
    assert.deepEqual([host, port, isGuarded], ['127.0.0.1', 4321, false]);
    for (const host of ['localhost', '::1', '127.3.2.1'])
      assert.equal(reach({ HOST: host }).isGuarded, false);
  });

  it('does not go beyond this machine, by address or by name, while nobody signs in', () => {
    for (const HOST of ['0.0.0.0', '::', '10.0.0.7', 'forks.example.org', '127.0.0.1.example.org'])
      assert.match(problem({ HOST }), /HOST is .* JOLLY_FORK_PASSPHRASE/);
    assert.match(problem({ JOLLY_FORK_HOSTS: 'localhost, forks.example.org:80' }), /JOLLY_FORK_HOSTS is/);
    assert.equal(reach({ JOLLY_FORK_HOSTS: 'localhost:80' }).isGuarded, false);
    for (const way of [PASSPHRASE, PROXY]) assert.equal(reach({ HOST: '0.0.0.0', ...way }).isGuarded, true);
  });

  it('refuses settings that would guard less than they seem to', () => {
    assert.match(problem({ JOLLY_FORK_PASSPHRASE: 'eleven char' }), /fewer than 12/);
    assert.match(problem({ JOLLY_FORK_PROXY_HEADER: 'X-User' }), /wants both/);
    assert.match(problem({ JOLLY_FORK_PROXY_ADDRESSES: '10.0.0.2' }), /wants both/);
    assert.match(problem({ ...PROXY, JOLLY_FORK_PROXY_HEADER: 'X User' }), /no name of a header/);
    for (const address of ['proxy.example.org', '10.0.0.0/33', '10.0.0', '10.0.0.0/', 'fd00::/129'])
      assert.match(
        problem({ ...PROXY, JOLLY_FORK_PROXY_ADDRESSES: address }),
        /give addresses like/,
        address,
      );
    assert.match(problem({ PORT: '70000' }), /PORT is/);
  });

  it('believes a proxy by its address, however that is written, and nobody else', () => {
    const { proxy } = reach(PROXY);
    for (const address of ['10.0.0.2', '::ffff:10.0.0.2', '192.168.7.200', 'fd12::1'])
      assert.equal(proxy?.trusts(address), true, address);
    for (const address of ['10.0.0.3', '192.168.8.1', '127.0.0.1', 'fe80::1', '', 'x', '10.0.0.2, 1.2.3.4'])
      assert.equal(proxy?.trusts(address), false, address);
  });

  it('answers under the addresses at which it listens', () => {
    const own = ['127.0.0.1', '10.0.0.7', 'fd00::7'];
    assert.deepEqual(hostsOf(reach({ HOST: '0.0.0.0', ...PASSPHRASE }), own), [
      '127.0.0.1',
      '10.0.0.7',
      '[fd00::7]',
    ]);
    assert.deepEqual(hostsOf(reach({ HOST: 'localhost' }), own), []);
    assert.deepEqual(
      hostsOf(reach({ HOST: '10.0.0.7', JOLLY_FORK_HOSTS: 'a.example', ...PASSPHRASE }), own),
      ['a.example', '10.0.0.7'],
    );
  });

  it('says at the start who can reach it', () => {
    const own = ['127.0.0.1', '10.0.0.7'];
    assert.match(whoCanReach(reach({}), own), /^Only this machine reaches it, and whoever uses/);
    const open = whoCanReach(reach({ HOST: '0.0.0.0', PORT: '80', ...PASSPHRASE, ...PROXY }), own);
    for (const part of [
      'Whoever is in the same network reaches it, at http://10.0.0.7:80/.',
      'Authors sign in with the passphrase.',
      '10.0.0.2, 192.168.7.0/24, fd00::/8',
      "Reviewers' links open without",
      'Nothing is encrypted',
    ])
      assert.ok(open.includes(part), open);
    assert.ok(!open.includes('two words'));
  });
});
