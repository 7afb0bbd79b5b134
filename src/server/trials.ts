/** Links for respondents, as their authors make them: which questionnaires they take along, and what stands in the way. */
import { gzipSync } from 'node:zlib';
import type * as v from 'valibot';
import { ENDINGS } from '../core/document/vocabularies';
import type { Questionnaire } from '../core/document/types';
import { csvLines } from '../core/exchange/csv';
import { dataFields } from '../core/release/data/fields';
import { versionWords } from '../core/release/version-words';
import { neededBefore, readPeople } from '../core/responding/people';
import { sampleOfCases } from '../core/forecast/seen/from-cases';
import { trialCsv, trialRecord, trialRows, type TrialCase } from '../core/responding/trial-data';
import type { TrialSettings } from '../core/responding/trial-settings';
import type { Plan } from '../core/routing/plan';
import { planOf } from '../core/routing/planner';
import { listDatasets, putDataset } from '../store/datasets';
import { followUpStudy } from '../store/follow-up';
import type { Store } from '../store/open';
import { findPanel, timeUnder } from '../store/panels';
import { addPeople, countPeople, listPeople } from '../store/people';
import { countByEnding, keyOf, listResponses, removeStopped } from '../store/responses';
import { findStudy } from '../store/studies';
import { trialPlan } from '../store/trial-plans';
import {
  addTrial,
  changeTrial,
  findTrial,
  listFollowUps,
  listTrials,
  questionnaireOf,
  type FoundTrial,
  type Trial,
  type TrialQuestionnaire,
  type TrialToAdd,
} from '../store/trials';
import { findVersion, listVersions } from '../store/versions';
import type {
  PeopleToAdd,
  SeenSharesSchema,
  Trial as TrialCard,
  TrialToChange,
  TrialToMake,
} from '../wire/trials';
import { noSuchStudy, refuse } from './respond';
import { created } from './with-study';

/** As far as questionnaires are taken along that hand on to each other. */
const MOST_FOLLOW_UPS = 10;

/** A link for a frozen version, or for the draft as it is now. */
export function makeTrial(
  db: Store,
  id: string,
  { name, version, settings }: v.InferOutput<typeof TrialToMake>,
  now: number,
): Response {
  const of = askedOf(db, id, version);
  if (of instanceof Response) return of;
  const plan = planOf(of.document);
  const [problem] = plan.problems;
  if (problem !== undefined)
    return refuse(
      422,
      `No link was made: ${version === null ? 'the draft' : `version ${version}`} leads respondents astray (${problem.message}). Mend that first.`,
    );
  const lacking = lackingWords(plan, settings);
  if (lacking !== null) return refuse(422, `No link was made: ${lacking}`);
  const added = addTrial(db, id, { name, settings, ...of, followUps: followUpsOf(db, of) }, now);
  return created(cardOf(db, added, now));
}

/** What keeps anybody from beginning under such settings, as a sentence; null where nothing does. */
function lackingWords(plan: Plan, { toldApart }: TrialSettings): string | null {
  const needed = neededBefore(plan);
  if (needed.length === 0 || toldApart === 'personal') return null;
  return `${needed.join(', ')} ${needed.length === 1 ? 'is' : 'are'} known before the start, so each person needs a link of their own. Choose “people with links of their own”.`;
}

/** Opens, pauses or closes a link, or settles it anew. */
export function settleTrial(
  db: Store,
  id: string,
  { token, ...change }: v.InferOutput<typeof TrialToChange>,
  now: number,
): TrialCard | Response {
  const trial = trialOf(db, id, token);
  if (trial === null) return noSuchTrial();
  const lacking = change.settings === undefined ? null : lackingWords(trialPlan(trial), change.settings);
  if (lacking !== null) return refuse(422, `Nothing was changed: ${lacking}`);
  changeTrial(db, id, token, change);
  return cardOf(db, findTrial(db, token) ?? trial, now);
}

export function askedOf(db: Store, id: string, version: number | null): TrialQuestionnaire | Response {
  if (version === null) {
    const study = findStudy(db, id);
    return study === null ? noSuchStudy(id) : { version, document: study.document };
  }
  const found = findVersion(db, id, version);
  if (found === null) return refuse(404, `There is no version ${version} of this study.`);
  return found.frozen
    ? { version, document: found.document }
    : refuse(422, `Version ${version} is kept, not frozen: freeze it, or make a link for the draft.`);
}

/** What endings hand on to, and so on: frozen where the first is frozen and there is such a version, else as it is now. */
export function followUpsOf(db: Store, { version, document }: TrialQuestionnaire): TrialToAdd['followUps'] {
  const found = new Map<string, TrialToAdd['followUps'][number]>();
  const toLookAt = [document];
  for (let next = toLookAt.pop(); next !== undefined; next = toLookAt.pop()) {
    for (const named of handedOnTo(next)) {
      const study = found.has(named) || found.size >= MOST_FOLLOW_UPS ? null : followUpStudy(db, named);
      if (study === null) continue;
      const frozen = version === null ? undefined : listVersions(db, study.id).find((each) => each.frozen);
      const whole = frozen === undefined ? null : findVersion(db, study.id, frozen.number);
      const of = { version: whole?.number ?? null, document: whole?.document ?? study.document };
      found.set(named, { named, ...of });
      toLookAt.push(of.document);
    }
  }
  return [...found.values()];
}

const handedOnTo = ({ endings }: Questionnaire): string[] =>
  endings.flatMap(({ next }) => (next !== undefined && 'questionnaire' in next ? [next.questionnaire] : []));

/** The newest first. */
export function trialCards(db: Store, id: string, now: number): TrialCard[] {
  return listTrials(db, id).map((trial) => {
    const found = trial.settings.stopped === 'remove' ? findTrial(db, trial.token) : null;
    if (found === null || removeStopped(db, found, timeUnder(db, trial.token, now)) === 0)
      return cardOf(db, trial, now);
    return cardOf(db, findTrial(db, trial.token) ?? trial, now);
  });
}

export function cardOf(db: Store, trial: Trial, realNow: number): TrialCard {
  const now = timeUnder(db, trial.token, realNow);
  const { token, name, version, settings, state, createdAt, begun, declined, removed } = trial;
  const found = findTrial(db, token);
  const kinds = new Map(
    found === null ? [] : trialPlan(found).endings.map(({ ending }) => [ending.id, ending.kind]),
  );
  const closed = countByEnding(db, token);
  const complete = closed
    .filter(({ ending }) => ending !== null && ENDINGS[kinds.get(ending) ?? 'complete'].counts)
    .reduce((sum, { count }) => sum + count, 0);
  return {
    ...{ token, name, version, settings, state, createdAt, begun, declined, removed, complete },
    elsewhere: closed.reduce((sum, { count }) => sum + count, 0) - complete,
    isOver: settings.closesAt !== undefined && settings.closesAt <= now,
    isPanel: findPanel(db, token) !== null,
    people: countPeople(db, token),
    followUps: listFollowUps(db, token).map((each) => ({
      number: each.number,
      title: trialPlan(each).document.title,
      begun: each.begun,
    })),
  };
}

/** Null where the study has no such link. */
export function trialOf(db: Store, id: string, token: string | undefined): FoundTrial | null {
  const trial = findTrial(db, token ?? '');
  return trial?.studyId === id ? trial : null;
}

export const noSuchTrial = () => refuse(404, 'There is no such link: reload the page.');

export function takePeople(
  db: Store,
  trial: FoundTrial,
  { csv }: v.InferOutput<typeof PeopleToAdd>,
  now: number,
): Response {
  const panel = findPanel(db, trial.token);
  if (panel !== null && panel.clock > panel.settings.startsAt)
    return refuse(422, 'Nobody was added: the panel has begun. Make another one with them.');
  const read = readPeople(trialPlan(trial), csv);
  if (!read.ok) return refuse(422, `Nobody was added. ${read.problems.join(' ')}`);
  const twice = addPeople(db, trial.token, read.people, now);
  if (twice.length > 0)
    return refuse(
      422,
      `Nobody was added: ${twice.slice(0, 3).join(', ')}${twice.length > 3 ? ` and ${twice.length - 3} more` : ''} ${twice.length === 1 ? 'has' : 'have'} a link already. Leave them out.`,
    );
  return created({ added: read.people.length, unused: [...read.unused] });
}

/** Responses to one of the questionnaires of a link, in the order in which they were begun. */
function casesOf(db: Store, { token }: FoundTrial, number: number): TrialCase[] {
  const names = new Map(listPeople(db, token).map(({ key, name }) => [key, name]));
  return listResponses(db, token)
    .filter(({ questionnaire }) => questionnaire === number)
    .map((response): TrialCase => {
      const { kept, device, part, changedAt } = response;
      const key = keyOf(response);
      return {
        kept,
        device,
        changedAt,
        person: key === null ? null : (names.get(key) ?? null),
        part: part + 1,
      };
    });
}

/** Keeps the coded rows with the study, to be tabulated and written into files as they are now; gives the list of all that are kept. */
export function keepRows(db: Store, trial: FoundTrial, now: number): Response {
  removeStopped(db, trial, timeUnder(db, trial.token, now));
  const plan = trialPlan(trial);
  const study = findStudy(db, trial.studyId);
  if (study === null) return noSuchStudy(trial.studyId);
  const other = otherColumn(plan, planOf(study.document));
  if (other !== null)
    return refuse(
      422,
      `Not kept: the draft has become another questionnaire than this link asks (${other}). Open the rows in Audit: there columns and codes are matched by hand.`,
    );
  const cases = casesOf(db, trial, 0);
  const body = gzipSync(csvLines(trialRows(plan, cases)));
  putDataset(db, trial.studyId, { name: `Trial: ${trial.name}`, rows: cases.length, body, at: now });
  return created(listDatasets(db, trial.studyId));
}

/** The first column that is not, or has not the same codes, in both; null where all are alike. */
function otherColumn(ofLink: Plan, ofDraft: Plan): string | null {
  const meanings = (plan: Plan) =>
    new Map(
      dataFields(plan).map(({ name, holds, values, missing }) => [
        name,
        JSON.stringify([holds, values, missing.map(({ code, reason }) => [code, reason])]),
      ]),
    );
  const [a, b] = [meanings(ofLink), meanings(ofDraft)];
  const names = [...a.keys(), ...b.keys()];
  return names.find((name) => a.get(name) !== b.get(name)) ?? null;
}

/** Shares that were seen under a link. */
export function trialShares(
  db: Store,
  trial: FoundTrial,
  now: number,
): v.InferInput<typeof SeenSharesSchema> {
  removeStopped(db, trial, timeUnder(db, trial.token, now));
  const cases = casesOf(db, trial, 0);
  const { shares } = sampleOfCases(
    trialPlan(trial),
    cases.map(({ kept }) => kept),
  );
  return {
    responses: cases.length,
    shares: Object.fromEntries(shares) as v.InferInput<typeof SeenSharesSchema>['shares'],
  };
}

/** What was answered to one of the questionnaires of a link, as text; null where it has none of that number. */
export function trialData(
  db: Store,
  trial: FoundTrial,
  { as, number }: { readonly as: 'csv' | 'json' | 'rows'; readonly number: number },
  now: number,
): { readonly text: string; readonly title: string } | null {
  const asked = questionnaireOf(db, trial, number);
  if (asked === null) return null;
  removeStopped(db, trial, timeUnder(db, trial.token, now));
  const plan = trialPlan(asked);
  const cases = casesOf(db, trial, number);
  const { title } = plan.document;
  // As an audit takes them: the case, and what the codebook has.
  if (as === 'rows') return { text: csvLines(trialRows(plan, cases, 'case')), title };
  const version = asked.version === null ? null : findVersion(db, trial.studyId, asked.version);
  const of = {
    title,
    // A follow-up is a version of another study: its number says which.
    version:
      asked.version === null
        ? versionWords(undefined)
        : number === 0 && version !== null
          ? versionWords(version)
          : `Version ${asked.version}`,
    checksum: asked.checksum,
  };
  const text =
    as === 'csv'
      ? `\uFEFF${trialCsv(plan, cases, of)}`
      : `${JSON.stringify(
          {
            link: trial.name,
            questionnaire: of,
            begun: trial.begun,
            declined: trial.declined,
            removed: trial.removed,
            responses: cases.map((each) => trialRecord(plan, each, of)),
          },
          null,
          2,
        )}\n`;
  return { text, title };
}
