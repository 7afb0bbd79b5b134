/**
 * What a respondent's page may ask of the server: to begin, to come back, to show that a person answers, and to go on. The one table
 * of doors; whoever is refused is told why, and what no page of ours sends is noted in the log.
 */
import { PROGRAM_HEADER } from '../../server/inner.mjs';
import { writeDocument } from '../core/document/read';
import type { Questionnaire } from '../core/document/types';
import { forRespondents } from '../core/responding/for-respondents';
import { pageCase } from '../core/responding/page-case';
import { endOfTime } from '../core/responding/trial-settings';
import type { TurnedCase } from '../core/responding/turn';
import type { Store } from '../store/open';
import {
  beginResponse,
  cameBack,
  findSitting,
  hasOwnLink,
  NO_SUCH_LINK,
  sittingBegan,
  type StoredResponse,
} from '../store/responses';
import { trialPlan } from '../store/trial-plans';
import { findTrial, questionnaireOf, type FoundTrial } from '../store/trials';
import { isChecked, NOT_KNOWN, passHumanCheck, storeTurn } from '../store/turns';
import {
  HumanCheckSolved,
  ToBeginSchema,
  ToResumeSchema,
  TurnOfSchema,
  type Sitting,
  type WHY_REFUSED,
} from '../wire/answer';
import { entrance } from './entrance';
import { timeFor } from './panel-clock';
import { json, readBody, refuse } from './respond';
import { Throttle } from './throttle';

interface Call {
  readonly db: Store;
  readonly trial: FoundTrial;
  readonly request: Request;
  readonly now: number;
}
type AnswerDoor = (call: Call) => Promise<Response>;
type Why = (typeof WHY_REFUSED)[number];

/** In bytes: a page of answers is far smaller. */
const MOST_SENT = 300_000;
const MINUTE = 60_000;
/** Responses that one address begins: a house full of people may share one. */
const begins = new Throttle({ each: 2000, eachSpan: 10 * MINUTE, all: 50_000, allSpan: 60 * MINUTE });
/** Codes to come back with that are not known here, so that none can be guessed. */
const codes = new Throttle({ each: 10, eachSpan: 15 * MINUTE, all: 500, allSpan: 60 * MINUTE });

const STATUS = {
  'no-link': 404,
  closed: 403,
  answered: 403,
  elsewhere: 409,
  stranger: 403,
  'no-response': 404,
  halted: 403,
  unchecked: 403,
  unfinished: 422,
  'not-asked': 400,
  'not-allowed': 422,
  'no-limit': 400,
} as const satisfies Record<Why, number>;

/** Refusals that a page of ours never meets. */
const FORGED: ReadonlySet<Why> = new Set(['not-asked', 'not-allowed', 'no-limit', 'unchecked']);

export const ANSWER_DOORS: Readonly<Record<string, AnswerDoor>> = {
  async begin({ db, trial, request, now }) {
    const read = await readBody(request, ToBeginSchema, MOST_SENT);
    if (!read.ok) return noted(trial, read.response);
    // A program of this house, as a made-up panel, may be many people.
    const isProgram = request.headers.get(PROGRAM_HEADER) !== null;
    if (!isProgram && begins.take(addressOf(request), now) > 0)
      return refuse(
        429,
        'Very many people have begun from this network just now. Please try again in ten minutes.',
      );
    const begun = beginResponse(db, trial.token, read.body, now);
    return begun.ok
      ? json(sittingOf(db, trial, begun.response, now))
      : refusal(trial, begun.why, begun.problem);
  },

  async resume({ db, trial, request, now }) {
    const read = await readBody(request, ToResumeSchema, MOST_SENT);
    if (!read.ok) return noted(trial, read.response);
    const { body } = read;
    if ('id' in body) {
      const found = findSitting(db, trial.token, body);
      return found === null
        ? refusal(trial, 'no-response', NOT_KNOWN)
        : json(sittingOf(db, trial, cameBack(db, found, now), now));
    }
    if (!trial.settings.mayReturn)
      return refusal(trial, 'no-response', 'Nobody can come back to this questionnaire with a code.');
    const address = addressOf(request);
    const wait = codes.take(address, now);
    if (wait > 0)
      return refuse(
        429,
        `There were too many codes that are not known. Try again in ${Math.ceil(wait / MINUTE)} min.`,
      );
    const found = findSitting(db, trial.token, body);
    if (found === null)
      return refusal(
        trial,
        'no-response',
        'This code is not known here. Look at it once more: it has eight letters and digits.',
      );
    codes.forgive(address);
    return json(sittingOf(db, trial, cameBack(db, found, now), now));
  },

  async check({ db, trial, request, now }) {
    const read = await readBody(request, HumanCheckSolved, MOST_SENT);
    if (!read.ok) return noted(trial, read.response);
    const { id, ...solved } = read.body;
    if (!passHumanCheck(db, trial.token, id, solved))
      return refusal(trial, 'unchecked', 'That is not it: please try once more.');
    const found = findSitting(db, trial.token, { id });
    return found === null ? refusal(trial, 'no-response', NOT_KNOWN) : json(sittingOf(db, trial, found, now));
  },

  async turn({ db, trial, request, now }) {
    const read = await readBody(request, TurnOfSchema, MOST_SENT);
    if (!read.ok) return noted(trial, read.response);
    const { id, turn } = read.body;
    const taken = storeTurn(db, trial.token, id, turn, now);
    const { response } = taken;
    if (taken.ok) return json(sittingOf(db, trial, taken.response, now, id));
    return refusal(
      trial,
      taken.why,
      taken.message,
      response === null ? {} : { sitting: sittingOf(db, trial, response, now, id) },
    );
  },
};

/** Counted for a while, and kept nowhere. */
const addressOf = ({ headers }: Request) => entrance().addressOf(headers);

/** Answers a respondent's page, or refuses. */
export async function answerRespondent(
  call: Omit<Call, 'trial'>,
  token: string,
  door: string,
): Promise<Response> {
  const open = Object.hasOwn(ANSWER_DOORS, door) ? ANSWER_DOORS[door] : undefined;
  if (open === undefined || call.request.method !== 'POST')
    return refuse(404, 'A respondent’s page begins, comes back and goes on; there is nothing else here.');
  const trial = findTrial(call.db, token);
  if (trial === null) {
    console.warn(`A link that is none was tried: ${JSON.stringify(token.slice(0, 40))}`);
    return refuse(404, NO_SUCH_LINK, {
      why: 'no-link',
    });
  }
  return open({ ...call, trial, now: timeFor(call.db, token, call.request, call.now) });
}

/** `known`: id of the part whose questionnaire the page has; null where it may have none but that of the link. */
function sittingOf(
  db: Store,
  trial: FoundTrial,
  response: StoredResponse,
  now: number,
  known: string | null = null,
): Sitting {
  const asked = questionnaireOf(db, trial, response.questionnaire) ?? trial;
  const kept: TurnedCase = response.kept;
  return {
    now,
    id: response.id,
    questionnaire: response.questionnaire,
    ...(response.questionnaire === 0 || response.id === known
      ? {}
      : { document: handedOut(trialPlan(asked).document) }),
    code: trial.settings.mayReturn && !hasOwnLink(response) ? response.code : null,
    endsAt: endOfTime(trial.settings, sittingBegan(db, response)),
    toCheck: isChecked(trial, trialPlan(asked)) && !kept.isPerson,
    kept: pageCase(kept),
  };
}

const handedOut = (document: Questionnaire): unknown => JSON.parse(writeDocument(forRespondents(document)));

function refusal(trial: FoundTrial, why: Why, problem: string, more: { sitting?: Sitting } = {}): Response {
  if (FORGED.has(why)) note(trial, `${why}: ${problem}`);
  return refuse(STATUS[why], problem, { why, ...more });
}

/** What no page of ours sends. */
function noted(trial: FoundTrial, response: Response): Response {
  note(trial, `the request could not be read (${response.status})`);
  return response;
}

/** Never what somebody answered: a name that was asked for stands in quotes, in one line. */
function note({ token }: FoundTrial, what: string): void {
  console.warn(`Refused under the link ${token.slice(0, 6)}…: ${what.replace(/\s+/g, ' ').slice(0, 200)}`);
}
