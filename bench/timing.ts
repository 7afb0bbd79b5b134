/** Times and memory of a piece of work, and how they are written. */

export interface Timed<Result> {
  readonly ms: number;
  readonly result: Result;
}

/** Median milliseconds of some runs, after one that is not counted. Work of over two seconds is run once only. */
export async function timed<Result>(
  work: () => Result | Promise<Result>,
  runs = 5,
): Promise<Timed<Awaited<Result>>> {
  const times: number[] = [];
  let result: Awaited<Result> | undefined;
  for (let run = 0; run <= runs; run += 1) {
    const start = performance.now();
    result = await work();
    const ms = performance.now() - start;
    if (run > 0 || ms > 2000) times.push(ms);
    if (ms > 2000) break;
  }
  return {
    ms: times.sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0,
    result: result as Awaited<Result>,
  };
}

/** Megabytes that are held by what the work gives back, and by what it made on the way. */
export function megabytes(work: () => unknown): number {
  const used = () => {
    const { heapUsed, arrayBuffers } = process.memoryUsage();
    return (heapUsed + arrayBuffers) / 1e6;
  };
  globalThis.gc?.();
  const before = used();
  const kept = work();
  const after = used();
  return kept === undefined ? 0 : Math.max(0, after - before);
}

export function milliseconds(ms: number): string {
  return ms < 10 ? ms.toFixed(1) : Math.round(ms).toLocaleString('en-GB');
}

export function times(ms: number, to: number): string {
  const ratio = ms / to;
  return `${ratio < 10 ? ratio.toFixed(1) : Math.round(ratio).toLocaleString('en-GB')}×`;
}

/** A table in Markdown; columns in `right` flush right. */
export function markdown(head: readonly string[], rows: readonly (readonly string[])[]): string {
  const line = (cells: readonly string[]) => `| ${cells.join(' | ')} |`;
  return [line(head), line(head.map((_, n) => (n === 0 ? '---' : '---:'))), ...rows.map(line)].join('\n');
}
