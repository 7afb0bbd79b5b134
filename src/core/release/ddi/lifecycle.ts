/**
 * A questionnaire as DDI-Lifecycle 3.3: universes, questions, the instrument as nested constructs, codes, variables and the
 * record of the data. What DDI has no element for goes along as attribute pairs, which `read-lifecycle.ts` takes back.
 */
import type { Analysis } from '../../analysis';
import type { Questionnaire } from '../../document/types';
import { element, type Element } from '../../exchange/element';
import { xmlText } from '../../exchange/xml';
import type { Plan } from '../../routing/plan';
import { dataFields } from '../data/fields';
import { Codes } from './lifecycle-codes';
import { Constructs } from './lifecycle-constructs';
import { questionElements } from './lifecycle-questions';
import { Universes } from './lifecycle-universes';
import { variableElements } from './lifecycle-variables';
import { Urns } from './urns';
import { Words } from './words';

const NAMESPACES = {
  xmlns: 'ddi:instance:3_3',
  'xmlns:r': 'ddi:reusable:3_3',
  'xmlns:s': 'ddi:studyunit:3_3',
  'xmlns:c': 'ddi:conceptualcomponent:3_3',
  'xmlns:d': 'ddi:datacollection:3_3',
  'xmlns:l': 'ddi:logicalproduct:3_3',
} as const;

/** `plan`: of the questionnaire as it is written; `document`: with its skips as structure, see `structured.ts`. */
export function ddiLifecycle(
  plan: Plan,
  analysis: Pick<Analysis, 'asked' | 'passes'>,
  document: Questionnaire,
  version: string,
): string {
  const { title, language } = document;
  const urns = new Urns(title);
  const words = new Words(language);
  const fields = dataFields(plan);
  const codes = new Codes(urns, words, document, fields);
  const universes = new Universes(urns, words, plan, analysis);
  const constructs = new Constructs(urns, words, plan, document);
  const { questions, instructions } = questionElements(urns, words, document, codes);
  const variables = variableElements(urns, words, plan, fields, codes, universes);
  const part = (
    name: string,
    kind: Parameters<Urns['identity']>[0],
    ...children: (Element | null | Element[])[]
  ) => element(name, {}, urns.identity(kind, '', document), ...children);
  const root = element(
    'DDIInstance',
    NAMESPACES,
    urns.identity('instance', '', document),
    citation(words, title, version),
    part(
      's:StudyUnit',
      'study',
      citation(words, title, version),
      part('c:ConceptualComponent', 'concepts', part('c:UniverseScheme', 'universes', universes.elements())),
      part(
        'd:DataCollection',
        'collection',
        part('d:QuestionScheme', 'questions', questions),
        part('d:ControlConstructScheme', 'constructs', constructs.elements()),
        instructions.length === 0
          ? null
          : part('d:InterviewerInstructionScheme', 'instructions', instructions),
        part('d:InstrumentScheme', 'instruments', constructs.instrument()),
      ),
      part(
        'l:LogicalProduct',
        'product',
        part(
          'l:DataRelationship',
          'relation',
          element(
            'l:LogicalRecord',
            { hasLocator: 'false' },
            urns.identity(
              'record',
              '',
              fields.map(({ name }) => name),
            ),
            words.string('l:LogicalRecordName', 'data'),
            element('l:VariablesInRecord', { allVariablesInLogicalProduct: 'true' }),
          ),
        ),
        part('l:CategoryScheme', 'categories', codes.categories()),
        part('l:CodeListScheme', 'codelists', codes.lists()),
        part('r:ManagedRepresentationScheme', 'missing', codes.missing()),
        part('l:VariableScheme', 'variables', variables),
      ),
    ),
  );
  return xmlText(root);
}

function citation(words: Words, title: string, version: string): Element {
  return element('r:Citation', {}, words.string('r:Title', title), words.string('r:SubTitle', version));
}
