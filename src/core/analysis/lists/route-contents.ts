/** What is shown ahead of every place of several graphs, as numbers: equal numbers, the same ways with the same things shown. */
import type { Edge, Node } from '../counting/graph';
import type { Observation } from '../counting/observations';
import { TooEntangled } from './part-graphs';

type MarkOf = (observation: Observation) => string;

/** What is known under one kind of marks. */
interface Known {
  readonly marks: Map<Observation, number>;
  readonly nodes: Map<Node, number>;
}

/** Can be asked by any number of comparisons of the same versions, and remembers. */
export class RouteContents {
  private readonly known = new Map<MarkOf, Known>();
  private readonly numbers = new Map<string, number>();
  /** By the mark of the one thing shown, and what is ahead of it. */
  private readonly chains = new Map<number, Map<number, number>>();
  private given = 0;

  /** A number for the mark of an observation. */
  mark(observation: Observation, markOf: MarkOf): number {
    const { marks } = this.knownBy(markOf);
    let mark = marks.get(observation);
    if (mark === undefined) {
      mark = this.numberOf(markOf(observation));
      marks.set(observation, mark);
    }
    return mark;
  }

  /** A number for what is shown ahead. Throws `TooEntangled` where a cap kept the graph from being whole. */
  ahead(node: Node, markOf: MarkOf): number {
    const { nodes } = this.knownBy(markOf);
    const known = nodes.get(node);
    if (known !== undefined) return known;
    if (node.kind === 'fork' && !node.opened) throw new TooEntangled();
    const content = this.ofChain(node, markOf) ?? this.numberOf(this.textOf(node, markOf));
    nodes.set(node, content);
    return content;
  }

  /** Where one thing is shown, whatever came before, as most things are: by its mark and what is ahead of it. */
  private ofChain(node: Node, markOf: MarkOf): number | null {
    if (node.kind === 'parts' || node.edges.length !== 1) return null;
    const [{ observation, to }] = node.edges as [Edge];
    if (observation === null || to === null) return null;
    const mark = this.mark(observation, markOf);
    const ahead = this.ahead(to, markOf);
    const known = this.chains.get(mark) ?? new Map<number, number>();
    this.chains.set(mark, known);
    let content = known.get(ahead);
    if (content === undefined) {
      content = this.next();
      known.set(ahead, content);
    }
    return content;
  }

  private textOf(node: Node, markOf: MarkOf): string {
    // A sign in front that no mark begins with.
    let text = node.kind === 'parts' ? '\u0000&' : '\u0000>';
    if (node.kind === 'parts') for (const part of node.parts) text += ` ${this.ahead(part, markOf)}`;
    else
      for (const { observation, to } of node.edges) {
        const mark = observation === null ? '' : this.mark(observation, markOf);
        text += ` ${mark}>${to === null ? '' : this.ahead(to, markOf)}`;
      }
    return text;
  }

  private knownBy(markOf: MarkOf): Known {
    let known = this.known.get(markOf);
    if (known === undefined) {
      known = { marks: new Map(), nodes: new Map() };
      this.known.set(markOf, known);
    }
    return known;
  }

  private numberOf(text: string): number {
    let number = this.numbers.get(text);
    if (number === undefined) {
      number = this.next();
      this.numbers.set(text, number);
    }
    return number;
  }

  private next(): number {
    this.given += 1;
    return this.given;
  }
}
