/** Keeping a version of a study, or freezing one for fielding where nothing stands in the way. */
import type * as v from 'valibot';
import { gateLineWords, isMet } from '../core/release/gate';
import { listAsides } from '../store/asides';
import { otherStudies } from '../store/follow-up';
import type { Store } from '../store/open';
import { listRespondents } from '../store/respondents';
import { findStudy, storedText, type Study } from '../store/studies';
import { listVerdicts } from '../store/verdicts';
import { addVersion, type VersionToAdd } from '../store/versions';
import type { VersionToKeep } from '../wire/versions';
import { judge, type Judged } from './judge';
import { noSuchStudy, refuse } from './respond';
import { created } from './with-study';

type ToKeep = v.InferOutput<typeof VersionToKeep>;
type Judge = (judged: Judged) => ReturnType<typeof judge>;

/** 409 where the study was changed meanwhile, 422 where something stands in the way and no reason is given. */
export async function keepVersion(
  db: Store,
  id: string,
  toKeep: ToKeep & { readonly at: number },
  judgedBy: Judge = judge,
): Promise<Response> {
  const study = findStudy(db, id);
  if (study === null) return noSuchStudy(id);
  const { revision, note, author, at } = toKeep;
  if (study.revision !== revision) return overtaken(study);
  const kept: VersionToAdd = { frozen: toKeep.frozen, revision, note, author, at, gate: null, reason: null };
  if (!toKeep.frozen) return added(db, id, kept);
  const { wanted, reason } = toKeep;
  const judgement = await judgedBy({ text: storedText(db, id) ?? '', work: workJudged(db, id), wanted });
  if (typeof judgement === 'string') return refuse(500, NOT_JUDGED[judgement]);
  if (isMet(judgement)) return added(db, id, kept);
  const gate = judgement.filter(({ count }) => count > 0n);
  if (reason === '')
    return refuse(
      422,
      `Not frozen: ${gate.map(gateLineWords).join(', ')}. Clear them, or say why it is frozen all the same.`,
    );
  return added(db, id, {
    ...kept,
    gate: gate.map(({ check, count, complete }) => ({ check, count: String(count), complete })),
    reason,
  });
}

const NOT_JUDGED = {
  time: 'Not frozen: it takes too long to tell what stands in the way. Fewer or less entangled conditions help; a version can be kept without freezing it.',
  fault:
    'Not frozen: what stands in the way could not be told, by a fault of the program; its log has more. A version can be kept without freezing it.',
} as const;

function added(db: Store, id: string, version: VersionToAdd): Response {
  const result = addVersion(db, id, version);
  if (result === null) return noSuchStudy(id);
  return result.added ? created(result.version) : overtaken(result.study);
}

function overtaken(study: Study): Response {
  return refuse(409, 'Not kept: this study was changed elsewhere in between. Look at it once more.', {
    revision: study.revision,
  });
}

function workJudged(db: Store, id: string): Judged['work'] {
  return {
    passed: listVerdicts(db, id).flatMap(({ verdict, marks }) => (verdict === 'passed' ? [marks] : [])),
    asides: listAsides(db, id).map(({ snag }) => snag),
    respondents: listRespondents(db, id),
    others: otherStudies(db, id),
  };
}
