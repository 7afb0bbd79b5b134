/**
 * A made-up panel as it runs: members do one thing after the other by the panel's clock, each through the doors of a respondent's
 * page. Knows neither threads nor the network: what it asks, posts and waits for is handed to it.
 */
import TinyQueue from 'tinyqueue';
import * as v from 'valibot';
import { readDocument } from '../core/document/read';
import { memberOf, type LetterSent, type Member } from '../core/panel/member';
import { nextStep, type MemberSitting, type MemberSoFar, type MemberStep } from '../core/panel/next-step';
import { panelEnds, postTimes, type PanelSettings } from '../core/panel/panel-settings';
import type { LetterKind } from '../core/panel/letters';
import type { PageCase } from '../core/responding/page-case';
import type { Plan } from '../core/routing/plan';
import { planOf } from '../core/routing/planner';
import { AnswerRefusal, SittingSchema, type Sitting } from '../wire/answer';

export interface PanelMember {
  /** Of their own link. */
  readonly key: string;
  readonly letters: readonly LetterSent[];
  /** Where they stand; null where they have not begun. */
  readonly sitting: {
    readonly id: string;
    readonly questionnaire: number;
    readonly kept: PageCase;
    readonly cameAt: number;
    readonly endsAt: number | null;
  } | null;
  readonly isSettled: boolean;
}

export interface PanelToRun {
  readonly settings: PanelSettings;
  readonly clock: number;
  /** That of the link, and those it hands on to, by number. */
  readonly plans: readonly Plan[];
  /** In the order of the sample. */
  readonly members: readonly PanelMember[];
}

export interface PanelMeans {
  /** As a page asks, at a moment of the panel's clock. Throws where no answer comes. */
  readonly ask: (
    door: 'begin' | 'turn',
    body: object,
    at: number,
  ) => Promise<{ readonly status: number; readonly body: unknown }>;
  /** Sends the letters that are due at a moment; gives to whom, by their place in the sample. */
  readonly post: (at: number) => Promise<readonly { readonly place: number; readonly kind: LetterKind }[]>;
  readonly newId: () => string;
  readonly now: () => number;
  readonly wait: (milliseconds: number) => Promise<void>;
  /** Called when the clock has moved on, with the moment up to which all is done. */
  readonly told: (clock: number) => void;
}

export interface RunOf {
  /** By the panel's clock. */
  readonly until: number;
  /** Milliseconds of the panel's clock in one of ours; null: as fast as it goes. */
  readonly speed: number | null;
}

interface Living {
  readonly member: Member;
  readonly key: string;
  letters: LetterSent[];
  sitting: (MemberSitting & { readonly id: string }) | null;
  isSettled: boolean;
  spentUntil: number;
  /** What they do next; null while they do it, and where there is nothing. */
  next: MemberStep | null;
}

/** Members who do something at the same time: as much as keeps both sides of the doors busy. */
const AT_ONCE = 6;
/**
 * What is under way lies no further apart by the panel's clock, in milliseconds: each keeps their own times, and who came
 * first is out by no more than that.
 */
const APART = 10 * 60_000;
/** How often the clock moves where nobody does anything, in milliseconds. */
const TICK = 40;

export class PanelRun {
  clock: number;
  private readonly people: Living[];
  private readonly plans: Map<number, Plan>;
  private readonly posts: number[];
  private readonly queue = new TinyQueue<{ at: number; place: number; step: MemberStep }>(
    [],
    (a, b) => a.at - b.at || a.place - b.place,
  );
  /** With the moment of each. */
  private readonly underWay = new Map<Promise<void>, number>();
  private isPaused = false;
  private fault: Error | null = null;

  constructor(
    private readonly of: PanelToRun,
    private readonly means: PanelMeans,
  ) {
    this.clock = of.clock;
    this.plans = new Map(of.plans.map((plan, number) => [number, plan]));
    // Those of the moment itself may have been sent in part.
    this.posts = postTimes(of.settings).filter((at) => at >= of.clock);
    this.people = of.members.map(({ key, letters, sitting, isSettled }, n) => ({
      ...{ key, isSettled, member: memberOf(of.settings, n + 1) },
      letters: [...letters],
      sitting: sitting === null ? null : { ...sitting, plan: this.plan(sitting.questionnaire) },
      // All that was to be done before is done, or was refused.
      ...{ spentUntil: sitting === null ? of.clock - 1 : -Infinity, next: null },
    }));
    this.people.forEach((somebody, place) => {
      this.decide(place);
      // Something that is assumed otherwise by now has no say in what is past: who had left has left.
      if (somebody.next === null || somebody.next.at >= of.clock) return;
      somebody.spentUntil = of.clock - 1;
      this.decide(place);
    });
  }

  /** From where it stands to a moment, or until it is paused. Throws where the doors do not answer. */
  async run({ until, speed }: RunOf): Promise<void> {
    const end = Math.min(until, panelEnds(this.of.settings));
    const [realStart, start] = [this.means.now(), this.clock];
    this.isPaused = false;
    this.fault = null;
    while (!this.isPaused && this.fault === null) {
      const due = speed === null ? end : Math.min(end, start + (this.means.now() - realStart) * speed);
      const member = this.queue.peek();
      const [post = Infinity] = this.posts;
      const at = Math.min(member?.at ?? Infinity, post);
      if (at > due || at > end) {
        await Promise.all(this.underWay.keys());
        // Somebody under way may do the next thing sooner.
        if ((this.queue.peek()?.at ?? Infinity) <= due) continue;
        this.moveTo(due);
        if (due >= end) return;
        await this.means.wait(TICK);
      } else if (post <= at) {
        await Promise.all(this.underWay.keys());
        if ((this.queue.peek()?.at ?? Infinity) < post) continue;
        this.posts.shift();
        this.moveTo(post);
        await this.posted(post);
      } else if (this.underWay.size >= AT_ONCE || at > this.earliest() + APART) {
        await Promise.race(this.underWay.keys());
      } else {
        this.queue.pop();
        this.moveTo(at);
        this.does(member as NonNullable<typeof member>);
      }
    }
    await Promise.all(this.underWay.keys());
    if (this.fault !== null) throw this.fault;
  }

  /** Whoever does something finishes it. */
  pause(): void {
    this.isPaused = true;
  }

  private moveTo(at: number): void {
    if (at <= this.clock) return;
    this.clock = at;
    this.means.told(Math.min(at, this.earliest()));
  }

  private earliest(): number {
    return Math.min(...this.underWay.values());
  }

  private plan(number: number): Plan {
    const plan = this.plans.get(number);
    if (plan === undefined) throw new Error(`there is no questionnaire ${number} under this link`);
    return plan;
  }

  /** Works out what somebody does next, in the place of what they would have done. */
  private decide(place: number): void {
    const somebody = this.people[place] as Living;
    const step = nextStep(this.of.settings, somebody satisfies MemberSoFar);
    somebody.next = step;
    if (step !== null) this.queue.push({ at: step.at, place, step });
  }

  private async posted(at: number): Promise<void> {
    for (const { place, kind } of await this.means.post(at)) {
      const somebody = this.people[place];
      if (somebody === undefined) continue;
      somebody.letters.push({ kind, at });
      this.decide(place);
    }
  }

  private does({ at, place, step }: { at: number; place: number; step: MemberStep }): void {
    const somebody = this.people[place] as Living;
    // Another letter has come since, or what they do has been decided anew.
    if (somebody.next !== step) return;
    somebody.next = null;
    const doing = this.asked(somebody, step, at)
      .then(() => this.decide(place))
      .catch((error: unknown) => {
        this.fault ??= error instanceof Error ? error : new Error(String(error));
        // They do it when the panel goes on.
        somebody.next = step;
        this.queue.push({ at, place, step });
      })
      .finally(() => this.underWay.delete(doing));
    this.underWay.set(doing, at);
  }

  private async asked(somebody: Living, step: MemberStep, at: number): Promise<void> {
    const { sitting } = somebody;
    const { status, body } =
      step.do === 'turn' && sitting !== null
        ? await this.means.ask('turn', { id: sitting.id, turn: this.turn(sitting.kept, step) }, at)
        : await this.means.ask('begin', this.toBegin(somebody), at);
    const read = v.safeParse(SittingSchema, body);
    if (status === 200 && read.success) {
      this.stands(somebody, read.output, at);
      return;
    }
    const refused = v.safeParse(AnswerRefusal, body);
    if (status >= 500 || !refused.success) throw new Error(`a door failed with ${status}`);
    // Not now, or never: they may try again when another letter comes.
    somebody.spentUntil = at;
    const { why, sitting: stands } = refused.output;
    if (why === 'answered') somebody.isSettled = true;
    if (why === 'elsewhere' && stands !== undefined) this.stands(somebody, stands, at);
  }

  private toBegin({ key, member }: Living): object {
    return {
      ...{ ticket: this.means.newId(), device: member.isOnPhone ? 'narrow' : 'wide' },
      ...{ browser: null, key },
    };
  }

  private turn({ turns }: PageCase, { done }: Extract<MemberStep, { do: 'turn' }>): object {
    const { page, answers, go } = done;
    return { turn: turns + 1, key: this.means.newId(), page, answers, go };
  }

  private stands(somebody: Living, { id, questionnaire, document, endsAt, kept }: Sitting, at: number): void {
    if (!this.plans.has(questionnaire)) {
      const read = readDocument(document);
      if (!read.ok) throw new Error('the questionnaire that is handed on to cannot be read');
      this.plans.set(questionnaire, planOf(read.document));
    }
    somebody.sitting = { id, questionnaire, plan: this.plan(questionnaire), kept, cameAt: at, endsAt };
    somebody.isSettled = kept.closed !== null;
  }
}
