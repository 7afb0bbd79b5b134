/**
 * The ways on from one place, each told apart by what happens there: which side of an ask-if, which skip, which
 * message. Where `belief.ts` joins all who see the same, here every fork counts.
 */
import type { EncodedPlan } from '../conditions/encoded-plan';
import type { ConditionalPart } from '../conditions/exits';
import { eachMove, movesOf, type MoveBy } from '../conditions/moves';
import { FALSE, TRUE, type Diagram } from '../diagrams/diagram';

/** Something that can happen to a respondent at a place, and that a fork decides. The same in every pass. */
export type ForkEvent =
  | { readonly kind: 'presented'; readonly item: string }
  | {
      readonly kind: 'ask-if';
      /** A section's id, or an item's name with, where it is theirs, the option or row. */
      readonly of: { readonly section: string } | { readonly item: string; readonly part?: string };
      readonly holds: boolean;
      /** It may be met on other branches, too, that do not say so. */
      readonly overlaps?: true;
    }
  /** One of the item's quotas or skips was taken; index -1: none was, though there are some. */
  | { readonly kind: 'skip' | 'quota'; readonly item: string; readonly index: number }
  | { readonly kind: 'onward'; readonly section: string; readonly index: number }
  /** A pass that was begun; 0: the section was passed over for want of one. */
  | { readonly kind: 'pass'; readonly section: string; readonly pass: number }
  | { readonly kind: 'ending'; readonly ending: string }
  | { readonly kind: 'message'; readonly ending: string; readonly index: number };

export interface Branch {
  /** What is true of all who go this way; nothing forgotten yet. */
  readonly mass: Diagram;
  /** Number of the place it leads to; null past an ending. */
  readonly to: number | null;
  readonly events: readonly ForkEvent[];
  /** Whether the item at the place was presented. */
  readonly presented: boolean;
}

/** The ways of those who come to a place, those that somebody takes. */
export function waysFrom(encoded: EncodedPlan, at: number, mass: Diagram): Branch[] {
  const place = encoded.course.places[at];
  const branches: Branch[] = [];
  const { diagrams } = encoded;
  const add = (when: Diagram, to: number | null, events: readonly ForkEvent[] = [], presented = false) => {
    if (when === FALSE) return;
    // At an ending nothing but its messages matters any more, and those read only what was met on the way.
    const over = to === null || to === at + 1 ? TRUE : encoded.passedOver(at, to);
    branches.push({ mass: diagrams.and(when, over), to, events, presented });
  };
  if (place?.kind === 'item') waysFromItem(encoded, at, mass, add);
  else {
    const { first, moves } = movesOf(encoded).from(at);
    eachMove(diagrams, diagrams.and(mass, first), moves, (moving, { then, to, by }) =>
      add(diagrams.and(moving, then), to, eventsOf(encoded, at, by)),
    );
  }
  return branches;
}

type Add = (when: Diagram, to: number | null, events?: readonly ForkEvent[], presented?: boolean) => void;

/** What of a move from any place but an item a fork decides. */
function eventsOf(encoded: EncodedPlan, at: number, by: MoveBy): readonly ForkEvent[] {
  const { course, plan } = encoded;
  const place = course.places[at];
  if (place === undefined || place.kind === 'item') return [];
  if (place.kind === 'ending') {
    const ending = plan.endings[place.ending]?.ending.id ?? '';
    const ended: ForkEvent = { kind: 'ending', ending };
    const index = by.kind === 'message' ? by.index : null;
    return index === null ? [ended] : [ended, { kind: 'message', ending, index }];
  }
  const planSection = plan.sections[place.section];
  if (planSection === undefined) return [];
  const { section, gate, repeat } = planSection;
  const pass = (number: number): ForkEvent[] =>
    repeat === null ? [] : [{ kind: 'pass', section: section.id, pass: number }];
  const side = (holds: boolean): ForkEvent[] =>
    gate === null ? [] : [{ kind: 'ask-if', of: { section: section.id }, holds }];
  switch (by.kind) {
    case 'entering':
      return side(true);
    case 'no-pass':
      return [...side(true), ...pass(0)];
    case 'kept-out':
      return side(false);
    case 'beginning':
      return place.kind === 'pass' ? pass(place.pass) : [];
    case 'way': {
      // Only an end with written ways is a fork; that of a pass with another behind it is none.
      const isFork = encoded.endAt(at).some(({ by: written }) => written !== null);
      return isFork ? [{ kind: 'onward', section: section.id, index: by.written?.index ?? -1 }] : [];
    }
    case 'unasked':
    case 'message':
      return [];
    default:
      return by satisfies never;
  }
}

function waysFromItem(encoded: EncodedPlan, at: number, mass: Diagram, add: Add): void {
  const { diagrams } = encoded;
  const { asked, askIf, ways, checks, planItem, shown } = encoded.itemAt(at);
  const { name } = planItem.item;
  const side = (holds: boolean): ForkEvent[] =>
    planItem.askIf === null ? [] : [{ kind: 'ask-if', of: { item: name }, holds }];
  const moves = movesOf(encoded);

  eachMove(diagrams, mass, moves.from(at).moves, (moving, { then, to }) => {
    const over = diagrams.and(moving, then);
    add(diagrams.and(over, askIf), to, side(true));
    add(diagrams.and(over, diagrams.not(askIf)), to, side(false));
  });

  const presented = diagrams.and(mass, asked);
  const allowed = diagrams.and(encoded.domainAt(at), checks);
  const met: ForkEvent[] = [{ kind: 'presented', item: name }, ...side(true)];
  // “No way taken” is one event: named after the skips where there are any, else after the quotas.
  const list = ways.some(({ by }) => by?.list === 'skip') ? 'skip' : 'quota';
  for (const look of looks(encoded, diagrams.and(presented, allowed), name, shown))
    eachMove(diagrams, look.mass, moves.after(at).moves, (moving, { to, by }) => {
      const written = by.kind === 'way' ? by.written : null;
      const taken: ForkEvent[] =
        written !== null && written.list !== 'onward'
          ? [{ kind: written.list, item: name, index: written.index }]
          : ways.length > 0
            ? [{ kind: list, item: name, index: -1 }]
            : [];
      add(moving, to, [...met, ...look.events, ...taken], true);
    });
}

/** More options and rows with an ask-if than this are not looked at in every combination. */
const MOST_COMBINED = 6;

/** What can be seen of the options and rows that have an ask-if, with those who see it so. */
function looks(encoded: EncodedPlan, mass: Diagram, item: string, shown: readonly ConditionalPart[]) {
  const { diagrams } = encoded;
  if (shown.length > MOST_COMBINED) return singleLooks(encoded, mass, item, shown);
  let all: { mass: Diagram; events: readonly ForkEvent[] }[] = [{ mass, events: [] }];
  for (const { of, index, when } of shown) {
    const part = `${of} ${index}`;
    all = all.flatMap((look) =>
      [true, false].flatMap((holds) => {
        const here = diagrams.and(look.mass, holds ? when : diagrams.not(when));
        const event: ForkEvent = { kind: 'ask-if', of: { item, part }, holds };
        return here === FALSE ? [] : [{ mass: here, events: [...look.events, event] }];
      }),
    );
  }
  return all;
}

/**
 * Each side of each ask-if by itself, all that are shown together, and all that are hidden: these overlap, so that of
 * somebody on one of them more may be true than it says.
 */
function singleLooks(
  { diagrams }: EncodedPlan,
  mass: Diagram,
  item: string,
  shown: readonly ConditionalPart[],
) {
  const found: { mass: Diagram; events: readonly ForkEvent[] }[] = [];
  const eventOf = ({ of, index }: ConditionalPart, holds: boolean): ForkEvent => ({
    kind: 'ask-if',
    of: { item, part: `${of} ${index}` },
    holds,
    overlaps: true,
  });
  for (const side of [true, false]) {
    const whens = shown.map(({ when }) => (side ? when : diagrams.not(when)));
    let together = mass;
    const met: ForkEvent[] = [];
    whens.forEach((when, n) => {
      const here = diagrams.and(mass, when);
      if (here === FALSE) return;
      found.push({ mass: here, events: [eventOf(shown[n] as ConditionalPart, side)] });
      const more = diagrams.and(together, when);
      if (more === FALSE) return;
      together = more;
      met.push(eventOf(shown[n] as ConditionalPart, side));
    });
    if (met.length > 1) found.push({ mass: together, events: met });
  }
  return found.length > 0 ? found : [{ mass, events: [] }];
}
