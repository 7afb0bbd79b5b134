/** The routes that take every fork, or every two outcomes together, as far as they have been looked for. */
import { useEffect, useMemo, useState } from 'react';
import type { ForkEvent } from '../../core/analysis';
import type { Questionnaire } from '../../core/document/types';
import type { CoverStanding } from '../../worker/cover/client';
import type { Covered } from '../../worker/cover/types';
import { useAnalysisClient } from '../state/analysis';
import { useStudy } from '../state/store';
import { useAsked } from '../ui/use-asked';

/** Questionnaires up to this many items have their covering set looked for without being asked. */
const LOOKED_FOR_AT_ONCE = 400;

/** Routes that take every fork, or every two outcomes together; a part of these as long as they are looked for. */
export interface CoverShown extends Omit<CoverStanding, 'routes'> {
  readonly what: Covered;
  /** In canonical order, with what only this route takes. */
  readonly routes: readonly { readonly number: string; readonly alone: readonly ForkEvent[] }[];
}

export interface CoverInHand {
  /** Null while nothing has been found yet, and where nobody asks. */
  readonly cover: CoverShown | null;
  /** Leaves it at what was found so far. */
  readonly halt: () => void;
  /** Looks again after that. */
  readonly again: () => void;
}

/** What is to be taken, in words. */
export const TAKEN: Readonly<Record<Covered, string>> = {
  forks: 'every fork',
  pairs: 'every two outcomes of forks',
};

/** Whether they take everything that anybody can meet. */
export const takesAll = (cover: CoverShown | null): cover is CoverShown =>
  cover !== null && cover.complete && cover.routes.length > 0 && cover.taken === cover.of;

/** Routes as they were found, with their numbers among those of the questionnaire. */
interface Numbered {
  readonly document: Questionnaire;
  readonly of: CoverStanding;
  readonly numbers: readonly string[];
}

export function useCover(what: Covered, wanted: boolean): CoverInHand {
  const client = useAnalysisClient();
  const looks = client.covers[what];
  const analysed = useStudy((state) => state.analysis?.document);
  const [standing, setStanding] = useState<CoverStanding | null>(null);
  const [found, setFound] = useState<Numbered | null>(null);
  useEffect(() => {
    setStanding(null);
    return analysed !== undefined && wanted ? looks.watch(analysed, setStanding) : undefined;
  }, [looks, analysed, wanted]);
  useAsked(
    async () => {
      if (analysed === undefined || standing === null) return null;
      const routes = standing.routes.map(({ items, ending }) => ({ items, ending }));
      const numbers = await client.api.numbersOf(routes);
      return { document: analysed, of: standing, numbers: numbers.map((number) => number ?? '0') };
    },
    [client, analysed, standing],
    setFound,
  );
  const cover = useMemo((): CoverShown | null => {
    if (standing === null) return null;
    if (standing.routes.length === 0) return { ...standing, what, routes: [] };
    if (found === null || found.document !== analysed) return null;
    // How far the search is can be told at once of routes that have their numbers.
    return shownOf(what, found.of.routes === standing.routes ? { ...found, of: standing } : found);
  }, [what, standing, found, analysed]);
  return {
    cover,
    halt: () => looks.halt(),
    again: () => analysed !== undefined && looks.again(analysed),
  };
}

function shownOf(what: Covered, { of, numbers }: Numbered): CoverShown {
  const routes = of.routes.map(({ alone }, n) => ({ number: numbers[n] ?? '0', alone }));
  return { ...of, what, routes: routes.sort((a, b) => (BigInt(a.number) < BigInt(b.number) ? -1 : 1)) };
}

/** Whether the covering set is small work. */
export function useSoonCovered(): boolean {
  const [soon, setSoon] = useState(false);
  const items = useStudy((state) => state.plan.sections.reduce((sum, { items }) => sum + items.length, 0));
  useEffect(() => {
    const timer = setTimeout(() => setSoon(true), 500);
    return () => clearTimeout(timer);
  }, []);
  return soon && items <= LOOKED_FOR_AT_ONCE;
}
