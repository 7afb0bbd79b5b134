/**
 * Every property of a questionnaire, by the kind of part that has it: what it holds, and who has to mind it.
 *
 * The one table from which is derived what renaming, replacing and finding go through, what is piped, what a route shows,
 * what steers, and what a property is called. A property that the types have and the table has not does not compile; one that
 * the schema has fails the test beside it. `each-property.ts` goes through a questionnaire by it.
 */
import type {
  Answer,
  Assume,
  AssumeOf,
  AssumeSet,
  AssumeWhere,
  AssumeRange,
  Check,
  Derived,
  DerivedCase,
  Ending,
  Given,
  GridRow,
  Message,
  MissingCode,
  NextQuestionnaire,
  Option,
  PageBreak,
  Picture,
  Question,
  Questionnaire,
  Quota,
  Repeat,
  Section,
  ForecastSettings,
  PaceSettings,
  Prices,
  WantedBase,
  Settings,
  Skip,
  Statement,
  Target,
} from './types';

/** The kinds of parts, with what the types call them. */
interface Holders {
  study: Questionnaire;
  missing: MissingCode;
  given: Given;
  quota: Quota;
  section: Section;
  repeat: Repeat;
  skip: Skip;
  target: Target;
  question: Question;
  statement: Statement;
  pageBreak: PageBreak;
  picture: Picture;
  check: Check;
  answer: Answer;
  option: Option;
  row: GridRow;
  assume: Assume;
  assumeWhere: AssumeWhere;
  range: AssumeRange;
  derived: Derived;
  case: DerivedCase;
  ending: Ending;
  message: Message;
  next: NextQuestionnaire | { readonly url: string };
  settings: Settings;
  forecast: ForecastSettings;
  prices: Prices;
  wanted: WantedBase;
  assumeSet: AssumeSet;
  assumeOf: AssumeOf;
  pace: PaceSettings;
  defaults: NonNullable<Settings['defaults']>;
  theme: NonNullable<Settings['theme']>;
}
export type HolderKind = keyof Holders;

/** What a property holds. */
export type Holds =
  /** The name of a variable or statement, given here. */
  | 'name'
  /** The id of a section, an ending or a quota, given here. */
  | 'id'
  /** Names or ids of others. */
  | 'variable'
  | 'variables'
  | 'section'
  | 'ending'
  | 'condition'
  | 'expression'
  /** Words that somebody reads; into piped ones earlier answers can be put. */
  | 'words'
  | 'piped words'
  | 'code'
  | 'codes'
  | 'reason'
  /** Numbers, dates, lengths, seconds, shares. */
  | 'measure'
  | 'switch'
  /** One of a few words of the format. */
  | 'choice'
  /** A picture, an address, a colour, a font, a language; words that are for whoever forecasts alone. */
  | 'setting'
  | 'parts';

export interface Property {
  readonly holds: Holds;
  /** Of what kind the parts are that it holds, or the one part. */
  readonly parts?: PartOf;
  /** Decides who is presented what, or which answers there can be: with it, the routes may change. */
  readonly steers?: true;
  /** A respondent on the route sees it, or what follows from it on the spot. */
  readonly shown?: true;
  /** In a word, where that is not its name spelt out. */
  readonly called?: string;
  /** What is lost with it when the type of the answer changes. */
  readonly lost?: string;
}

export type PartOf = HolderKind | 'item';
type PropertyRow<Holder> = Readonly<Record<Holder extends unknown ? keyof Holder : never, Property>>;

const NAME: Property = { holds: 'name', steers: true };
const ID: Property = { holds: 'id', steers: true };
const CONDITION: Property = { holds: 'condition', steers: true, called: 'condition' };
const ASK_IF: Property = { holds: 'condition', steers: true, called: 'asked if' };
const VARIABLE: Property = { holds: 'variable', steers: true };
const LABEL: Property = { holds: 'words', called: 'label' };
const SHOWN: Property = { holds: 'words', shown: true };
const SWITCH: Property = { holds: 'switch' };
const parts = (of: PartOf): Property => ({ holds: 'parts', parts: of, steers: true });

export const PROPERTIES = {
  study: {
    format: { holds: 'choice', steers: true },
    version: { holds: 'choice', steers: true },
    title: { holds: 'words', called: 'title' },
    language: { holds: 'setting' },
    missing: { holds: 'parts', parts: 'missing', called: 'missing codes' },
    given: parts('given'),
    quotas: parts('quota'),
    sections: parts('section'),
    derived: parts('derived'),
    endings: parts('ending'),
    settings: { holds: 'parts', parts: 'settings' },
  },
  missing: {
    reason: { holds: 'reason' },
    code: { holds: 'code' },
    label: LABEL,
  },
  given: {
    name: NAME,
    label: LABEL,
    answer: { ...parts('answer'), called: 'answer type' },
    assume: { holds: 'parts', parts: 'assume', called: 'assumed answers' },
    random: SWITCH,
  },
  quota: {
    id: ID,
    label: LABEL,
    if: CONDITION,
    target: { holds: 'measure', steers: true },
    at: VARIABLE,
    to: parts('target'),
  },
  section: {
    id: ID,
    title: { holds: 'piped words', called: 'title' },
    intro: { holds: 'piped words', called: 'introduction' },
    kind: { holds: 'choice', steers: true, called: 'kind' },
    askIf: ASK_IF,
    repeat: parts('repeat'),
    draw: { holds: 'measure', steers: true },
    shuffle: { holds: 'switch', steers: true },
    timeLimit: { holds: 'measure' },
    onward: { ...parts('skip'), called: 'where its end leads' },
    items: parts('item'),
  },
  repeat: {
    times: VARIABLE,
    each: VARIABLE,
    max: { holds: 'measure', steers: true },
  },
  skip: {
    if: CONDITION,
    to: parts('target'),
  },
  target: {
    item: VARIABLE,
    section: { holds: 'section', steers: true },
    ending: { holds: 'ending', steers: true },
    nextPass: { holds: 'switch', steers: true },
  },
  question: {
    kind: { holds: 'choice', steers: true, called: 'kind' },
    name: NAME,
    text: { holds: 'piped words', shown: true, called: 'words' },
    askIf: ASK_IF,
    skips: { ...parts('skip'), called: 'skips' },
    label: LABEL,
    note: { holds: 'piped words', shown: true, called: 'note' },
    instruction: { holds: 'words', called: 'instruction' },
    image: { holds: 'parts', parts: 'picture', shown: true, called: 'picture' },
    required: { holds: 'switch', steers: true, shown: true, called: 'required' },
    requiredMessage: SHOWN,
    limitMessage: SHOWN,
    comment: SHOWN,
    answer: { ...parts('answer'), shown: true, called: 'answer type' },
    checks: { ...parts('check'), shown: true, called: 'checks' },
    agrees: { holds: 'codes' },
    sensitive: SWITCH,
    measure: { holds: 'choice' },
    missingCodes: { holds: 'codes' },
    seconds: { holds: 'measure' },
    assume: { holds: 'parts', parts: 'assume', called: 'assumed answers' },
  },
  statement: {
    kind: { holds: 'choice', steers: true, called: 'kind' },
    name: NAME,
    text: { holds: 'piped words', shown: true, called: 'words' },
    askIf: ASK_IF,
    skips: { ...parts('skip'), called: 'skips' },
    instruction: { holds: 'words', called: 'instruction' },
    image: { holds: 'parts', parts: 'picture', shown: true, called: 'picture' },
    seconds: { holds: 'measure' },
  },
  pageBreak: {
    kind: { holds: 'choice', steers: true },
  },
  picture: {
    src: { holds: 'setting', shown: true },
    alt: { holds: 'words' },
  },
  check: {
    if: CONDITION,
    kind: { holds: 'choice', steers: true, shown: true },
    message: SHOWN,
  },
  /** Of every type together: what has the same name means the same. */
  answer: {
    type: { holds: 'choice', steers: true, shown: true },
    options: { ...parts('option'), shown: true },
    specials: { ...parts('option'), shown: true },
    rows: { ...parts('row'), shown: true },
    columns: { holds: 'measure', shown: true },
    shuffleOptions: { holds: 'switch', shown: true },
    minPicks: { holds: 'measure', steers: true, shown: true, lost: 'numbers of picks' },
    maxPicks: { holds: 'measure', steers: true, shown: true, lost: 'numbers of picks' },
    picksMessage: SHOWN,
    min: { holds: 'measure', steers: true, shown: true, lost: 'limits' },
    max: { holds: 'measure', steers: true, shown: true, lost: 'limits' },
    step: { holds: 'measure', steers: true, shown: true },
    decimals: { holds: 'measure', steers: true, shown: true, lost: 'decimals' },
    unit: { holds: 'words', shown: true, lost: 'unit' },
    lowLabel: { holds: 'words', shown: true, lost: 'words of the ends' },
    midLabel: { holds: 'words', shown: true, lost: 'words of the ends' },
    highLabel: { holds: 'words', shown: true, lost: 'words of the ends' },
    lines: { holds: 'choice', shown: true },
    minLength: { holds: 'measure', steers: true, shown: true, lost: 'limits' },
    maxLength: { holds: 'measure', steers: true, shown: true, lost: 'limits' },
    pattern: { holds: 'choice', steers: true, shown: true, lost: 'pattern' },
    placeholder: { holds: 'words', shown: true, lost: 'placeholder' },
    pick: { holds: 'choice', steers: true, shown: true },
    top: { holds: 'measure', steers: true, shown: true, lost: 'places ranked' },
  },
  option: {
    code: { holds: 'code', steers: true, shown: true, called: 'code' },
    label: { holds: 'piped words', shown: true, called: 'label' },
    askIf: ASK_IF,
    specify: { holds: 'switch', shown: true },
    specifyLabel: SHOWN,
    specifyOptional: { holds: 'switch', shown: true },
    exclusive: { holds: 'switch', steers: true, shown: true },
    missing: { holds: 'reason', steers: true, shown: true },
    image: { holds: 'parts', parts: 'picture', shown: true, called: 'picture' },
  },
  row: {
    name: NAME,
    label: { holds: 'piped words', shown: true, called: 'label' },
    askIf: ASK_IF,
  },
  assume: {
    shares: { holds: 'measure' },
    ranges: { holds: 'parts', parts: 'range' },
    blank: { holds: 'measure' },
    source: { holds: 'words', called: 'source' },
    base: { holds: 'measure' },
    where: { holds: 'parts', parts: 'assumeWhere' },
  },
  assumeWhere: {
    if: { holds: 'condition', called: 'condition' },
    shares: { holds: 'measure' },
    ranges: { holds: 'parts', parts: 'range' },
    blank: { holds: 'measure' },
  },
  range: {
    from: { holds: 'measure' },
    to: { holds: 'measure' },
    share: { holds: 'measure' },
  },
  derived: {
    name: NAME,
    label: LABEL,
    cases: { ...parts('case'), called: 'cases' },
    else: parts('case'),
    value: { holds: 'expression', steers: true },
  },
  case: {
    if: CONDITION,
    code: { holds: 'code', steers: true },
    label: LABEL,
  },
  ending: {
    id: ID,
    kind: { holds: 'choice', steers: true, shown: true, called: 'kind' },
    messages: { ...parts('message'), shown: true, called: 'messages' },
    next: { holds: 'parts', parts: 'next', shown: true, called: 'what follows' },
  },
  message: {
    if: CONDITION,
    text: { holds: 'piped words', shown: true, called: 'words' },
  },
  next: {
    questionnaire: { holds: 'setting', shown: true },
    carry: { holds: 'variables', shown: true },
    url: { holds: 'setting', shown: true },
  },
  settings: {
    numbers: { holds: 'choice' },
    pages: { holds: 'choice' },
    progress: SWITCH,
    humanCheck: SWITCH,
    mode: { holds: 'choice' },
    maxMinutes: { holds: 'measure' },
    forecast: { holds: 'parts', parts: 'forecast', called: 'forecast' },
    pace: { holds: 'parts', parts: 'pace', called: 'pace' },
    defaults: { holds: 'parts', parts: 'defaults' },
    theme: { holds: 'parts', parts: 'theme' },
  },
  forecast: {
    starts: { holds: 'measure' },
    least: { holds: 'measure' },
    breakOff: { holds: 'measure' },
    response: { holds: 'measure' },
    designEffect: { holds: 'measure' },
    prices: { holds: 'parts', parts: 'prices' },
    wanted: { holds: 'parts', parts: 'wanted' },
    sets: { holds: 'parts', parts: 'assumeSet' },
  },
  prices: {
    start: { holds: 'measure' },
    screenOut: { holds: 'measure' },
    complete: { holds: 'measure' },
    currency: { holds: 'setting' },
  },
  wanted: {
    of: { holds: 'variable' },
    pass: { holds: 'measure' },
    n: { holds: 'measure' },
  },
  assumeSet: {
    name: { holds: 'setting' },
    assume: { holds: 'parts', parts: 'assumeOf' },
  },
  assumeOf: {
    of: { holds: 'variable' },
    shares: { holds: 'measure' },
    ranges: { holds: 'parts', parts: 'range' },
    blank: { holds: 'measure' },
    source: { holds: 'setting' },
    base: { holds: 'measure' },
    where: { holds: 'parts', parts: 'assumeWhere' },
  },
  pace: {
    words: { holds: 'measure' },
    single: { holds: 'measure' },
    pick: { holds: 'measure' },
    scale: { holds: 'measure' },
    number: { holds: 'measure' },
    shortText: { holds: 'measure' },
    longText: { holds: 'measure' },
    gridRow: { holds: 'measure' },
    rankPlace: { holds: 'measure' },
    source: { holds: 'setting' },
  },
  defaults: {
    required: SWITCH,
    dontKnow: SWITCH,
  },
  theme: {
    accent: { holds: 'setting' },
    font: { holds: 'setting' },
    logo: { holds: 'setting' },
  },
} as const satisfies { [Kind in HolderKind]: PropertyRow<Holders[Kind]> };

/** The properties of a kind, in the order in which they are gone through. */
export function propertiesOf(kind: HolderKind): Readonly<Record<string, Property>> {
  return PROPERTIES[kind];
}

/** Those that hold, show or do something, by name, in order. */
export function propertiesThat<Kind extends HolderKind>(
  kind: Kind,
  fits: (property: Property) => boolean,
): (keyof (typeof PROPERTIES)[Kind] & string)[] {
  return Object.entries(propertiesOf(kind)).flatMap(([name, property]) =>
    fits(property) ? [name as keyof (typeof PROPERTIES)[Kind] & string] : [],
  );
}

/** What a property is called in a sentence: `timeLimit` “time limit”. */
export function propertyWords(kind: HolderKind | null, name: string): string {
  const called = kind === null ? undefined : propertiesOf(kind)[name]?.called;
  return called ?? name.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
}

/** Every name that a property can have somewhere in a questionnaire; an edit that names another is none. */
export const PROPERTY_NAMES: ReadonlySet<string> = new Set(Object.values(PROPERTIES).flatMap(Object.keys));
