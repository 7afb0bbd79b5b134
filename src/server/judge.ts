/**
 * Has it judged, on another thread, whether a study may be frozen: the server works out for itself what stands in the way,
 * whatever a page says.
 */
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import * as v from 'valibot';
import { GATE_CHECKS, type RoutesWanted, type WorkJudged } from '../core/release/gate';

/** What is judged: the text of a questionnaire, and what was done on it. */
export interface Judged {
  readonly text: string;
  readonly work: WorkJudged;
  readonly wanted: RoutesWanted;
}

const Verdict = v.array(
  v.object({ check: v.picklist(GATE_CHECKS), count: v.bigint(), complete: v.boolean() }),
);
/** What stands in the way, every line of it; or why that could not be told. */
export type Judgement = v.InferOutput<typeof Verdict> | 'time' | 'fault';

/** As much of a `worker_threads.Worker` as is used here. */
export interface JudgeThread {
  once(event: 'message', heard: (told: unknown) => void): unknown;
  once(event: 'error', heard: (error: Error) => void): unknown;
  once(event: 'exit', heard: () => void): unknown;
  terminate(): unknown;
}

/** In milliseconds: the largest questionnaires take some seconds. */
const LONGEST = 60_000;

/** One after the other: each may take a processor for a while. */
let last: Promise<unknown> = Promise.resolve();

/** `start` gives a thread that judges what it is made with; the app's is a file of its own. */
export function judge(judged: Judged, start = theThread, longest = LONGEST): Promise<Judgement> {
  const next = last.then(() => judgeOn(start(judged), longest));
  last = next;
  return next;
}

function theThread(workerData: Judged): JudgeThread {
  return new Worker(path.join(process.cwd(), 'dist', 'door', 'judge.worker.mjs'), { workerData });
}

function judgeOn(thread: JudgeThread, longest: number): Promise<Judgement> {
  return new Promise((resolve) => {
    const end = (judgement: Judgement) => {
      clearTimeout(timer);
      thread.terminate();
      resolve(judgement);
    };
    const timer = setTimeout(() => end('time'), longest);
    thread.once('message', (told) => {
      const read = v.safeParse(Verdict, told);
      end(read.success ? read.output : 'fault');
    });
    thread.once('error', (error) => {
      console.error('A study could not be judged:', error);
      end('fault');
    });
    thread.once('exit', () => end('fault'));
  });
}
