/** The versions of the open study: the list, the questionnaire of each, and keeping or freezing one. */
import { useState } from 'react';
import * as v from 'valibot';
import type { Questionnaire } from '../../core/document/types';
import type { VersionMark } from '../../core/release/format-types';
import { madeOn } from '../../core/release/made-on';
import { VersionSchema, WholeVersionSchema, type Version } from '../../wire/versions';
import { call, type Reply } from '../ui/api';
import { useAsked } from '../ui/use-asked';
import { allSaved } from './all-saved';
import { useStudy } from './store';
import type { StudyStore } from './study-state';

/** Fetches the list once the study is open; a reviewer is shown no versions. */
export function useVersions(store: StudyStore): void {
  useAsked(
    () => {
      const { api, reviewing } = store.getState();
      return reviewing ? null : call(v.array(VersionSchema), 'GET', `${api}/versions`);
    },
    [store],
    (reply) => {
      if (reply.ok) store.getState().setVersions(reply.body);
    },
    // Somebody else, or another tab, may have kept one.
    (askAgain) => {
      document.addEventListener('visibilitychange', askAgain);
      return () => document.removeEventListener('visibilitychange', askAgain);
    },
  );
}

/** Questionnaires of versions, which never change, by their addresses. */
const fetched = new Map<string, Promise<Reply<v.InferOutput<typeof WholeVersionSchema>>>>();
const MOST_FETCHED = 12;

export function wholeVersion(api: string, number: number) {
  const path = `${api}/versions/${number}`;
  const known = fetched.get(path);
  if (known !== undefined) return known;
  const coming = call(WholeVersionSchema, 'GET', path);
  fetched.set(path, coming);
  const [oldest] = fetched.keys();
  if (fetched.size > MOST_FETCHED && oldest !== undefined) fetched.delete(oldest);
  // What did not come is asked for again.
  void coming.then(({ ok }) => !ok && fetched.delete(path));
  return coming;
}

/** Null until it has come; a text where it did not. */
export function useVersionDocument(number: number | null): Questionnaire | string | null {
  const api = useStudy((state) => state.api);
  const [found, setFound] = useState<{ number: number; is: Questionnaire | string } | null>(null);
  useAsked(
    () => (number === null ? null : wholeVersion(api, number)),
    [api, number],
    (reply) => {
      if (number !== null) setFound({ number, is: reply.ok ? reply.body.document : reply.problem });
    },
  );
  return found !== null && found.number === number ? found.is : null;
}

export interface ToKeep {
  readonly note: string;
  readonly author: string;
  /** Null to keep it; else it is frozen, with the reason why it is all the same, which may be empty. */
  readonly freezing: { readonly reason: string } | null;
}

/** Keeps the study as it is on the screen, once all of it is saved; gives why not, as a sentence. */
export async function keepVersion(store: StudyStore, toKeep: ToKeep): Promise<string | null> {
  await allSaved(store);
  const { api, revision, saving, routesWanted: wanted } = store.getState();
  if (saving.state !== 'saved') return 'Not kept: the last edits are not saved yet. Try again once they are.';
  const { note, author, freezing } = toKeep;
  const about = { revision, note, author };
  const reply = await call(
    VersionSchema,
    'POST',
    `${api}/versions`,
    freezing === null ? { ...about, frozen: false } : { ...about, frozen: true, wanted, ...freezing },
  );
  if (!reply.ok) return reply.problem;
  store.getState().setVersions([reply.body, ...(store.getState().versions ?? [])]);
  return null;
}

/** “, on version 2”: what something was made on; empty where that is not known. */
export function onVersion(versions: readonly Version[] | null, revision: number | null): string {
  const on = madeOn(versions ?? [], revision);
  return on === null ? '' : `, on ${on}`;
}

/** What files say of the version they are of. */
export function markOf({ number, frozen, at, author, note, reason }: Version): VersionMark {
  return { number, frozen, at, author, note, ...(reason === null ? {} : { reason }) };
}
