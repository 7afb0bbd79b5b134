/** What an author watches of a link while people answer under it: figures as they come in, and the responses behind them. */
import type * as v from 'valibot';
import { daysIn } from '../core/monitor/days';
import { figuresOf, type Monitored } from '../core/monitor/figures';
import { outcomeOf } from '../core/monitor/outcomes';
import { isFastBy, paceOf } from '../core/monitor/pace';
import { outcomeAt, pickedBy, type Picked, type PickingIn } from '../core/monitor/picked';
import { summaryOf, type ResponseSummary } from '../core/monitor/summary';
import { pagesOfCase } from '../core/responding/kept-case';
import type { Plan } from '../core/routing/plan';
import { sectionLabel } from '../core/wording/targets';
import { listCounted } from '../store/counted';
import type { Store } from '../store/open';
import { findPanel, lettersSent, timeUnder } from '../store/panels';
import { listPeople, type Person } from '../store/people';
import { findResponse, keyOf, ownLink, removeStopped } from '../store/responses';
import { trialPlan } from '../store/trial-plans';
import { questionnaireOf, type FoundTrial } from '../store/trials';
import { MOST_LISTED, type Behind, type Monitor, type ResponseLine, type TrailSchema } from '../wire/monitor';
import { live } from './live';
import { summariesUnder, type Summaries } from './summaries';
import { cardOf, trialOf } from './trials';

/** Which questionnaire of a link is watched, and from where. */
export interface Watched {
  /** Number of the follow-up; 0 for the questionnaire of the link. */
  readonly questionnaire: number;
  /** Time zone (IANA) by which days are told. */
  readonly zone: string;
}

/** Null where the link has no questionnaire of that number. */
function planUnder(db: Store, trial: FoundTrial, { questionnaire }: Watched): Plan | null {
  const asked = questionnaireOf(db, trial, questionnaire);
  return asked === null ? null : trialPlan(asked);
}

const MINUTE = 60_000;
/** Making figures takes at most one part in so many of the server's time, and one more. */
const RESTS = 5;

/** Streams the figures; null where the link has no questionnaire of that number. */
export function watchTrial(
  db: Store,
  trial: FoundTrial,
  watched: Watched,
  request: Request,
): Response | null {
  const plan = planUnder(db, trial, watched);
  if (plan === null) return null;
  const summaries = summariesUnder(db, trial.token, watched.questionnaire, plan);
  let mark = '';
  /** Not before this are figures made again: while many answer, the server is to be theirs. */
  let restsUntil = 0;
  let told: Pick<Monitor, 'figures' | 'link' | 'now'> | null = null;
  const sections = plan.sections.map(({ section: { id }, index }) => ({
    id,
    title: sectionLabel(plan.document, index),
  }));
  const look = (): Monitor | null => {
    const found = trialOf(db, trial.studyId, trial.token);
    if (found === null) return null;
    const now = timeUnder(db, found.token, Date.now());
    removeStopped(db, found, now);
    const { document: _document, ...rest } = found;
    // Whoever sends nothing more has left after a while, though nothing changes.
    const minute = Math.floor(now / MINUTE) * MINUTE;
    const next = [summaries.mark(), minute, JSON.stringify(rest)].join('\n');
    if (next !== mark && summaries.progress === null && performance.now() >= restsUntil) {
      mark = next;
      const link = cardOf(db, found, now);
      told = { figures: told?.figures ?? null, link, now: minute };
      void summaries
        .refresh()
        .then(() => {
          const began = performance.now();
          told = {
            link,
            now: minute,
            figures: figuresOf(monitored(db, found, plan, watched, summaries, now)),
          };
          const ended = performance.now();
          restsUntil = ended + RESTS * (ended - began);
        })
        .catch((error: unknown) => {
          console.error(`What came in under the link ${found.name} could not be read:`, error);
          mark = '';
        });
    }
    const { figures = null, link = cardOf(db, found, now) } = told ?? {};
    return {
      link,
      sections,
      now: told?.now ?? minute,
      reading: figures === null ? summaries.progress : null,
      figures,
    };
  };
  return live(look, request);
}

function monitored(
  db: Store,
  trial: FoundTrial,
  plan: Plan,
  { questionnaire, zone }: Watched,
  summaries: Summaries,
  now: number,
): Monitored {
  const { token, settings, createdAt } = trial;
  const panel = findPanel(db, token);
  const responses = summaries.list;
  const isInvited = settings.toldApart === 'personal' && questionnaire === 0;
  const invited = isInvited ? invitedPeople(db, trial) : null;
  const begun = new Set(responses.map(({ person }) => person));
  const counted = questionnaire === 0 ? listCounted(db, token) : [];
  // From before the hours were kept.
  const undated = (['declined', 'removed'] as const).map((what) => ({
    ...{ what, at: null },
    count:
      questionnaire === 0
        ? trial[what] -
          counted.filter((each) => each.what === what).reduce((sum, { count }) => sum + count, 0)
        : 0,
  }));
  return {
    ...{ plan, responses, now },
    partialFrom: partialFrom(plan, trial),
    counted: [...counted, ...undated.filter(({ count }) => count > 0)],
    invitedAt: invited?.map(({ at }) => at) ?? null,
    declinedPeople:
      invited?.filter(({ person: { key, isSettled } }) => isSettled && !begun.has(ownLink(key))).length ?? 0,
    closesAt: trial.state === 'closed' ? 0 : (settings.closesAt ?? null),
    since: panel?.settings.startsAt ?? Math.max(createdAt, settings.opensAt ?? 0),
    dayOf: daysIn(panel === null ? zone : 'UTC'),
  };
}

/** Index of the section; null where none is chosen, or the questionnaire has it no more. */
function partialFrom(plan: Plan, { settings }: FoundTrial): number | null {
  const found = plan.sections.findIndex(({ section }) => section.id === settings.partialFrom);
  return found < 0 ? null : found;
}

/** People who were written to, with when first: members of a panel by their letter, others once they had a link. */
function invitedPeople(db: Store, { token }: FoundTrial): { readonly person: Person; readonly at: number }[] {
  const people = listPeople(db, token);
  if (findPanel(db, token) === null) return people.map((person) => ({ person, at: person.addedAt }));
  const first = new Map<string, number>();
  for (const { person, at } of lettersSent(db, token)) if (!first.has(person)) first.set(person, at);
  return people.flatMap((person) => {
    const at = first.get(person.key);
    return at === undefined ? [] : [{ person, at }];
  });
}

/** The responses behind a figure; null where the link has no questionnaire of that number. */
export async function responsesBehind(
  db: Store,
  trial: FoundTrial,
  watched: Watched,
  picked: Picked,
): Promise<Behind | null> {
  const plan = planUnder(db, trial, watched);
  if (plan === null) return null;
  const now = timeUnder(db, trial.token, Date.now());
  const summaries = summariesUnder(db, trial.token, watched.questionnaire, plan);
  await summaries.refresh();
  const of = monitored(db, trial, plan, watched, summaries, now);
  const within: PickingIn = { ...of, isFast: isFastBy(paceOf(of.responses)) };
  const picks = pickedBy(picked, within);
  if (picks === null) return peopleBehind(db, trial, of, picked);
  const names = new Map(listPeople(db, trial.token).map(({ key, name }) => [ownLink(key), name]));
  const found = of.responses.filter(picks).toSorted((a, b) => outcomeAt(b) - outcomeAt(a));
  return {
    onlyCounted: onlyCounted(of, picked),
    total: found.length,
    people: [],
    responses: found.slice(0, MOST_LISTED).map((response): ResponseLine => ({
      ...{ id: response.id, number: response.number, device: response.device },
      name: names.get(response.person ?? '') ?? null,
      outcome: outcomeOf(response, within),
      at: outcomeAt(response),
      seconds: response.seconds,
      section: response.inHand === null ? null : sectionLabel(plan.document, sectionInHand(of, response)),
      fast: within.isFast(response),
      straight: [...response.straight],
    })),
  };
}

const sectionInHand = ({ plan }: Monitored, { inHand }: ResponseSummary) =>
  plan.sections.findIndex(({ items }, section) =>
    items.some(({ item, page }) => `${section}/${page}` === inHand || item.name === inHand),
  );

/** How many are in a figure of whom no response is kept. */
function onlyCounted({ counted, dayOf }: Monitored, picked: Picked): number {
  const what =
    picked.of === 'begun'
      ? (['declined', 'removed'] as const)
      : picked.of === 'outcome'
        ? ([
            ...(picked.is.includes('declined') ? ['declined' as const] : []),
            ...(picked.is.includes('broken_off') ? ['removed' as const] : []),
          ] as const)
        : [];
  const day = 'day' in picked ? picked.day : undefined;
  return counted
    .filter(
      (each) =>
        (what as readonly string[]).includes(each.what) &&
        (day === undefined || (each.at !== null && dayOf(each.at) === day)),
    )
    .reduce((sum, { count }) => sum + count, 0);
}

function peopleBehind(db: Store, trial: FoundTrial, { responses, dayOf }: Monitored, picked: Picked): Behind {
  const begun = new Set(responses.map(({ person }) => person));
  const found = invitedPeople(db, trial).filter(({ person: { key, isSettled }, at }) =>
    picked.of === 'unheard'
      ? !isSettled && !begun.has(ownLink(key))
      : !('day' in picked) || picked.day === undefined || dayOf(at) === picked.day,
  );
  return {
    ...{ onlyCounted: 0, responses: [], total: found.length },
    people: found.slice(0, MOST_LISTED).map(({ person: { name }, at }) => ({ name, at })),
  };
}

/** A response as it is walked again; null where the link has none of that id. */
export function trailOf(db: Store, trial: FoundTrial, id: string): v.InferInput<typeof TrailSchema> | null {
  const stored = findResponse(db, trial.token, id);
  const asked = stored === null ? null : questionnaireOf(db, trial, stored.questionnaire);
  if (stored === null || asked === null) return null;
  const plan = trialPlan(asked);
  const { kept, number } = stored;
  const key = keyOf(stored);
  const moment = { now: timeUnder(db, trial.token, Date.now()), partialFrom: partialFrom(plan, trial) };
  return {
    ...{ id, number },
    name: listPeople(db, trial.token).find((person) => person.key === key)?.name ?? null,
    outcome: outcomeOf(summaryOf(plan, stored), moment),
    ...{ answers: kept.answers, given: kept.given, seed: kept.seed },
    ...{ full: kept.full, timedOut: kept.timedOut },
    visits: kept.visits,
    inHand: kept.closed?.by === 'ending' ? null : (pagesOfCase(plan, kept)[kept.at]?.key ?? null),
    ...{ changed: kept.changed, dropped: kept.dropped },
  };
}
