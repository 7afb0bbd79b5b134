/** Answers of the endpoints: JSON, and refusals that say what is wrong in one sentence. */
import * as v from 'valibot';
import { pathText } from '../core/document/read';

export function json(body: unknown, status = 200, headers: Record<string, string> = {}): Response {
  return new Response(JSON.stringify(body), {
    status,
    headers: { 'Content-Type': 'application/json', 'Cache-Control': 'no-store', ...headers },
  });
}

/** `problem` is shown to the person as it is. */
export function refuse(
  status: 400 | 403 | 404 | 409 | 413 | 422,
  problem: string,
  more: object = {},
): Response {
  return json({ problem, ...more }, status);
}

export const noSuchStudy = (id: string | undefined) =>
  refuse(
    404,
    `There is no study “${id ?? ''}”. It may have been removed: open one from the list of studies.`,
  );

/** Largest request body, in bytes: pictures are part of a questionnaire. */
const MOST_BYTES = 20_000_000;

/** The body read and checked, or the refusal to send. */
export async function readBody<Schema extends v.GenericSchema>(
  request: Request,
  schema: Schema,
): Promise<{ ok: true; body: v.InferOutput<Schema> } | { ok: false; response: Response }> {
  const text = await request.text();
  if (text.length > MOST_BYTES) {
    return {
      ok: false,
      response: refuse(413, `The request holds more than ${MOST_BYTES / 1e6} MB: use smaller pictures.`),
    };
  }
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch {
    return { ok: false, response: refuse(400, 'The request is not JSON.') };
  }
  const parsed = v.safeParse(schema, body);
  if (parsed.success) return { ok: true, body: parsed.output };
  const [issue] = parsed.issues;
  const path = pathText((issue.path ?? []).map((step: { key: unknown }) => step.key as string | number));
  return { ok: false, response: refuse(400, `The request cannot be used: ${path}: ${issue.message}`) };
}
