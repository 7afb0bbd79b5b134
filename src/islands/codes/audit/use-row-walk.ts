/** Opens the respondent of a row in Walk, with the answers that the row has. */
import { useState } from 'react';
import { planOf } from '../../../core/routing/planner';
import { walk } from '../../../core/routing/walk';
import { useData } from '../../state/data';
import { useGoTo } from '../../state/going';
import { useStudy } from '../../state/store';

export function useRowWalk(): {
  readonly walkRow: (row: number) => Promise<void>;
  /** Why a row was not walked. */
  readonly told: string | null;
} {
  const { client } = useData();
  const document = useStudy((state) => state.document);
  const setToWalk = useStudy((state) => state.setToWalk);
  const goTo = useGoTo();
  const [told, setTold] = useState<string | null>(null);
  const walkRow = async (row: number) => {
    const worker = await client.about(document);
    const walked = await worker.walked(row);
    if (walked === null) {
      setTold(`There is no row ${row} in this file.`);
      return;
    }
    const { answers, given, draws, full } = walked;
    const result = walk(planOf(document), { ...walked, lenient: true });
    if (!result.ok) {
      setTold(`Row ${row} cannot be walked: ${result.problem}`);
      return;
    }
    const { steps, ending } = result.walk;
    setToWalk({
      witness: {
        answers,
        ...(given ? { given } : {}),
        ...(draws ? { draws } : {}),
        ...(full ? { full } : {}),
        items: steps.map(({ key }) => key),
        ending: ending === null ? null : (document.endings[ending]?.id ?? null),
      },
      item: null,
    });
    goTo('walk');
  };
  return { walkRow, told };
}
