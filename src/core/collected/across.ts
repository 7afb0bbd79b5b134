/** Calls to what runs on another thread, by whatever carries them across. */

/** An API as the other thread's caller sees it: every answer is waited for. */
export type Across<Api> = {
  readonly [Name in keyof Api]: Api[Name] extends (...args: infer Args) => infer Result
    ? (...args: Args) => Promise<Awaited<Result>>
    : never;
};

/**
 * Calls that fail with the other thread, of which nothing comes back once it has broken down. `failed`: rejects then, and is
 * open until then. A race of each call with it would keep what every call gave.
 */
export function unlessFailed(failed: Promise<never>): <Result>(call: Promise<Result>) => Promise<Result> {
  const waiting = new Set<(error: unknown) => void>();
  let broken: { readonly error: unknown } | null = null;
  failed.catch((error: unknown) => {
    broken = { error };
    for (const fail of waiting) fail(error);
  });
  return (call) =>
    new Promise((done, fail) => {
      if (broken !== null) fail(broken.error as Error);
      waiting.add(fail);
      void call.then(done, fail).finally(() => waiting.delete(fail));
    });
}
