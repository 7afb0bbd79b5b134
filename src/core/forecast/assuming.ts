/** A questionnaire under other assumed answers than its own. */
import type { Assumptions } from '../analysis';
import type { Assume, Questionnaire } from '../document/types';

/** The same document, but that some questions and given values are assumed to be answered otherwise. */
export function assuming(document: Questionnaire, assumptions: Assumptions): Questionnaire {
  if (assumptions.size === 0) return document;
  const assumed = <Entry extends { readonly name: string; readonly assume?: Assume }>(
    entry: Entry,
  ): Entry => {
    const assume = assumptions.get(entry.name);
    return assume === undefined ? entry : { ...entry, assume };
  };
  return {
    ...document,
    ...(document.given ? { given: document.given.map(assumed) } : {}),
    sections: document.sections.map((section) => ({
      ...section,
      items: section.items.map((item) => (item.kind === 'question' ? assumed(item) : item)),
    })),
  };
}
