/**
 * One step along the line of places: how those who come to a place go on from it. The one account of it, in diagrams; what
 * is counted, who comes where, and which forks there are fold over it, each minding what it minds.
 */
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import type { EncodedPlan } from './encoded-plan';
import type { Exit } from './exits';

/** Of those left over by the moves before it, the ones for whom `when` holds. */
export interface Move {
  readonly when: Diagram;
  /** What becomes true of them by it. */
  readonly then: Diagram;
  /** Number of the place it leads to; null past an ending. */
  readonly to: number | null;
  readonly by: MoveBy;
}

export type MoveBy =
  /** Into a section; or past it, for want of a pass or by its ask-if. */
  | { readonly kind: 'entering' | 'no-pass' | 'kept-out' }
  | { readonly kind: 'beginning' }
  /** The item was not presented. */
  | { readonly kind: 'unasked' }
  /** A quota, a skip or an onward entry, or none of those that are written. */
  | { readonly kind: 'way'; readonly written: Exit['by'] }
  /** The message of an ending; null: none holds. */
  | { readonly kind: 'message'; readonly index: number | null };

/** The moves from a place, in order: of two that both hold, the first is made. */
export interface Departure {
  /** True of all who make one. */
  readonly first: Diagram;
  readonly moves: readonly Move[];
}

const ENTERING = { kind: 'entering' } as const;
const NO_PASS = { kind: 'no-pass' } as const;
const KEPT_OUT = { kind: 'kept-out' } as const;
const BEGINNING = { kind: 'beginning' } as const;
const UNASKED = { kind: 'unasked' } as const;

/** The steps of an encoded plan, each worked out once. */
export class Moves {
  private readonly steps = new Map<number, Departure>();
  private readonly leavings = new Map<number, Departure>();

  constructor(private readonly encoded: EncodedPlan) {}

  /** From a place; of an item, those who are not presented it. */
  from(at: number): Departure {
    return this.steps.get(at) ?? keep(this.steps, at, this.stepFrom(at));
  }

  /** From an item, once it was presented and answered as it allows. */
  after(at: number): Departure {
    return this.leavings.get(at) ?? keep(this.leavings, at, this.stepAfter(at));
  }

  private stepFrom(at: number): Departure {
    const { encoded } = this;
    const { diagrams, course } = encoded;
    const place = course.places[at];
    switch (place?.kind) {
      case 'gate': {
        const { askIf, somePass } = encoded.gateParts(at);
        const inside =
          place.aim === 0 ? course.pass(place.section, 1) : course.item(place.section, 1, place.aim);
        const past = course.gate(place.section + 1);
        return step([
          { when: diagrams.and(askIf, somePass), then: TRUE, to: inside, by: ENTERING },
          { when: askIf, then: TRUE, to: past, by: NO_PASS },
          { when: TRUE, then: TRUE, to: past, by: KEPT_OUT },
        ]);
      }
      case 'pass':
        return { first: encoded.passAt(at), moves: [{ when: TRUE, then: TRUE, to: at + 1, by: BEGINNING }] };
      case 'item': {
        const when = diagrams.not(encoded.itemAt(at).asked);
        return step([{ when, then: encoded.unasked(at), to: at + 1, by: UNASKED }]);
      }
      case 'end':
        return { first: encoded.settledAt(at), moves: encoded.endAt(at).map(moveBy) };
      case 'ending': {
        const messages = encoded.messagesAt(at).map((when, index) => ({ when, index }));
        return step(
          [...messages, { when: TRUE, index: null }].map(({ when, index }) => ({
            when,
            then: TRUE,
            to: null,
            by: { kind: 'message', index },
          })),
        );
      }
      default:
        throw new RangeError(`there is no place ${at}`);
    }
  }

  private stepAfter(at: number): Departure {
    const on: Exit = { when: TRUE, by: null, to: at + 1 };
    return step([...this.encoded.itemAt(at).ways, on].map(moveBy));
  }
}

function step(moves: readonly Move[]): Departure {
  return { first: TRUE, moves };
}

function moveBy({ when, by, to }: Exit): Move {
  return { when, then: TRUE, to, by: { kind: 'way', written: by } };
}

function keep(steps: Map<number, Departure>, at: number, made: Departure): Departure {
  steps.set(at, made);
  return made;
}

/** An encoded plan is never changed once it is made. */
const known = new WeakMap<EncodedPlan, Moves>();

/** Kept with the encoded plan, so that whoever folds over its moves shares them. */
export function movesOf(encoded: EncodedPlan): Moves {
  const before = known.get(encoded);
  if (before !== undefined) return before;
  const moves = new Moves(encoded);
  known.set(encoded, moves);
  return moves;
}

/** Those of some who make each move, nothing of what it makes true yet; moves that nobody is left for are not told. */
export function eachMove(
  diagrams: Diagrams,
  mass: Diagram,
  moves: readonly Move[],
  take: (mass: Diagram, move: Move) => void,
): void {
  let rest = mass;
  for (let n = 0; n < moves.length && rest !== FALSE; n += 1) {
    const move = moves[n] as Move;
    const here = move.when === TRUE ? rest : diagrams.and(rest, move.when);
    if (here !== FALSE) take(here, move);
    // The last move takes all that are left, so what remains after it is asked by nobody.
    if (n + 1 < moves.length && here !== FALSE)
      rest = here === rest ? FALSE : diagrams.and(rest, diagrams.not(move.when));
  }
}
