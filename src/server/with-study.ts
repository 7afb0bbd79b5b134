/** The one way into a study's endpoints: what is sent is read and checked, and the study is there. */
import type { APIRoute } from 'astro';
import type * as v from 'valibot';
import { store, type Store } from '../store/open';
import { revisionOf } from '../store/studies';
import { json, noSuchStudy, readBody } from './respond';

export interface StudyCall<Body> {
  readonly db: Store;
  /** Of the study. */
  readonly id: string;
  readonly body: Body;
  /** Of the address, `id` among them. */
  readonly params: Readonly<Record<string, string | undefined>>;
  readonly url: URL;
  readonly request: Request;
  /** Milliseconds since 1970, UTC. */
  readonly now: number;
  /** In whose name something is done: that under which they are signed in, or, where nobody signs in, the one they give. */
  named<Typed extends string | null>(typed: Typed): Typed | string;
}

/** What is to be sent as JSON, or an answer of another kind. */
type Reply = Response | object | null;

/** Without a schema nothing is read of the body. The study itself is not read: `findStudy` does where it is needed. */
export function withStudy(handle: (call: StudyCall<undefined>) => Reply | Promise<Reply>): APIRoute;
export function withStudy<Schema extends v.GenericSchema>(
  schema: Schema,
  handle: (call: StudyCall<v.InferOutput<Schema>>) => Reply | Promise<Reply>,
): APIRoute;
export function withStudy(
  ...given:
    | [handle: (call: StudyCall<undefined>) => Reply | Promise<Reply>]
    | [schema: v.GenericSchema, handle: (call: StudyCall<unknown>) => Reply | Promise<Reply>]
): APIRoute {
  const [schema, handle] =
    given.length === 1 ? [null, given[0] as (call: StudyCall<unknown>) => Reply] : given;
  return async ({ params, request, url, locals }) => {
    const id = params.id ?? '';
    const read = schema === null ? null : await readBody(request, schema);
    if (read?.ok === false) return read.response;
    const db = store();
    if (revisionOf(db, id) === null) return noSuchStudy(id);
    const answer = await handle({
      db,
      id,
      body: read?.body,
      params,
      url,
      request,
      now: Date.now(),
      named: (typed) => locals.asker?.name ?? typed,
    });
    return answer instanceof Response ? answer : json(answer);
  };
}

/** Something that was not there before. */
export function created(body: object): Response {
  return json(body, 201);
}
