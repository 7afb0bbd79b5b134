/** Universes: who is asked, once for everybody who is asked the same, as a sentence and as its condition. */
import type { Analysis } from '../../analysis';
import { element, type Element } from '../../exchange/element';
import type { Plan } from '../../routing/plan';
import type { BookRow } from '../../views/codebook';
import { bookBases } from '../book-bases';
import type { Urns } from './urns';
import type { Words } from './words';

interface Universe {
  /** Of the first item that has it. */
  readonly name: string;
  readonly sentence: string;
  readonly condition: string | undefined;
}

export class Universes {
  private readonly bySentence = new Map<string, Universe>();
  private readonly baseIn: (of: Pick<BookRow, 'item' | 'pass'>) => string;

  constructor(
    private readonly urns: Urns,
    private readonly words: Words,
    plan: Plan,
    private readonly analysis: Pick<Analysis, 'asked' | 'passes'>,
  ) {
    this.baseIn = bookBases(plan, analysis);
    for (const { items, repeat } of plan.sections)
      for (const { item } of items)
        for (let pass = 1; pass <= (repeat?.max ?? 1); pass += 1)
          this.add(item.name, repeat === null ? null : pass);
  }

  private add(item: string, pass: number | null): void {
    const sentence = this.baseIn({ item, pass });
    if (sentence === '' || this.bySentence.has(sentence)) return;
    const name = pass === null ? item : `${item}-${pass}`;
    this.bySentence.set(sentence, { name, sentence, condition: this.analysis.asked.get(item) });
  }

  reference(of: Pick<BookRow, 'item' | 'pass'>): Element | null {
    const found = this.bySentence.get(this.baseIn(of));
    return found === undefined
      ? null
      : this.urns.reference('r:UniverseReference', 'Universe', 'universe', found.name, found.sentence);
  }

  elements(): Element[] {
    return Array.from(this.bySentence.values(), ({ name, sentence, condition }) =>
      element(
        'c:Universe',
        { isInclusive: 'true' },
        this.urns.identity('universe', name, sentence),
        this.words.string('c:UniverseName', name),
        this.words.content('r:Label', sentence),
        this.words.content('r:Description', condition),
      ),
    );
  }
}
