/** The links of the open study under which respondents answer: the list, and making and changing one. */
import { useState } from 'react';
import * as v from 'valibot';
import type { PanelSettings } from '../../core/panel/panel-settings';
import type { TrialSettings, TrialState } from '../../core/responding/trial-settings';
import type { PanelToMake } from '../../wire/panels';
import { PeopleAdded, TrialSchema, type Trial } from '../../wire/trials';
import { call, type Reply } from '../ui/api';
import { useAsked } from '../ui/use-asked';
import { allSaved } from './all-saved';
import { useStudy, useStudyStore } from './store';

/** How often the figures are asked for while somebody looks at them, in milliseconds. */
const EVERY = 4000;

export interface Trials {
  /** Null until they have come. */
  readonly list: readonly Trial[] | null;
  readonly problem: string | null;
  /** Each gives why not, as a sentence, or null. */
  make(name: string, version: number | null, settings: TrialSettings): Promise<string | null>;
  /** Of so many made-up people, or those of a file. */
  makePanel(
    name: string,
    version: number | null,
    sample: v.InferInput<typeof PanelToMake>['sample'],
    settings: PanelSettings,
  ): Promise<string | null>;
  change(
    token: string,
    change: { readonly state?: TrialState; readonly settings?: TrialSettings },
  ): Promise<string | null>;
  addPeople(token: string, csv: string): Promise<Reply<v.InferOutput<typeof PeopleAdded>>>;
}

export function useTrials(): Trials {
  const store = useStudyStore();
  const api = useStudy((state) => state.api);
  const [list, setList] = useState<readonly Trial[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const path = `${api}/trials`;
  useAsked(
    () => (document.visibilityState === 'visible' ? call(v.array(TrialSchema), 'GET', path) : null),
    [path],
    (reply) => {
      setProblem(reply.ok ? null : reply.problem);
      if (reply.ok) setList(reply.body);
    },
    (askAgain) => {
      const timer = setInterval(askAgain, EVERY);
      document.addEventListener('visibilitychange', askAgain);
      return () => {
        clearInterval(timer);
        document.removeEventListener('visibilitychange', askAgain);
      };
    },
  );
  const put = (trial: Trial) =>
    setList((before) =>
      before?.some(({ token }) => token === trial.token) === true
        ? before.map((each) => (each.token === trial.token ? trial : each))
        : [trial, ...(before ?? [])],
    );
  const asked = async (method: 'POST' | 'PATCH', body: object, to = path) => {
    const reply = await call(TrialSchema, method, to, body);
    if (!reply.ok) return reply.problem;
    put(reply.body);
    return null;
  };
  /** A link for the draft takes along what is on the screen: why it cannot yet, as a sentence, or null. */
  const unsaved = async (version: number | null) => {
    await allSaved(store);
    return version === null && store.getState().saving.state !== 'saved'
      ? 'No link was made: the last edits are not saved yet. Try again once they are.'
      : null;
  };
  return {
    list,
    problem,
    make: async (name, version, settings) =>
      (await unsaved(version)) ?? asked('POST', { name, version, settings }),
    makePanel: async (name, version, sample, settings) =>
      (await unsaved(version)) ?? asked('POST', { name, version, sample, settings }, `${api}/panels`),
    change: (token, change) => asked('PATCH', { token, ...change }),
    addPeople: (token, csv) => call(PeopleAdded, 'POST', `${path}/${token}/people`, { csv }),
  };
}
