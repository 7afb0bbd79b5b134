/** What came, wherever it is: cases keyed here, rows that were kept, links for respondents, a collected file. */
import { proxy } from 'comlink';
import Papa from 'papaparse';
import * as v from 'valibot';
import type { Questionnaire } from '../../core/document/types';
import type { Plan } from '../../core/routing/plan';
import type { KeyedCase } from '../../wire/cases';
import { DataClient } from '../../worker/data/client';
import { NO_COLUMN } from '../../core/forecast/seen/from-rows';
import { keptRows, keyedRows, NOT_FETCHED, type CollectedRows } from '../state/collected';

export type CameSource =
  | { readonly of: 'keyed'; readonly cases: readonly KeyedCase[] }
  | { readonly of: 'kept'; readonly id: string }
  | { readonly of: 'link'; readonly token: string }
  | { readonly of: 'file'; readonly file: File };

/** Coded rows; a sentence where they cannot be had. */
export async function rowsOf(
  source: CameSource,
  { api, plan }: { readonly api: string; readonly plan: Plan },
): Promise<CollectedRows | string> {
  switch (source.of) {
    case 'keyed':
      return keyedRows(plan, source.cases);
    case 'kept':
      return (await keptRows(api, source.id)) ?? NOT_FETCHED;
    case 'link':
      return rowsOfLink(`${api}/trials/${source.token}/data?as=rows`);
    case 'file':
      return rowsOfFile(plan.document, source.file);
    default:
      return source satisfies never;
  }
}

async function rowsOfLink(address: string): Promise<CollectedRows | string> {
  try {
    const response = await fetch(address);
    if (!response.ok) return NOT_FETCHED;
    const parsed = Papa.parse<unknown>((await response.text()).trimEnd()).data;
    const [header = [], ...rows] = v.parse(v.array(v.array(v.string())), parsed);
    return { header, rows };
  } catch {
    return 'The server does not answer: try again once it does.';
  }
}

/** Held against the routing in a worker of its own: a file that is audited in Codes meanwhile stays as it is. */
async function rowsOfFile(document: Questionnaire, file: File): Promise<CollectedRows | string> {
  const client = new DataClient();
  try {
    const worker = await client.about(document);
    const opened = await worker.open(file, null);
    if (!opened.ok) return opened.problem;
    if ((await worker.matching({})).every(({ column }) => column === null)) return NO_COLUMN;
    const audited = await worker.audit(
      { blankPicks: true, codeBlanks: true },
      {},
      null,
      proxy(() => undefined),
    );
    return audited.ok ? await worker.coded() : audited.problem;
  } finally {
    client.stop();
  }
}
