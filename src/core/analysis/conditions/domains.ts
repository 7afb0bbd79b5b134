/**
 * Which answers an item allows, given what came before: as one diagram or, where earlier picks hide many of its options,
 * as several facts that together say it.
 */
import { passKey } from '../../document/addresses';
import { hasRows, picksMany, ranksOptions } from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type { Answer, Value } from '../../document/types';
import { partsAtMost } from '../../routing/answers';
import { whenAllowed } from '../answers/allowed';
import type { AnswerSymbol } from '../answers/answer-symbol';
import { candidatesFor } from '../answers/candidates';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import type { EncodedItem } from './exits';
import { IDLE } from './symbol-table';

/** With more hidden options than this, each is minded by itself. */
export const MOST_HIDDEN = 8;

/** What of the rest is needed to tell. */
export interface DomainScope {
  readonly symbols: ReadonlyMap<string, AnswerSymbol>;
  readonly itemAt: (at: number) => EncodedItem;
  readonly optionsShown: (item: EncodedItem) => readonly Diagram[];
  readonly rowsShown: (item: EncodedItem) => readonly Diagram[];
  /** Whether a variable matters to nobody who comes to a place, or has gone by it. */
  readonly isPastAt: (at: number) => (level: number) => boolean;
}

export class Domains {
  private readonly whole = new Map<number, Diagram>();
  private readonly parts = new Map<number, readonly Diagram[]>();
  /** Of items with many options that earlier answers hide: by option, that it is picked. */
  private readonly optionTests = new Map<number, readonly Diagram[]>();

  constructor(
    private readonly diagrams: Diagrams,
    private readonly scope: DomainScope,
  ) {}

  /** The answers that an item allows, given what came before. */
  at(at: number): Diagram {
    let domain = this.whole.get(at);
    if (domain === undefined) {
      domain = this.domain(this.scope.itemAt(at));
      this.whole.set(at, domain);
    }
    return domain;
  }

  /**
   * The same as several facts, which together say it: where many options are hidden by earlier answers, to hold it all
   * as one would tell every set of them apart. The first says what could be answered if nothing were hidden.
   */
  partsAt(at: number): readonly Diagram[] {
    let parts = this.parts.get(at);
    if (parts === undefined) {
      const item = this.scope.itemAt(at);
      const tests = this.optionTests.get(at);
      const { diagrams } = this;
      parts =
        tests === undefined
          ? [this.at(at)]
          : [
              this.domain(item, () => TRUE),
              ...item.shown.map(({ index, when }) => diagrams.or(diagrams.not(tests[index] ?? FALSE), when)),
            ];
      this.parts.set(at, parts);
    }
    return parts;
  }

  /** Those of whom something is true who answer an item as it allows; what only its hidden options read is forgotten. */
  answering(known: Diagram, at: number): Diagram {
    const { diagrams } = this;
    const parts = this.partsAt(at);
    if (parts.length === 1) return diagrams.and(known, this.at(at));
    const { checks, ways } = this.scope.itemAt(at);
    const isPast = this.scope.isPastAt(at + 1);
    const left = parts.map((part) => new Set(diagrams.support(part)));
    const leaving = [checks, ...ways.map(({ when }) => when)];
    const read = new Set(leaving.flatMap((diagram) => diagrams.support(diagram)));
    return parts.reduce((so, part, n) => {
      const needed = left.slice(n + 1);
      const gone = (level: number) =>
        isPast(level) && !read.has(level) && !needed.some((support) => support.has(level));
      return diagrams.forget(diagrams.and(so, part), gone);
    }, known);
  }

  /** Makes the tests that `partsAt` needs, before variables are asked about. */
  prepare(at: number): void {
    const { planItem, pass, shown } = this.scope.itemAt(at);
    const { item } = planItem;
    if (item.kind === 'statement' || hasRows(item.answer) || shown.length <= MOST_HIDDEN) return;
    // With a least number of picks, how many are hidden counts.
    if (picksMany(item.answer) && (item.answer.minPicks ?? 0) > 1) return;
    const symbol = this.scope.symbols.get(passKey(item.name.toLowerCase(), pass));
    if (symbol === undefined) return;
    const { picks } = symbol;
    this.optionTests.set(
      at,
      optionsOf(item.answer).map(({ code }) =>
        picks === null
          ? symbol.predicate(
              ({ presented, value }) =>
                presented &&
                (value === code || (Array.isArray(value) && (value as readonly number[]).includes(code))),
            )
          : picks.picked(code),
      ),
    );
  }

  private domain(item: EncodedItem, as: (shown: Diagram) => Diagram = (shown) => shown): Diagram {
    const { planItem, pass } = item;
    const question = planItem.item;
    if (question.kind === 'statement') return TRUE;
    const shown = this.scope.optionsShown(item).map(as);
    const rows = this.scope.rowsShown(item);
    const required = question.required === true;
    let domain = TRUE;
    partsAtMost(planItem).forEach(({ name, answer, row }) => {
      const allowed = (value: Value | null) => whenAllowed(this.diagrams, question, answer, value, shown);
      const symbol = this.scope.symbols.get(passKey(name.toLowerCase(), pass));
      const asked = row === null ? TRUE : (rows[row] ?? TRUE);
      const answers =
        symbol === undefined
          ? this.someAnswer(answer, allowed)
          : symbol.picks !== null
            ? symbol.picks.domain(limitsOf(answer, required), shown)
            : shown.every((when) => when === TRUE)
              ? symbol.domainOf(answer, required, allowed)
              : symbol.domain(allowed);
      domain = this.diagrams.and(domain, this.diagrams.choose(asked, answers, symbol?.unasked ?? TRUE));
    });
    return domain;
  }

  /** Of a question that drives nothing: that there is a way to answer it, or to leave it. */
  private someAnswer(answer: Answer, allowed: (value: Value | null) => Diagram): Diagram {
    const blank = allowed(null);
    if (blank === TRUE) return TRUE;
    return candidatesFor(IDLE, answer).values.reduce<Diagram>(
      (some, value) => (some === TRUE ? some : this.diagrams.or(some, allowed(value))),
      blank,
    );
  }
}

/** Fewest and most picks, before they shrink to what is shown. */
export function limitsOf(answer: Answer, required: boolean) {
  const multiple = picksMany(answer) ? answer : null;
  const most = ranksOptions(answer) ? answer.top : multiple?.maxPicks;
  return { least: multiple?.minPicks ?? 0, most: most ?? Infinity, blank: !required };
}
