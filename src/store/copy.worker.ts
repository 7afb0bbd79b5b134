/** The thread that makes the copy of the day: reading a large database through takes a while, and no request waits for it. */
import { parentPort, workerData } from 'node:worker_threads';
import * as v from 'valibot';
import { copyOfTheDay } from './backup';

const { folder, now, keep } = v.parse(
  v.strictObject({ folder: v.string(), now: v.number(), keep: v.number() }),
  workerData,
);
try {
  await copyOfTheDay(folder, now, keep);
  parentPort?.postMessage(null);
} catch (error) {
  parentPort?.postMessage(error instanceof Error ? error.message : String(error));
}
