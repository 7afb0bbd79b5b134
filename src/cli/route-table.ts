/** Routes as a table for a terminal: number, ending, length, and the given values and answers that steer. */
import type { Route } from '../core/analysis';
import type { Plan } from '../core/routing/plan';
import { steeringParts } from '../core/views/steering-parts';
import { table } from './table';

export function routeTable(plan: Plan, routes: readonly Route[]): string {
  const rows = routes.map((route) => [
    String(route.number),
    route.ending,
    String(route.items.length),
    [
      ...Object.entries(route.given ?? {}),
      ...steeringParts(plan, route).map(({ key }) => [key, route.answers[key] ?? null] as const),
    ]
      .map(([key, value]) => `${key}=${JSON.stringify(value)}`)
      .join(' '),
  ]);
  return table(['route', 'ending', 'items', 'steering answers'], rows, [0, 2]);
}
