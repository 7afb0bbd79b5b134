/**
 * Questionnaires of any size, the same one for a size and seed, shaped like real ones: sections of about ten items,
 * each with one to three filters that steer two to eight followers; drivers that are read far away; skips to later
 * sections; ranges; a multiple that gates follow-ups; one repeat.
 */
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type { Answer, Item, Question, Questionnaire, Section, Skip } from '../src/core/document/types';
import { emptyQuestionnaire } from '../src/core/editing/structure';

export interface Shape {
  readonly items: number;
  /** Questions of the first section that are read in many later ones. */
  readonly longRange: number;
  readonly seed?: number;
}

export function generate({ items, longRange, seed = 1 }: Shape): Questionnaire {
  const random = xoroshiro128plus(seed);
  const int = (from: number, to: number) => uniformInt(random, from, to);
  const chance = (share: number) => int(1, 1000) <= share * 1000;
  const options = (count: number) =>
    Array.from({ length: count }, (_, n) => ({ code: n + 1, label: `Answer ${n + 1}` }));
  const single = (count: number): Answer => ({ type: 'single', options: options(count) });
  const ask = (name: string, answer: Answer, rest: Partial<Question> = {}): Question => ({
    kind: 'question',
    name,
    text: `What do you say about ${name}?`,
    answer,
    required: true,
    ...rest,
  });
  const drivers = Array.from({ length: longRange }, (_, n) => ask(`far${n}`, single(3)));
  const sections: Section[] = [
    {
      id: 'consent',
      title: 'Consent',
      kind: 'consent',
      items: [ask('agree', single(2), { skips: [{ if: 'agree = 2', to: { ending: 'declined' } }] })],
    },
    { id: 'first', title: 'First', kind: 'screening', items: drivers },
  ];
  let made = 1 + longRange;
  const topics = Math.max(1, Math.round((items - made) / 10));
  for (let s = 0; s < topics; s += 1) {
    const list: Item[] = [];
    const size = Math.min(10, items - made);
    const filters = int(1, 3);
    for (let f = 0; f < filters && list.length < size; f += 1) {
      const name = `s${s}f${f}`;
      const kind = int(0, 3);
      const tests =
        kind === 0
          ? Array.from({ length: 4 }, (_, n) => `${name} has ${n + 1}`)
          : kind === 1
            ? [`${name} < 18`, `${name} in (18..64)`, `${name} >= 65`]
            : [`${name} = 1`, `${name} in (2, 3)`];
      const answer: Answer =
        kind === 0
          ? { type: 'multiple', options: options(4) }
          : kind === 1
            ? { type: 'number', min: 0, max: 120 }
            : single(3);
      const skips: Skip[] =
        chance(0.25) && s < topics - 1
          ? [{ if: tests[0] as string, to: { section: `topic${int(s + 1, Math.min(topics - 1, s + 3))}` } }]
          : [];
      list.push(ask(name, answer, skips.length > 0 ? { skips } : {}));
      const followers = Math.min(int(2, 8), size - list.length);
      for (let n = 0; n < followers; n += 1) {
        list.push(ask(`${name}x${n}`, single(2), { askIf: tests[n % tests.length] as string }));
      }
    }
    while (list.length < size) list.push(ask(`s${s}plain${list.length}`, single(2)));
    const far = longRange > 0 && chance(0.5) ? `far${int(0, longRange - 1)}` : null;
    const last = list.at(-1);
    if (far !== null && last?.kind === 'question')
      list[list.length - 1] = { ...last, askIf: `${far} = ${int(1, 3)}` };
    const repeat = s === Math.floor(topics / 2) && s > 0;
    if (repeat) {
      const times = ask('times', { type: 'number', min: 0, max: 4 });
      sections.push({ id: 'times_of', title: 'Times', kind: 'topic', items: [times] });
      made += 1;
    }
    sections.push({
      id: `topic${s}`,
      title: `Topic ${s}`,
      kind: 'topic',
      items: repeat ? list.slice(0, 3).map((item) => ({ ...item, skips: undefined }) as Item) : list,
      ...(repeat ? { repeat: { times: 'times', max: 4 } } : {}),
    });
    made += list.length;
  }
  return { ...emptyQuestionnaire(`${items} items`), sections: sections.map(withoutGaps) };
}

/** A follower cut off from its filter (in a repeat of three items) is asked of everybody. */
function withoutGaps(section: Section): Section {
  const names = new Set(section.items.map((item) => (item.kind === 'page_break' ? '' : item.name)));
  const items = section.items.map((item): Item => {
    if (item.kind !== 'question' || item.askIf === undefined) return item;
    const [reads = ''] = item.askIf.split(' ');
    if (names.has(reads) || reads.startsWith('far')) return item;
    const { askIf: _, ...rest } = item;
    return rest;
  });
  return { ...section, items };
}

/** So many questions with a follow-up each, in sections of their own: 2 to that power routes. */
export function filters(count: number): Questionnaire {
  const yesNo: Answer = {
    type: 'single',
    options: [
      { code: 1, label: 'Yes' },
      { code: 2, label: 'No' },
    ],
  };
  const ask = (name: string, askIf?: string): Question => ({
    kind: 'question',
    name,
    text: `${name}?`,
    answer: yesNo,
    required: true,
    ...(askIf ? { askIf } : {}),
  });
  const sections = Array.from({ length: count }, (_, n): Section => ({
    id: `s${n}`,
    title: `Section ${n}`,
    kind: 'topic',
    items: [ask(`f${n}`), ask(`g${n}`, `f${n} = 1`)],
  }));
  return { ...emptyQuestionnaire(`${count} filters`), sections };
}

/** A multiple, each option of which leads to a question of its own. */
export function picksThatGate(options: number): Questionnaire {
  const codes = Array.from({ length: options }, (_, n) => n + 1);
  const picks: Question = {
    kind: 'question',
    name: 'picks',
    text: 'Which?',
    required: true,
    answer: { type: 'multiple', options: codes.map((code) => ({ code, label: `Option ${code}` })) },
  };
  const gated = codes.map((code): Question => ({
    kind: 'question',
    name: `about${code}`,
    text: `About option ${code}?`,
    askIf: `picks has ${code}`,
    answer: { type: 'number', min: 0, max: 10 },
  }));
  const section: Section = { id: 'a', title: 'Picks', kind: 'topic', items: [picks, ...gated] };
  return { ...emptyQuestionnaire(`${options} options`), sections: [section] };
}
