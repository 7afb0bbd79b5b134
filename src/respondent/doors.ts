/** Asking the server from a respondent's page; an answer that did not come is told from one that refuses. */
import * as v from 'valibot';
import { AnswerRefusal, SittingSchema, type Sitting, type WHY_REFUSED } from '../wire/answer';

export type Answered =
  | { readonly is: 'sitting'; readonly sitting: Sitting }
  | {
      readonly is: 'refused';
      readonly why: (typeof WHY_REFUSED)[number] | null;
      readonly problem: string;
      readonly sitting: Sitting | null;
    }
  /** No answer, or a fault of the server: to be tried again. `problem`: a short clause. */
  | { readonly is: 'away'; readonly problem: string };

export type Ask = (door: 'begin' | 'resume' | 'check' | 'turn', body: unknown) => Promise<Answered>;

/** How long an answer is waited for, in milliseconds. */
const PATIENCE = 20_000;
/** Statuses that say: not now. */
const LATER = [408, 425, 502, 503, 504];

export function askOf(token: string): Ask {
  return async (door, body) => {
    let status: number;
    let json: unknown;
    try {
      const response = await fetch(`/api/answer/${token}/${door}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
        signal: AbortSignal.timeout(PATIENCE),
      });
      status = response.status;
      json = await response.json();
    } catch {
      return { is: 'away', problem: navigator.onLine ? 'no answer came' : 'there is no connection' };
    }
    if (status >= 500 || LATER.includes(status)) return { is: 'away', problem: 'the server has a fault' };
    const taken = v.safeParse(SittingSchema, json);
    if (status < 300 && taken.success) return { is: 'sitting', sitting: taken.output };
    const refusal = v.safeParse(AnswerRefusal, json);
    if (!refusal.success) return { is: 'away', problem: 'the answer could not be read' };
    const { problem, why = null, sitting = null } = refusal.output;
    return { is: 'refused', problem, why, sitting };
  };
}
