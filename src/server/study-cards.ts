/** What the list of studies shows of each. */
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { asidesByStudy } from '../store/asides';
import type { Store } from '../store/open';
import { storedStudies } from '../store/studies';
import { passedByStudy } from '../store/verdicts';
import type { StudyCard } from '../wire/studies';
import { Examiner } from './examiner';

let examiner: Examiner | null = null;

/** Of this process; its thread is a file of its own in the built app. */
function theExaminer(): Examiner {
  examiner ??= new Examiner(() => new Worker(path.join(process.cwd(), 'dist', 'door', 'examine.worker.mjs')));
  return examiner;
}

/** The one changed last first. What is not known of a study yet is filled in when they are asked for again. */
export function studyCards(db: Store, by: Pick<Examiner, 'of'> = theExaminer()): StudyCard[] {
  const asides = asidesByStudy(db);
  const passed = passedByStudy(db);
  return storedStudies(db).map(({ id, title, text, changedAt }) => {
    const examined = by.of(text);
    const aside = asides.get(id);
    return {
      id,
      title,
      changedAt,
      passed: passed.get(id) ?? 0,
      examined,
      snags:
        examined?.is === 'questionnaire' ? examined.snags.filter((snag) => !aside?.has(snag)).length : null,
    };
  });
}
