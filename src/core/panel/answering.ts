/** What a member of a made-up panel does with the page in hand: what they answer, how long it takes them, and whether they leave. */
import { rowsOf } from '../document/answer-types';
import { passKey, readPassKey } from '../document/addresses';
import { optionsOf } from '../document/shape';
import type { Value } from '../document/types';
import { ENDINGS } from '../document/vocabularies';
import { clockOf, inputsOf } from '../responding/kept-case';
import type { PageCase } from '../responding/page-case';
import { followed } from '../responding/session';
import type { Turn } from '../responding/turn';
import { isBlank } from '../routing/answers';
import { secondsOf } from '../routing/burden';
import { paceOf } from '../routing/pace';
import { generatorFor } from '../routing/chance';
import type { Page } from '../routing/pages';
import type { Plan } from '../routing/plan';
import type { WalkStep } from '../routing/walk';
import { drawAnswer, writeDetails } from '../simulate/drawing';
import { chanceOf, logNormal, type Member } from './member';

export interface PageDone {
  readonly page: string;
  readonly answers: Turn['answers'];
  readonly go: Turn['go'];
  /** From when the page is there. */
  readonly seconds: number;
  /** Before the page is sent. */
  readonly leaves: boolean;
}

export interface PageInHand {
  /** Of the questionnaire of the sitting. */
  readonly plan: Plan;
  readonly kept: PageCase;
  /** By number: the same page of another questionnaire is another page. */
  readonly questionnaire: number;
  /** When the page came, and when the time for the whole is over; by the panel's clock. */
  readonly at: number;
  readonly endsAt: number | null;
  /** How often they have come back: whoever left once may stay the next time. */
  readonly occasion: number;
}

interface Assumed {
  readonly seed: number;
  /** Who leave in a minute, in a hundred. */
  readonly breakOff: number;
}

/** Thought over as often where something keeps them on the page; then they give up. */
const MOST_TRIES = 50;
/** How much somebody differs from page to page: the standard deviation of the logarithm of seconds. Assumed. */
const UNEVEN = 0.2;
/** Grids and open questions drive people out more often than others in the same time, by this factor. Assumed. */
const HARDER = 3;
/** A second after the time is over it is over on every clock. */
const OVER = 1;

/** Null where there is no page in hand. */
export function pageDone({ seed, breakOff }: Assumed, member: Member, of: PageInHand): PageDone | null {
  const { plan, kept, questionnaire, occasion } = of;
  const own = `${questionnaire}/${kept.turns}`;
  const answered = answersTo(seed, member, of);
  if (answered === null) return null;
  const { page, answers, isStuck } = answered;
  const pace = paceOf(plan.document);
  const seconds = Math.max(
    1,
    page.steps.reduce((sum, { planItem }) => sum + secondsOf(planItem.item, pace), 0) *
      member.pace *
      logNormal(seed, member.n, `${own}/seconds`, UNEVEN),
  );
  const minutes = page.steps.reduce(
    (sum, step) => sum + (secondsOf(step.planItem.item, pace) * weight(step)) / 60,
    0,
  );
  // A hazard: whoever has stayed so far leaves in the next minute as likely as in any other.
  const stays = Math.exp((-breakOff / 100) * minutes * member.pace);
  const declines = member.refuses ? refusalOn(plan, kept, page) : null;
  const leaves =
    isStuck ||
    (member.refuses && declines === null && !asksForConsent(plan, page)) ||
    chanceOf(seed, member.n, `${own}/leaves/${occasion}`) >= stays;
  const done = { page: page.key, answers: declines ?? answers, go: 'next' as const, seconds, leaves };
  return inTime(of, page, done);
}

/** Draws answers to what is asked on the page, also to what comes up there because of them. */
function answersTo(seed: number, member: Member, { plan, kept, questionnaire }: PageInHand) {
  const answers: Record<string, Value | null> = {};
  const drawn = new Set<string>();
  const tries = new Map<string, number>();
  for (;;) {
    const { pages } = followed(plan, { answers: { ...kept.answers, ...answers }, inputs: inputsOf(kept) });
    const page = pages[kept.at];
    if (page === undefined) return null;
    // What they have answered before, on a page that is shown again, they leave as it is.
    const isNew = ({ key, parts, pass }: WalkStep) =>
      !drawn.has(key) && parts.some(({ name }) => isBlank(kept.answers[passKey(name, pass)] ?? null));
    const faulty = page.steps.filter(({ faults }) => faults.some(({ kind }) => kind !== 'soft'));
    const toDraw = page.steps.filter(isNew);
    for (const step of toDraw.length > 0 ? toDraw : faulty) {
      const again = tries.get(step.key) ?? 0;
      tries.set(step.key, again + 1);
      drawn.add(step.key);
      const random = generatorFor(seed, `${member.n}/${questionnaire}/${step.key}/${again}`);
      Object.assign(answers, answersToOne(step, random, member.isCareless));
    }
    const isStuck = faulty.some(({ key }) => (tries.get(key) ?? 0) > MOST_TRIES);
    if (isStuck || (toDraw.length === 0 && faulty.length === 0))
      return { page, answers: onPage(page, answers), isStuck };
  }
}

/** Without answers to what went from the page because of others there. */
function onPage({ steps }: Page, answers: Readonly<Record<string, Value | null>>): Turn['answers'] {
  const asked = steps.flatMap(({ parts, pass }) =>
    parts.map(({ name }) => ({ key: passKey(name, pass), name, pass })),
  );
  return Object.fromEntries(
    Object.entries(answers).filter(([key]) =>
      asked.some((of) => key === of.key || isTextBeside(key, of.name, of.pass)),
    ),
  );
}

/** The words for an option that asks to be specified. */
function isTextBeside(key: string, asked: string, pass: number | null): boolean {
  const { name, pass: of } = readPassKey(key);
  return of === pass && name.startsWith(`${asked}_`) && /^-?\d+_text$/.test(name.slice(asked.length + 1));
}

function answersToOne(
  { planItem: { item }, parts, pass, shown }: WalkStep,
  random: ReturnType<typeof generatorFor>,
  isCareless: boolean,
): Record<string, Value | null> {
  const answers: Record<string, Value | null> = {};
  if (item.kind === 'statement') return answers;
  const { assume, required } = item;
  let first: Value | null = null;
  for (const { name, answer } of parts) {
    const of = { answer, ...(assume ? { assume } : {}), ...(required ? { required } : {}) };
    const value: Value | null = isCareless && first !== null ? first : drawAnswer(random, of, shown);
    first ??= value;
    answers[passKey(name, pass)] = value;
    writeDetails(name, optionsOf(answer), pass, value, answers);
  }
  return answers;
}

/** What says no on this page, so that the walk comes to an ending of those who decline; null where nothing does. */
function refusalOn(plan: Plan, kept: PageCase, page: Page): Turn['answers'] | null {
  for (const { parts, pass } of page.steps) {
    for (const { name, answer } of parts) {
      for (const { code } of optionsOf(answer)) {
        const answers = { [passKey(name, pass)]: code };
        const { result } = followed(plan, {
          answers: { ...kept.answers, ...answers },
          inputs: inputsOf(kept),
        });
        const ending =
          result.ok && result.walk.ending !== null ? plan.endings[result.walk.ending] : undefined;
        if (ending !== undefined && ENDINGS[ending.ending.kind].keepsNothing) return answers;
      }
    }
  }
  return null;
}

const asksForConsent = (plan: Plan, { section }: Page) => plan.sections[section]?.section.kind === 'consent';

function weight({ planItem: { item } }: WalkStep): number {
  if (item.kind !== 'question') return 1;
  return rowsOf(item.answer).length > 0 || opensAField(item.answer) ? HARDER : 1;
}

const opensAField = (answer: Parameters<typeof rowsOf>[0]) => 'lines' in answer && answer.lines === 'many';

/** Whoever is not done when the time of the section or of the whole is over sends what they have by then. */
function inTime({ plan, kept, at, endsAt }: PageInHand, page: Page, done: PageDone): PageDone {
  const limit = plan.sections[page.section]?.section.timeLimit;
  const begun = kept.clocks[clockOf(page)] ?? at;
  const left = (until: number) => Math.max(0, (until - at) / 1000) + OVER;
  const ofSection = limit === undefined ? Infinity : left(begun + limit * 1000);
  const ofAll = endsAt === null ? Infinity : left(endsAt);
  const seconds = Math.min(ofSection, ofAll);
  if (done.seconds <= seconds) return done;
  const share = seconds / done.seconds;
  const pace = paceOf(plan.document);
  const whole = page.steps.reduce((sum, { planItem }) => sum + secondsOf(planItem.item, pace), 0);
  let spent = 0;
  const answered = page.steps.filter(
    ({ planItem }) => (spent += secondsOf(planItem.item, pace)) <= share * whole,
  );
  const names: ReadonlySet<string> = new Set(
    answered.flatMap(({ parts, pass }) => parts.map(({ name }) => passKey(name, pass))),
  );
  const answers = Object.fromEntries(Object.entries(done.answers).filter(([key]) => names.has(key)));
  return { ...done, answers, seconds, go: ofAll <= ofSection ? 'over' : 'time-out' };
}
