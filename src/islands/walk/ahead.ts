/** How many items may still come after the page in hand, from the analysis of every route. */
import { useEffect, useState } from 'react';
import { useAnalysisClient } from '../study/analysis';
import { useStudy } from '../study/store';
import type { Session } from './session';

export interface ItemsAhead {
  readonly least: number;
  readonly most: number;
}

/** From the first item of the page on, that item included; null while it is not known. */
export function useAhead(session: Session): ItemsAhead | null {
  const client = useAnalysisClient();
  const analysis = useStudy((state) => state.analysis);
  const [known, setKnown] = useState<{ key: string; ahead: ItemsAhead | null } | null>(null);
  const { walk, page } = session;
  const first = page?.steps[0]?.key;
  const index = walk?.steps.findIndex(({ key }) => key === first) ?? -1;
  const before = walk === null || index < 0 ? null : walk.steps.slice(0, index).map(({ key }) => key);
  const key = JSON.stringify(before);
  useEffect(() => {
    if (analysis === null || key === 'null') return;
    let current = true;
    void client.api.ahead(JSON.parse(key) as string[]).then((ahead) => {
      if (current) setKnown({ key, ahead });
    });
    return () => {
      current = false;
    };
  }, [client, analysis, key]);
  return known?.key === key ? known.ahead : (known?.ahead ?? null);
}
