/** Two options of one list with the same code: their answers could not be told apart. */
import { optionsOf } from '../document/shape';
import type { Answer, Questionnaire } from '../document/types';
import type { DocumentPlace } from '../routing/problems';
import type { Snag } from './types';

export function repeatedCodes(document: Questionnaire): Snag[] {
  const snags: Snag[] = [];
  const look = (answer: Answer, at: DocumentPlace) => {
    const first = new Map<number, string>();
    for (const option of optionsOf(answer)) {
      const earlier = first.get(option.code);
      if (earlier === undefined) {
        first.set(option.code, option.label);
        continue;
      }
      snags.push({
        rule: 'code-repeated',
        severity: 'error',
        at: { ...at, option: option.code },
        field: 'code',
        message: `“${option.label}” has the code ${option.code}, which “${earlier}” has already: give it another code`,
      });
    }
  };
  for (const given of document.given ?? []) look(given.answer, { given: given.name });
  for (const section of document.sections) {
    for (const item of section.items) if (item.kind === 'question') look(item.answer, { item: item.name });
  }
  return snags;
}
