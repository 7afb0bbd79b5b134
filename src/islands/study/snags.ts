/** All snags of the open study: those the document shows at once, those of the routes as they are found. */
import { useMemo } from 'react';
import { inOrder, snagKey, type Snag } from '../../core/snags';
import type { Aside } from '../../store/asides';
import { useStudy } from './store';

export interface StudySnags {
  /** In document order. Of an older document than the one shown, without mends, until they have been looked for again. */
  readonly open: readonly Snag[];
  readonly aside: readonly { readonly snag: Snag; readonly aside: Aside }[];
  /** False while the routes are still being looked through. */
  readonly complete: boolean;
}

export function useSnags(): StudySnags {
  const document = useStudy((state) => state.document);
  const written = useStudy((state) => state.snags);
  const routed = useStudy((state) => state.routed);
  const asides = useStudy((state) => state.asides);
  return useMemo(() => {
    const complete = routed?.document === document;
    const fromRoutes = (routed?.snags ?? []).map((snag) => (complete ? snag : { ...snag, mends: [] }));
    const all = inOrder(document, [...written, ...fromRoutes]);
    const byKey = new Map(asides.map((aside) => [aside.snag, aside]));
    return {
      open: all.filter((snag) => !byKey.has(snagKey(snag))),
      aside: all.flatMap((snag) => {
        const aside = byKey.get(snagKey(snag));
        return aside === undefined ? [] : [{ snag, aside }];
      }),
      complete,
    };
  }, [document, written, routed, asides]);
}
