/** Auditors for the pieces of a large file: workers of the data worker, as many as there are cores. */
import { wrap } from 'comlink';
import { auditorHere, type PieceApi } from '../../core/collected/piece';
import { auditorThrough } from '../../core/collected/piece-through';
import { brokenDown } from '../broken-down';
import type { OpenAuditors } from './audit-task';

/** Bytes from which on it pays to start workers, which load and work out the questionnaire first. */
const WORTH_WORKERS = 4_000_000;
const MOST_WORKERS = 8;

export const openAuditors: OpenAuditors = (plan, setting, size) => {
  const cores = Math.min(MOST_WORKERS, navigator.hardwareConcurrency);
  if (size < WORTH_WORKERS || cores < 2) return [auditorHere(plan, setting)];
  return Array.from({ length: cores }, () => {
    const worker = new Worker(new URL('./piece.worker.ts', import.meta.url), { type: 'module' });
    const end = () => worker.terminate();
    return auditorThrough(wrap<PieceApi>(worker), plan.document, setting, brokenDown(worker), end);
  });
};
