/** Judges whether a study may be frozen, on a thread of its own. Bundled by itself. */
import { parentPort, workerData } from 'node:worker_threads';
import { judgeHere } from './judge-here';

parentPort?.postMessage(judgeHere(workerData));
