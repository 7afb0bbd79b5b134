/** One version of a study, with its questionnaire. */
import { refuse } from '../../../../../server/respond';
import { withStudy } from '../../../../../server/with-study';
import { findVersion } from '../../../../../store/versions';

export const GET = withStudy(
  ({ db, id, params }) =>
    findVersion(db, id, Number(params.version)) ??
    refuse(404, `This study has no version “${params.version}”. Its versions are listed under Release.`),
);
