/**
 * The instrument: a sequence of sections, each a sequence of questions and statements; an ask-if is a branch around what it
 * is for, a repeated section a loop, a derived variable a computation, and each ending a branch with its messages.
 */
import type { Derived, Ending, Item, Questionnaire, RoutedItem, Section } from '../../document/types';
import { element, type Element } from '../../exchange/element';
import type { Plan } from '../../routing/plan';
import { sentence } from '../../views/paper-words';
import { endingLabel } from '../../wording/targets';
import { questionReference } from './lifecycle-questions';
import type { DdiKind, Urns } from './urns';
import type { Words } from './words';

/** A construct that others refer to. */
interface Made {
  readonly kind: DdiKind;
  readonly name: string;
  readonly content: unknown;
  readonly typed: string;
}

export class Constructs {
  private readonly made: Element[] = [];
  private readonly root: Made;

  constructor(
    private readonly urns: Urns,
    private readonly words: Words,
    private readonly plan: Plan,
    private readonly document: Questionnaire,
  ) {
    const parts = [
      ...document.sections.map((section) => this.section(section)),
      ...(document.derived ?? []).map((derived) => this.derived(derived)),
      this.sequence(
        'endings',
        'Endings',
        document.endings,
        document.endings.map((ending) => this.ending(ending)),
      ),
    ];
    this.root = this.sequence('instrument', document.title, document, parts);
  }

  elements(): Element[] {
    return this.made;
  }

  instrument(): Element {
    const { document, urns, words } = this;
    const { missing, given, quotas, derived, endings, settings } = document;
    return element(
      'd:Instrument',
      {},
      urns.identity('instrument', '', document),
      words.own({ missing, given, quotas, derived, endings, settings }),
      words.string('d:InstrumentName', document.title),
      this.reference('d:ControlConstructReference', this.root),
    );
  }

  private reference(name: string, { typed, kind, name: of, content }: Made): Element {
    return this.urns.reference(name, typed, kind, of, content);
  }

  /** Puts a construct among the others, with what begins it. */
  private add(
    of: Made,
    own: Readonly<Record<string, unknown>>,
    label: string,
    ...children: readonly (Element | readonly Element[] | null | false)[]
  ): Made {
    const { words, urns } = this;
    this.made.push(
      element(
        `d:${of.typed}`,
        {},
        urns.identity(of.kind, of.name, of.content),
        words.own(own),
        words.string('d:ConstructName', of.name),
        words.content('r:Label', label),
        ...children,
      ),
    );
    return of;
  }

  private sequence(
    name: string,
    label: string,
    content: unknown,
    parts: readonly Made[],
    own: Readonly<Record<string, unknown>> = {},
    intro?: string,
  ): Made {
    return this.add(
      { kind: 'sequence', name, content, typed: 'Sequence' },
      own,
      label,
      this.words.content('r:Description', intro),
      parts.map((part) => this.reference('d:ControlConstructReference', part)),
    );
  }

  private branch(name: string, condition: string, words: string | null, then: Made): Made {
    return this.add(
      { kind: 'branch', name, content: [condition, then.content], typed: 'IfThenElse' },
      {},
      '',
      this.words.command('d:IfCondition', condition, words),
      this.reference('d:ThenConstructReference', then),
    );
  }

  private said(condition: string): string | null {
    return sentence(this.plan, condition);
  }

  private section(section: Section): Made {
    const { items, title, intro, askIf, ...own } = section;
    const breaks = items.flatMap((item, n) => (item.kind === 'page_break' ? [n] : []));
    const parts = runsOf(items).map((run) => this.run(run));
    const sequence = this.sequence(
      section.id,
      title,
      section,
      parts,
      { section: own, ...(breaks.length === 0 ? {} : { pageBreaks: breaks }) },
      intro,
    );
    const looped = section.repeat === undefined ? sequence : this.loop(section, sequence);
    return askIf === undefined
      ? looped
      : this.branch(`section-${section.id}`, askIf, this.said(askIf), looped);
  }

  private loop({ id, title, repeat }: Section, inner: Made): Made {
    const times = repeat !== undefined && 'times' in repeat ? repeat.times : `count(${repeat?.each ?? ''})`;
    const { words } = this;
    return this.add(
      { kind: 'loop', name: id, content: [repeat, inner.content], typed: 'Loop' },
      {},
      title,
      words.command('d:InitialValue', 'pass = 1', null),
      words.command('d:LoopWhile', `pass <= ${times}`, `for each pass, at most ${repeat?.max ?? 1}`),
      words.command('d:StepValue', 'pass = pass + 1', null),
      this.reference('d:ControlConstructReference', inner),
    );
  }

  /** Items that are asked of the same people go into one branch. */
  private run(items: readonly RoutedItem[]): Made {
    const [first] = items;
    const parts = items.map((item) => this.item(item));
    const [only] = parts;
    if (first === undefined || only === undefined) throw new Error('a run has items');
    if (first.askIf === undefined) return only;
    const then = this.sequence(`if-${first.name}`, '', items, parts);
    return this.branch(first.name, first.askIf, this.said(first.askIf), then);
  }

  private item(item: RoutedItem): Made {
    const content = item;
    if (item.kind === 'statement') {
      const { kind: _kind, name, text, askIf: _askIf, ...own } = item;
      return this.add(
        { kind: 'construct', name, content, typed: 'StatementItem' },
        own,
        '',
        this.words.literal('d:DisplayText', text),
      );
    }
    return this.add(
      { kind: 'construct', name: item.name, content, typed: 'QuestionConstruct' },
      { skips: item.skips },
      item.label ?? '',
      questionReference(this.urns, item),
    );
  }

  private derived(derived: Derived): Made {
    const { name, label } = derived;
    const rule =
      'value' in derived
        ? derived.value
        : [
            ...derived.cases.map(({ if: condition, code }) => `if ${condition}: ${code}`),
            ...(derived.else === undefined ? [] : [`else: ${derived.else.code}`]),
          ].join('\n');
    return this.add(
      { kind: 'computation', name, content: derived, typed: 'ComputationItem' },
      {},
      label,
      this.words.command('r:CommandCode', rule, label),
    );
  }

  private ending({ id, messages }: Ending): Made {
    const label = endingLabel(this.document, id);
    const parts = messages.map(({ if: condition, text }, n) => {
      const name = `ending-${id}-${n + 1}`;
      const shown = this.add(
        { kind: 'construct', name, content: text, typed: 'StatementItem' },
        {},
        label,
        this.words.literal('d:DisplayText', text),
      );
      return condition === undefined ? shown : this.branch(name, condition, this.said(condition), shown);
    });
    const then = this.sequence(`ending-${id}`, label, messages, parts);
    return this.branch(`ending-${id}`, `ending = "${id}"`, `the interview ends as “${label}”`, then);
  }
}

/** Neighbours that have the same ask-if; others alone. */
function runsOf(items: readonly Item[]): RoutedItem[][] {
  const runs: RoutedItem[][] = [];
  for (const item of items) {
    if (item.kind === 'page_break') continue;
    const last = runs.at(-1);
    if (last !== undefined && item.askIf !== undefined && last[0]?.askIf === item.askIf) last.push(item);
    else runs.push([item]);
  }
  return runs;
}
