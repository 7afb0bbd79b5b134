/** Auditors for the pieces of a file: on this thread, or on threads bundled beside the command (`commands/audit.thread.ts`). */
import { Worker } from 'node:worker_threads';
import { wrap } from 'comlink';
import endpoint from 'comlink/dist/esm/node-adapter.mjs';
import { auditorThrough } from '../core/collected/piece-through';
import { auditorHere, type AuditSetting, type PieceApi, type PieceAuditor } from '../core/collected/piece';
import type { Plan } from '../core/routing/plan';

/** `threads`: 0 for none but this. */
export function openAuditors(
  plan: Plan,
  setting: AuditSetting,
  as: 'csv' | 'cells',
  threads: number,
): PieceAuditor[] {
  if (threads === 0) return [auditorHere(plan, setting, as)];
  return Array.from({ length: threads }, () => {
    const thread = new Worker(new URL('./thread.mjs', import.meta.url));
    const failed = new Promise<never>((_, fail) => {
      thread.once('error', fail);
    });
    return auditorThrough(
      wrap<PieceApi>(endpoint(thread)),
      plan.document,
      setting,
      failed,
      () => void thread.terminate(),
    );
  });
}
