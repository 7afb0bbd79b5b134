/** A server that is killed again and again under every kind of write: whatever it acknowledged is there afterwards. */
import assert from 'node:assert/strict';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { gzipSync } from 'node:zlib';
import type { Questionnaire } from '../../src/core/document/types';
import { operationsBetween } from '../../src/core/editing/operations';
import { NO_WORK, writeWork } from '../../src/core/exchange/work-file';
import { fingerprint } from '../../src/core/routing/route-content';
import { FEATURED } from '../agree/featured';
import { BuiltServer, type Reply } from '../support/server';
import { intOf, type Int, type TimedPart } from './part';
import { passedBy } from '../support/verdicts';

const document = FEATURED[0] as Questionnaire;
const WRITERS = 8;

/** A writer with a study of its own, and what the server has acknowledged of it. */
class Writer {
  private id = '';
  private at = document;
  private revision = 1;
  acknowledged = 0;
  /** By the door and a name: what it has to give, as JSON. */
  private readonly kept = new Map<string, string | null>();
  /** The write that was under way when no answer came: it may have arrived. */
  private open: string | null = null;
  private readonly links: string[] = [];

  constructor(
    private readonly server: BuiltServer,
    private readonly int: Int,
    private readonly name: string,
  ) {}

  async begin(): Promise<void> {
    const reply = await this.server.call('POST', '/api/studies', { document });
    assert.equal(reply.status, 201);
    this.id = (reply.body as { id: string }).id;
  }

  private get api(): string {
    return `/api/studies/${this.id}`;
  }

  /** One write of any kind. False once the server is gone. */
  async write(n: number): Promise<boolean> {
    const { server, int, api } = this;
    const send = (method: string, door: string, body?: unknown) => server.call(method, `${api}${door}`, body);
    const marks = [`${this.name} ${n}`];
    const route = fingerprint(marks);
    const kinds: (() => Promise<boolean>)[] = [
      () => this.save('PATCH'),
      () => this.save('PATCH'),
      () => this.save('PUT'),
      () =>
        this.add(
          `comments ${n}`,
          `Comment ${n}`,
          send('POST', '/comments', { place: 'study', text: `Comment ${n}`, author: this.name }),
        ),
      () => this.add(`verdicts ${route}`, 'passed', send('POST', '/verdicts', passedBy(this.name, marks))),
      () =>
        this.add(
          `asides snag ${n}`,
          `because ${n}`,
          send('POST', '/asides', { snag: `snag ${n}`, reason: `because ${n}`, reviewer: this.name }),
        ),
      () =>
        this.add(
          `cases ${n % 20}`,
          `${n}`,
          send('PUT', '/cases', {
            caseId: `${n % 20}`,
            entry: 1,
            keyedBy: this.name,
            answers: { q: n },
            settledBy: null,
          }),
        ),
      () =>
        this.add(
          `respondents r${n % 20}`,
          `${n}`,
          send('POST', '/respondents', {
            name: `r${n % 20}`,
            walked: { answers: { q: n } },
            items: [],
            marks: [],
            row: {},
          }),
        ),
      () =>
        this.add(
          `datasets d${n % 5}`,
          `${n}`,
          send('POST', `/datasets?name=d${n % 5}&rows=${n}`, new Uint8Array(gzipSync(`q\n${n}\n`))),
        ),
      () => this.add('draw', `${n}`, send('PUT', '/draw', { seed: n, count: 3 })),
      () => this.add('matches', `${n}`, send('PUT', '/matches', { said: { q: `${n}` } })),
      () => this.link(n),
      () => this.removeAndRestore(),
      () =>
        this.add(
          `bank ${this.name} ${n}`,
          '',
          server.call('POST', '/api/bank', {
            kind: 'section',
            title: `${this.name} ${n}`,
            content: document.sections[0],
          }),
        ),
      () => this.addStudy(n),
    ];
    return (kinds[int(0, kinds.length - 1)] as () => Promise<boolean>)();
  }

  /** A save of the title, on the revision that is known. */
  private async save(method: 'PATCH' | 'PUT'): Promise<boolean> {
    const next = { ...this.at, title: `${this.name} ${this.revision}` };
    const body = method === 'PUT' ? { document: next } : { operations: operationsBetween(this.at, next) };
    const key = `title ${next.title}`;
    const reply = await this.server.call(method, this.api, { revision: this.revision, ...body });
    if (!this.heard(key, reply)) return false;
    assert.equal(reply.status, 200, JSON.stringify(reply.body));
    this.at = next;
    this.revision += 1;
    return true;
  }

  private async add(key: string, value: string, sent: Promise<Reply>): Promise<boolean> {
    const reply = await sent;
    if (!this.heard(key, reply)) return false;
    assert.ok(reply.status === 200 || reply.status === 201, `${key}: ${JSON.stringify(reply)}`);
    this.kept.set(key, value);
    return true;
  }

  private async link(n: number): Promise<boolean> {
    const token = this.links.pop();
    if (token !== undefined && n % 2 === 0)
      return this.add(`withdrawn ${token}`, '', this.server.call('DELETE', `${this.api}/links`, { token }));
    const reply = await this.server.call('POST', `${this.api}/links`, { name: `link ${n}` });
    if (!this.heard(`links link ${n}`, reply)) return false;
    this.kept.set(`links link ${n}`, '');
    this.links.push((reply.body as { token: string }).token);
    return true;
  }

  private async removeAndRestore(): Promise<boolean> {
    const removed = await this.server.call('DELETE', this.api);
    if (!this.heard('removed', removed)) return false;
    const back = await this.server.call('POST', this.api);
    return this.heard('restored', back);
  }

  private async addStudy(n: number): Promise<boolean> {
    const title = `${this.name}, study ${n}`;
    const file = writeWork({ ...document, title }, NO_WORK);
    const reply = await this.server.call('POST', '/api/studies/work', file);
    if (!this.heard(`study ${title}`, reply)) return false;
    const { id } = reply.body as { id: string };
    this.kept.set(`study ${id}`, title);
    return true;
  }

  private heard(key: string, { status }: Reply): boolean {
    if (status === 0) this.open = key;
    else this.acknowledged += 1;
    return status !== 0;
  }

  /** Looks for all that was acknowledged, and learns what became of the write that was under way. */
  async check(): Promise<void> {
    const { server, api, open } = this;
    if (open === 'removed' || open === 'restored') await server.call('POST', api);
    const get = async (route: string) => {
      const { status, body } = await server.call('GET', route);
      assert.equal(status, 200, `${route}: ${JSON.stringify(body)}`);
      return body;
    };
    const study = (await get(api)) as { document: Questionnaire; revision: number };
    const isOpen =
      open?.startsWith('title ') === true && study.document.title === open.slice('title '.length);
    assert.ok(
      study.document.title === this.at.title || isOpen,
      `${study.document.title} for ${this.at.title}`,
    );
    [this.at, this.revision] = [study.document, study.revision];
    const text = new Map<string, string>();
    for (const door of [
      'comments',
      'verdicts',
      'asides',
      'cases',
      'respondents',
      'datasets',
      'links',
      'draw',
      'matches',
    ])
      text.set(door, JSON.stringify(await get(`${api}/${door}`)));
    text.set('bank', JSON.stringify(await get('/api/bank')));
    for (const [key, value] of this.kept) {
      if (key === open) continue;
      const [door = '', ...rest] = key.split(' ');
      if (door === 'study') {
        assert.ok(JSON.stringify(await get(`/api/studies/${rest.join(' ')}`)).includes(value ?? ''), key);
        continue;
      }
      if (door === 'withdrawn') {
        assert.equal((await server.call('GET', `/api/review/${rest[0]}/draw`)).status, 404, key);
        continue;
      }
      const list = text.get(door) ?? '';
      for (const part of [rest.join(' '), value ?? ''])
        assert.ok(list.includes(part), `${key}: ${part} is lost`);
    }
    // It may stand as it was, or as it was being written.
    if (open !== null) this.kept.delete(open);
    this.open = null;
  }
}

export const kills: TimedPart = {
  name: 'kills',
  words: 'kills under load with every kind of write',
  async run(seconds, seed) {
    const int = intOf(seed);
    const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-killed-'));
    const server = new BuiltServer(folder);
    await server.start();
    const writers = Array.from(
      { length: WRITERS },
      (_, n) => new Writer(server, intOf(seed * 100 + n), `writer${n}`),
    );
    for (const writer of writers) await writer.begin();
    const until = Date.now() + seconds * 1000;
    let [killed, n] = [0, 0];
    try {
      while (Date.now() < until) {
        const writing = writers.map(async (writer) => {
          while (await writer.write((n += 1)));
        });
        await pause(int(20, 2500));
        await server.end();
        await Promise.all(writing);
        killed += 1;
        await server.start();
        for (const writer of writers) await writer.check();
      }
    } finally {
      await server.end();
    }
    const acknowledged = writers.reduce((sum, writer) => sum + writer.acknowledged, 0);
    return `${killed} kills, ${acknowledged} acknowledged writes, none lost`;
  },
};
