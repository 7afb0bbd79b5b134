/** Everything that can be asked of a questionnaire, whatever its errors are. */
import assert from 'node:assert/strict';
import { analyse, DEFAULT_CAPS, sharesOf, transitionsOf, type Caps } from '../../src/core/analysis';
import { codedRow } from '../../src/core/coding/row';
import { readDocument } from '../../src/core/document/read';
import { planOf } from '../../src/core/routing/planner';
import { walk } from '../../src/core/routing/walk';
import { madeUpRespondents } from '../../src/core/simulate/respondents';
import { allSnagsOf } from '../../src/core/snags';

/** Asks everything; throws where something fails. False where it is no questionnaire. */
export function askEverything(json: unknown, about: string, caps: Caps = DEFAULT_CAPS): boolean {
  const read = readDocument(json);
  if (!read.ok) return false;
  try {
    const plan = planOf(read.document);
    const analysis = analyse(plan, caps);
    for (const route of [analysis.route(1n), ...analysis.cover.routes.slice(0, 3)]) {
      if (route === null) continue;
      const again = walk(plan, { ...route, lenient: true });
      if (again.ok) codedRow(plan, again.walk, route.answers);
    }
    analysis.filtered({ through: [[plan.sections[0]?.items[0]?.item.name ?? '']] });
    analysis.slowest(() => 1);
    analysis.ahead([]);
    const items = plan.sections.flatMap((section) => section.items).length;
    if (analysis.unsaid.length === 0) assert.ok(analysis.asked.size <= items);
    if (!analysis.exact) assert.ok(analysis.limits.length > 0);
    const failed = allSnagsOf(plan, analysis, caps).filter(({ message }) =>
      message.includes('fault of the program'),
    );
    assert.deepEqual(failed, []);
    transitionsOf(plan, sharesOf(plan, caps), caps);
    for (const person of madeUpRespondents(plan, 3, 1)) assert.ok(person.presented.length >= 0);
  } catch (error) {
    throw new Error(`${about}: ${error instanceof Error ? (error.stack ?? '') : String(error)}`, {
      cause: error,
    });
  }
  return true;
}
