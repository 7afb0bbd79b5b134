/** Seeds the demo studies into the data folder; `--fresh` brings them back as they were. */
import { openStore } from '../src/store/open';
import { seedDemo } from '../src/store/demo';
import path from 'node:path';

const file = path.join(process.env.JOLLY_FORK_DATA ?? 'data', 'jolly-fork.sqlite');
seedDemo(openStore(file), Date.now(), { fresh: process.argv.includes('--fresh') });
