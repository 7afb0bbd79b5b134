/** The demo study that most is tried on, read as any file is. */
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { readDocumentText } from '../../src/core/document/read';
import type { Questionnaire } from '../../src/core/document/types';

export const DEMO_FILE = fileURLToPath(
  new URL('../../demo/tern-valley-home-heating.fork.json', import.meta.url),
);

export function demo(): Questionnaire {
  const read = readDocumentText(readFileSync(DEMO_FILE, 'utf8'));
  if (!read.ok) throw new Error('the demo study cannot be read');
  return read.document;
}
