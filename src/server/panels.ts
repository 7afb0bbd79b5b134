/** Made-up panels: made with a sample, run on threads of their own, and their letters. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import * as v from 'valibot';
import { ENDINGS } from '../core/document/vocabularies';
import { letterProblems, letterTo, type LetterKind } from '../core/panel/letters';
import { lettersDue, panelEnds } from '../core/panel/panel-settings';
import { madeUpSample } from '../core/panel/sample';
import { canBegin, readPeople } from '../core/responding/people';
import { pageCase } from '../core/responding/page-case';
import { endOfTime, USUAL_TRIAL } from '../core/responding/trial-settings';
import { planOf } from '../core/routing/planner';
import type { Store } from '../store/open';
import {
  addPanel,
  changePanel,
  findPanel,
  lettersSent,
  moveClock,
  pilesOf,
  sendLetters,
  withoutLetter,
} from '../store/panels';
import { addPeople, countPeople, listPeople, type Person } from '../store/people';
import { keyOf, lastParts, listResponses, sittingBegan } from '../store/responses';
import { trialPlan } from '../store/trial-plans';
import { addTrial, listFollowUps, type FoundTrial } from '../store/trials';
import type { Panel as PanelCard, PanelToChange, PanelToMake } from '../wire/panels';
import { FromPanelSchema, type PanelStart, type ToPanel } from './panel-messages';
import { refuse } from './respond';
import { askedOf, cardOf, followUpsOf } from './trials';
import { created } from './with-study';

/** A link of its own with a made-up sample, or with that of a file; nobody has a letter yet. */
export function makePanel(
  db: Store,
  id: string,
  { name, version, sample, settings }: v.InferOutput<typeof PanelToMake>,
  now: number,
): Response {
  const of = askedOf(db, id, version);
  if (of instanceof Response) return of;
  const plan = planOf(of.document);
  const problems = [...plan.problems.map(({ message }) => message), ...letterProblems(plan, settings.texts)];
  if (problems.length > 0) return refuse(422, `No panel was made. ${problems.slice(0, 5).join(' ')}`);
  const read =
    'csv' in sample
      ? readPeople(plan, sample.csv)
      : { ok: true as const, people: madeUpSample(plan, sample.count, settings.seed) };
  if (!read.ok) return refuse(422, `No panel was made. ${read.problems.join(' ')}`);
  const stuck = read.people.find(({ given }) => !canBegin(plan, given));
  if (stuck !== undefined)
    return refuse(
      422,
      `No panel was made: the questionnaire cannot be begun with what is known of ${stuck.name} beforehand.`,
    );
  const trial = db.transaction(() => {
    const link = addTrial(
      db,
      id,
      {
        ...{ ...of, name, followUps: followUpsOf(db, of) },
        // Nobody made up solves a task that is to show a person.
        settings: {
          ...USUAL_TRIAL,
          toldApart: 'personal',
          humanCheck: false,
          closesAt: panelEnds(settings),
        },
      },
      now,
    );
    addPeople(db, link.token, read.people, now);
    addPanel(db, { token: link.token, settings, clock: settings.startsAt });
    return link;
  });
  return created(cardOf(db, trial, now));
}

export const noSuchPanel = () => refuse(404, 'There is no made-up panel under this link: reload the page.');

interface Living {
  /** Null once it has ended by a fault: the next run begins another. */
  worker: Worker | null;
  isRunning: boolean;
  problem: string | null;
}

/** Panels that have been run since the server started, by their link. */
const living = new Map<string, Living>();

export const isRunning = (token: string) => living.get(token)?.isRunning ?? false;

/** Null where nobody under the link is made up. */
export function panelCard(db: Store, token: string): PanelCard | null {
  const panel = findPanel(db, token);
  if (panel === null) return null;
  return {
    settings: panel.settings,
    members: countPeople(db, token),
    clock: panel.clock,
    isRunning: isRunning(token),
    problem: living.get(token)?.problem ?? null,
    piles: pilesOf(db, token),
  };
}

/** Other where something of the card is other; null where nobody under the link is made up. */
export function panelMark(db: Store, token: string): string | null {
  const panel = findPanel(db, token);
  if (panel === null) return null;
  const { isRunning: runs = false, problem = null } = living.get(token) ?? {};
  return JSON.stringify([panel, runs, problem, countPeople(db, token)]);
}

export function changePanelBy(
  db: Store,
  trial: FoundTrial,
  change: v.InferOutput<typeof PanelToChange>,
): PanelCard | Response {
  const { token } = trial;
  const panel = findPanel(db, token);
  if (panel === null) return noSuchPanel();
  const now = () => panelCard(db, token) ?? noSuchPanel();
  switch (change.do) {
    case 'rest':
      tell(token, { is: 'pause' });
      return now();
    case 'run': {
      if (isRunning(token)) return refuse(409, 'The panel is running already: pause it first.');
      const problem = run(db, trial, change);
      return problem === null ? now() : refuse(409, problem);
    }
    case 'settle': {
      if (isRunning(token)) return refuse(409, 'Nothing was changed: pause the panel first.');
      const { settings } = change;
      const isSame = (name: 'seed' | 'startsAt' | 'days') => settings[name] === panel.settings[name];
      if (panel.clock > panel.settings.startsAt && !(isSame('seed') && isSame('startsAt') && isSame('days')))
        return refuse(
          422,
          'Nothing was changed: once the panel has begun, its first day, its length and its seed stay.',
        );
      const problems = letterProblems(trialPlan(trial), settings.texts);
      if (problems.length > 0) return refuse(422, `Nothing was changed. ${problems.slice(0, 5).join(' ')}`);
      changePanel(db, token, settings);
      // What it knew is old: the next run begins a thread of its own.
      end(token);
      return now();
    }
    default:
      return change satisfies never;
  }
}

function tell(token: string, told: ToPanel): void {
  living.get(token)?.worker?.postMessage(told);
}

function end(token: string): void {
  const panel = living.get(token);
  living.delete(token);
  void panel?.worker?.terminate();
}

/** Sets it going; gives why not, as a sentence, or null. */
function run(
  db: Store,
  trial: FoundTrial,
  { until, speed }: Extract<v.InferOutput<typeof PanelToChange>, { do: 'run' }>,
): string | null {
  const { token } = trial;
  const address = process.env.JOLLY_FORK_OWN_ADDRESS;
  if (address === undefined)
    return 'A panel runs where Jolly Fork was started by “npm start” or “npm run demo”: its members come through the doors of that server.';
  const known = living.get(token);
  const panel = known?.worker == null ? begin(db, trial, address) : known;
  panel.isRunning = true;
  panel.problem = null;
  living.set(token, panel);
  tell(token, { is: 'run', until, speed });
  return null;
}

function begin(db: Store, trial: FoundTrial, address: string): Living {
  const { token } = trial;
  const folder = process.env.JOLLY_FORK_DATA ?? 'data';
  const workerData: PanelStart = {
    ...panelStart(db, trial),
    ...{ address, link: token, programToken: readFileSync(path.join(folder, 'token'), 'utf8').trim() },
  };
  const worker = new Worker(path.join(process.cwd(), 'dist', 'door', 'panel.worker.mjs'), { workerData });
  const panel: Living = { worker, isRunning: true, problem: null };
  const rests = (problem: string | null) => {
    panel.isRunning = false;
    panel.problem = problem;
  };
  const broken = (error: unknown) => {
    console.error('A made-up panel ended by a fault:', error);
    rests('The panel stopped by a fault of its own; the log of the server says more. Let it go on.');
    panel.worker = null;
    void worker.terminate();
  };
  worker.on('message', (message: unknown) => {
    // A full disk, say: the panel stops, and the server goes on.
    try {
      const told = v.parse(FromPanelSchema, message);
      switch (told.is) {
        case 'clock':
          moveClock(db, token, told.at);
          return;
        case 'post':
          tell(token, { is: 'posted', to: postLetters(db, trial, told.at) });
          return;
        case 'rests':
          moveClock(db, token, told.at);
          // Nobody is left who would do anything.
          if (told.problem === null && told.at >= panelEnds(workerData.settings)) end(token);
          rests(
            told.problem === null
              ? null
              : `The panel stopped, because the server did not answer one of its members (${told.problem}). Let it go on.`,
          );
          return;
        default:
          told satisfies never;
      }
    } catch (error) {
      broken(error);
    }
  });
  worker.on('error', broken);
  // The process may end while a panel runs: it goes on from its clock another time.
  worker.unref();
  return panel;
}

/** All that a panel's thread is to know, as it stands. */
export function panelStart(
  db: Store,
  trial: FoundTrial,
): Omit<PanelStart, 'address' | 'link' | 'programToken'> {
  const { token } = trial;
  const panel = findPanel(db, token);
  if (panel === null) throw new Error('there is no panel under this link');
  const letters = new Map<string, { kind: LetterKind; at: number }[]>();
  for (const { person, kind, at } of lettersSent(db, token))
    letters.set(person, [...(letters.get(person) ?? []), { kind, at }]);
  const sittings = new Map(lastParts(listResponses(db, token)).map((each) => [keyOf(each), each]));
  return {
    settings: panel.settings,
    clock: panel.clock,
    documents: [trial.document, ...listFollowUps(db, token).map(({ document }) => document)],
    members: listPeople(db, token).map(({ key, isSettled }) => {
      const found = sittings.get(key);
      return {
        key,
        letters: letters.get(key) ?? [],
        sitting:
          found === undefined
            ? null
            : {
                id: found.id,
                questionnaire: found.questionnaire,
                kept: pageCase(found.kept),
                cameAt: found.kept.cameAt,
                endsAt: endOfTime(trial.settings, sittingBegan(db, found)),
              },
        // Whoever was handed on may still answer there.
        isSettled: isSettled && (found === undefined || found.kept.closed !== null),
      };
    }),
  };
}

/** Sends what is due at a moment; gives to whom, by their place in the sample. */
export function postLetters(
  db: Store,
  trial: FoundTrial,
  at: number,
): { readonly place: number; readonly kind: LetterKind }[] {
  const { token } = trial;
  const panel = findPanel(db, token);
  if (panel === null) return [];
  const plan = trialPlan(trial);
  const people = listPeople(db, token);
  const kinds = new Map(plan.endings.map(({ ending }) => [ending.id, ending.kind]));
  const finished = new Set(
    listResponses(db, token)
      .filter(
        ({ part, ending }) =>
          part === 0 && ending !== null && ENDINGS[kinds.get(ending) ?? 'declined'].counts,
      )
      .map(keyOf),
  );
  const isFor: Readonly<Record<LetterKind, (person: Person) => boolean>> = {
    invitation: () => true,
    reminder: ({ isSettled }) => !isSettled,
    second_reminder: ({ isSettled }) => !isSettled,
    thanks: ({ key }) => finished.has(key),
  };
  return lettersDue(panel.settings, at).flatMap((kind) => {
    const without = withoutLetter(db, token, kind);
    const to = people.flatMap((person, place) =>
      without.has(person.key) && isFor[kind](person) ? [{ ...person, place }] : [],
    );
    const text = panel.settings.texts[kind];
    sendLetters(
      db,
      token,
      { kind, at },
      to.map(({ key, name, given }) => ({
        person: key,
        ...letterTo(plan, text, { name, given, link: `/answer/${token}/${key}` }),
      })),
    );
    return to.map(({ place }) => ({ place, kind }));
  });
}
