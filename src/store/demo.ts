/** The demo studies, seeded under fixed ids. */
import heating from '../../demo/tern-valley-home-heating.fork.json';
import lighting from '../../demo/street-lighting-doorstep.fork.json';
import diary from '../../demo/winter-diary.fork.json';
import { readDocument } from '../core/document/read';
import type { Store } from './open';
import { addStudy, findStudy } from './studies';

const DEMO: readonly (readonly [id: string, json: unknown])[] = [
  ['winter-diary', diary],
  ['street-lighting-doorstep', lighting],
  ['tern-valley-home-heating', heating],
];

/** Adds the demo studies that are not there; with `fresh`, all of them as they were, their verdicts gone. */
export function seedDemo(db: Store, now: number, { fresh = false } = {}): void {
  DEMO.forEach(([id, json], index) => {
    if (!fresh && findStudy(db, id) !== null) return;
    const read = readDocument(json);
    if (!read.ok) throw new Error(`the demo study ${id} cannot be read: ${read.problems[0]?.message}`);
    addStudy(db, read.document, now + index, id);
  });
}
