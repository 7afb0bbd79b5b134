/**
 * The ways on from one place, each told apart by what happens there: which side of an ask-if, which skip, which
 * message. Where `belief.ts` joins all who see the same, here every fork counts.
 */
import { FALSE, TRUE, type Diagram } from './diagram';
import type { Shown, Terrain, Way } from './terrain';

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
export function waysFrom(terrain: Terrain, at: number, mass: Diagram): Branch[] {
  const place = terrain.layout.places[at];
  const branches: Branch[] = [];
  const { diagrams, layout, plan } = terrain;
  const add = (when: Diagram, to: number | null, events: readonly ForkEvent[] = [], presented = false) => {
    if (when === FALSE) return;
    // At an ending nothing but its messages matters any more, and those read only what was met on the way.
    const over = to === null || to === at + 1 ? TRUE : terrain.passedOver(at, to);
    branches.push({ mass: diagrams.and(when, over), to, events, presented });
  };
  switch (place?.kind) {
    case 'gate': {
      const { askIf, somePass } = terrain.gateParts(at);
      const section = plan.sections[place.section];
      const next = layout.gate(place.section + 1);
      const inside =
        place.aim === 0 ? layout.pass(place.section, 1) : layout.item(place.section, 1, place.aim);
      const side = (holds: boolean): ForkEvent[] =>
        section === undefined || section.gate === null
          ? []
          : [{ kind: 'ask-if', of: { section: section.section.id }, holds }];
      const holds = diagrams.and(mass, askIf);
      add(diagrams.and(holds, somePass), inside, side(true));
      const none: ForkEvent[] =
        section === undefined || section.repeat === null
          ? []
          : [{ kind: 'pass', section: section.section.id, pass: 0 }];
      add(diagrams.and(holds, diagrams.not(somePass)), next, [...side(true), ...none]);
      add(diagrams.and(mass, diagrams.not(askIf)), next, side(false));
      break;
    }
    case 'pass': {
      const section = plan.sections[place.section];
      const events: ForkEvent[] =
        section === undefined || section.repeat === null
          ? []
          : [{ kind: 'pass', section: section.section.id, pass: place.pass }];
      add(diagrams.and(mass, terrain.passAt(at)), at + 1, events);
      break;
    }
    case 'item':
      waysFromItem(terrain, at, mass, add);
      break;
    case 'end': {
      const ways = terrain.endAt(at);
      const id = plan.sections[place.section]?.section.id ?? '';
      const some = ways.some(({ by }) => by !== null);
      inOrder(terrain, diagrams.and(mass, terrain.settledAt(at)), ways, (when, { by, to }) => {
        const events: ForkEvent[] = some ? [{ kind: 'onward', section: id, index: by?.index ?? -1 }] : [];
        add(when, to, events);
      });
      break;
    }
    case 'ending': {
      const ending = plan.endings[place.ending]?.ending.id ?? '';
      const ended: ForkEvent = { kind: 'ending', ending };
      let rest = mass;
      terrain.messagesAt(at).forEach((holds, index) => {
        add(diagrams.and(rest, holds), null, [ended, { kind: 'message', ending, index }]);
        rest = diagrams.and(rest, diagrams.not(holds));
      });
      add(rest, null, [ended]);
      break;
    }
    default:
      throw new RangeError(`there is no place ${at}`);
  }
  return branches;
}

type Add = (when: Diagram, to: number | null, events?: readonly ForkEvent[], presented?: boolean) => void;

function waysFromItem(terrain: Terrain, at: number, mass: Diagram, add: Add): void {
  const { diagrams } = terrain;
  const { asked, askIf, ways, checks, planItem, shown } = terrain.itemAt(at);
  const { name } = planItem.item;
  const side = (holds: boolean): ForkEvent[] =>
    planItem.askIf === null ? [] : [{ kind: 'ask-if', of: { item: name }, holds }];

  const over = diagrams.and(diagrams.and(mass, diagrams.not(asked)), terrain.unasked(at));
  add(diagrams.and(over, askIf), at + 1, side(true));
  add(diagrams.and(over, diagrams.not(askIf)), at + 1, side(false));

  const presented = diagrams.and(mass, asked);
  const allowed = diagrams.and(terrain.domainAt(at), checks);
  const met: ForkEvent[] = [{ kind: 'presented', item: name }, ...side(true)];
  for (const look of looks(terrain, diagrams.and(presented, allowed), name, shown)) {
    let lists = { quota: false, skip: false };
    for (const { by } of ways) if (by !== null && by.list !== 'onward') lists = { ...lists, [by.list]: true };
    const list = lists.skip ? 'skip' : 'quota';
    inOrder(terrain, look.mass, [...ways, { when: TRUE, by: null, to: at + 1 }], (when, { by, to }) => {
      const taken: ForkEvent[] =
        by !== null && by.list !== 'onward'
          ? [{ kind: by.list, item: name, index: by.index }]
          : ways.length > 0
            ? [{ kind: list, item: name, index: -1 }]
            : [];
      add(when, to, [...met, ...look.events, ...taken], true);
    });
  }
}

/** More options and rows with an ask-if than this are not looked at in every combination. */
const MOST_COMBINED = 6;

/** What can be seen of the options and rows that have an ask-if, with those who see it so. */
function looks(terrain: Terrain, mass: Diagram, item: string, shown: readonly Shown[]) {
  const { diagrams } = terrain;
  if (shown.length > MOST_COMBINED) return singleLooks(terrain, mass, item, shown);
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
function singleLooks({ diagrams }: Terrain, mass: Diagram, item: string, shown: readonly Shown[]) {
  const found: { mass: Diagram; events: readonly ForkEvent[] }[] = [];
  const eventOf = ({ of, index }: Shown, holds: boolean): ForkEvent => ({
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
      found.push({ mass: here, events: [eventOf(shown[n] as Shown, side)] });
      const more = diagrams.and(together, when);
      if (more === FALSE) return;
      together = more;
      met.push(eventOf(shown[n] as Shown, side));
    });
    if (met.length > 1) found.push({ mass: together, events: met });
  }
  return found.length > 0 ? found : [{ mass, events: [] }];
}

/** Those who take each way: the first that holds. */
function inOrder(
  { diagrams }: Terrain,
  mass: Diagram,
  ways: readonly Way[],
  take: (when: Diagram, way: Way) => void,
): void {
  let rest = mass;
  for (const way of ways) {
    take(diagrams.and(rest, way.when), way);
    rest = diagrams.and(rest, diagrams.not(way.when));
    if (rest === FALSE) return;
  }
}
