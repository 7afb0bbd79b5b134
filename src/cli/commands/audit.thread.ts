/** One of the threads of `jolly-fork audit`: it audits pieces of the file. */
import { parentPort } from 'node:worker_threads';
import { expose } from 'comlink';
import endpoint from 'comlink/dist/esm/node-adapter.mjs';
import { pieceApi } from '../../core/collected/piece-through';

if (parentPort === null) throw new Error('this runs as a thread of a command');
expose(pieceApi(), endpoint(parentPort));
