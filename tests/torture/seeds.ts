/** Seeds that once failed, by part: tried again with every run, here and in the tests. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import * as v from 'valibot';

const FILE = path.join('tests', 'torture', 'kept.json');
const KeptSchema = v.record(v.string(), v.array(v.number()));

type Kept = Readonly<Record<string, readonly number[]>>;

function read(): Kept {
  return existsSync(FILE) ? v.parse(KeptSchema, JSON.parse(readFileSync(FILE, 'utf8'))) : {};
}

export const keptSeeds = (part: string): readonly number[] => read()[part] ?? [];

export function keep(part: string, seed: number): void {
  const kept = read();
  const seeds = [...new Set([...(kept[part] ?? []), seed])].sort((a, b) => a - b);
  writeFileSync(FILE, `${JSON.stringify({ ...kept, [part]: seeds }, null, 2)}\n`);
}
