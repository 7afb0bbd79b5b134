/**
 * A respondent's sitting as its page lives through it: begun or come back to, answered page by page, kept here until the server has
 * it. One thing is asked of the server at a time, and asked again until an answer comes; nothing is ever taken as said on its own.
 */
import { ENDINGS } from '../core/document/vocabularies';
import { readDocument } from '../core/document/read';
import type { Value } from '../core/document/types';
import { passKey, readPassKey } from '../core/document/addresses';
import { inputsOf } from '../core/responding/kept-case';
import { NOT_SENT, afterTry, type Sending } from '../core/responding/sending';
import { followed } from '../core/responding/session';
import type { Turn } from '../core/responding/turn';
import type { Plan } from '../core/routing/plan';
import { planOf } from '../core/routing/planner';
import type { AnswerPage, Sitting } from '../wire/answer';
import type { Answered, Ask } from './doors';
import type { Draft, Keeping, KeptRecord } from './keeping';

export type Phase =
  /** As the server drew the page: nobody has begun yet. */
  | { readonly is: 'first' }
  | { readonly is: 'opening' }
  /** `cameBack`: what was closed before this page was opened. */
  | { readonly is: 'sitting'; readonly sitting: Sitting; readonly plan: Plan; readonly cameBack: boolean }
  | { readonly is: 'refused'; readonly problem: string; readonly mayBeginAnew: boolean };

export interface SitterState {
  readonly phase: Phase;
  readonly draft: Draft | null;
  /** Something was asked of the server and is not answered yet. */
  readonly busy: boolean;
  /** Why the server does not answer; null while it does. */
  readonly away: string | null;
  /** Said once, as that a page has arrived after all. */
  readonly notice: string | null;
  /** Milliseconds by which this device's clock is ahead of the server's. */
  readonly ahead: number;
}

export interface Means {
  readonly ask: Ask;
  readonly keeping: Keeping;
  readonly device: () => 'narrow' | 'wide';
  readonly now: () => number;
  readonly newId: () => string;
  /** From 0 to 1. */
  readonly chance: () => number;
  /** Resolves after so many milliseconds, or sooner when something suggests that trying now may help. */
  readonly wait: (milliseconds: number) => Promise<void>;
}

export class Sitter {
  private state: SitterState;
  private readonly listeners = new Set<() => void>();
  private readonly plans = new Map<number, Plan>();
  /** What was asked of the server last, and is not answered yet. */
  private asked: Promise<void> = Promise.resolve();

  constructor(
    private readonly page: AnswerPage,
    plan: Plan,
    private readonly means: Means,
  ) {
    this.plans.set(0, plan);
    this.state = {
      phase:
        page.closed !== null
          ? { is: 'refused', problem: page.closed, mayBeginAnew: false }
          : page.first !== null
            ? { is: 'first' }
            : { is: 'opening' },
      ...{ draft: null, busy: false, away: null, notice: null, ahead: 0 },
    };
  }

  readonly get = (): SitterState => this.state;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Goes on with what this browser has begun under the link, or begins. */
  open(): Promise<void> {
    const kept = this.means.keeping.read();
    if (kept === null)
      return this.page.closed === null ? this.begin(this.freshRecord(null)) : Promise.resolve();
    if (!kept.begun) return this.begin(kept);
    this.set({ phase: { is: 'opening' } });
    return this.inTurn(async () => {
      const answered = await this.answerOf('resume', { id: kept.ticket });
      if (answered.is === 'sitting') this.takeUp(answered.sitting, kept, true);
      else if (this.page.closed === null) {
        const fresh = this.freshRecord(kept);
        this.means.keeping.write(fresh);
        await this.beginNow(fresh);
      } else this.refused(this.page.closed, false);
    });
  }

  /** A response of its own, whatever this browser answered before. */
  beginAnew(): Promise<void> {
    return this.begin(this.freshRecord(this.means.keeping.read()));
  }

  /** Goes on with a response that was begun elsewhere. Gives what is wrong with the code, as a sentence, or null. */
  async comeBack(code: string): Promise<string | null> {
    let problem: string | null = null;
    await this.inTurn(async () => {
      const answered = await this.answerOf('resume', { code });
      if (answered.is === 'refused') problem = answered.problem;
      else {
        const record = this.freshRecord(this.means.keeping.read());
        this.takeUp(answered.sitting, { ...record, ticket: answered.sitting.id, begun: true }, true);
      }
    });
    return problem;
  }

  /** An answer on the page in hand; it is kept here before it is drawn. */
  answer(key: string, value: Value | null): void {
    const draft = this.state.draft ?? this.blank();
    // What is on its way is not changed any more.
    if (draft === null || draft.go !== null) return;
    this.put({ ...draft, answers: { ...draft.answers, [key]: value } });
    if (this.state.notice !== null) this.set({ notice: null });
  }

  /** Sends the page in hand: on, back, or because a time is over. */
  go(go: Turn['go']): Promise<void> {
    const draft = this.state.draft ?? this.blank();
    if (draft === null || draft.go !== null) return Promise.resolve();
    this.put({ ...draft, go });
    return this.inTurn(() => this.sendDraft());
  }

  /** Shows the server that a person answers. */
  check(written: string, tries: number): Promise<void> {
    return this.inTurn(async () => {
      const { phase } = this.state;
      if (phase.is !== 'sitting') return;
      const answered = await this.answerOf('check', { id: phase.sitting.id, written, tries });
      if (answered.is === 'sitting') this.takeUp(answered.sitting, this.record(), false);
      else this.set({ notice: answered.problem });
    });
  }

  /** What the page draws; null while nothing is known to be drawn. */
  shown(): { readonly id: string; readonly plan: Plan; readonly kept: Sitting['kept'] } | null {
    const { phase } = this.state;
    const plan = this.plans.get(0);
    if (phase.is === 'sitting') return { id: phase.sitting.id, plan: phase.plan, kept: phase.sitting.kept };
    if (phase.is === 'first' && this.page.first !== null && plan !== undefined)
      return { id: this.page.ticket, plan, kept: this.page.first };
    return null;
  }

  /** Of the page in hand, before or after the response is begun; null where there is none. */
  private blank(): Draft | null {
    const shown = this.shown();
    if (shown === null || shown.kept.closed !== null) return null;
    const { id, plan, kept } = shown;
    const page = followed(plan, { answers: kept.answers, inputs: inputsOf(kept) }).pages[kept.at];
    if (page === undefined) return null;
    return { id, turn: kept.turns + 1, page: page.key, key: this.means.newId(), answers: {}, go: null };
  }

  private begin(record: KeptRecord): Promise<void> {
    // At once: what is answered meanwhile is kept with it.
    this.means.keeping.write(record);
    return this.inTurn(() => this.beginNow(record));
  }

  private async beginNow(record: KeptRecord): Promise<void> {
    if (record.ticket !== this.page.ticket) this.set({ phase: { is: 'opening' } });
    const answered = await this.answerOf('begin', {
      ticket: record.ticket,
      device: this.means.device(),
      browser: record.browser,
      key: this.page.key,
    });
    if (answered.is === 'refused') this.refused(answered.problem, false);
    else {
      // Where somebody goes on with what they began before, in another tab or browser, that is the ticket.
      const goesOn = answered.sitting.id !== record.ticket;
      const ticket = answered.sitting.id;
      this.takeUp(answered.sitting, { ...this.record(record), ticket, begun: true }, goesOn);
    }
  }

  /** Shows where somebody stands, and sends what was on its way when this page was left. */
  private takeUp(sitting: Sitting, record: KeptRecord, cameBack: boolean): void {
    const plan = this.planOf(sitting);
    if (plan === null) {
      this.refused('The questionnaire cannot be read. Please tell whoever sent you the link.', false);
      return;
    }
    const { draft } = record;
    const fits = draft !== null && draft.id === sitting.id && draft.turn === sitting.kept.turns + 1;
    const left = fits && sitting.kept.closed === null ? draft : null;
    this.means.keeping.write({ ...record, draft: left });
    this.set({
      phase: { is: 'sitting', sitting, plan, cameBack: cameBack && sitting.kept.closed !== null },
      draft: left,
      ahead: this.means.now() - sitting.now,
    });
    if (left !== null && left.go !== null) void this.inTurn(() => this.sendDraft());
  }

  private async sendDraft(): Promise<void> {
    const { phase, draft } = this.state;
    if (phase.is !== 'sitting' || draft === null || draft.go === null) return;
    const { sitting, plan } = phase;
    const body = {
      id: sitting.id,
      turn: {
        turn: draft.turn,
        key: draft.key,
        page: draft.page,
        answers: asked(plan, sitting, draft),
        go: draft.go,
      },
    };
    let wasAway = false;
    const answered = await this.answerOf('turn', body, () => (wasAway = true));
    if (answered.is === 'sitting') {
      this.forget(keepsNothing(plan, answered.sitting));
      this.takeUp(answered.sitting, this.record(), false);
      this.set({ notice: wasAway ? 'The connection is back: your answers have arrived.' : null });
      return;
    }
    const ended = endedHere(plan, sitting, draft);
    // The answer to a page that declines was lost on its way: of them nothing is known any more.
    if (answered.why === 'no-response' && keepsNothing(plan, ended)) {
      this.forget(true);
      this.set({ phase: { is: 'sitting', sitting: ended, plan, cameBack: false }, draft: null });
    } else if (answered.why === 'elsewhere' && answered.sitting !== null) {
      this.forget(false);
      this.takeUp(answered.sitting, this.record(), false);
      this.set({ notice: answered.problem });
    } else if (answered.why === 'no-response') this.refused(answered.problem, true);
    else if (answered.why === 'halted')
      this.refused(`${answered.problem} What you have sent so far is kept.`, false);
    else {
      // Something keeps them on the page, or it could not be taken: they can change it.
      this.put({ ...draft, go: null });
      this.set({ notice: answered.problem });
    }
  }

  /** Asks until an answer comes. `tried` is told of every try that failed. */
  private async answerOf(
    door: Parameters<Ask>[0],
    body: unknown,
    tried: () => void = () => undefined,
  ): Promise<Exclude<Answered, { is: 'away' }>> {
    let sending: Sending = NOT_SENT;
    this.set({ busy: true });
    for (;;) {
      const answered = await this.means.ask(door, body);
      if (answered.is !== 'away') {
        this.set({ busy: false, away: null });
        return answered;
      }
      this.set({ away: answered.problem });
      tried();
      const now = this.means.now();
      sending = afterTry(sending, { fault: answered.problem }, now, this.means.chance());
      await this.means.wait(Math.min(LONGEST_WAIT, (sending.nextAt ?? now) - now));
    }
  }

  private inTurn(act: () => Promise<void>): Promise<void> {
    this.asked = this.asked.then(act);
    return this.asked;
  }

  private planOf({ questionnaire, document }: Sitting): Plan | null {
    const known = this.plans.get(questionnaire);
    if (known !== undefined) return known;
    const read = readDocument(document);
    if (!read.ok) return null;
    const plan = planOf(read.document);
    this.plans.set(questionnaire, plan);
    return plan;
  }

  private record(otherwise: KeptRecord | null = null): KeptRecord {
    return this.means.keeping.read() ?? otherwise ?? this.freshRecord(null);
  }

  private freshRecord(before: KeptRecord | null): KeptRecord {
    return {
      ticket: before === null ? this.page.ticket : this.means.newId(),
      begun: false,
      browser: before?.browser ?? this.means.newId(),
      draft: null,
    };
  }

  /** Drops the page in hand; with `all`, the ticket too. */
  private forget(all: boolean): void {
    const record = this.record();
    this.means.keeping.write(
      all ? { ...this.freshRecord(record), begun: false } : { ...record, draft: null },
    );
    this.set({ draft: null });
  }

  private put(draft: Draft): void {
    this.means.keeping.write({ ...this.record(), draft });
    this.set({ draft });
  }

  private refused(problem: string, mayBeginAnew: boolean): void {
    this.set({ phase: { is: 'refused', problem, mayBeginAnew } });
  }

  private set(change: Partial<SitterState>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }
}

/** A respondent who sits before the page is not left waiting as long as a file is. */
const LONGEST_WAIT = 30_000;

/** Of what was changed on the page: what the page still asks for. */
function asked(plan: Plan, { kept }: Sitting, { answers }: Draft): Turn['answers'] {
  const { pages } = followed(plan, { answers: { ...kept.answers, ...answers }, inputs: inputsOf(kept) });
  const steps = pages[kept.at]?.steps ?? [];
  const names = new Set(
    steps.flatMap(({ key, pass, parts }) => [key, ...parts.map(({ name }) => passKey(name, pass))]),
  );
  return Object.fromEntries(
    Object.entries(answers).filter(([key]) => {
      const { name, pass } = readPassKey(key);
      return names.has(key) || names.has(passKey(name.replace(/_(comment|-?\d+_text)$/, ''), pass));
    }),
  );
}

/** As the page itself sees the end of it. */
function endedHere(plan: Plan, sitting: Sitting, draft: Draft): Sitting {
  const answers = { ...sitting.kept.answers, ...asked(plan, sitting, draft) };
  const { pages } = followed(plan, { answers, inputs: inputsOf(sitting.kept) });
  const ends = draft.go === 'next' && sitting.kept.at + 1 >= pages.length;
  return ends
    ? {
        ...sitting,
        kept: { ...sitting.kept, answers, at: pages.length, closed: { at: sitting.now, by: 'ending' } },
      }
    : sitting;
}

function keepsNothing(plan: Plan, { kept }: Sitting): boolean {
  if (kept.closed?.by !== 'ending') return false;
  const { result } = followed(plan, { answers: kept.answers, inputs: inputsOf(kept) });
  const ending = result.ok && result.walk.ending !== null ? plan.endings[result.walk.ending] : undefined;
  return ending !== undefined && ENDINGS[ending.ending.kind].keepsNothing === true;
}
