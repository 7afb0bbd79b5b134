/** Posts closed cases one after the other, again until each is taken; a key with each lets the receiver take it once. */
import { postedCase, type Asked } from '../core/responding/case-data';
import type { KeptCase } from '../core/responding/kept-case';
import { afterTry, triedAnew, type Tried } from '../core/responding/sending';
import type { Plan } from '../core/routing/plan';
import type { Shelf } from './shelf';

export interface Outside {
  post(address: string, key: string, body: string): Promise<Tried>;
  now(): number;
  chance(): number;
  /** Calls after so many milliseconds; gives what calls it off. */
  later(call: () => void, wait: number): () => void;
  /** Does it while no other tab does; not at all while one does. */
  alone(work: () => Promise<void>): Promise<void>;
}

export class Sender {
  private callOff: () => void = () => undefined;
  private busy = false;

  constructor(
    private readonly plan: Plan,
    private readonly asked: Asked,
    private readonly address: string,
    private readonly shelf: Shelf,
    private readonly outside: Outside,
  ) {}

  /** Sends what is due, and comes back when the next is. To be called whenever a case was closed. */
  async send(): Promise<void> {
    this.callOff();
    if (this.busy) return;
    this.busy = true;
    try {
      await this.outside.alone(async () => {
        // Another tab may have sent them.
        this.shelf.reread();
        for (let next = this.due(); next !== undefined; next = this.due()) await this.sendOne(next);
      });
    } finally {
      this.busy = false;
    }
    const times = this.shelf.all().flatMap((kept) => (isToSend(kept) ? [kept.sending.nextAt] : []));
    if (times.length === 0) return;
    const wait = Math.max(MOST_OFTEN, Math.min(...times) - this.outside.now());
    this.callOff = this.outside.later(() => void this.send(), wait);
  }

  /** Sends what waits, due or not: the network is back; `refused`: what was refused too, because somebody asks for it. */
  async sendNow(refused: boolean): Promise<void> {
    for (const kept of this.shelf.all())
      if (kept.closed !== null && (refused || isToSend(kept)))
        this.shelf.put({ ...kept, sending: triedAnew(kept.sending) });
    await this.send();
  }

  private due(): KeptCase | undefined {
    const now = this.outside.now();
    return this.shelf.all().findLast((kept) => isToSend(kept) && kept.sending.nextAt <= now);
  }

  private async sendOne(kept: KeptCase): Promise<void> {
    const body = JSON.stringify(postedCase(this.plan, kept, this.asked));
    const tried = await this.outside.post(this.address, kept.key, body);
    const sending = afterTry(kept.sending, tried, this.outside.now(), this.outside.chance());
    this.shelf.put({ ...(this.shelf.get(kept.key) ?? kept), sending });
  }
}

const MOST_OFTEN = 500;

type ToSend = KeptCase & { readonly sending: { readonly nextAt: number } };
function isToSend(kept: KeptCase): kept is ToSend {
  return kept.closed !== null && kept.sending.takenAt === null && kept.sending.nextAt !== null;
}

const LONGEST_ANSWER = 30_000;

/** The browser. */
export const BROWSER: Outside = {
  async post(address, key, body) {
    try {
      const { status } = await fetch(address, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', 'Idempotency-Key': key },
        body,
        credentials: 'omit',
        cache: 'no-store',
        signal: AbortSignal.timeout(LONGEST_ANSWER),
      });
      return { status };
    } catch {
      return { fault: navigator.onLine ? 'the receiver could not be reached' : 'there is no network' };
    }
  },
  now: () => Date.now(),
  chance: () => Math.random(),
  later(call, wait) {
    const timer = setTimeout(call, wait);
    return () => clearTimeout(timer);
  },
  async alone(work) {
    // Old browsers have no locks; there the key alone keeps a case from being taken twice.
    const locks = (navigator as Partial<Navigator>).locks;
    if (locks === undefined) return work();
    await locks.request('jolly-fork sends', { ifAvailable: true }, (lock) =>
      lock === null ? undefined : work(),
    );
  },
};
