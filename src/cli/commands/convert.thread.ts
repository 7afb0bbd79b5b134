/** The second thread of `jolly-fork convert`: some files of a package. */
import { parentPort } from 'node:worker_threads';
import { expose } from 'comlink';
import endpoint from 'comlink/dist/esm/node-adapter.mjs';
import { besideApi } from '../../core/release/formats/made-beside';

if (parentPort === null) throw new Error('this runs as a thread of a command');
expose(besideApi(), endpoint(parentPort));
