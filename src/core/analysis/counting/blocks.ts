/**
 * The questionnaire in blocks: runs of sections that nothing leads into or out of but by their first gate and past
 * their last section, or to an ending. What happens in one block matters to another only through the variables
 * that both read.
 */
import type { EncodedPlan } from '../conditions/encoded-plan';
import type { Exit } from '../conditions/exits';
import type { Diagram } from '../diagrams/diagram';

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

/** In document order; each section is in just one. */
export function blocksOf(encoded: EncodedPlan): Block[] {
  const { diagrams, course, plan } = encoded;
  const lastNeeded = plan.sections.map((_, section) => section);
  const ends = new Set<number>();
  course.places.forEach((place, at) => {
    if (place.kind !== 'item' && place.kind !== 'end') return;
    const ways = place.kind === 'item' ? encoded.itemAt(at).ways : encoded.endAt(at);
    for (const { to, by } of ways) {
      const aimed = course.places[to];
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
    const exit = index === runs.length - 1 ? course.ending(0) : course.gate(to + 1);
    return levelsIn(encoded, course.gate(from), exit);
  });
  const readers = new Map<number, number>(diagrams.support(encoded.given).map((level) => [level, 1]));
  for (const levels of reads) for (const level of levels) readers.set(level, (readers.get(level) ?? 0) + 1);
  return runs.map(({ from, to }, index) => {
    const isLast = index === runs.length - 1;
    return {
      index,
      start: course.gate(from),
      exit: isLast ? Infinity : course.gate(to + 1),
      endsEarly:
        !isLast && Array.from({ length: to - from + 1 }, (_, n) => from + n).some((s) => ends.has(s)),
      shared: [...(reads[index] ?? [])]
        .filter((level) => (readers.get(level) ?? 0) > 1)
        .sort((a, b) => a - b),
    };
  });
}

/** All variables that decide something at the places from one up to another, or that are decided there. */
function levelsIn(encoded: EncodedPlan, from: number, to: number): Set<number> {
  const { diagrams, course } = encoded;
  const read = new Set<Diagram>();
  const readsWay = (at: number, { when, to: aim }: Exit) => {
    read.add(when);
    if (course.places[aim]?.kind === 'ending') read.add(encoded.endingFrom(at));
  };
  for (let at = from; at < to; at += 1) {
    const kind = course.places[at]?.kind;
    read.add(encoded.unasked(at));
    if (kind === 'gate') read.add(encoded.gateAt(at));
    else if (kind === 'pass') read.add(encoded.passAt(at));
    else if (kind === 'end') {
      read.add(encoded.settledAt(at));
      for (const way of encoded.endAt(at)) readsWay(at, way);
    } else if (kind === 'item') {
      const { asked, ways, checks } = encoded.itemAt(at);
      read.add(asked).add(checks);
      for (const part of encoded.domainParts(at)) read.add(part);
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
export function contentOf(encoded: EncodedPlan, { start, exit }: Block): string {
  const { course, plan } = encoded;
  const last = exit === Infinity;
  const to = last ? course.ending(0) : exit;
  const target = (at: number) => {
    const place = course.places[at];
    return place?.kind === 'ending' ? `> ${plan.endings[place.ending]?.ending.id ?? ''}` : at - start;
  };
  const ways = (of: readonly Exit[]) => of.map((way) => [way.when, target(way.to), way.by === null ? 0 : 1]);
  const places: unknown[] = [];
  for (let at = start; at < to; at += 1) {
    const place = course.places[at];
    const unasked = encoded.unasked(at);
    if (place?.kind === 'gate')
      places.push([plan.sections[place.section]?.section.id, place.aim, encoded.gateAt(at), unasked]);
    else if (place?.kind === 'pass') places.push([encoded.passAt(at), unasked]);
    else if (place?.kind === 'end') places.push([encoded.settledAt(at), ways(encoded.endAt(at)), unasked]);
    else if (place?.kind === 'item') {
      const { asked, checks, planItem, pass, ways: leaving } = encoded.itemAt(at);
      const domain = encoded.domainParts(at);
      places.push([planItem.item.name, pass, asked, checks, domain, ways(leaving), unasked]);
    }
  }
  // The order of the endings is part of the order of routes; past the last section one of them follows.
  const endings = plan.endings.map(({ ending }) => ending.id);
  return JSON.stringify([places, endings, last ? plan.lastEnding : '']);
}
