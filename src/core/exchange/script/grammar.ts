/**
 * The grammar of the plain-text script: every property of a questionnaire by what it looks like on a line. Told to people in
 * `docs/script-text.md`. A property that is missing here fails the test beside it.
 */
import { onwardSlot, rangeSlot, repeatSlot, skipShape, targetSlot, typedAnswer } from './special';
import type { AnswerType } from '../../document/types';
import { flag, headed, listed, number, numbersByKey, part, parts, text, type Slot } from './slots';

const ASK_IF = text('askIf', 'ask if');
const picture = (): Slot => part('image', headed('picture', { text: 'src' }, [text('alt', 'instead of it')]));

const OPTION_SLOTS: readonly Slot[] = [
  flag('specify', 'specify'),
  text('specifyLabel', 'specify as'),
  flag('specifyOptional', 'may be left unspecified', 'must be specified'),
  flag('exclusive', 'excludes the others', 'goes with others'),
  text('missing', 'missing'),
  ASK_IF,
  picture(),
];
const option = headed('', { named: ['code', 'code'], text: 'label' }, OPTION_SLOTS);
const special = headed('beside', { named: ['code', 'code'], text: 'label' }, OPTION_SLOTS);
const row = headed('row', { named: ['name', 'name'], text: 'label' }, [ASK_IF]);

const options = parts('options', 'no answers', option);
const specials = parts('specials', 'nothing beside', special);
const shuffled = flag('shuffleOptions', 'answers in random order', 'answers in order');
const columns = number('columns', 'columns');
const limits = (of: (property: string, words: string) => Slot) => [of('min', 'least'), of('max', 'most')];

/** By type of answer, what can stand under it. */
const ANSWERS: Readonly<Record<AnswerType, readonly Slot[]>> = {
  single: [columns, shuffled, options],
  multiple: [
    number('minPicks', 'least picks'),
    number('maxPicks', 'most picks'),
    text('picksMessage', 'message for picks'),
    columns,
    shuffled,
    options,
  ],
  scale: [
    ...limits(number),
    number('step', 'step'),
    text('lowLabel', 'low end'),
    text('midLabel', 'middle'),
    text('highLabel', 'high end'),
    specials,
  ],
  number: [...limits(number), number('decimals', 'decimals'), text('unit', 'unit'), specials],
  text: [
    text('lines', 'lines'),
    number('minLength', 'least letters'),
    number('maxLength', 'most letters'),
    text('pattern', 'pattern'),
    text('placeholder', 'placeholder'),
  ],
  date: [...limits(text), specials],
  time: [...limits(text), specials],
  datetime: [...limits(text), specials],
  grid: [text('pick', 'picks a row'), shuffled, parts('rows', 'no rows', row), options],
  rank: [number('top', 'places'), shuffled, options],
};

const answer = part('answer', typedAnswer(ANSWERS));
const ASSUMED_SHARES: readonly Slot[] = [
  numbersByKey('shares', 'share of', 'no shares'),
  rangeSlot,
  number('blank', 'blank'),
];
const assumeWhere = headed('of those where', { text: 'if' }, ASSUMED_SHARES);
const KNOWN_FROM: readonly Slot[] = [text('source', 'source'), number('base', 'seen among')];
const APART = parts('where', 'of nobody apart', assumeWhere);
const assumedOf = (apart: readonly Slot[]) =>
  part('assume', headed('assumed', {}, [...ASSUMED_SHARES, ...KNOWN_FROM, ...apart]));
const skips = parts('skips', 'no skips', skipShape);

const check = headed('check', { text: 'message' }, [text('if', 'if'), text('kind', 'kind')]);

const question = headed(
  'question',
  { named: ['name', 'name'], text: 'text', fixed: { kind: 'question' }, apart: true },
  [
    text('label', 'label'),
    text('note', 'note'),
    text('instruction', 'instruction'),
    picture(),
    ASK_IF,
    answer,
    flag('required', 'required'),
    text('requiredMessage', 'message if blank'),
    text('limitMessage', 'message for limits'),
    listed('agrees', 'agrees', 'codes'),
    flag('sensitive', 'sensitive'),
    text('measure', 'measure'),
    numbersByKey('missingCodes', 'code for', 'no codes of its own'),
    text('comment', 'remark'),
    number('seconds', 'seconds'),
    assumedOf([APART]),
    parts('checks', 'no checks', check),
    skips,
  ],
);
const statement = headed(
  'statement',
  { named: ['name', 'name'], text: 'text', fixed: { kind: 'statement' }, apart: true },
  [text('instruction', 'instruction'), picture(), ASK_IF, number('seconds', 'seconds'), skips],
);
const pageBreak = headed('page break', { fixed: { kind: 'page_break' }, apart: true }, []);

const section = headed('section', { named: ['id', 'name'], text: 'title', apart: true }, [
  text('kind', 'kind'),
  text('intro', 'introduction'),
  ASK_IF,
  repeatSlot,
  number('draw', 'draw'),
  flag('shuffle', 'items in random order', 'items in order'),
  number('timeLimit', 'seconds at most'),
  parts('items', 'no items', question, statement, pageBreak),
  onwardSlot,
]);

const given = headed('given', { named: ['name', 'name'], text: 'label', apart: true }, [
  answer,
  assumedOf([]),
  flag('random', 'drawn at random', 'not drawn'),
]);
const quota = headed('quota', { named: ['id', 'name'], text: 'label', apart: true }, [
  text('if', 'if'),
  number('target', 'target'),
  text('at', 'after'),
  targetSlot('to', 'full'),
]);
const missing = headed('missing', { named: ['reason', 'name'], text: 'label' }, [number('code', 'code')]);
const derivedCase = headed('case', { named: ['code', 'code'], text: 'label' }, [text('if', 'if')]);
const otherwise = headed('else', { named: ['code', 'code'], text: 'label' }, []);
const derived = headed('derived', { named: ['name', 'name'], text: 'label', apart: true }, [
  parts('cases', 'no cases', derivedCase),
  part('else', otherwise),
  text('value', 'value'),
]);

const message = headed('message', { text: 'text' }, [text('if', 'if')]);
const ending = headed('ending', { named: ['id', 'name'], apart: true }, [
  text('kind', 'kind'),
  parts('messages', 'no messages', message),
  part(
    'next',
    headed('next study', { text: 'questionnaire' }, [listed('carry', 'carry', 'names')]),
    headed('next address', { text: 'url' }, []),
  ),
]);

const assumeOf = headed('assumed of', { named: ['of', 'name'] }, [...ASSUMED_SHARES, ...KNOWN_FROM, APART]);

const settings = headed('settings', { apart: true }, [
  text('numbers', 'numbers'),
  text('pages', 'pages'),
  flag('progress', 'progress shown', 'progress not shown'),
  flag('humanCheck', 'human check', 'no human check'),
  text('mode', 'mode'),
  number('maxMinutes', 'minutes at most'),
  part(
    'forecast',
    headed('forecast', {}, [
      number('starts', 'who start'),
      number('least', 'least base'),
      number('breakOff', 'breaking off a minute'),
      number('response', 'response'),
      number('designEffect', 'design effect'),
      part(
        'prices',
        headed('prices', {}, [
          number('start', 'a start'),
          number('screenOut', 'a screen-out'),
          number('complete', 'a complete'),
          text('currency', 'currency'),
        ]),
      ),
      parts(
        'wanted',
        'no bases wanted',
        headed('wanted of', { named: ['of', 'name'] }, [number('n', 'people'), number('pass', 'in pass')]),
      ),
      parts(
        'sets',
        'no sets',
        headed('set', { text: 'name' }, [parts('assume', 'as at the questions', assumeOf)]),
      ),
    ]),
  ),
  part(
    'pace',
    headed('pace', {}, [
      number('words', 'words a minute'),
      number('single', 'seconds a single'),
      number('pick', 'seconds a pick'),
      number('scale', 'seconds a scale'),
      number('number', 'seconds a number'),
      number('shortText', 'seconds a short text'),
      number('longText', 'seconds a long text'),
      number('gridRow', 'seconds a row'),
      number('rankPlace', 'seconds a place'),
      text('source', 'source'),
    ]),
  ),
  part(
    'defaults',
    headed('new questions', {}, [
      flag('required', 'required'),
      flag('dontKnow', 'with don’t know', 'without don’t know'),
    ]),
  ),
  part('theme', headed('theme', {}, [text('accent', 'accent'), text('font', 'font'), text('logo', 'logo')])),
]);

/** What stands at the margin, in the order in which it is written. */
export const STUDY: readonly Slot[] = [
  text('title', 'title'),
  text('language', 'language'),
  parts('missing', 'no missing codes', missing),
  parts('given', 'nothing given', given),
  parts('quotas', 'no quotas', quota),
  parts('sections', 'no sections', section),
  parts('derived', 'nothing derived', derived),
  parts('endings', 'no endings', ending),
  part('settings', settings),
];
