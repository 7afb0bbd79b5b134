/** Calls of the server, with refusals as values in the server's own words. */
import * as v from 'valibot';
import type { Questionnaire } from '../../core/document/types';
import { RefusalSchema } from '../../wire/common';
import { StudyAdded } from '../../wire/studies';
import { tellSignedOut } from './signed-out';

export type Reply<Body> =
  | { readonly ok: true; readonly body: Body }
  /** `status` 0: no answer came. */
  | { readonly ok: false; readonly status: number; readonly problem: string; readonly body: unknown };

/** Bytes that a browser still sends after the page has gone, of all its requests together. */
const MOST_AFTER_PAGE = 60_000;

function sent(body: unknown): RequestInit {
  if (body instanceof Blob) return { body, headers: { 'Content-Type': 'application/octet-stream' } };
  const text = JSON.stringify(body);
  const bytes = new Blob([text]).size;
  // What is on its way when the page is closed arrives all the same.
  return { body: text, keepalive: bytes <= MOST_AFTER_PAGE, headers: { 'Content-Type': 'application/json' } };
}

/** Sends while the page goes; of more than a browser then sends, nothing. */
export function sendOff(method: 'PATCH', path: string, body: unknown): void {
  const request = sent(body);
  if (request.keepalive === true) void fetch(path, { method, ...request }).catch(() => undefined);
}

/** A file is sent as it is, everything else as JSON. */
export async function call<Schema extends v.GenericSchema>(
  schema: Schema,
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
): Promise<Reply<v.InferOutput<Schema>>> {
  let response: Response;
  let json: unknown;
  try {
    response = await fetch(path, { method, ...(body === undefined ? {} : sent(body)) });
    json = await response.json();
  } catch {
    return {
      ok: false,
      status: 0,
      problem: 'The server does not answer. Your work is kept here and saved once it does.',
      body: null,
    };
  }
  tellSignedOut(response.status === 401);
  if (!response.ok) {
    const refusal = v.safeParse(RefusalSchema, json);
    const problem = refusal.success ? refusal.output.problem : `The server refused (${response.status}).`;
    return { ok: false, status: response.status, problem, body: json };
  }
  const parsed = v.safeParse(schema, json);
  if (parsed.success) return { ok: true, body: parsed.output };
  return {
    ok: false,
    status: response.status,
    problem: 'The server answered something unexpected: reload the page.',
    body: json,
  };
}

/** A `.zip` with a questionnaire and the work done on it. */
export function addWork(file: Blob) {
  return call(StudyAdded, 'POST', '/api/studies/work', file);
}

export function addStudy(document: Questionnaire | unknown) {
  return call(StudyAdded, 'POST', '/api/studies', { document });
}
