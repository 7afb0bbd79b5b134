/** Keeps a fault of the program inside the call that met it: details to the console, one sentence to the caller. */

import { TooMuch } from '../core/analysis';

type Calls = Readonly<Record<string, (...args: never[]) => unknown>>;

/** The same calls; one that throws is told by what it was asked for, and the next is answered as ever. */
export function contained<Api extends object>(api: Api): Api {
  const calls = api as unknown as Calls;
  const kept = Object.entries(calls).map(([name, call]) => [
    name,
    (...args: never[]): unknown => {
      const told = (error: unknown): never => {
        if (error instanceof TooMuch) throw new Error(tooMuch(name), { cause: error });
        console.error(error);
        throw new Error(sentence(name, error), { cause: error });
      };
      try {
        const answer = call(...args);
        return answer instanceof Promise ? answer.catch(told) : answer;
      } catch (error) {
        return told(error);
      }
    },
  ]);
  return Object.fromEntries(kept) as Api;
}

/** What could not be told, for the person at the screen. */
const TOLD: Readonly<Record<string, string>> = {
  load: 'The routes could not be counted',
  asked: 'Who is asked what could not be worked out',
  sample: 'Shares of the sample could not be worked out',
  snags: 'The checks that follow the routes could not be made',
  passedRoutes: 'Which routes are left to pass could not be worked out',
  file: 'The file could not be made',
  compare: 'The two versions could not be compared',
  figures: 'The forecast could not be worked out',
  effects: 'What this hangs on could not be worked out',
  minutesByEnding: 'Minutes could not be worked out',
  bothSides: 'Nobody could be led through both versions',
};

/** What was too much is no fault: the snags say where. */
function tooMuch(name: string): string {
  return `${TOLD[name] ?? 'This could not be worked out'}: the conditions are too entangled for it. The rest stands.`;
}

function sentence(name: string, error: unknown): string {
  const why = error instanceof Error ? error.message : String(error);
  return `${TOLD[name] ?? `“${name}” could not be answered`}, by a fault of the program on this questionnaire (${why}). The rest stands, and nothing written is lost.`;
}
