/** Examines questionnaires on a thread of its own, one after the other. Bundled by itself. */
import { parentPort } from 'node:worker_threads';
import * as v from 'valibot';
import type { Examined } from '../wire/studies';
import { examine } from './examine';

const Asked = v.strictObject({ checksum: v.string(), text: v.string() });

parentPort?.on('message', (message: unknown) => {
  const { checksum, text } = v.parse(Asked, message);
  parentPort?.postMessage({ checksum, found: withoutFault(text) });
});

function withoutFault(text: string): Examined {
  try {
    return examine(text);
  } catch (error) {
    console.error('A study could not be examined:', error);
    return { is: 'failed', why: 'fault' };
  }
}
