/** The questionnaire as a file to keep. */
import { writeDocument } from '../../../../core/document/read';
import { fileToKeep } from '../../../../server/respond';
import { withStudy } from '../../../../server/with-study';
import { findStudy, storedText } from '../../../../store/studies';

export const GET = withStudy(({ db, id }) => {
  const study = findStudy(db, id);
  // What cannot be read is given as it is, so that it can be mended elsewhere.
  if (study === null) return fileToKeep('document', { title: 'unreadable' }, storedText(db, id) ?? '');
  return fileToKeep('document', study.document, writeDocument(study.document));
});
