/** What is asked after the closing section, which should be the last that anybody meets. */
import { applyChange } from '../editing/change';
import { moveSection } from '../editing/structure';
import type { Plan } from '../routing/plan';
import type { Snag } from './types';

export function closingNotLast({ document }: Plan): Snag[] {
  const closing = document.sections.findIndex(({ kind }) => kind === 'closing');
  if (closing < 0) return [];
  return document.sections.flatMap(({ id, title, kind, items }, index): Snag[] => {
    const asks = items.some((item) => item.kind === 'question');
    if (index < closing || kind === 'closing' || !asks) return [];
    const change = moveSection(document, index, closing);
    const before = document.sections[closing]?.title ?? '';
    return [
      {
        rule: 'closing-not-last',
        severity: 'note',
        at: { section: id },
        message: `this section comes after the closing section “${before}”, in which people take their leave: move it before, or make “${before}” a topic section`,
        mends: [
          {
            label: `Move “${title}” before “${before}”`,
            patches: applyChange(document, change).step.forward,
          },
        ],
      },
    ];
  });
}
