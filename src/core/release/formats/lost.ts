/** What formats say is lost, where several say the same. */
import { WHOLE_STUDY } from '../../document/addresses';
import type { Questionnaire } from '../../document/types';
import { WORK_PARTS } from '../../exchange/work-file';
import type { Loss, StudyContent } from '../format-types';
import { lossesBetween } from '../losses';

export const NONE = () => [];

/** Of a file that holds the questionnaire alone. */
export const workLost = ({ work }: StudyContent): Loss[] =>
  WORK_PARTS.filter((part) => work[part].length > 0).map((part) => ({ at: WHOLE_STUDY, what: part }));

/** What is other once the file is read again; all of it where it cannot be read. */
export function lostByReading(
  { document }: StudyContent,
  back: (document: Questionnaire) => Questionnaire | null,
): readonly Loss[] {
  const read = back(document);
  return read === null ? [{ at: WHOLE_STUDY, what: 'all of it' }] : lossesBetween(document, read);
}

/** What a questionnaire is called that comes from a file with this name. */
export const titleFrom = (name: string) => name.replace(/(\.[a-z-]+)+$/i, '');
