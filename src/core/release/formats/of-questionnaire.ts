/** Files that hold the questionnaire as it is, to be opened, read, compared or programmed. */
import { fileStem } from '../../document/names';
import { writeDocument } from '../../document/read';
import type { Questionnaire } from '../../document/types';
import { csvLines } from '../../exchange/csv';
import { readItems } from '../../exchange/items/read-items';
import { itemRows } from '../../exchange/items/write-items';
import { writeScript } from '../../exchange/script/write-script';
import { writeWork } from '../../exchange/work-file';
import type { FormatWriter } from '../format-types';
import { testPack } from '../test-pack';
import { testPackFiles } from '../test-pack-files';
import { versionWords } from '../version-words';
import type { FormatName } from './known';
import { lostByReading, NONE, workLost } from './lost';
import { preparedFor } from './prepared';

export const OF_QUESTIONNAIRE = {
  document: {
    write: ({ document }) => writeDocument(document),
    losses: workLost,
  },
  work: {
    write: ({ document, work }) => writeWork(document, work),
    losses: NONE,
  },
  script: {
    write: ({ document }) => writeScript(document),
    losses: workLost,
  },
  items: {
    write: async ({ document, version }, kind) => {
      if (kind.endsWith('csv')) return csvLines(itemRows(document));
      return (await import('../sheets/items-workbook')).itemsWorkbook(document, versionWords(version));
    },
    losses: (content) => [...workLost(content), ...lostByReading(content, itemsBack)],
  },
  schema: {
    write: async () => (await import('../../exchange/json-schema')).questionnaireJsonSchemaText(),
    losses: NONE,
  },
  'test-pack': {
    write: ({ document, version }) => {
      const { plan, analysis } = preparedFor(document);
      return testPackFiles(plan, testPack(plan, analysis), versionWords(version));
    },
    losses: NONE,
  },
} as const satisfies Partial<Record<FormatName, FormatWriter>>;

function itemsBack(document: Questionnaire): Questionnaire | null {
  const cells = itemRows(document).map((row) => row.map(String));
  const read = readItems(cells, fileStem(document.title));
  return read.ok ? read.document : null;
}
