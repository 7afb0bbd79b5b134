/**
 * One walk in the preview: the answers so far, the page one is on, and what changes of mind dropped.
 *
 * The route is worked out anew from the answers after every keystroke. Answers that are no longer on it stay on
 * the page's side until "Next" is pressed; then they leave the data and are kept as dropped.
 */
import { nameInKey, passKey, readPassKey } from '../document/addresses';
import type { Answers, Value } from '../document/types';
import { pagesOf, type Page } from '../routing/pages';
import type { Plan } from '../routing/plan';
import { answerNames, walk, type Fault, type Walk, type WalkResult, type WalkStep } from '../routing/walk';

export interface WalkInputs {
  readonly given?: Answers;
  readonly full?: readonly string[];
  readonly draws?: Readonly<Record<string, readonly string[]>>;
  readonly seed: number;
  /** Items at which the time of their section ran out. */
  readonly timedOut?: readonly string[];
}

export interface Dropped {
  readonly key: string;
  readonly value: Value;
}

export interface ChangedAnswer {
  readonly key: string;
  readonly from: Value;
}

export interface SessionState {
  readonly answers: Readonly<Record<string, Value | null>>;
  readonly inputs: WalkInputs;
  /** Grows with every walk begun. */
  readonly walks: number;
  /** Index of the page shown; the number of pages where the ending is shown. */
  readonly at: number;
  readonly reached: number;
  /** Answers that were filled in at the start, of a followed route. */
  readonly filledIn: Readonly<Record<string, Value | null>>;
  readonly dropped: readonly Dropped[];
  readonly changed: readonly ChangedAnswer[];
  /** Faults are shown once "Next" was pressed on the page. */
  readonly tried: boolean;
  /** Grows with every "Next" that did not go on. */
  readonly tries: number;
  /** The item that somebody asked to go to, to be found on the page in hand; a new one for every asking. */
  readonly aim: { readonly key: string } | null;
  /** Soft checks the respondent has been asked about on this page, as one text. */
  readonly confirmed: string;
}

export type SessionAction =
  | {
      readonly do: 'start';
      readonly answers: SessionState['answers'];
      readonly inputs: WalkInputs;
      readonly at: number;
    }
  | { readonly do: 'answer'; readonly key: string; readonly value: Value | null }
  | { readonly do: 'inputs'; readonly inputs: WalkInputs }
  | { readonly do: 'time-out'; readonly key: string }
  | { readonly do: 'tried'; readonly confirmed: string }
  | { readonly do: 'go'; readonly to: number; readonly drop: readonly string[]; readonly aim?: string };

export function sessionAfter(state: SessionState, action: SessionAction): SessionState {
  switch (action.do) {
    case 'start':
      return {
        ...NO_SESSION,
        walks: state.walks + 1,
        answers: action.answers,
        filledIn: action.answers,
        inputs: action.inputs,
        at: action.at,
        reached: action.at,
      };
    case 'answer': {
      const before = state.answers[action.key] ?? null;
      const revisited = state.at < state.reached || action.key in state.filledIn;
      const known = state.changed.some(({ key }) => key === action.key);
      return {
        ...state,
        answers: { ...state.answers, [action.key]: action.value },
        changed:
          revisited && before !== null && !known
            ? [...state.changed, { key: action.key, from: before }]
            : state.changed,
      };
    }
    case 'inputs':
      return { ...state, inputs: action.inputs, at: 0, tried: false };
    case 'time-out': {
      const { timedOut = [] } = state.inputs;
      return {
        ...state,
        inputs: { ...state.inputs, timedOut: [...timedOut, action.key] },
        at: state.at + 1,
        reached: Math.max(state.reached, state.at + 1),
        tried: false,
      };
    }
    case 'tried':
      return { ...state, tried: true, tries: state.tries + 1, confirmed: action.confirmed };
    case 'go': {
      const dropped = action.drop.flatMap((key) => {
        const value = state.answers[key] ?? null;
        return value === null ? [] : [{ key, value }];
      });
      const answers =
        action.drop.length === 0
          ? state.answers
          : Object.fromEntries(Object.entries(state.answers).filter(([key]) => !action.drop.includes(key)));
      return {
        ...state,
        answers,
        at: action.to,
        reached: Math.max(state.reached, action.to),
        dropped: [...state.dropped, ...dropped],
        tried: false,
        aim: action.aim === undefined ? null : { key: action.aim },
        confirmed: '',
      };
    }
    default:
      return action satisfies never;
  }
}

export const NO_SESSION: SessionState = {
  answers: {},
  inputs: { seed: 1 },
  walks: 0,
  at: 0,
  reached: 0,
  filledIn: {},
  dropped: [],
  changed: [],
  tried: false,
  tries: 0,
  aim: null,
  confirmed: '',
};

export interface Session extends Omit<SessionState, 'at'> {
  /** Null where the walk cannot start: a value known beforehand is missing. */
  readonly walk: Walk | null;
  readonly problem: string | null;
  readonly pages: readonly Page[];
  readonly at: number;
  /** Null at the ending. */
  readonly page: Page | null;
  /** What keeps the respondent on this page, with the step it belongs to; empty until they tried to go on. */
  readonly faults: readonly PageFault[];
  /** Keys of answers that the present answers have put off the route. */
  readonly offRoute: readonly string[];
  /** Begins a walk, on the page of an item where one is named, with all before it answered. */
  start(answers: SessionState['answers'], inputs: WalkInputs, item?: string): void;
  answer(key: string, value: Value | null): void;
  setInputs(inputs: WalkInputs): void;
  next(): void;
  back(): void;
  /** To a page that was reached, and there to an item by its key. */
  goTo(page: number, item?: string): void;
  /** The time of the section in hand has run out: on from its end, whatever is not answered. */
  timeOut(): void;
  /** Goes on to the ending, or to the first page that keeps the respondent. */
  toEnd(): void;
}

export interface PageFault {
  readonly step: WalkStep;
  readonly fault: Fault;
}

interface Followed {
  readonly result: WalkResult;
  readonly pages: readonly Page[];
  /** Keys of answers that are asked for no more; worked out when they are wanted. */
  readonly offRoute: readonly string[];
}

/** By the answers: a turn looks at the same ones several times. Answers are values that nobody changes. */
const followedLast = new WeakMap<
  Answers,
  { readonly plan: Plan; readonly inputs: WalkInputs; readonly found: Followed }
>();
const INPUTS = ['seed', 'given', 'full', 'timedOut', 'draws'] as const;

/** What follows from the answers: the walk, its pages, and the answers that it asks for no more. */
export function followed(
  plan: Plan,
  { answers, inputs }: Pick<SessionState, 'answers' | 'inputs'>,
): Followed {
  const last = followedLast.get(answers);
  if (last?.plan === plan && INPUTS.every((name) => last.inputs[name] === inputs[name])) return last.found;
  const result = walk(plan, { answers, ...inputs, lenient: true });
  let offRoute: readonly string[] | null = null;
  const found: Followed = {
    result,
    pages: result.ok ? pagesOf(plan, result.walk, inputs.seed) : [],
    get offRoute() {
      return (offRoute ??= result.ok ? keysOffRoute(plan, result.walk, answers) : []);
    },
  };
  followedLast.set(answers, { plan, inputs, found });
  return found;
}

/** The walk as it stands, with what can be done in it; `dispatch` takes what `sessionAfter` does. */
export function sessionOf(
  plan: Plan,
  state: SessionState,
  { result, pages, offRoute }: ReturnType<typeof followed>,
  dispatch: (action: SessionAction) => void,
): Session {
  const walked = result.ok ? result.walk : null;
  const at = Math.min(state.at, pages.length);
  const page = pages[at] ?? null;
  const faults = page?.steps.flatMap((step) => step.faults.map((fault) => ({ step, fault }))) ?? [];
  return {
    ...state,
    walk: walked,
    problem: result.ok ? null : result.problem,
    pages,
    at,
    page,
    faults: state.tried ? faults : [],
    offRoute,
    start: (given, by, item) =>
      dispatch({ do: 'start', answers: given, inputs: by, at: pageOf(plan, given, by, item) }),
    answer: (key, value) => dispatch({ do: 'answer', key, value }),
    setInputs: (next) => dispatch({ do: 'inputs', inputs: next }),
    next() {
      const soft = JSON.stringify(
        faults.filter(({ fault }) => fault.kind === 'soft').map(({ fault }) => fault.message),
      );
      const hard = faults.some(({ fault }) => fault.kind !== 'soft');
      if (hard || (soft !== '[]' && soft !== state.confirmed)) dispatch({ do: 'tried', confirmed: soft });
      else dispatch({ do: 'go', to: at + 1, drop: offRoute });
    },
    back: () => dispatch({ do: 'go', to: Math.max(0, at - 1), drop: [] }),
    timeOut() {
      // Of a page in random order, the one that stands last in the questionnaire.
      const last = walked?.steps.findLast(({ key }) => page?.steps.some((step) => step.key === key));
      if (last !== undefined) dispatch({ do: 'time-out', key: last.key });
    },
    toEnd() {
      const kept = pages.findIndex(({ steps }) =>
        steps.some((step) => step.faults.some(({ kind }) => kind !== 'soft')),
      );
      dispatch({ do: 'go', to: kept < 0 ? pages.length : kept, drop: offRoute });
    },
    goTo: (to, item) =>
      dispatch({ do: 'go', to, drop: to > at ? offRoute : [], ...(item === undefined ? {} : { aim: item }) }),
  };
}

/** The page on which an item is first presented; the first page where it is not. */
function pageOf(plan: Plan, answers: Answers, inputs: WalkInputs, item: string | undefined): number {
  const result = walk(plan, { answers, ...inputs, lenient: true });
  if (item === undefined || !result.ok) return 0;
  const pages = pagesOf(plan, result.walk, inputs.seed);
  return Math.max(
    0,
    pages.findIndex((page) => page.steps.some(({ planItem }) => planItem.item.name === item)),
  );
}

/** Answered keys that nothing on the walk asks for: neither the question, nor its texts and remarks, which follow it. */
function keysOffRoute(plan: Plan, walked: Walk, answers: Answers): string[] {
  const asked = new Set<string>();
  for (const { parts, pass, planItem } of walked.steps) {
    for (const { name } of parts) asked.add(passKey(name, pass));
    asked.add(passKey(planItem.item.name, pass));
  }
  const order = new Map([...plan.variables.values()].map(({ name }, n) => [name, n]));
  const texts = answerNames(plan);
  /** A text or remark goes with its question. */
  const ownerOf = (name: string) => (order.has(name) ? name : name.replace(/_(comment|-?\d+_text)$/, ''));
  const place = (key: string) => order.get(ownerOf(nameInKey(key))) ?? -1;
  const keys = Object.keys(answers).sort((a, b) => place(a) - place(b));
  return keys.filter((key) => {
    if ((answers[key] ?? null) === null) return false;
    const { name, pass } = readPassKey(key);
    return !texts.has(name) || !asked.has(passKey(ownerOf(name), pass));
  });
}
