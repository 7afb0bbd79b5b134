/**
 * What monitors read of the responses under links. Thousands take seconds to read: that is done in slices, so that respondents are
 * answered in between, and only for those that have changed since.
 */
import { setImmediate } from 'node:timers/promises';
import { summaryOf, type ResponseSummary } from '../core/monitor/summary';
import type { Plan } from '../core/routing/plan';
import type { Store } from '../store/open';
import { findResponse, responseMarks } from '../store/responses';

/** Milliseconds. */
const SLICE = 30;

export class Summaries {
  private known = new Map<string, { readonly mark: string; readonly summary: ResponseSummary }>();
  private reading: Promise<void> | null = null;
  private done = 0;
  private of = 0;

  constructor(
    private readonly db: Store,
    private readonly token: string,
    /** Number of the follow-up; 0 for the questionnaire of the link. */
    private readonly questionnaire: number,
    private readonly plan: Plan,
  ) {}

  /** Equal as long as nothing has changed. */
  mark(): string {
    return responseMarks(this.db, this.token, this.questionnaire)
      .map(({ id, mark }) => `${id} ${mark}`)
      .join('\n');
  }

  /** How far it is with reading; null where it is not. */
  get progress(): { readonly done: number; readonly of: number } | null {
    return this.reading === null ? null : { done: this.done, of: this.of };
  }

  /** In the order in which they were begun, as last read. */
  get list(): readonly ResponseSummary[] {
    return [...this.known.values()].map(({ summary }) => summary);
  }

  /** Reads what has changed; at once by one alone, whoever else asks. */
  refresh(): Promise<void> {
    this.reading ??= this.read().finally(() => {
      this.reading = null;
    });
    return this.reading;
  }

  private async read(): Promise<void> {
    const marks = responseMarks(this.db, this.token, this.questionnaire);
    const next: typeof this.known = new Map();
    [this.done, this.of] = [0, marks.length];
    let until = Date.now() + SLICE;
    for (const { id, mark } of marks) {
      const before = this.known.get(id);
      // Whoever declined in the meantime is in it no more.
      const found = before?.mark === mark ? before : this.readOne(id, mark);
      if (found !== null) next.set(id, found);
      this.done += 1;
      if (Date.now() < until) continue;
      await setImmediate();
      until = Date.now() + SLICE;
    }
    this.known = next;
  }

  private readOne(id: string, mark: string) {
    const stored = findResponse(this.db, this.token, id);
    return stored === null ? null : { mark, summary: summaryOf(this.plan, stored) };
  }
}

/** So many links are kept in mind at once. */
const MOST_KNOWN = 8;
const knownOf = new WeakMap<Store, Map<string, Summaries>>();

export function summariesUnder(db: Store, token: string, questionnaire: number, plan: Plan): Summaries {
  const all = knownOf.get(db) ?? new Map<string, Summaries>();
  knownOf.set(db, all);
  const key = `${token} ${questionnaire}`;
  const found = all.get(key) ?? new Summaries(db, token, questionnaire, plan);
  all.delete(key);
  all.set(key, found);
  const [oldest] = all.keys();
  if (all.size > MOST_KNOWN && oldest !== undefined) all.delete(oldest);
  return found;
}
