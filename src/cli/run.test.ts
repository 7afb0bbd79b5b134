/** What becomes of a command that fails: misuse and faults of the program, each in one line. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Snag } from '../core/snags';
import { Misuse } from './files';
import { exitCode, judgedBy } from './judged';
import { run } from './run';

async function runs(command: () => number) {
  const said: string[] = [];
  const streams = { out: () => undefined, problem: (text: string) => void said.push(text) };
  const code = await run({ check: command }, ['check', 'study.fork.json'], streams);
  return { code, said };
}

describe('a command', () => {
  it('that meets a fault of the program says so in one line with the place, and exits 3', async () => {
    const { code, said } = await runs(function fitTheRoute(): never {
      throw new RangeError('no answer\nfits the route');
    });
    assert.equal(code, 3);
    assert.equal(said.length, 1);
    assert.match(
      said[0] ?? '',
      /^jolly-fork: “check study\.fork\.json” failed by a fault of the program.*: no answer fits the route \(in .*fitTheRoute\)\n$/,
    );
  });

  it('that is misused exits 2 with the reason alone', async () => {
    const { code, said } = await runs(() => {
      throw new Misuse('there is no file');
    });
    assert.deepEqual([code, said], [2, ['jolly-fork: there is no file\n']]);
  });

  it('of which a check failed exits 3 and says which call, an error alone 1', () => {
    const snag: Snag = { rule: 'not-exact', severity: 'warning', at: {}, message: '' };
    const codeOf = (...snags: Snag[]) => {
      const said: string[] = [];
      return [exitCode(['analyse', 'a.json'], judgedBy(snags), (text) => said.push(text)), said.join('')];
    };
    assert.deepEqual(codeOf(snag), [0, '']);
    const error: Snag = { ...snag, severity: 'error' };
    assert.deepEqual(codeOf(snag, error), [1, '']);
    const [code, said] = codeOf(error, { ...snag, fault: new RangeError('no answer fits') });
    assert.equal(code, 3);
    assert.match(String(said), /^jolly-fork: “analyse a\.json” failed by a fault.*: no answer fits/);
  });
});
