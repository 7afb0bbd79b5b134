/** The work done on a study as a whole, to be taken along in a file and brought back from one. */
import type { Questionnaire } from '../core/document/types';
import { WORK_PARTS, type Work, type WorkPart } from '../core/exchange/work-file';
import { listAsides } from './asides';
import { listComments } from './comments';
import { findDraw } from './draws';
import type { Store } from './open';
import { listRespondents } from './respondents';
import { asides, comments, draws, respondents, verdicts } from './schema';
import { addStudy, type Study } from './studies';
import { listVerdicts } from './verdicts';

export function workOn(db: Store, studyId: string): Work {
  const draw = findDraw(db, studyId);
  return {
    // Ids and revisions are of this installation alone.
    comments: listComments(db, studyId).map(({ id: _, revision: _on, ...comment }) => comment),
    verdicts: listVerdicts(db, studyId).map(({ revision: _, ...verdict }) => verdict),
    asides: listAsides(db, studyId),
    respondents: listRespondents(db, studyId),
    draws: draw === null ? [] : [draw],
  };
}

const TABLES = { comments, verdicts, asides, respondents, draws } satisfies Record<WorkPart, unknown>;

/** Adds a study with the work that was done on it elsewhere: all of it or nothing. */
export function addWork(db: Store, document: Questionnaire, work: Work, now: number, id?: string): Study {
  return db.transaction((tx) => {
    const study = addStudy(tx, document, now, id);
    for (const part of WORK_PARTS)
      for (const each of work[part])
        tx.insert(TABLES[part])
          .values({ ...each, studyId: study.id } as never)
          .run();
    return study;
  });
}
