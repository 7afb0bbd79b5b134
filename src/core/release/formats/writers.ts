/** What writes each format that is written, and finds what is lost by it; and the package of all that are handed over. */
import { zipped } from '../../exchange/zipped';
import type { FormatWriter, Making, StudyContent } from '../format-types';
import type { Packed } from '../package';
import { FOR_ARCHIVES } from './for-archives';
import { HANDED_OVER, KNOWN, type FormatName } from './known';
import { NONE } from './lost';
import { OF_DATA } from './of-data';
import { OF_INSTRUMENT } from './of-instrument';
import { OF_MAP } from './of-map';
import { OF_QUESTIONNAIRE } from './of-questionnaire';
import { TO_PRINT } from './to-print';

const SINGLE = {
  ...OF_QUESTIONNAIRE,
  ...TO_PRINT,
  ...OF_MAP,
  ...OF_INSTRUMENT,
  ...FOR_ARCHIVES,
  ...OF_DATA,
} as const satisfies Partial<Record<FormatName, FormatWriter>>;

const PACKED = (Object.keys(HANDED_OVER) as (keyof typeof HANDED_OVER)[]).map((name): Packed => {
  const [folder, forWhom] = HANDED_OVER[name];
  return { name, format: { ...KNOWN[name], ...SINGLE[name] }, folder, forWhom };
});

export const WRITERS = {
  ...SINGLE,
  package: {
    write: async (content: StudyContent, _kind?: string, making?: Making) =>
      zipped(await (await import('../package')).packageFiles(content, PACKED, making)),
    losses: NONE,
  },
} as const satisfies Partial<Record<FormatName, FormatWriter>>;
