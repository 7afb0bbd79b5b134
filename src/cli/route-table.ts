/** Routes as a table for a terminal: number, ending, length, and the answers that steer. */
import type { Route } from '../core/analysis';
import type { Plan } from '../core/routing/plan';
import { steeringAnswers } from '../core/views/route-words';
import { table } from './table';

export function routeTable(plan: Plan, routes: readonly Route[]): string {
  const rows = routes.map((route) => [
    String(route.number),
    route.ending,
    String(route.items.length),
    steeringAnswers(plan, route)
      .map(({ key }) => `${key}=${JSON.stringify(route.answers[key] ?? null)}`)
      .join(' '),
  ]);
  return table(['route', 'ending', 'items', 'steering answers'], rows, [0, 2]);
}
