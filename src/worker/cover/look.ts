/** Few routes that take every fork, or every two outcomes together, as the page is told of them. */
import { coverRoutes, DEFAULT_CAPS, pairRoutes, type ChosenRoute } from '../../core/analysis';
import type { Plan } from '../../core/routing/plan';
import type { Covered, CoverFound, CoveringRoute, CoveringRoutes } from './types';

/** The numbers of routes are known to whoever counts them. */
const unnumbered = () => null;

/** `improved`: told of what was found so far, which is written out only where it is called for. */
export function lookForCover(
  plan: Plan,
  what: Covered,
  improved: (soFar: () => CoveringRoutes) => void,
): CoverFound {
  if (what === 'pairs') {
    const { routes, atLeast, pairs, complete } = pairRoutes(plan, DEFAULT_CAPS, unnumbered);
    return { routes: routes.map(plain), atLeast, taken: pairs, of: pairs, complete };
  }
  const {
    routes,
    atLeast,
    outcomes,
    of: all,
    complete,
  } = coverRoutes(plan, DEFAULT_CAPS, unnumbered, (soFar) =>
    improved(() => {
      const { routes: some, atLeast: bound, outcomes: taken, of } = soFar();
      return { routes: some.map(plain), atLeast: bound, taken, of };
    }),
  );
  return { routes: routes.map(plain), atLeast, taken: outcomes, of: all, complete };
}

const plain = ({ items, ending, alone }: ChosenRoute): CoveringRoute => ({ items, ending, alone });
