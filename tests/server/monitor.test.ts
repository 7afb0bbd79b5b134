/**
 * The monitor of a link through its doors, while a made-up panel answers: its figures are those of the tables over the same rows, and
 * behind each stand just the responses that it counts.
 */
import assert from 'node:assert/strict';
import { after, describe, it } from 'node:test';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import * as v from 'valibot';
import type { Picked } from '../../src/core/monitor/picked';
import { DAY, HOUR } from '../../src/core/panel/panel-settings';
import { trialRows } from '../../src/core/responding/trial-data';
import { Dataset } from '../../src/core/tables/dataset';
import { frequencyOf } from '../../src/core/tables/frequency';
import { tableVariables } from '../../src/core/tables/variables';
import { BehindSchema, MonitorSchema, TrailSchema, type Monitor } from '../../src/wire/monitor';
import { askStudy } from '../support/doors';
import { MONDAY, opened, panelOf, settings, STUDY } from '../support/made-up-panel';
import { planFor } from '../support/questionnaire';

const { store } = await import('../../src/store/open');
const { findPanel } = await import('../../src/store/panels');
const { listPeople } = await import('../../src/store/people');
const { listResponses, removeStopped } = await import('../../src/store/responses');
const { findTrial } = await import('../../src/store/trials');
const { listCounted } = await import('../../src/store/counted');

const plan = planFor(STUDY);

const watching: AbortController[] = [];

/** What is told, line after line, until a line is as wanted. */
async function watch(
  id: string,
  token: string,
  search = '?zone=Asia/Tokyo',
): Promise<{ until(is: (told: Monitor) => boolean): Promise<Monitor>; leave(): Promise<boolean> }> {
  const gone = new AbortController();
  watching.push(gone);
  const reply = await askStudy(id, 'trials/[token]/monitor', 'GET', {
    ...{ params: { token }, search, signal: gone.signal },
  });
  assert.equal(reply.status, 200);
  const told = (reply.body as ReadableStream<BufferSource>).pipeThrough(new TextDecoderStream()).getReader();
  return {
    async until(is) {
      for (;;) {
        const { value = '' } = await told.read();
        assert.match(value, /^data: .*\n\n$/);
        const monitor = v.parse(MonitorSchema, JSON.parse(value.slice(6)));
        if (is(monitor)) return monitor;
      }
    },
    async leave() {
      gone.abort();
      return (await told.read()).done;
    },
  };
}

describe('the monitor of a link', () => {
  // A stream that is left open keeps the process going.
  after(() => watching.forEach((gone) => gone.abort()));

  it('has the figures of the tables, and behind each the responses that it counts', async () => {
    const { id, token } = await panelOf(STUDY, settings({ careless: 30 }), 150);
    await opened(token).run({ until: Infinity, speed: null });
    const { until, leave } = await watch(id, token);
    const { figures } = await until((told) => told.figures !== null);
    assert.ok(figures);
    const responses = listResponses(store(), token);
    const rows = trialRows(
      plan,
      responses.map((response) => ({ ...response, person: null, part: 1 })),
    ).slice(1);
    const data = Dataset.ofRows(plan, rows);
    const all = rows.map((_, row) => row);
    const ofItem = (name: string) => figures.items.find((item) => item.name === name);
    for (const variable of tableVariables(plan)) {
      const item = ofItem(variable.id);
      if (item === undefined) continue;
      const table = frequencyOf(STUDY, data, variable, all);
      const blank = table.missing.find(({ reason }) => reason === 'no_answer')?.count ?? 0;
      assert.equal(item.asked, table.asked, variable.id);
      assert.equal(item.blank + item.left, blank, variable.id);
    }
    const compared = tableVariables(plan).filter(({ id: name }) => ofItem(name) !== undefined);
    assert.ok(compared.length >= 6, 'all questions but the grid');

    const people = listPeople(store(), token);
    const declined = people.filter(
      ({ key, isSettled }) => isSettled && !responses.some(({ person }) => person === `link ${key}`),
    ).length;
    const ended = (ending: string) => responses.filter((each) => each.ending === ending).length;
    assert.ok(declined > 0 && ended('done') > 10);
    assert.deepEqual(
      [figures.invited, figures.begun, figures.outcomes.complete, figures.outcomes.screened_out],
      [150, responses.length + declined, ended('done'), ended('out')],
    );
    assert.equal(figures.outcomes.declined, declined);
    assert.equal(figures.outcomes.broken_off, responses.filter(({ closedBy }) => closedBy === null).length);
    // A panel has days of its own, whoever looks.
    assert.deepEqual(figures.days[0], {
      ...{ day: '2026-11-30', isAhead: false, invited: 150, begun: figures.days[0]?.begun },
      outcomes: figures.days[0]?.outcomes,
    });
    const rr1 = figures.rates?.list.find(({ name }) => name === 'RR1');
    assert.deepEqual([rr1?.numerator, rr1?.denominator], [ended('done'), 150 - ended('out')]);

    const behind = async (picked: Picked) => {
      const search = `?${new URLSearchParams({ zone: 'UTC', picked: JSON.stringify(picked) }).toString()}`;
      const reply = await askStudy(id, 'trials/[token]/responses', 'GET', { params: { token }, search });
      return v.parse(BehindSchema, await reply.json());
    };
    const complete = await behind({ of: 'outcome', is: ['complete'] });
    assert.deepEqual(
      complete.responses.map(({ number }) => number).sort((a, b) => a - b),
      responses.filter(({ ending }) => ending === 'done').map(({ number }) => number),
    );
    assert.ok(complete.responses.every(({ name }) => /^Member \d+$/.test(name ?? '')));
    assert.equal((await behind({ of: 'outcome', is: ['declined'] })).onlyCounted, declined);
    assert.equal((await behind({ of: 'begun' })).total + declined, figures.begun);
    const unheard = await behind({ of: 'unheard' });
    assert.equal(unheard.total, figures.unheard);
    assert.equal(unheard.people.length, unheard.total);
    for (const { place, left } of figures.pages)
      assert.equal((await behind({ of: 'page', place, is: 'left' })).total, left);
    const fast = await behind({ of: 'fast' });
    assert.deepEqual([fast.total, fast.responses.every((each) => each.fast)], [figures.fast?.count, true]);
    const straight = await behind({ of: 'straight', grid: 'views' });
    assert.equal(straight.total, figures.grids[0]?.straight);
    assert.ok(fast.total > 0 && straight.total > 0);
    for (const { day, begun } of figures.days) {
      const found = await behind({ of: 'begun', day });
      assert.equal(found.total + found.onlyCounted, begun);
    }

    const [first] = complete.responses;
    const search = `?id=${first?.id}`;
    const reply = await askStudy(id, 'trials/[token]/responses', 'GET', { params: { token }, search });
    const trail = v.parse(TrailSchema, await reply.json());
    const stored = responses.find((each) => each.id === first?.id);
    assert.deepEqual(
      [trail.answers, trail.visits, trail.inHand],
      [stored?.kept.answers, stored?.kept.visits, null],
    );
    assert.equal(await leave(), true);
  });

  it('follows as they answer, and moves whoever sends nothing more to those who left', async () => {
    const { id, token } = await panelOf(STUDY, settings({ invitation: 100, breakOff: 100 }), 30);
    const { until, leave } = await watch(id, token);
    assert.equal((await until(({ figures }) => figures !== null)).figures?.begun, 0);
    const run = opened(token);
    await run.run({ until: MONDAY + 11 * HOUR, speed: null });
    const first = await until(({ figures }) => (figures?.begun ?? 0) > 0);
    await run.run({ until: MONDAY + 2 * DAY, speed: null });
    const later = await until(({ now }) => now >= MONDAY + 2 * DAY);
    const seen = await until(
      ({ figures, now }) => now >= MONDAY + 2 * DAY && figures?.outcomes.under_way === 0,
    );
    assert.ok((seen.figures?.begun ?? 0) > (first.figures?.begun ?? 0));
    assert.ok((seen.figures?.outcomes.broken_off ?? 0) > 0);
    assert.equal(later.now, findPanel(store(), token)?.clock);
    // From the screening on, whoever left counts as a partial interview.
    const body = { token, settings: { ...seen.link.settings, partialFrom: 'screen' } };
    assert.equal((await askStudy(id, 'trials/index', 'PATCH', { body })).status, 200);
    const { figures } = await until((told) => (told.figures?.outcomes.partial ?? 0) > 0);
    assert.equal(
      (figures?.outcomes.partial ?? 0) + (figures?.outcomes.broken_off ?? 0),
      seen.figures?.outcomes.broken_off,
    );
    assert.ok(figures?.rates?.list.some(({ name }) => name === 'RR2'));
    await leave();
  });

  it('ends with whoever goes, also where nothing else is left that holds what they asked by', async () => {
    const { id, token } = await panelOf(STUDY, settings(), 1);
    const { until, leave } = await watch(id, token);
    await until(() => true);
    // What Node hands an abort on by is held weakly, and gone once memory is tidied up.
    setFlagsFromString('--expose-gc');
    const collect = runInNewContext('gc') as () => void;
    for (let n = 0; n < 5; n += 1) {
      collect();
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    const timer = setTimeout(() => assert.fail('nothing ends it'), 5000);
    assert.equal(await leave(), true);
    clearTimeout(timer);
  });

  it('counts by the hour those of whom nothing is kept', async () => {
    const { token } = await panelOf(STUDY, settings({ invitation: 100, refuse: 100 }), 20);
    await opened(token).run({ until: Infinity, speed: null });
    const counted = listCounted(store(), token);
    assert.ok(counted.length > 1 && counted.every(({ at }) => at % HOUR === 0));
    assert.equal(
      counted.reduce((sum, { count }) => sum + count, 0),
      findTrial(store(), token)?.declined,
    );
    const other = await panelOf(STUDY, settings({ invitation: 100, breakOff: 100 }), 20);
    await opened(other.token).run({ until: MONDAY + 5 * DAY, speed: null });
    const left = listResponses(store(), other.token).filter(({ closedBy }) => closedBy === null);
    const before = findTrial(store(), other.token);
    assert.ok(before && left.length > 0);
    const asked = {
      token: other.token,
      settings: { ...before.settings, stopped: 'remove' as const, stoppedAfter: 1 },
    };
    assert.equal(removeStopped(store(), asked, MONDAY + 5 * DAY), left.length);
    const removed = listCounted(store(), other.token).filter(({ what }) => what === 'removed');
    assert.deepEqual(
      removed.flatMap(({ at, count }) => Array.from({ length: count }, () => at)),
      left.map(({ changedAt }) => changedAt - (changedAt % HOUR)).sort((a, b) => a - b),
    );
    assert.equal(findTrial(store(), other.token)?.removed, left.length);
  });

  it('refuses what it cannot tell, in words', async () => {
    const { id, token } = await panelOf(STUDY, settings(), 1);
    const status = async (door: string, search: string, params = { token }) =>
      (await askStudy(id, `trials/[token]/${door}`, 'GET', { params, search })).status;
    assert.equal(await status('monitor', '?zone=Nowhere/Town'), 400);
    assert.equal(await status('monitor', '?zone=UTC&questionnaire=7'), 400);
    assert.equal(await status('monitor', '?zone=UTC', { token: 'other' }), 404);
    assert.equal(await status('responses', '?id=other'), 404);
    assert.equal(await status('responses', '?zone=UTC&picked={"of":"everything"}'), 400);
    assert.equal(await status('responses', '?zone=UTC&picked=nonsense'), 400);
  });
});
