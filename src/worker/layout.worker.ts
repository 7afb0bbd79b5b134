/** Lays the river out off the main thread. */
import { expose } from 'comlink';
import * as v from 'valibot';
import type { LayoutTask, RiverLayout } from '../core/views/river';
import { layOut } from '../core/views/river-layout';

const Size = v.pipe(v.number(), v.minValue(0));
const TaskSchema = v.object({
  nodes: v.array(v.object({ id: v.string(), width: Size })),
  ribbons: v.array(v.object({ id: v.string(), from: v.string(), to: v.string(), width: Size })),
  height: Size,
  gap: Size,
});

export interface LayoutApi {
  layout(task: LayoutTask): Promise<RiverLayout>;
}

const api: LayoutApi = { layout: (asked) => layOut(v.parse(TaskSchema, asked)) };

expose(api);
