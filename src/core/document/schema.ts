/**
 * The shape of a questionnaire document as a Valibot schema.
 *
 * Accepts exactly what `types.ts` describes: an unknown property is an error. The parsed value has its
 * properties in the order written here, so that the same document is always the same file.
 * What one schema cannot see alone (`min` above `max`, skips in a draw) is in `shape.ts`.
 */
import * as v from 'valibot';
import {
  LARGEST_CODE,
  LARGEST_NUMBER,
  MOST_CASES,
  MOST_CONDITION,
  MOST_DERIVED,
  MOST_ENDINGS,
  MOST_GIVEN,
  MOST_ITEMS,
  MOST_OPTIONS,
  MOST_PASSES,
  MOST_PICTURE,
  MOST_QUOTAS,
  MOST_REASONS,
  MOST_RULES,
  MOST_SETS,
  MOST_SECTIONS,
  MOST_TEXT,
} from './limits';
import { ID_AS_JSON, idProblem, NAME_AS_JSON, nameProblem } from './names';
import {
  ANSWER_TYPES,
  ENDING_KINDS,
  FORMAT,
  OPTION_MISSING,
  SECTION_KINDS,
  VERSION,
  type Questionnaire,
} from './types';
import { numberWords } from './words';

/**
 * What a schema cannot tell of itself: the ways of a choice, and what a test of ours tests. `exchange/json-schema.ts` asks here.
 */
export const CHOICES = new WeakMap<v.GenericSchema, readonly v.GenericSchema[]>();
export const TESTED = new WeakMap<object, Readonly<Record<string, unknown>>>();

/** One of several, chosen by what the input looks like, so that errors speak of the one that is meant. */
function chosen<Schemas extends readonly v.GenericSchema[]>(
  ways: Schemas,
  choose: (input: unknown) => Schemas[number],
): v.GenericSchema<unknown, v.InferOutput<Schemas[number]>> {
  const schema = v.lazy(choose) as v.GenericSchema<unknown, v.InferOutput<Schemas[number]>>;
  CHOICES.set(schema, ways);
  return schema;
}

/** A test, with what it comes to in JSON Schema. */
function tested<Action extends object>(action: Action, as: Readonly<Record<string, unknown>>): Action {
  TESTED.set(action, as);
  return action;
}

const named = (problem: (text: string) => string | null, as: Readonly<Record<string, unknown>>) =>
  v.pipe(
    v.string(),
    tested(
      v.check<string, (issue: v.CheckIssue<string>) => string>(
        (text) => problem(text) === null,
        (issue) => problem(issue.input) ?? '',
      ),
      as,
    ),
  );
const Name = named(nameProblem, NAME_AS_JSON);
const Id = named(idProblem, ID_AS_JSON);

/** A list of at most so many; what to do about more is said in the sentence. */
const list = <Entry extends v.GenericSchema>(entry: Entry, most: number, sentence: string) =>
  v.pipe(v.array(entry), v.maxLength(most, `at most ${numberWords(most)} ${sentence}`));

const Text = v.pipe(
  v.string(),
  v.maxLength(MOST_TEXT, `at most ${numberWords(MOST_TEXT)} characters can stand here: shorten the text`),
);
const Code = v.pipe(
  v.number(),
  v.integer('a code is a whole number'),
  v.minValue(-LARGEST_CODE, 'this code is too long: give a shorter one'),
  v.maxValue(LARGEST_CODE, 'this code is too long: give a shorter one'),
);
const BEYOND_NUMBERS = `numbers go from -${numberWords(LARGEST_NUMBER)} to ${numberWords(LARGEST_NUMBER)}: choose a nearer limit, or ask in larger units`;
const Limit = v.pipe(
  v.number(),
  v.minValue(-LARGEST_NUMBER, BEYOND_NUMBERS),
  v.maxValue(LARGEST_NUMBER, BEYOND_NUMBERS),
);
const Whole = (least: number) =>
  v.pipe(v.number(), v.integer('a whole number is needed'), v.minValue(least, `at least ${least} is needed`));
const Chance = v.pipe(
  v.number(),
  v.minValue(0, 'a share is 0 or more'),
  v.maxValue(1, 'a share is at most 1'),
);
const Seconds = v.pipe(v.number(), v.minValue(0, 'seconds are 0 or more'));
const Yes = v.boolean();
const Condition = v.pipe(
  v.string(),
  v.maxLength(
    MOST_CONDITION,
    `at most ${numberWords(MOST_CONDITION)} characters can stand in a condition: make parts of it derived variables`,
  ),
);
const DataUrl = v.pipe(
  v.string(),
  v.regex(
    /^data:image\/(png|jpeg|gif|webp|svg\+xml);base64,/,
    'a picture is a data URL of a PNG, JPEG, GIF, WebP or SVG',
  ),
  v.maxLength(MOST_PICTURE, 'this picture is larger than 4 MB: make it smaller'),
);

const Picture = v.strictObject({ src: DataUrl, alt: Text });

const TARGETS = {
  item: v.strictObject({ item: Name }),
  section: v.strictObject({ section: Id }),
  ending: v.strictObject({ ending: Id }),
  nextPass: v.strictObject({ nextPass: v.literal(true) }),
};
const isRecord = (input: unknown): input is Record<string, unknown> =>
  typeof input === 'object' && input !== null && !Array.isArray(input);
const Target = chosen(Object.values(TARGETS), (input) => {
  const key = isRecord(input)
    ? (['section', 'ending', 'nextPass'] as const).find((k) => k in input)
    : undefined;
  return TARGETS[key ?? 'item'];
});

const Skip = v.strictObject({ if: v.optional(Condition), to: Target });
const Skips = list(Skip, MOST_RULES, 'skips can start at one place: join those with the same target');
const Check = v.strictObject({ if: Condition, kind: v.picklist(['hard', 'soft']), message: Text });

const Option = v.strictObject({
  code: Code,
  label: Text,
  specify: v.optional(Yes),
  specifyLabel: v.optional(Text),
  specifyOptional: v.optional(Yes),
  exclusive: v.optional(Yes),
  missing: v.optional(v.picklist(OPTION_MISSING)),
  askIf: v.optional(Condition),
  image: v.optional(Picture),
});
const Options = v.pipe(
  list(Option, MOST_OPTIONS, 'options can stand in one list: make it two questions, or ask for the text'),
  v.minLength(1, 'at least one option is needed'),
);
const Specials = list(
  v.pipe(
    Option,
    tested(
      v.check<v.InferOutput<typeof Option>, string>(
        (option) => option.missing !== undefined,
        'an option beside a number, scale or date needs "missing"',
      ),
      { required: ['code', 'label', 'missing'] },
    ),
  ),
  MOST_OPTIONS,
  'options can stand beside an answer',
);
const Columns = Whole(1);

const dateAnswer = <Type extends 'date' | 'time' | 'datetime'>(type: Type) =>
  v.strictObject({
    type: v.literal(type),
    min: v.optional(Text),
    max: v.optional(Text),
    specials: v.optional(Specials),
  });

const Answer = v.variant(
  'type',
  [
    v.strictObject({
      type: v.literal('single'),
      options: Options,
      columns: v.optional(Columns),
      shuffleOptions: v.optional(Yes),
    }),
    v.strictObject({
      type: v.literal('multiple'),
      options: Options,
      columns: v.optional(Columns),
      minPicks: v.optional(Whole(0)),
      maxPicks: v.optional(Whole(1)),
      picksMessage: v.optional(Text),
      shuffleOptions: v.optional(Yes),
    }),
    v.strictObject({
      type: v.literal('scale'),
      min: Limit,
      max: Limit,
      step: v.optional(v.pipe(v.number(), v.gtValue(0, 'a step is above 0'))),
      lowLabel: v.optional(Text),
      midLabel: v.optional(Text),
      highLabel: v.optional(Text),
      specials: v.optional(Specials),
    }),
    v.strictObject({
      type: v.literal('number'),
      min: Limit,
      max: Limit,
      decimals: v.optional(v.pipe(Whole(0), v.maxValue(6, 'at most 6 decimals'))),
      unit: v.optional(Text),
      specials: v.optional(Specials),
    }),
    v.strictObject({
      type: v.literal('text'),
      lines: v.optional(v.picklist(['one', 'many'])),
      minLength: v.optional(Whole(0)),
      maxLength: v.optional(Whole(1)),
      pattern: v.optional(v.picklist(['email', 'phone', 'url', 'none'])),
      placeholder: v.optional(Text),
    }),
    dateAnswer('date'),
    dateAnswer('time'),
    dateAnswer('datetime'),
    v.strictObject({
      type: v.literal('grid'),
      rows: v.pipe(
        list(
          v.strictObject({ name: Name, label: Text, askIf: v.optional(Condition) }),
          MOST_OPTIONS,
          'rows can stand in one grid: make it two',
        ),
        v.minLength(1, 'at least one row is needed'),
      ),
      options: Options,
      pick: v.optional(v.picklist(['one', 'many'])),
      shuffleOptions: v.optional(Yes),
    }),
    v.strictObject({
      type: v.literal('rank'),
      options: Options,
      top: v.optional(Whole(1)),
      shuffleOptions: v.optional(Yes),
    }),
  ],
  `an answer type is needed, one of: ${ANSWER_TYPES.join(', ')}`,
);

const Bound = v.union([v.number(), v.string()], 'a number or a date is needed');
const assumedShares = {
  shares: v.optional(v.record(v.string(), Chance)),
  ranges: v.optional(v.array(v.strictObject({ from: Bound, to: Bound, share: Chance }))),
  blank: v.optional(Chance),
};
/** Of a value that is known beforehand: nothing comes before it that its shares could hang on. */
const AssumeOfGiven = v.strictObject({
  ...assumedShares,
  source: v.optional(Text),
  base: v.optional(Whole(1)),
});
export const AssumeSchema = v.strictObject({
  ...AssumeOfGiven.entries,
  where: v.optional(
    list(v.strictObject({ if: Condition, ...assumedShares }), MOST_RULES, 'shares of some can be assumed'),
  ),
});

const Item = v.variant(
  'kind',
  [
    v.strictObject({
      kind: v.literal('question'),
      name: Name,
      text: Text,
      label: v.optional(Text),
      note: v.optional(Text),
      instruction: v.optional(Text),
      image: v.optional(Picture),
      askIf: v.optional(Condition),
      answer: Answer,
      required: v.optional(Yes),
      requiredMessage: v.optional(Text),
      limitMessage: v.optional(Text),
      agrees: v.optional(list(Code, MOST_OPTIONS, 'codes can agree')),
      sensitive: v.optional(Yes),
      measure: v.optional(v.picklist(['nominal', 'ordinal', 'interval', 'ratio'])),
      missingCodes: v.optional(v.record(v.string(), Code)),
      comment: v.optional(Text),
      seconds: v.optional(Seconds),
      assume: v.optional(AssumeSchema),
      checks: v.optional(list(Check, MOST_RULES, 'checks can stand at one question')),
      skips: v.optional(Skips),
    }),
    v.strictObject({
      kind: v.literal('statement'),
      name: Name,
      text: Text,
      instruction: v.optional(Text),
      image: v.optional(Picture),
      askIf: v.optional(Condition),
      seconds: v.optional(Seconds),
      skips: v.optional(Skips),
    }),
    v.strictObject({ kind: v.literal('page_break') }),
  ],
  'an item is of kind "question", "statement" or "page_break"',
);

const Passes = v.pipe(
  Whole(1),
  v.maxValue(MOST_PASSES, `a section repeats at most ${MOST_PASSES} times: give "max" a nearer limit`),
);
const RepeatEach = v.strictObject({ each: Name, max: Passes });
const RepeatTimes = v.strictObject({ times: Name, max: Passes });
const Repeat = chosen([RepeatTimes, RepeatEach], (input) =>
  isRecord(input) && 'each' in input ? RepeatEach : RepeatTimes,
);

export const SectionSchema = v.strictObject({
  id: Id,
  title: Text,
  kind: v.picklist(SECTION_KINDS, `a section is of kind ${SECTION_KINDS.join(', ')}`),
  intro: v.optional(Text),
  askIf: v.optional(Condition),
  repeat: v.optional(Repeat),
  draw: v.optional(Whole(1)),
  shuffle: v.optional(Yes),
  timeLimit: v.optional(Whole(1)),
  items: list(Item, MOST_ITEMS, 'items can stand in a section: divide it'),
  onward: v.optional(chosen([Target, Skips], (input) => (Array.isArray(input) ? Skips : Target))),
});

const DerivedCases = v.strictObject({
  name: Name,
  label: Text,
  cases: v.pipe(
    list(
      v.strictObject({ if: Condition, code: Code, label: Text }),
      MOST_CASES,
      'cases can stand in one derived variable',
    ),
    v.minLength(1, 'at least one case is needed'),
  ),
  else: v.optional(v.strictObject({ code: Code, label: Text })),
});
const DerivedValue = v.strictObject({ name: Name, label: Text, value: Condition });
const Derived = chosen([DerivedCases, DerivedValue], (input) =>
  isRecord(input) && 'value' in input ? DerivedValue : DerivedCases,
);

const NextAddress = v.strictObject({
  url: v.pipe(v.string(), v.regex(/^https:\/\//, 'an address starts with https://')),
});
const NextQuestionnaire = v.strictObject({
  questionnaire: Text,
  carry: v.optional(list(Name, MOST_GIVEN, 'values can be carried over')),
});
const Next = chosen([NextQuestionnaire, NextAddress], (input) =>
  isRecord(input) && 'url' in input ? NextAddress : NextQuestionnaire,
);

const Ending = v.strictObject({
  id: Id,
  kind: v.picklist(ENDING_KINDS, `an ending is of kind ${ENDING_KINDS.join(', ')}`),
  messages: list(
    v.strictObject({ if: v.optional(Condition), text: Text }),
    MOST_RULES,
    'messages can stand at one ending',
  ),
  next: v.optional(Next),
});

const Price = v.pipe(v.number(), v.minValue(0, 'a price is not below 0'));

const Settings = v.strictObject({
  numbers: v.optional(v.picklist(['running', 'fixed', 'none'])),
  pages: v.optional(v.picklist(['section', 'item'])),
  progress: v.optional(Yes),
  humanCheck: v.optional(Yes),
  mode: v.optional(v.picklist(['self', 'interviewer'])),
  maxMinutes: v.optional(v.pipe(v.number(), v.gtValue(0, 'a limit of minutes is above 0'))),
  forecast: v.optional(
    v.strictObject({
      starts: v.optional(Whole(1)),
      least: v.optional(Whole(1)),
      breakOff: v.optional(v.pipe(Chance, v.ltValue(1, 'a chance of breaking off is below 1'))),
      response: v.optional(Chance),
      designEffect: v.optional(v.pipe(v.number(), v.minValue(1, 'a design effect is at least 1'))),
      prices: v.optional(
        v.strictObject({
          start: v.optional(Price),
          screenOut: v.optional(Price),
          complete: v.optional(Price),
          currency: v.optional(Text),
        }),
      ),
      wanted: v.optional(
        list(
          v.strictObject({ of: Name, pass: v.optional(Whole(1)), n: Whole(1) }),
          MOST_RULES,
          'bases can be wanted',
        ),
      ),
      sets: v.optional(
        list(
          v.strictObject({
            name: Text,
            assume: list(
              v.strictObject({ of: Name, ...AssumeSchema.entries }),
              MOST_ITEMS,
              'questions can be assumed otherwise in one set',
            ),
          }),
          MOST_SETS,
          'sets of assumptions can stand side by side',
        ),
      ),
    }),
  ),
  pace: v.optional(
    v.strictObject({
      words: v.optional(v.pipe(v.number(), v.gtValue(0, 'a reading speed is above 0'))),
      single: v.optional(Seconds),
      pick: v.optional(Seconds),
      scale: v.optional(Seconds),
      number: v.optional(Seconds),
      shortText: v.optional(Seconds),
      longText: v.optional(Seconds),
      gridRow: v.optional(Seconds),
      rankPlace: v.optional(Seconds),
      source: v.optional(Text),
    }),
  ),
  defaults: v.optional(v.strictObject({ required: v.optional(Yes), dontKnow: v.optional(Yes) })),
  theme: v.optional(
    v.strictObject({
      accent: v.optional(v.pipe(v.string(), v.regex(/^#[0-9a-fA-F]{6}$/, 'a colour is written #rrggbb'))),
      font: v.optional(Text),
      logo: v.optional(DataUrl),
    }),
  ),
});

export const QuestionnaireSchema = v.strictObject({
  format: v.literal(FORMAT, `"format" must be "${FORMAT}"`),
  version: v.literal(VERSION, `"version" must be ${VERSION}`),
  title: Text,
  language: Text,
  missing: list(
    v.strictObject({ reason: Name, code: Code, label: Text }),
    MOST_REASONS,
    'reasons can stand in the plan of missing codes',
  ),
  given: v.optional(
    list(
      v.strictObject({
        name: Name,
        label: Text,
        answer: Answer,
        assume: v.optional(AssumeOfGiven),
        random: v.optional(Yes),
      }),
      MOST_GIVEN,
      'values can be given',
    ),
  ),
  quotas: v.optional(
    list(
      v.strictObject({ id: Id, label: Text, if: Condition, target: Whole(0), at: Name, to: Target }),
      MOST_QUOTAS,
      'quotas can be kept',
    ),
  ),
  sections: v.pipe(
    list(SectionSchema, MOST_SECTIONS, 'sections can stand in a questionnaire: join some'),
    v.minLength(1, 'at least one section is needed'),
  ),
  derived: v.optional(list(Derived, MOST_DERIVED, 'variables can be derived')),
  endings: v.pipe(
    list(Ending, MOST_ENDINGS, 'endings can be told apart: join some, with messages of their own'),
    v.minLength(1, 'at least one ending is needed'),
  ),
  settings: v.optional(Settings),
}) satisfies v.GenericSchema<unknown, Questionnaire>;

/** Parts that stand in many places, and the ways of every choice, by what they are called. */
export const PARTS = {
  Name,
  Id,
  Text,
  Code,
  Condition,
  Picture,
  Target,
  ToItem: TARGETS.item,
  ToSection: TARGETS.section,
  ToEnding: TARGETS.ending,
  ToNextPass: TARGETS.nextPass,
  Skip,
  Skips,
  Option,
  Answer,
  Assume: AssumeSchema,
  Item,
  Section: SectionSchema,
  RepeatTimes,
  RepeatEach,
  DerivedCases,
  DerivedValue,
  Ending,
  NextQuestionnaire,
  NextAddress,
  Settings,
};
