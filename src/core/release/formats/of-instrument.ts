/** The stand-alone instrument: the questionnaire as a page that runs by itself. */
import { address } from '../../document/addresses';
import type { FormatWriter, Loss, StudyContent } from '../format-types';
import { versionWords } from '../version-words';
import type { FormatName } from './known';

export const OF_INSTRUMENT = {
  instrument: {
    write: async ({ document, version, post }) =>
      (await import('../instrument/page')).instrumentPage({
        document,
        version: versionWords(version),
        ...(post === undefined ? {} : { post }),
      }),
    losses,
  },
} as const satisfies Partial<Record<FormatName, FormatWriter>>;

/** What one file on one device cannot do. */
function losses({ document: { quotas = [], endings } }: StudyContent): Loss[] {
  return [
    ...quotas.map(({ id }) => ({
      at: address('quota', id),
      what: 'the quota, which no device counts by itself: nobody is turned away by it',
    })),
    ...endings.flatMap(({ id, next }) =>
      next !== undefined && 'questionnaire' in next
        ? [
            {
              at: address('ending', id),
              what: `going on in “${next.questionnaire}”, which is not in the file`,
            },
          ]
        : [],
    ),
  ];
}
