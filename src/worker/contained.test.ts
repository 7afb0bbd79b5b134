/** A call that fails in the worker: told in one sentence, and the next call is answered as ever. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { contained } from './contained';

it('tells what could not be done, keeps the cause, and goes on', async (t) => {
  const logged = t.mock.method(console, 'error', () => undefined);
  let broken = true;
  const api = contained({
    asked(of: string) {
      if (broken) throw new RangeError('no answer fits');
      return of;
    },
  });
  assert.throws(
    () => api.asked('q1'),
    (error: Error) =>
      /^Who is asked what could not be worked out, by a fault of the program .*no answer fits/.test(
        error.message,
      ) && error.cause instanceof RangeError,
  );
  assert.equal(logged.mock.callCount(), 1);
  const later = contained({ file: (): Promise<string> => Promise.reject(new RangeError('no room')) });
  await assert.rejects(
    later.file(),
    /^Error: The file could not be made, by a fault of the program .*no room/,
  );
  const odd = contained({
    snags(): never {
      throw 'no error at all' as unknown as Error;
    },
  });
  assert.throws(() => odd.snags(), /\(no error at all\)\. The rest stands/);
  broken = false;
  assert.equal(api.asked('q1'), 'q1');
});
