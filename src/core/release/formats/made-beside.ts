/** The second thread's side of a package: what it writes, and nothing that only the first writes. */
import * as v from 'valibot';
import { madeOrNot, type BesideApi } from '../beside';
import { contentGiven } from '../content-given';
import type { FormatWriter, StudyContent } from '../format-types';
import { FOR_ARCHIVES } from './for-archives';
import { BESIDE, type BesideKind, type BesideName } from './known';
import { OF_INSTRUMENT } from './of-instrument';
import { OF_MAP } from './of-map';
import { TO_PRINT } from './to-print';

const WRITERS: Readonly<Record<BesideName, FormatWriter>> = {
  map: OF_MAP.map,
  instrument: OF_INSTRUMENT.instrument,
  paper: TO_PRINT.paper,
  form: TO_PRINT.form,
  'ddi-lifecycle': FOR_ARCHIVES['ddi-lifecycle'],
};
const Kind = v.picklist(Object.keys(BESIDE) as BesideKind[]);
const Format = v.picklist(Object.values(BESIDE));

/** For one questionnaire at a time. */
export function besideApi(): BesideApi {
  let content: StudyContent | null = null;
  const opened = () => {
    if (content === null) throw new Error('no questionnaire has been opened');
    return content;
  };
  return {
    open(document, version, post) {
      content = contentGiven(document, version, post);
    },
    async make(asked) {
      const kind = v.parse(Kind, asked);
      return madeOrNot(WRITERS[BESIDE[kind]], opened(), kind);
    },
    losses: async (asked) => WRITERS[v.parse(Format, asked)].losses(opened()),
  };
}
