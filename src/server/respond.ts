/** Answers of the endpoints: JSON, and refusals that say what is wrong in one sentence. */
import * as v from 'valibot';
import { pathText } from '../core/document/read';
import type { Questionnaire } from '../core/document/types';
import { fileNameFor, KNOWN, type FormatName } from '../core/release/formats/known';

export function json(body: unknown, status = 200, headers: Record<string, string> = {}): Response {
  return new Response(JSON.stringify(body), {
    status,
    headers: {
      'Content-Type': 'application/json; charset=utf-8',
      // Opened by itself, an answer is a file, never a page.
      'Content-Disposition': 'attachment; filename="api.json"',
      'Cache-Control': 'no-store',
      ...headers,
    },
  });
}

/** A file of a study, to be kept. */
export function fileToKeep(
  format: FormatName,
  of: Pick<Questionnaire, 'title'>,
  body: string | Uint8Array<ArrayBuffer>,
): Response {
  return new Response(body, {
    headers: {
      'Content-Type': KNOWN[format].mediaType,
      'Content-Disposition': `attachment; filename="${fileNameFor(of, format)}"`,
      'Cache-Control': 'no-store',
    },
  });
}

/** A text to be kept as a file. */
export function textToKeep(type: string, fileName: string, text: string): Response {
  return new Response(text, {
    headers: {
      'Content-Type': `${type}; charset=utf-8`,
      'Content-Disposition': `attachment; filename="${fileName}"`,
      'Cache-Control': 'no-store',
    },
  });
}

/** `problem` is shown to the person as it is. */
export function refuse(
  status: 400 | 401 | 403 | 404 | 409 | 413 | 422 | 429 | 500 | 507,
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

/** Deeper than any questionnaire goes: what reads values would go as deep. */
const MOST_DEEP = 100;

export type Bytes =
  { readonly ok: true; readonly bytes: Uint8Array } | { readonly ok: false; readonly response: Response };

/** The body, counted as it comes: at the limit no more of it is taken. `what`: of the sentence, “these rows”. */
export async function readBytes(request: Request, most: number, what: string): Promise<Bytes> {
  const pieces: Uint8Array[] = [];
  let length = 0;
  const reader = request.body?.getReader();
  for (let piece = await reader?.read(); piece?.value !== undefined; piece = await reader?.read()) {
    length += piece.value.length;
    if (length > most) {
      await reader?.cancel();
      return {
        ok: false,
        response: refuse(413, `${what} more than ${most / 1e6} MB, which is the most that is taken.`),
      };
    }
    pieces.push(piece.value);
  }
  return { ok: true, bytes: Buffer.concat(pieces) };
}

/** The body read and checked, or the refusal to send. */
export async function readBody<Schema extends v.GenericSchema>(
  request: Request,
  schema: Schema,
  most = MOST_BYTES,
): Promise<{ ok: true; body: v.InferOutput<Schema> } | { ok: false; response: Response }> {
  const read = await readBytes(request, most, 'The request holds');
  if (!read.ok) return read;
  const text = new TextDecoder().decode(read.bytes);
  if (isTooDeep(text))
    return { ok: false, response: refuse(400, 'The request is nested too deeply to be a questionnaire.') };
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

/** Whether brackets open within brackets more often than anything here has them; text between quotes does not count. */
function isTooDeep(json: string): boolean {
  let depth = 0;
  let quoted = false;
  for (let at = 0; at < json.length; at += 1) {
    const sign = json.charCodeAt(at);
    if (quoted) {
      if (sign === BACKSLASH) at += 1;
      else if (sign === QUOTE) quoted = false;
    } else if (sign === QUOTE) quoted = true;
    else if (sign === BRACKET || sign === BRACE) {
      depth += 1;
      if (depth > MOST_DEEP) return true;
    } else if (sign === BRACKET_END || sign === BRACE_END) depth -= 1;
  }
  return false;
}

const [QUOTE, BACKSLASH, BRACKET, BRACKET_END, BRACE, BRACE_END] = [...'"\\[]{}'].map((sign) =>
  sign.charCodeAt(0),
);
