/**
 * Made-up panels through the doors of respondents, with the database in memory: what members do follows from the panel's seed alone,
 * whatever is interrupted; letters go to those they are for.
 */
import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { describe, it } from 'node:test';
import { gunzipSync } from 'node:zlib';
import type { Answers, Questionnaire } from '../../src/core/document/types';
import type { LetterKind } from '../../src/core/panel/letters';
import { DAY, HOUR, panelEnds } from '../../src/core/panel/panel-settings';
import { columnsOf } from '../../src/core/coding/columns';
import { rowOfCase } from '../../src/core/responding/case-data';
import { walk } from '../../src/core/routing/walk';
import type { Panel } from '../../src/wire/panels';
import { ask, askStudy } from '../support/doors';
import { MONDAY, opened, panelOf, settings, STUDY } from '../support/made-up-panel';
import { planFor } from '../support/questionnaire';

process.env.JOLLY_FORK_DATA = ':memory:';
const { store } = await import('../../src/store/open');
const { findStudy, saveStudy } = await import('../../src/store/studies');
const { findDataset } = await import('../../src/store/datasets');
const { listPeople } = await import('../../src/store/people');
const { findPanel, letterOf, lettersSent } = await import('../../src/store/panels');
const { keyOf, listResponses } = await import('../../src/store/responses');

/** What came of each, by name: nothing, or where they ended with which answers, on which day. */
function outcome(token: string): Record<string, unknown> {
  const responses = new Map(listResponses(store(), token).map((each) => [keyOf(each), each]));
  return Object.fromEntries(
    listPeople(store(), token).map(({ key, name, isSettled }) => {
      const of = responses.get(key);
      const { ending = null, closedBy = null, device = null } = of ?? {};
      return [
        name,
        { isSettled, ending, closedBy, device, answers: of?.kept.answers, pages: of?.kept.visits },
      ];
    }),
  );
}

describe('a made-up panel', () => {
  it('comes to the same whether it runs at one go or is stopped, started anew and has doors that fail', async () => {
    const straight = await panelOf(STUDY, settings());
    await opened(straight.token).run({ until: Infinity, speed: null });
    const broken = await panelOf(STUDY, settings());
    let [asked, starts] = [0, 0];
    for (let clock = MONDAY; clock < panelEnds(settings()); starts += 1) {
      const run = opened(broken.token, () => (asked += 1) % 17 === 0);
      const until = clock + 5 * HOUR * (1 + (starts % 7));
      await run.run({ until, speed: null }).catch(() => undefined);
      clock = findPanel(store(), broken.token)?.clock ?? clock;
    }
    assert.ok(starts > 20, `${starts} starts`);
    assert.deepEqual(outcome(broken.token), outcome(straight.token));
    const kinds = new Set(
      Object.values(outcome(straight.token)).map((of) => JSON.stringify((of as { ending: unknown }).ending)),
    );
    assert.deepEqual([...kinds].sort(), ['"done"', '"out"', 'null']);
  });

  it('writes to those who are meant, once: no reminder to whoever has finished or declined, thanks to those who completed', async () => {
    const { token } = await panelOf(STUDY, settings());
    await opened(token).run({ until: Infinity, speed: null });
    const people = listPeople(store(), token);
    const responses = new Map(listResponses(store(), token).map((each) => [keyOf(each), each]));
    const had = (key: string, kind: LetterKind) =>
      lettersSent(store(), token).find((letter) => letter.person === key && letter.kind === kind);
    for (const { key, isSettled } of people) {
      assert.equal(had(key, 'invitation')?.at, MONDAY + 9 * HOUR);
      const of = responses.get(key);
      const closedAt = of?.kept.closed?.at ?? Infinity;
      for (const [kind, day] of [
        ['reminder', 3],
        ['second_reminder', 7],
      ] as const) {
        const at = MONDAY + day * DAY + 9 * HOUR;
        if (of !== undefined) assert.equal(had(key, kind)?.at, closedAt > at ? at : undefined, kind);
        else if (!isSettled) assert.equal(had(key, kind)?.at, at);
      }
      assert.equal(had(key, 'thanks') !== undefined, of?.ending === 'done');
    }
    assert.ok(
      people.some(({ key, isSettled }) => isSettled && !responses.has(key)),
      'somebody has declined',
    );
    assert.ok(
      people.some(({ key, isSettled }) => isSettled && !responses.has(key) && !had(key, 'second_reminder')),
    );
  });

  it('answers like a person: rows as walked, pages at their pace, none at night on the first page, careless ones in one column', async () => {
    const { token } = await panelOf(STUDY, settings({ careless: 50, phones: 100 }));
    await opened(token).run({ until: Infinity, speed: null });
    const plan = planFor(STUDY);
    const cases = listResponses(store(), token);
    for (const { kept, device } of cases) {
      assert.equal(device, 'narrow');
      const hour = new Date(kept.startedAt).getUTCHours();
      assert.ok(hour >= 7 && hour < 22, `${hour} o’clock`);
      const { answers, given } = kept;
      assert.ok(
        walk(plan, { answers, given, timedOut: kept.timedOut, ...(kept.closed ? {} : { lenient: true }) }).ok,
      );
      assert.ok(Object.keys(rowOfCase(plan, kept)).length > 0);
    }
    const complete = cases.filter(({ ending }) => ending === 'done').map(({ kept }) => kept);
    const minutes = complete.map(({ visits }) => visits.reduce((sum, { seconds }) => sum + seconds, 0) / 60);
    const same = ({ answers }: { answers: Answers }) =>
      answers.heat === answers.cost && answers.cost === answers.noise;
    assert.ok(minutes.some((of) => of < 0.4) && minutes.some((of) => of > 0.6), minutes.join(' '));
    assert.ok(complete.filter(same).length > complete.length / 3);
    assert.ok(
      complete.some(({ timedOut }) => timedOut.length > 0),
      'the time of a section runs out for some',
    );
  });

  it('stays away from a link that is paused, and comes when it is open again', async () => {
    const { id, token } = await panelOf(STUDY, settings({ invitation: 100, refuse: 0, breakOff: 0 }), 10);
    await askStudy(id, 'trials/index', 'PATCH', { body: { token, state: 'paused' } });
    const run = opened(token);
    await run.run({ until: MONDAY + 3 * DAY, speed: null });
    assert.equal(listResponses(store(), token).length, 0);
    await askStudy(id, 'trials/index', 'PATCH', { body: { token, state: 'open' } });
    await run.run({ until: Infinity, speed: null });
    const begun = listResponses(store(), token);
    assert.ok(begun.length > 0 && begun.every(({ kept }) => kept.startedAt > MONDAY + 3 * DAY));
  });

  it('puts the link and what is known of somebody into letters, and refuses what is not known', async () => {
    const own = settings();
    const texts = { ...own.texts, invitation: { subject: 'To {person}', text: 'In the {region}: {link}' } };
    const { id, token } = await panelOf(STUDY, { ...own, texts }, 3);
    await opened(token).run({ until: MONDAY + DAY, speed: null });
    const [first] = listPeople(store(), token);
    const letter = letterOf(
      store(),
      token,
      { kind: 'invitation', at: MONDAY + 9 * HOUR },
      { name: 'member 1' },
    );
    const region = first?.given.region === 1 ? 'North' : 'South';
    assert.equal(letter?.subject, 'To Member 1');
    assert.equal(letter?.text, `In the ${region}: /answer/${token}/${first?.key}`);
    const body = (changed: object) => ({
      do: 'settle',
      settings: { ...own, texts: { ...texts, ...changed } },
    });
    const settle = async (changed: object) => {
      const reply = await askStudy(id, 'trials/[token]/panel', 'PATCH', {
        params: { token },
        body: body(changed),
      });
      return { status: reply.status, problem: ((await reply.json()) as { problem?: string }).problem ?? '' };
    };
    assert.match(
      (await settle({ reminder: { subject: 'x', text: 'no link' } })).problem,
      /First reminder: put \{link\}/,
    );
    assert.match(
      (await settle({ thanks: { subject: '{salary}', text: 'x' } })).problem,
      /\{salary\} is not known/,
    );
    assert.equal((await settle({ thanks: { subject: 'Thanks', text: 'For {region}' } })).status, 200);
  });

  it('gives its rows to tables and its shares to the draft, as long as that has the same columns', async () => {
    const { id, token } = await panelOf(STUDY, settings({ invitation: 100 }), 40);
    await opened(token).run({ until: Infinity, speed: null });
    const params = { token };
    const kept = await askStudy(id, 'trials/[token]/rows', 'POST', { params });
    assert.equal(kept.status, 201);
    const [dataset] = (await kept.json()) as { id: string; name: string; rows: number }[];
    const responses = listResponses(store(), token);
    assert.deepEqual([dataset?.name, dataset?.rows], ['Trial: Panel', responses.length]);
    const packed = findDataset(store(), id, dataset?.id ?? '');
    const [header = '', ...lines] = gunzipSync(packed ?? '')
      .toString()
      .trim()
      .split(/\r?\n/);
    const plan = planFor(STUDY);
    assert.deepEqual(
      header.split(','),
      columnsOf(plan).map(({ name }) => name),
    );
    responses.forEach(({ kept: of }, n) => {
      const row = rowOfCase(plan, of);
      assert.deepEqual(
        lines[n]?.split(','),
        columnsOf(plan).map(({ name }) => String(row[name] ?? '')),
      );
    });
    const seen = (await (await askStudy(id, 'trials/[token]/shares', 'GET', { params })).json()) as {
      responses: number;
      shares: Record<string, { base: number; assume: { shares: Record<string, number> } }>;
    };
    const owners = responses.filter(({ kept: { answers } }) => answers.owner !== undefined);
    const yes = owners.filter(({ kept: { answers } }) => answers.owner === 1).length;
    assert.deepEqual(seen.shares.owner, {
      base: owners.length,
      assume: { shares: { 1: yes / owners.length, 2: 1 - yes / owners.length } },
    });
    const draft = findStudy(store(), id);
    const document = JSON.parse(
      JSON.stringify(draft?.document).replaceAll('"noise"', '"quiet"'),
    ) as Questionnaire;
    saveStudy(store(), id, draft?.revision ?? 0, document, 1);
    const refused = await askStudy(id, 'trials/[token]/rows', 'POST', { params });
    assert.match(
      ((await refused.json()) as { problem: string }).problem,
      /^Not kept: .*\(noise\)\. Open the rows in Audit/,
    );
  });

  it('lets what is assumed otherwise hold for what is still to come, not for what is past', async () => {
    const { id, token } = await panelOf(STUDY, settings({ invitation: 90, breakOff: 100 }));
    const clock = MONDAY + 2 * DAY;
    await opened(token).run({ until: clock, speed: null });
    const before = new Map(listResponses(store(), token).map((each) => [each.id, each.changedAt]));
    assert.ok(before.size > 10);
    const body = { do: 'settle', settings: settings({ invitation: 100, breakOff: 0, comeBack: 100 }) };
    const reply = await askStudy(id, 'trials/[token]/panel', 'PATCH', { params: { token }, body });
    assert.equal(reply.status, 200);
    await opened(token).run({ until: Infinity, speed: null });
    const after = listResponses(store(), token);
    const moved = after.filter((each) => before.get(each.id) !== each.changedAt);
    assert.ok(moved.length > 10);
    for (const { changedAt } of moved) assert.ok(changedAt > clock, new Date(changedAt).toISOString());
  });

  it('tells whoever looks how all panels of a study stand, when that changes and not before', async () => {
    const { id, token } = await panelOf(STUDY, settings(), 5);
    const gone = new AbortController();
    const { body } = await askStudy(id, 'trials/live', 'GET', { signal: gone.signal });
    const told = (body as ReadableStream<BufferSource>).pipeThrough(new TextDecoderStream()).getReader();
    const next = async () => {
      const { value = '' } = await told.read();
      assert.match(value, /^data: .*\n\n$/);
      return (JSON.parse(value.slice(6)) as Record<string, Panel>)[token];
    };
    assert.equal((await next())?.members, 5);
    await opened(token).run({ until: MONDAY + 10 * HOUR, speed: null });
    const after = await next();
    assert.equal(after?.clock, MONDAY + 10 * HOUR);
    assert.deepEqual(after.piles, [{ kind: 'invitation', at: MONDAY + 9 * HOUR, count: 5 }]);
    gone.abort();
    assert.equal((await told.read()).done, true);
  });

  it('does not let a browser say what time it is', async () => {
    const { token } = await panelOf(STUDY, settings({ invitation: 0 }), 2);
    const [somebody] = listPeople(store(), token);
    const body = { ticket: randomUUID(), device: 'wide', browser: null, key: somebody?.key };
    const reply = await ask('answer/[token]/[door].ts', 'POST', { params: { token, door: 'begin' }, body });
    assert.equal(reply.status, 200);
    assert.equal(listResponses(store(), token)[0]?.kept.startedAt, MONDAY);
  });
});
