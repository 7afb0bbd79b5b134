/** A questionnaire as a plain-text script: the same questionnaire gives the same text. */
import type { Questionnaire } from '../../document/types';
import { STUDY } from './grammar';
import { writeLines } from './lines';
import type { Held } from './slots';

/** The line that every script begins with. */
export const FIRST_LINE = 'Jolly Fork script, 1';

export function writeScript(document: Questionnaire): string {
  const study = document as unknown as Held;
  return `${FIRST_LINE}\n${writeLines(STUDY.flatMap((slot) => slot.write(study)))}`;
}
