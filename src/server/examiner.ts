/**
 * Has questionnaires examined on another thread, so that no request waits for it. What was found is kept by the checksum
 * of the text: the same text is never examined twice.
 */
import { createHash } from 'node:crypto';
import type { Examined } from '../wire/studies';

/** The thread: as much of a `worker_threads.Worker` as is used here. */
export interface Thread {
  postMessage(asked: { readonly checksum: string; readonly text: string }): void;
  on(
    event: 'message',
    heard: (told: { readonly checksum: string; readonly found: Examined }) => void,
  ): unknown;
  on(event: 'error', heard: (error: Error) => void): unknown;
  terminate(): unknown;
  unref(): void;
}

/** One questionnaire may take as long, in milliseconds; then the thread is ended, and another takes up the rest. */
const LONGEST = 10_000;
const MOST_KEPT = 5_000;

export class Examiner {
  private readonly kept = new Map<string, Examined>();
  /** By checksum, in the order in which they were asked for. */
  private readonly waiting = new Map<string, string>();
  private current: { readonly checksum: string; readonly timer: ReturnType<typeof setTimeout> } | null = null;
  private thread: Thread | null = null;

  constructor(
    private readonly start: () => Thread,
    private readonly longest = LONGEST,
  ) {}

  /** What was found; null while it is not known yet: then it will be. */
  of(text: string): Examined | null {
    const checksum = createHash('sha256').update(text).digest('base64');
    const known = this.kept.get(checksum);
    if (known !== undefined) return known;
    if (this.current?.checksum !== checksum) this.waiting.set(checksum, text);
    this.next();
    return null;
  }

  close(): void {
    clearTimeout(this.current?.timer);
    this.current = null;
    this.waiting.clear();
    this.thread?.terminate();
    this.thread = null;
  }

  private next(): void {
    if (this.current !== null) return;
    const [asked] = this.waiting;
    if (asked === undefined) return;
    const [checksum, text] = asked;
    this.waiting.delete(checksum);
    const timer = setTimeout(() => {
      this.give({ is: 'failed', why: 'time' });
    }, this.longest);
    timer.unref();
    this.current = { checksum, timer };
    this.thread ??= this.begin();
    this.thread.postMessage({ checksum, text });
  }

  private begin(): Thread {
    const thread = this.start();
    thread.on('message', ({ checksum, found }) => {
      if (this.thread === thread && this.current?.checksum === checksum) this.found(found);
    });
    thread.on('error', (error) => {
      if (this.thread !== thread) return;
      console.error('The thread that examines studies ended:', error);
      this.give({ is: 'failed', why: 'fault' });
    });
    // The process may end while something is examined; being listened to holds it again.
    thread.unref();
    return thread;
  }

  /** Ends the thread with the one in hand. */
  private give(found: Examined): void {
    this.thread?.terminate();
    this.thread = null;
    this.found(found);
  }

  private found(found: Examined): void {
    if (this.current === null) return;
    const { checksum, timer } = this.current;
    clearTimeout(timer);
    this.current = null;
    const [oldest] = this.kept.keys();
    if (this.kept.size >= MOST_KEPT && oldest !== undefined) this.kept.delete(oldest);
    this.kept.set(checksum, found);
    this.next();
  }
}
