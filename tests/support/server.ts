/** The built server in a process of its own, to be killed, and asked over HTTP as a program does. */
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';

export interface Reply {
  /** 0: no answer came. */
  readonly status: number;
  readonly body: unknown;
}

export class BuiltServer {
  private process: ChildProcess | null = null;
  private port = 0;
  /** What it wrote on standard error. */
  said = '';

  constructor(
    readonly folder: string,
    private readonly environment: Readonly<Record<string, string>> = {},
    private readonly nodeOptions: readonly string[] = [],
  ) {}

  async start(): Promise<void> {
    const server = spawn('node', [...this.nodeOptions, 'scripts/start.mjs'], {
      env: {
        ...process.env,
        PORT: '0',
        JOLLY_FORK_COPIES: '0',
        ...this.environment,
        JOLLY_FORK_DATA: this.folder,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    this.process = server;
    server.stderr.on('data', (text) => (this.said += String(text)));
    let told = '';
    await new Promise<void>((resolve, reject) => {
      server.stdout.on('data', (text) => {
        told += String(text);
        const ready = /is ready: http:\/\/127\.0\.0\.1:(\d+)\//.exec(told);
        if (ready === null) return;
        this.port = Number(ready[1]);
        resolve();
      });
      server.once('exit', (code) => reject(new Error(`the server ended with ${code}: ${this.said}`)));
    });
  }

  /** Of a page, as a browser opens it. */
  address(route: string): string {
    return `http://127.0.0.1:${this.port}${route}`;
  }

  /** Ends it, by default as a loss of power does. */
  async end(signal: 'SIGKILL' | 'SIGTERM' = 'SIGKILL'): Promise<void> {
    const server = this.process;
    this.process = null;
    if (server === null || server.exitCode !== null || server.signalCode !== null) return;
    const ended = once(server, 'exit');
    server.kill(signal);
    await ended;
  }

  async call(
    method: string,
    route: string,
    body?: unknown,
    headers: Readonly<Record<string, string>> = {},
  ): Promise<Reply> {
    const token = existsSync(path.join(this.folder, 'token'))
      ? readFileSync(path.join(this.folder, 'token'), 'utf8').trim()
      : '';
    try {
      const response = await fetch(this.address(route), {
        method,
        redirect: 'manual',
        headers: { 'x-jolly-fork-token': token, ...headers },
        ...(body === undefined
          ? {}
          : { body: body instanceof Uint8Array ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body) }),
      });
      const text = await response.text();
      return { status: response.status, body: parsed(text) };
    } catch {
      return { status: 0, body: null };
    }
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}
