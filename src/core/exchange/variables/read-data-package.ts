/** The schema of a Data Package (`datapackage.json`) or of one table of it, as variables; versions 1 and 2. */
import * as v from 'valibot';
import { fromVariables, tablesLeft, type DataVariable, type VariablesRead } from './from-variables';

const Value = v.union([v.string(), v.number(), v.boolean()]);
const Missing = v.union([v.string(), v.object({ value: v.string(), label: v.optional(v.string()) })]);
const Category = v.union([Value, v.object({ value: Value, label: v.optional(v.string()) })]);
const Field = v.object({
  name: v.string(),
  title: v.optional(v.string()),
  description: v.optional(v.string()),
  type: v.optional(v.string()),
  constraints: v.optional(
    v.object({ minimum: v.optional(Value), maximum: v.optional(Value), enum: v.optional(v.array(Value)) }),
  ),
  categories: v.optional(v.array(Category)),
  categoriesOrdered: v.optional(v.boolean()),
  missingValues: v.optional(v.array(Missing)),
});
const TableSchema = v.object({ fields: v.array(Field), missingValues: v.optional(v.array(Missing)) });
const Package = v.object({
  title: v.optional(v.string()),
  languages: v.optional(v.array(v.string())),
  resources: v.array(v.object({ name: v.optional(v.string()), schema: v.optional(v.unknown()) })),
});

type FieldRead = v.InferOutput<typeof Field>;

/** `json`: as it was parsed; whatever it is. */
export function readDataPackage(json: unknown, title: string): VariablesRead {
  const whole = v.safeParse(Package, json);
  const resources = whole.success ? whole.output.resources : [{ name: undefined, schema: json }];
  const tables = resources.flatMap(({ schema }) => {
    const table = v.safeParse(TableSchema, schema);
    return table.success ? [table.output] : [];
  });
  const [first, ...others] = tables;
  if (first === undefined)
    return {
      ok: false,
      problems: [
        'No table in it says what its fields are: “schema” with “fields” is needed in one of its resources.',
      ],
    };
  const common = first.missingValues ?? [];
  const read = fromVariables(
    (whole.success ? whole.output.title : undefined) ?? title,
    (whole.success ? whole.output.languages?.[0] : undefined) ?? null,
    first.fields.map((field) => variableOf(field, common)),
  );
  const told = tablesLeft(others.length, first.fields.length + 1);
  return read.ok && told !== null ? { ...read, doubts: [...read.doubts, told] } : read;
}

const HOLDS: Readonly<Record<string, DataVariable['holds']>> = {
  integer: 'whole',
  year: 'whole',
  number: 'number',
  date: 'date',
  time: 'time',
  datetime: 'datetime',
};

function variableOf(field: FieldRead, common: readonly v.InferOutput<typeof Missing>[]): DataVariable {
  const {
    name,
    title = '',
    description = '',
    type = 'string',
    constraints = {},
    categories,
    missingValues,
  } = field;
  const listed = categories ?? constraints.enum ?? [];
  const limit = (value: unknown) => (value === undefined ? null : String(value as string | number));
  return {
    name,
    label: title,
    question: description,
    holds: HOLDS[type] ?? 'text',
    measure: field.categoriesOrdered === true ? 'ordinal' : '',
    values: listed.map((each) =>
      typeof each === 'object'
        ? { code: String(each.value), label: each.label ?? '' }
        : { code: String(each), label: '' },
    ),
    missing: (missingValues ?? common).map((each) =>
      typeof each === 'object' ? { code: each.value, label: each.label ?? '' } : { code: each, label: '' },
    ),
    least: limit(constraints.minimum),
    most: limit(constraints.maximum),
  };
}
