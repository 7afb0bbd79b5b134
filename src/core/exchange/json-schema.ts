/**
 * The questionnaire document as a JSON Schema (2020-12), made of the schema that it is read by. What no schema can say is
 * left out of it, and checked when a document is read: rules between properties (`document/shape.ts`).
 */
import { toJsonSchema } from '@valibot/to-json-schema';
import type * as v from 'valibot';
import { CHOICES, PARTS, QuestionnaireSchema, TESTED } from '../document/schema';

type JsonSchema = ReturnType<typeof toJsonSchema>;

const NAMES = new Map<unknown, string>(Object.entries(PARTS).map(([name, schema]) => [schema, name]));

export function questionnaireJsonSchema(): JsonSchema {
  const { $schema: _, ...made } = toJsonSchema(QuestionnaireSchema, {
    target: 'draft-2020-12',
    definitions: PARTS,
    // Choices and tests of ours say below what they are.
    errorMode: 'ignore',
    overrideSchema({ valibotSchema }) {
      const ways = CHOICES.get(valibotSchema as v.GenericSchema);
      return ways === undefined
        ? undefined
        : { anyOf: ways.map((way) => ({ $ref: `#/$defs/${NAMES.get(way) ?? ''}` })) };
    },
    overrideAction({ valibotAction, jsonSchema }) {
      const as = TESTED.get(valibotAction);
      return as === undefined ? undefined : { ...jsonSchema, ...as };
    },
  });
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Jolly Fork questionnaire',
    description: 'A research questionnaire with its routing: a .fork.json file.',
    ...made,
  };
}

/** As it is published. */
export function questionnaireJsonSchemaText(): string {
  return `${JSON.stringify(questionnaireJsonSchema(), null, 2)}\n`;
}
