/** What the list of studies shows of a questionnaire, worked out of its text alone. */
import { analyse } from '../core/analysis';
import { problemText, readDocumentText } from '../core/document/read';
import { planOf } from '../core/routing/planner';
import { allSnagsOf, snagKey, withoutFaults } from '../core/snags';

export type Examined =
  | {
      readonly is: 'questionnaire';
      readonly sections: number;
      readonly items: number;
      readonly skips: number;
      /** As a decimal string; a proven lower bound unless `exact`. */
      readonly routes: string;
      readonly exact: boolean;
      /** Keys of errors and warnings. */
      readonly snags: readonly string[];
    }
  /** What is wrong with it, as a sentence. */
  | { readonly is: 'unreadable'; readonly problem: string }
  /** It could not be worked out: by a fault, or in the time that there is. */
  | { readonly is: 'failed'; readonly why: 'fault' | 'time' };

/** A list should not wait for the one study that is hard: beyond these it says “at least”. */
const CAPS = { beliefs: 20_000, nodes: 600_000, steps: 4_000_000 };

export function examine(text: string): Examined {
  const read = readDocumentText(text);
  if (!read.ok) {
    const [problem] = read.problems;
    return { is: 'unreadable', problem: problem === undefined ? 'It is empty.' : problemText(problem) };
  }
  const { sections } = read.document;
  const items = sections.flatMap((section) => section.items).filter(({ kind }) => kind !== 'page_break');
  const plan = planOf(read.document);
  const analysis = analyse(plan, CAPS);
  return {
    is: 'questionnaire',
    sections: sections.length,
    items: items.length,
    skips: items.reduce((sum, item) => sum + ('skips' in item ? (item.skips?.length ?? 0) : 0), 0),
    routes: String(analysis.routes),
    exact: analysis.exact,
    snags: withoutFaults(allSnagsOf(plan, analysis, CAPS), console.error)
      .filter(({ severity }) => severity !== 'note')
      .map(snagKey),
  };
}
