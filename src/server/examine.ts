/** What the list of studies shows of a questionnaire, worked out of its text alone. */
import { analyse } from '../core/analysis';
import { problemText, readDocumentText } from '../core/document/read';
import { planOf } from '../core/routing/planner';
import { allSnagsOf, snagKey, withoutFaults } from '../core/snags';
import type { Examined } from '../wire/studies';

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
