/** Files for archives and catalogues: DDI. */
import { WHOLE_STUDY } from '../../document/addresses';
import { fileStem } from '../../document/names';
import type { Questionnaire } from '../../document/types';
import type { FormatWriter, Loss } from '../format-types';
import type { Structured } from '../ddi/structured';
import { lossesBetween } from '../losses';
import { versionWords } from '../version-words';
import type { FormatName } from './known';
import { lostByReading, workLost } from './lost';
import { onceAs } from './once';
import { preparedFor } from './prepared';

export const FOR_ARCHIVES = {
  'ddi-lifecycle': {
    write: async ({ document, version }) => (await lifecycleOf(document, versionWords(version))).text,
    losses: async (content) => [...workLost(content), ...(await lifecycleLosses(content.document))],
  },
  'ddi-codebook': {
    write: ({ document, version }) => codebookOf(document, versionWords(version)),
    losses: async (content) => {
      const { readDdiCodebook } = await import('../ddi/read-codebook');
      const bytes = new TextEncoder().encode(await codebookOf(content.document, null));
      const back = readDdiCodebook(bytes, fileStem(content.document.title));
      return [
        ...workLost(content),
        ...lostByReading(content, () => (back.ok ? back.content.document : null)),
      ];
    },
  },
} as const satisfies Partial<Record<FormatName, FormatWriter>>;

interface WrittenLifecycle extends Structured {
  readonly text: string;
}

/** As it is written, with its skips as structure. */
const lifecycleOf = onceAs(async (document, version): Promise<WrittenLifecycle> => {
  const [{ ddiLifecycle }, { structured }] = await Promise.all([
    import('../ddi/lifecycle'),
    import('../ddi/structured'),
  ]);
  const made = structured(document);
  const { plan, analysis } = preparedFor(made.document);
  return { ...made, text: ddiLifecycle(plan, analysis, made.document, version) };
});

const codebookOf = onceAs(async (document, version) => {
  const { ddiCodebook } = await import('../ddi/codebook');
  const { plan, analysis } = preparedFor(document);
  return ddiCodebook(plan, analysis, version);
});

async function lifecycleLosses(document: Questionnaire): Promise<Loss[]> {
  const [{ readDdiLifecycle }, { text, document: made }, { skipsToldOf }] = await Promise.all([
    import('../ddi/read-lifecycle'),
    lifecycleOf(document, null),
    import('../ddi/structured'),
  ]);
  const back = readDdiLifecycle(new TextEncoder().encode(text), fileStem(document.title));
  if (!back.ok) return [{ at: WHOLE_STUDY, what: 'all of it' }];
  return [...skipsToldOf(document, made), ...lossesBetween(made, back.content.document)];
}
