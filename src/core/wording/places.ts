/** Places of the document in words. */
import type { Questionnaire } from '../document/types';
import { sectionLetter } from '../document/variables';
import type { DocumentPlace } from '../routing/problems';

/** "skip 2 of item landlord", "onward of section B Screening" … */
export function placeWords(document: Questionnaire, at: DocumentPlace): string {
  const parts: string[] = [];
  if (at.skip !== undefined) parts.push(`skip ${at.skip + 1}`);
  if (at.option !== undefined) parts.push(`option ${at.option}`);
  if (at.row !== undefined) parts.push(`row ${at.row}`);
  if (at.onward !== undefined) parts.push('onward');
  if (at.item !== undefined) parts.push(`item ${at.item}`);
  if (at.section !== undefined) {
    const index = document.sections.findIndex(({ id }) => id === at.section);
    parts.push(
      `section ${index < 0 ? '' : `${sectionLetter(index)} `}${document.sections[index]?.title ?? at.section}`,
    );
  }
  if (at.ending !== undefined) parts.push(`ending ${at.ending}`);
  if (at.derived !== undefined) parts.push(`derived variable ${at.derived}`);
  if (at.quota !== undefined) parts.push(`quota ${at.quota}`);
  if (at.given !== undefined) parts.push(`given value ${at.given}`);
  return parts.length === 0 ? 'the study' : parts.join(' of ');
}
