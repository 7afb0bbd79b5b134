/**
 * The questionnaire in blocks: runs of sections that nothing leads into or out of but by their first gate and past
 * their last section, or to an ending. What happens in one block matters to another only through the variables
 * that both read.
 */
import type { Way } from '../conditions/exits';
import type { Diagram } from '../diagrams/diagram';
import type { Terrain } from '../conditions/terrain';

export interface Block {
  readonly index: number;
  /** The gate of its first section. */
  readonly start: number;
  /** The gate of the section after it; Infinity for the last. */
  readonly exit: number;
  /** A way leads from here to an ending, though blocks follow. */
  readonly endsEarly: boolean;
  /**
   * Levels of the variables that it decides or reads and that some other block, or what is given beforehand, does,
   * too; smallest first.
   */
  readonly shared: readonly number[];
}

export function blocksOf(terrain: Terrain): Block[] {
  const { diagrams, layout, plan } = terrain;
  const lastNeeded = plan.sections.map((_, section) => section);
  const ends = new Set<number>();
  layout.places.forEach((place, at) => {
    if (place.kind !== 'item' && place.kind !== 'end') return;
    const ways = place.kind === 'item' ? terrain.itemAt(at).ways : terrain.endAt(at);
    for (const { to, by } of ways) {
      const aimed = layout.places[to];
      const { section } = place;
      if (aimed?.kind === 'ending') {
        // Past the last section everybody comes to an ending; from others only by what is written.
        if (by !== null) ends.add(section);
      } else if (aimed?.kind === 'gate') {
        const needed = aimed.aim === 0 ? aimed.section - 1 : aimed.section;
        lastNeeded[section] = Math.max(lastNeeded[section] ?? section, needed);
      }
    }
  });

  const runs: { from: number; to: number }[] = [];
  for (let from = 0; from < plan.sections.length;) {
    let to = from;
    for (let section = from; section <= to; section += 1) to = Math.max(to, lastNeeded[section] ?? section);
    runs.push({ from, to });
    from = to + 1;
  }
  const reads = runs.map(({ from, to }, index) => {
    const exit = index === runs.length - 1 ? layout.ending(0) : layout.gate(to + 1);
    return levelsIn(terrain, layout.gate(from), exit);
  });
  const readers = new Map<number, number>(diagrams.support(terrain.given).map((level) => [level, 1]));
  for (const levels of reads) for (const level of levels) readers.set(level, (readers.get(level) ?? 0) + 1);
  return runs.map(({ from, to }, index) => {
    const isLast = index === runs.length - 1;
    return {
      index,
      start: layout.gate(from),
      exit: isLast ? Infinity : layout.gate(to + 1),
      endsEarly:
        !isLast && Array.from({ length: to - from + 1 }, (_, n) => from + n).some((s) => ends.has(s)),
      shared: [...(reads[index] ?? [])]
        .filter((level) => (readers.get(level) ?? 0) > 1)
        .sort((a, b) => a - b),
    };
  });
}

/** All variables that decide something at the places from one up to another, or that are decided there. */
function levelsIn(terrain: Terrain, from: number, to: number): Set<number> {
  const { diagrams, layout } = terrain;
  const read = new Set<Diagram>();
  const readsWay = (at: number, { when, to: aim }: Way) => {
    read.add(when);
    if (layout.places[aim]?.kind === 'ending') read.add(terrain.endingFrom(at));
  };
  for (let at = from; at < to; at += 1) {
    const kind = layout.places[at]?.kind;
    read.add(terrain.unasked(at));
    if (kind === 'gate') read.add(terrain.gateAt(at));
    else if (kind === 'pass') read.add(terrain.passAt(at));
    else if (kind === 'end') {
      read.add(terrain.settledAt(at));
      for (const way of terrain.endAt(at)) readsWay(at, way);
    } else if (kind === 'item') {
      const { asked, ways, checks } = terrain.itemAt(at);
      read.add(asked).add(checks);
      for (const part of terrain.domainParts(at)) read.add(part);
      for (const way of ways) readsWay(at, way);
    }
  }
  const levels = new Set<number>();
  for (const diagram of read) for (const level of diagrams.support(diagram)) levels.add(level);
  return levels;
}

/**
 * All that decides what can be seen in a block and after it, as a text; equal texts over the same ranks, equal graphs.
 * Targets are written relative to the block, so that it stays the same wherever it stands.
 */
export function contentOf(terrain: Terrain, { start, exit }: Block): string {
  const { layout, plan } = terrain;
  const last = exit === Infinity;
  const to = last ? layout.ending(0) : exit;
  const target = (at: number) => {
    const place = layout.places[at];
    return place?.kind === 'ending' ? `> ${plan.endings[place.ending]?.ending.id ?? ''}` : at - start;
  };
  const ways = (of: readonly Way[]) => of.map((way) => [way.when, target(way.to), way.by === null ? 0 : 1]);
  const places: unknown[] = [];
  for (let at = start; at < to; at += 1) {
    const place = layout.places[at];
    const unasked = terrain.unasked(at);
    if (place?.kind === 'gate')
      places.push([plan.sections[place.section]?.section.id, place.aim, terrain.gateAt(at), unasked]);
    else if (place?.kind === 'pass') places.push([terrain.passAt(at), unasked]);
    else if (place?.kind === 'end') places.push([terrain.settledAt(at), ways(terrain.endAt(at)), unasked]);
    else if (place?.kind === 'item') {
      const { asked, checks, planItem, pass, ways: leaving } = terrain.itemAt(at);
      const domain = terrain.domainParts(at);
      places.push([planItem.item.name, pass, asked, checks, domain, ways(leaving), unasked]);
    }
  }
  // The order of the endings is part of the order of routes; past the last section one of them follows.
  const endings = plan.endings.map(({ ending }) => ending.id);
  return JSON.stringify([places, endings, last ? plan.lastEnding : '']);
}
