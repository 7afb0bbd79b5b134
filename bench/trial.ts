/**
 * `npm run bench -- trial`: 200 respondents at once under a link, with a quota; the same while the server is killed a hundred times;
 * and how soon a phone shows the first question. Writes docs/performance-trial.md.
 */
import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { chromium } from '@playwright/test';
import { format, resolveConfig } from 'prettier';
import * as v from 'valibot';
import { CHROMIUM_ARGS } from '../scripts/chromium-args.mjs';
import { chromium as chromiumPath } from '../scripts/setup.mjs';
import { readDocument } from '../src/core/document/read';
import type { Questionnaire } from '../src/core/document/types';
import { USUAL_TRIAL } from '../src/core/responding/trial-settings';
import { planOf } from '../src/core/routing/planner';
import { madeUpRespondents } from '../src/core/simulate/respondents';
import type { Answered, Ask } from '../src/respondent/doors';
import { Keeping } from '../src/respondent/keeping';
import { Sitter } from '../src/respondent/sitter';
import { AnswerPageSchema, AnswerRefusal, SittingSchema } from '../src/wire/answer';
import { fill, storage } from '../tests/support/respondent';
import { BuiltServer } from '../tests/support/server';
import { markdown } from './timing';

const root = process.cwd();
const RESPONDENTS = 200;
/** Seconds that somebody takes for a page, on average: far quicker than people are. */
const THINKING = 6;
const TARGET = 25;
const KILLS = 100;

interface Trial {
  readonly server: BuiltServer;
  readonly token: string;
  readonly study: string;
  readonly document: Questionnaire;
}

/** The demo without what is drawn for each (people are made up before), with a quota at its third question. */
function quotaed(): Questionnaire {
  const demo = JSON.parse(
    readFileSync(path.join(root, 'demo', 'tern-valley-home-heating.fork.json'), 'utf8'),
  ) as Questionnaire;
  return {
    ...demo,
    sections: demo.sections.map(({ draw: _draw, ...section }) => section),
    quotas: [
      {
        id: 'renters',
        label: 'Renters',
        if: 'tenure = 2',
        target: TARGET,
        at: 'tenure',
        to: { ending: 'enough' },
      },
    ],
    endings: [
      ...demo.endings,
      { id: 'enough', kind: 'quota_full', messages: [{ text: 'We have enough renters.' }] },
    ],
  };
}

async function trial(): Promise<Trial> {
  const server = new BuiltServer(mkdtempSync(path.join(tmpdir(), 'jolly-fork-trial-')));
  await server.start();
  const document = quotaed();
  const { id } = (await server.call('POST', '/api/studies', { document })).body as { id: string };
  const made = await server.call('POST', `/api/studies/${id}/trials`, {
    ...{ name: 'Load', version: null, settings: USUAL_TRIAL },
  });
  assert.equal(made.status, 201, JSON.stringify(made.body));
  return { server, document, study: id, token: (made.body as { token: string }).token };
}

/** Asks as a page does; notes how long an answer took that came. */
const asking =
  ({ server, token }: Trial, took: Map<string, number[]>): Ask =>
  async (door, body): Promise<Answered> => {
    const began = performance.now();
    const { status, body: json } = await server.call('POST', `/api/answer/${token}/${door}`, body);
    if (status === 0 || status >= 500) return { is: 'away', problem: 'no answer came' };
    took.set(door, [...(took.get(door) ?? []), performance.now() - began]);
    if (status === 200) return { is: 'sitting', sitting: v.parse(SittingSchema, json) };
    const { problem, why = null, sitting = null } = v.parse(AnswerRefusal, json);
    return { is: 'refused', problem, why, sitting };
  };

/** Has all of them answer at once; gives how long each answer took, by door, and what each had confirmed last. */
async function answerAll(of: Trial, seed: number) {
  const { html, page } = await openedPage(of);
  const read = readDocument(page.document);
  assert.ok(read.ok);
  const plan = planOf(read.document);
  const people = [...madeUpRespondents(planOf({ ...read.document, quotas: [] }), RESPONDENTS, seed)];
  const took = new Map<string, number[]>();
  const ask = asking(of, took);
  const confirmed: { readonly id: string; readonly turns: number }[] = [];
  await Promise.all(
    people.map(async (person, n) => {
      const means = {
        ask,
        keeping: new Keeping(storage(), 'x'),
        newId: () => randomUUID(),
        chance: Math.random,
      };
      const sitter = new Sitter({ ...page, ticket: randomUUID() }, plan, {
        ...means,
        device: () => 'narrow',
        now: () => Date.now(),
        wait: () => pause(200),
      });
      await pause((n / RESPONDENTS) * THINKING * 1000);
      await sitter.open();
      for (let pages = 0; pages < 200; pages += 1) {
        const shown = sitter.shown();
        if (shown === null) throw new Error(JSON.stringify(sitter.get()));
        const { id, kept } = shown;
        if (confirmed[n]?.id === id)
          assert.ok(kept.turns >= (confirmed[n]?.turns ?? 0), 'a confirmed page is there');
        confirmed[n] = { id, turns: kept.turns };
        if (kept.closed !== null) break;
        await pause(-Math.log(1 - Math.random() * 0.98) * THINKING * 1000);
        fill(sitter, person.answers);
        await sitter.go('next');
      }
    }),
  );
  return { took, confirmed, html };
}

async function openedPage({ server, token }: Trial) {
  const html = (await server.call('GET', `/answer/${token}`)).body as string;
  const written = /id="questionnaire">(.*)<\/script>/.exec(html)?.[1] ?? 'null';
  return { html, page: v.parse(AnswerPageSchema, JSON.parse(written)) };
}

interface Kept {
  readonly renters: number;
  readonly turnedAway: number;
  readonly lost: number;
}

/** What is there after all have answered, held against what each was told. */
async function keptIn(
  { server, study, token }: Trial,
  confirmed: readonly { id: string; turns: number }[],
): Promise<Kept> {
  const { body } = await server.call('GET', `/api/studies/${study}/trials/${token}/data?as=json`);
  const { responses, declined } = body as {
    declined: number;
    responses: { key: string; ending: string | null; row: Record<string, number>; pages: unknown[] }[];
  };
  const known = new Map(responses.map((each) => [each.key, each.pages.length]));
  const lost = confirmed.filter(({ id, turns }) => (known.get(id) ?? -1) < turns).length - declined;
  const counted = responses.filter(
    ({ row, ending }) => row.tenure === 2 && ending !== null && /complete|to_diary/.test(ending),
  );
  return {
    renters: counted.length,
    turnedAway: responses.filter(({ ending }) => ending === 'enough').length,
    lost,
  };
}

/** Slow 4G, and a processor four times slower: until the first question is painted, median of five. */
async function firstQuestion({
  server,
  token,
}: Trial): Promise<{ ms: number; script: number; html: number }> {
  const browser = await chromium.launch({ executablePath: chromiumPath(), args: CHROMIUM_ARGS });
  const times: number[] = [];
  let [script, html] = [0, 0];
  for (let run = 0; run < 5; run += 1) {
    const context = await browser.newContext({ viewport: { width: 375, height: 720 }, isMobile: true });
    const page = await context.newPage();
    const session = await context.newCDPSession(page);
    await session.send('Network.enable');
    await session.send('Network.emulateNetworkConditions', {
      ...{ offline: false, latency: 150, downloadThroughput: 1_600_000 / 8, uploadThroughput: 750_000 / 8 },
    });
    await session.send('Emulation.setCPUThrottlingRate', { rate: 4 });
    await page.goto(server.address(`/answer/${token}`));
    await page.getByText('Are you aged 18 or over?').waitFor();
    times.push(
      await page.evaluate(
        () => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? Infinity,
      ),
    );
    [html, script] = await page.evaluate(() => {
      const [own] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
      const all = performance.getEntriesByType('resource') as PerformanceResourceTiming[];
      return [own?.encodedBodySize ?? 0, all.find(({ name }) => name.endsWith('.js'))?.encodedBodySize ?? 0];
    });
    await context.close();
  }
  await browser.close();
  return { ms: times.sort((a, b) => a - b)[2] ?? Infinity, script, html };
}

export async function measureTrial(): Promise<void> {
  const calm = await trial();
  const phone = await firstQuestion(calm);
  const { took, confirmed } = await answerAll(calm, 3);
  const quiet = await keptIn(calm, confirmed);
  await calm.server.end('SIGTERM');

  const rough = await trial();
  let [kills, isOver] = [0, false];
  const killing = (async () => {
    while (!isOver && kills < KILLS) {
      await pause(300 + Math.random() * 900);
      await rough.server.end('SIGKILL');
      kills += 1;
      await rough.server.start();
    }
  })();
  let all: { id: string; turns: number }[] = [];
  for (let seed = 4; kills < KILLS; seed += 1) {
    const round = await answerAll(rough, seed);
    all = [...all, ...round.confirmed];
  }
  isOver = true;
  await killing;
  const killed = await keptIn(rough, all);
  await rough.server.end('SIGTERM');

  const row = ([what, ms]: [string, number[]]) => {
    const sorted = [...ms].sort((a, b) => a - b);
    const at = (share: number) => (sorted[Math.floor(share * (sorted.length - 1))] ?? 0).toFixed(1);
    return [what, sorted.length.toLocaleString('en'), at(0.5), at(0.95), at(0.99), at(1)];
  };
  const words: Record<string, string> = { begin: 'a response begun', turn: 'a page of answers' };
  const rows = [...took]
    .filter(([door]) => door in words)
    .map(([door, ms]) => row([words[door] ?? door, ms]));
  const kept = (of: Kept) => [String(of.renters), String(of.turnedAway), String(of.lost)];
  const text = `# Respondents at once

Written by \`npm run bench -- trial\` on ${new Date().toISOString().slice(0, 10)}: Node ${process.versions.node}, ${availableParallelism()} cores, shared with others and with the ${RESPONDENTS}
respondents, who run in one process beside the server. Each answers the Tern Valley demo (55 items) as a made-up person, with
${THINKING} s for a page on average. Milliseconds until the answer has come.

${markdown(['what', 'times', 'median', '95 of 100', '99 of 100', 'longest'], rows)}

A quota of ${TARGET} on renters. In the second line the server is killed with SIGKILL ${kills} times while ${all.length.toLocaleString('en')} respondents answer,
${RESPONDENTS} at once; a page is lost where a respondent was told that it is kept, and it is not.

${markdown(
  ['', 'renters who count', 'turned away', 'pages lost'],
  [
    ['undisturbed', ...kept(quiet)],
    ['killed', ...kept(killed)],
  ],
)}

On a phone (slow 4G: 1.6 Mbit/s, 150 ms; a processor four times slower) the first question is painted after ${phone.ms.toFixed(0)} ms, the
median of five. The program is ${(phone.script / 1000).toFixed(0)} kB compressed, the page with the questionnaire ${(phone.html / 1000).toFixed(0)} kB.
`;
  const page = path.join(root, 'docs', 'performance-trial.md');
  writeFileSync(page, await format(text, { ...(await resolveConfig(page)), parser: 'markdown' }));
  console.log(text);
}
