/** Answers to respondents, who are on phones: text as small as their browser takes it. */
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const kept = new Map<string, Uint8Array<ArrayBuffer>>();

/**
 * A text as it travels. `keepAs`: a name under which what is compressed is kept, small rather than soon; for what is the same
 * every time.
 */
export function compressed(
  request: Request,
  text: string,
  init: { readonly status?: number; readonly headers: Record<string, string> },
  keepAs: string | null = null,
): Response {
  const accepted = request.headers.get('accept-encoding') ?? '';
  const encoding = /\bbr\b/.test(accepted) ? 'br' : /\bgzip\b/.test(accepted) ? 'gzip' : null;
  const headers = { ...init.headers, Vary: 'Accept-Encoding' };
  if (encoding === null) return new Response(text, { ...init, headers });
  const name = `${keepAs} ${encoding}`;
  const known = keepAs === null ? undefined : kept.get(name);
  const body = known ?? pressed(text, encoding, keepAs !== null);
  if (keepAs !== null) kept.set(name, body);
  return new Response(body, { ...init, headers: { ...headers, 'Content-Encoding': encoding } });
}

function pressed(text: string, encoding: 'br' | 'gzip', small: boolean): Uint8Array<ArrayBuffer> {
  if (encoding === 'gzip') return new Uint8Array(gzipSync(text, { level: small ? 9 : 5 }));
  const quality = small ? constants.BROTLI_MAX_QUALITY : 4;
  return new Uint8Array(brotliCompressSync(text, { params: { [constants.BROTLI_PARAM_QUALITY]: quality } }));
}
