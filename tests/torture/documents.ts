/** Mutated questionnaires: everything is asked of them, and nothing fails. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Caps } from '../../src/core/analysis';
import { randomDocument } from '../agree/documents';
import { askEverything } from '../agree/everything';
import { FEATURED } from '../agree/featured';
import { mutated } from '../agree/mutations';
import { wideDocument } from '../agree/wide';
import type { SeededPart } from './part';

/** Some seconds at most for the worst of them. */
const CAPS: Caps = { beliefs: 5_000, nodes: 200_000, steps: 1_000_000 };

const folder = (name: string) =>
  readdirSync(name)
    .filter((file) => file.endsWith('.fork.json'))
    .map((file) => JSON.parse(readFileSync(path.join(name, file), 'utf8')) as object);
const demos = folder('demo');

export const documents: SeededPart = {
  name: 'documents',
  words: 'mutated questionnaires, of which everything is asked',
  one(seed) {
    const kind = seed % 8;
    const from =
      kind < 3
        ? randomDocument(seed)
        : kind < 6
          ? (FEATURED[seed % FEATURED.length] as object)
          : kind === 6
            ? wideDocument(seed)
            : (demos[seed % demos.length] as object);
    askEverything(mutated(from, seed), `seed ${seed}`, CAPS);
  },
};
