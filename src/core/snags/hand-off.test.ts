/** What a hand-off names and carries, held against the studies there are. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { applyAll } from '../editing/change';
import { planOf } from '../routing/planner';
import { carriable, givenLike, handOffSnags, namedStudy, type OtherStudy } from './hand-off';

const single = (...codes: number[]) => ({
  type: 'single' as const,
  options: codes.map((code) => ({ code, label: `Answer ${code}` })),
});
const diary: OtherStudy = {
  id: 'b2',
  title: 'Winter Diary',
  given: [
    { name: 'tenure', label: 'Tenure', answer: single(1, 2) },
    { name: 'people', label: 'People', answer: { type: 'number', min: 1, max: 12 } },
    { name: 'arm', label: 'Arm', answer: single(1, 2), random: true },
  ],
};

const handing = (next: { questionnaire: string; carry?: string[] }) =>
  questionnaire(
    [
      section('a', [
        ask('tenure', 2, { required: true }),
        ask('people', { type: 'number', min: 1, max: 20 }),
        ask('cat', 2),
      ]),
    ],
    {
      endings: [
        { id: 'done', kind: 'hand_off', messages: [], next },
        { id: 'end', kind: 'complete', messages: [] },
      ],
    },
  );

describe('a hand-off', () => {
  it('finds its study by id, file name or title', () => {
    for (const name of ['b2', 'winter-diary', 'Winter Diary', 'winter-diary.fork.json'])
      assert.equal(namedStudy([diary], name), diary, name);
    assert.equal(namedStudy([diary], 'summer-diary'), null);
  });

  it('is a snag where there is no such study, with those there are to choose from', () => {
    const document = handing({ questionnaire: 'diary', carry: ['tenure', 'people'] });
    const [snag, ...more] = handOffSnags(planFor(document), [diary]);
    assert.equal(more.length, 0);
    assert.deepEqual(
      [snag?.rule, snag?.at, snag?.mends?.map(({ label }) => label)],
      ['hand-off', { ending: 'done' }, ['Hand on to “Winter Diary”']],
    );
    const mended = planOf(applyAll(document, snag?.mends?.[0]?.patches ?? []));
    assert.ok(!handOffSnags(mended, [diary]).some(({ message }) => message.includes('no study')));
  });

  it('carries an answer only where every code of it is known there', () => {
    const misfits = (...codes: number[]) => {
      const other = { ...diary, given: [{ name: 'tenure', label: 'Tenure', answer: single(...codes) }] };
      const carrying = handing({ questionnaire: 'b2', carry: ['tenure'] });
      return handOffSnags(planFor(carrying), [other]).map(({ message }) => message);
    };
    assert.deepEqual(misfits(1, 2), []);
    assert.deepEqual(misfits(1, 2, 3), []);
    assert.match(misfits(1)[0] ?? '', /it has no code 2 there/);
    assert.match(misfits(3)[0] ?? '', /it has no code 1, 2 there/);
  });

  it('is a snag where it carries what is not taken, or does not carry what is needed', () => {
    const messages = (carry: string[]) =>
      handOffSnags(planFor(handing({ questionnaire: 'winter-diary', carry })), [diary]).map(
        ({ message }) => message,
      );
    assert.deepEqual(messages(['tenure', 'people']), [
      'this carries people on, and there it runs from 1 to 12, here from 1 to 20',
    ]);
    assert.deepEqual(messages(['tenure', 'people', 'cat']).slice(1), [
      'this carries cat on, and “Winter Diary” takes no value of that name: add it there',
    ]);
    assert.deepEqual(messages([]), [
      '“Winter Diary” is to know tenure before it starts, and this does not carry it on',
      '“Winter Diary” is to know people before it starts, and this does not carry it on',
    ]);
  });

  it('offers the values of the same name and codes, and says how a new one would be taken', () => {
    const plan = planFor(handing({ questionnaire: 'winter-diary' }));
    assert.deepEqual(carriable(plan, diary), ['tenure']);
    assert.deepEqual(givenLike(plan, 'cat'), { name: 'cat', label: 'cat?', answer: ask('x', 2).answer });
  });
});
