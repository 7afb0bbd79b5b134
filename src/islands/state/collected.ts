/** What was collected for the open study: cases keyed here, and rows that were kept, fetched where somebody wants them. */
import Papa from 'papaparse';
import { useState } from 'react';
import * as v from 'valibot';
import { Keying } from '../../core/keying/sheet';
import type { Plan } from '../../core/routing/plan';
import { CaseSchema, type KeyedCase } from '../../wire/cases';
import { DatasetSchema, type Dataset } from '../../wire/datasets';
import { call } from '../ui/api';
import { useAsked } from '../ui/use-asked';

export interface Collected {
  /** First entries only: a second one checks the first. */
  readonly keyed: readonly KeyedCase[];
  readonly kept: readonly Dataset[];
}

/** Rows under the names that the columns had when they were kept. */
export interface CollectedRows {
  readonly header: readonly string[];
  readonly rows: readonly (readonly (string | number)[])[];
}

/** What is said where `keptRows` gives none. */
export const NOT_FETCHED = 'These rows could not be fetched: reload the page and try again.';

/** Empty until it has come. `api`: the study's address. */
export function useCollected(api: string): Collected {
  const [kept, setKept] = useState<readonly Dataset[]>([]);
  const [keyed, setKeyed] = useState<readonly KeyedCase[]>([]);
  useAsked(
    () => call(v.array(DatasetSchema), 'GET', `${api}/datasets`),
    [api],
    (reply) => reply.ok && setKept(reply.body),
  );
  useAsked(
    () => call(v.array(CaseSchema), 'GET', `${api}/cases`),
    [api],
    (reply) => reply.ok && setKeyed(reply.body.filter(({ entry }) => entry === 1)),
  );
  return { keyed, kept };
}

/** Null where they could not be fetched. */
export async function keptRows(api: string, key: string): Promise<CollectedRows | null> {
  try {
    const response = await fetch(`${api}/datasets/${encodeURIComponent(key)}`);
    if (!response.ok || response.body === null) return null;
    const text = await new Response(response.body.pipeThrough(new DecompressionStream('gzip'))).text();
    const [header = [], ...rows] = Papa.parse<string[]>(text.trimEnd()).data;
    return { header, rows };
  } catch {
    return null;
  }
}

export function keyedRows(plan: Plan, keyed: readonly KeyedCase[]): CollectedRows {
  const keying = new Keying(plan);
  return {
    header: keying.columns.map(({ name }) => name),
    rows: keyed.map(({ answers }) => keying.coded(answers).row),
  };
}
