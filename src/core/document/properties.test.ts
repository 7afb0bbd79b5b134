/** The table of properties: the schema has none that it lacks, and what is derived from it minds each by its role. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { FEATURED } from '../../../tests/agree/featured';
import { applyChange } from '../editing/change';
import { renameVariable } from '../editing/rename';
import { replaceAll } from '../editing/replace';
import { planOf } from '../routing/planner';
import { contentMarks } from '../routing/route-content';
import { findAll } from '../views/find';
import { eachProperty, type Held } from './each-property';
import { propertiesOf, type HolderKind, type PartOf } from './properties';
import { routingContent } from './routing-content';
import { QuestionnaireSchema } from './schema';
import type { Questionnaire } from './types';

interface SchemaPart {
  readonly type: string;
  readonly kind: string;
  readonly entries?: Readonly<Record<string, SchemaPart>>;
  readonly options?: readonly SchemaPart[];
  readonly pipe?: readonly SchemaPart[];
  readonly item?: SchemaPart;
  readonly wrapped?: SchemaPart;
  readonly getter?: (input: unknown) => SchemaPart;
  readonly literal?: unknown;
}

/** What stands behind a part that is chosen by its content, one of each. */
const SAMPLES: readonly unknown[] = [
  {},
  [],
  { section: '' },
  { ending: '' },
  { nextPass: true },
  { each: '' },
  { value: '' },
  { url: '' },
];

/** The objects that a schema stands for, through lists, choices and what may be absent. */
function objectsIn(schema: SchemaPart): SchemaPart[] {
  if (schema.entries !== undefined) return [schema];
  const { options = [], pipe = [], item, wrapped, getter } = schema;
  const within = [
    ...options.filter((option) => typeof option === 'object'),
    ...pipe.filter((part) => part.kind === 'schema' && part !== schema),
    ...(item === undefined ? [] : [item]),
    ...(wrapped === undefined ? [] : [wrapped]),
    ...(getter === undefined ? [] : SAMPLES.map((sample) => getter(sample))),
  ];
  return within.flatMap(objectsIn);
}

function kindOf(of: PartOf, { entries = {} }: SchemaPart): HolderKind {
  if (of === 'skip' && !('to' in entries)) return 'target';
  if (of !== 'item') return of;
  const kind = entries.kind?.literal;
  return kind === 'page_break' ? 'pageBreak' : (kind as 'question' | 'statement');
}

describe('the table of properties', () => {
  it('has a role for each property of the schema, and none besides', () => {
    const met = new Map<HolderKind, Set<string>>();
    const look = (kind: HolderKind, schema: SchemaPart) => {
      const known = met.get(kind) ?? new Set<string>();
      met.set(kind, known);
      for (const [name, within] of Object.entries(schema.entries ?? {})) {
        const property = propertiesOf(kind)[name];
        assert.ok(property, `${kind}.${name} has no role in document/properties.ts`);
        const isNew = !known.has(name);
        known.add(name);
        const objects = objectsIn(within);
        assert.equal(
          objects.length > 0,
          property.parts !== undefined,
          `${kind}.${name} holds parts, or does not`,
        );
        if (isNew && property.parts !== undefined)
          for (const object of objects) look(kindOf(property.parts, object), object);
      }
    };
    look('study', QuestionnaireSchema as unknown as SchemaPart);
    for (const [kind, names] of met)
      assert.deepEqual([...names].sort(), Object.keys(propertiesOf(kind)).sort(), kind);
  });

  /** One property of a questionnaire changed, with the questionnaire that has it so. */
  function* changes(): Generator<{ held: Held; before: Questionnaire; after: Questionnaire }> {
    for (const document of FEATURED as readonly Questionnaire[]) {
      const places: Held[] = [];
      eachProperty(document, (held) => places.push(held));
      for (const [n, held] of places.entries()) {
        const after = copyOf(document);
        let at = 0;
        eachProperty(after, ({ holder, name, value }) => {
          if (at++ !== n) return;
          if (typeof value === 'string') holder[name] = `${value} anew`;
          else if (typeof value === 'number') holder[name] = value + 1;
          else if (typeof value === 'boolean') holder[name] = !value;
        });
        if (['string', 'number', 'boolean'].includes(typeof held.value))
          yield { held, before: document, after };
      }
    }
  }

  it('tells what steers, and what a route shows', () => {
    const seen = new Set<string>();
    for (const { held, before, after } of changes()) {
      const { kind, name, property, at } = held;
      const told = `${kind}.${name}`;
      assert.equal(
        routingContent(before) !== routingContent(after),
        property.steers === true,
        `${told} steers`,
      );
      if (property.holds === 'name' || property.holds === 'id' || ['kind', 'type'].includes(name)) continue;
      const [old, now] = [before, after].map((document) => JSON.stringify(marksOf(document)));
      const shown = property.shown === true && !at.startsWith('given');
      assert.equal(old !== now, shown, `${told} is shown`);
      seen.add(told);
    }
    assert.ok(seen.size > 60, `only ${seen.size} properties stand in the featured questionnaires`);
  });

  it('has words found and replaced, and names followed, wherever they stand', () => {
    const told = new Set<string>();
    for (const { held, before } of changes()) {
      const { kind, name, property, value, at } = held;
      const words = property.holds === 'words' || property.holds === 'piped words';
      if (!words || value === '') continue;
      const mark = 'Zyxw';
      const document = copyOf(before);
      let done = false;
      eachProperty(document, (each) => {
        if (done || each.kind !== kind || each.name !== name || each.at !== at || each.value !== value)
          return;
        each.holder[each.name] = mark;
        done = true;
      });
      if (kind !== 'study' && kind !== 'missing')
        assert.equal(findAll(planOf(document), mark)[0]?.selection, at, `${kind}.${name} is found`);
      const replacing = { find: mark, by: 'abcd', inWords: true, inNames: false, matchCase: true };
      const { document: next } = applyChange(document, replaceAll(document, replacing));
      assert.ok(!JSON.stringify(next).includes(mark), `${kind}.${name} is replaced`);
      told.add(`${kind}.${name}`);
    }
    assert.ok(told.size > 20, `only ${[...told].join(', ')}`);

    for (const document of FEATURED as readonly Questionnaire[]) {
      eachProperty(document, ({ property, value, at }) => {
        if (property.holds !== 'name') return;
        const { document: next } = applyChange(document, renameVariable(String(value), 'zyxw_name'));
        const old = new RegExp(`\\b${String(value)}\\b`, 'i');
        eachProperty(next, (each) => {
          if (['name', 'variable', 'condition', 'expression'].includes(each.property.holds))
            assert.doesNotMatch(String(each.value), old, `${each.kind}.${each.name} follows ${at}`);
        });
      });
    }
  });
});

function marksOf(document: Questionnaire): string[] {
  const marks = contentMarks(planOf(document));
  return [
    ...document.sections.flatMap(({ items }) =>
      items.flatMap((item) => (item.kind === 'page_break' ? [] : [marks.item(item.name, null)])),
    ),
    ...document.endings.map(({ id }) => marks.ending(id)),
  ];
}

/** Through text: nothing in it is shared. */
function copyOf(document: Questionnaire): Questionnaire {
  return JSON.parse(JSON.stringify(document)) as Questionnaire;
}
