/** Asks the server's endpoints as a page does, without a port: against the database that the process keeps in memory. */
import path from 'node:path';
import type { APIContext, APIRoute } from 'astro';

type Doors = Readonly<Record<string, APIRoute | undefined>>;

export interface Asked {
  readonly params?: Readonly<Record<string, string>>;
  /** Sent as JSON; bytes as they are. */
  readonly body?: unknown;
  /** What stands behind the question mark of the address. */
  readonly search?: string;
  readonly signedIn?: string | null;
  /** Ends what is told as it goes. */
  readonly signal?: AbortSignal;
}

/** What the endpoint in `file` of `src/pages/api` answers; 405 where it has no such method. */
export async function ask(file: string, method: string, asked: Asked = {}): Promise<Response> {
  const { params = {}, body = {}, search = '', signedIn = null, signal = null } = asked;
  const doors = (await import(`../../src/pages/api/${file}`)) as Doors;
  const door = doors[method] ?? doors.ALL;
  if (door === undefined) return new Response(null, { status: 405 });
  const url = new URL(`http://127.0.0.1/${search}`);
  const sent = body instanceof Uint8Array ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body);
  const request = new Request(url, { method, signal, ...(method === 'GET' ? {} : { body: sent }) });
  const locals = { asker: { name: signedIn, canSignOut: true } };
  return door({ params, request, url, locals } as unknown as APIContext);
}

/** A door of the study with this id. */
export function askStudy(id: string, door: string, method: string, asked: Asked = {}): Promise<Response> {
  const { params = {}, ...rest } = asked;
  return ask(path.join('studies', '[id]', `${door}.ts`), method, { ...rest, params: { id, ...params } });
}
