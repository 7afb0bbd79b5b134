/** The number of the route that takes longest: a door to it. */
import { useState } from 'react';
import type { Figures } from '../../worker/forecast/types';
import { useAnalysisClient } from '../state/analysis';
import { useGoTo } from '../state/going';
import { useStudy } from '../state/store';
import { grouped } from '../ui/format';
import { useAsked } from '../ui/use-asked';
import fields from './fields.module.css';

export function LongestRoute({ longest }: { readonly longest: NonNullable<Figures['longest']> }) {
  const client = useAnalysisClient();
  const document = useStudy((state) => state.document);
  const analysis = useStudy((state) => state.analysis);
  const current = analysis?.document === document;
  const goTo = useGoTo();
  const [told, setTold] = useState<{ readonly of: Figures['longest']; readonly is: string | null } | null>(
    null,
  );
  useAsked(
    () => (!current ? null : client.api.numberOf(longest.items, longest.ending).catch(() => null)),
    [client, current, longest],
    (is) => setTold({ of: longest, is }),
  );
  const number = told?.of === longest ? told.is : null;
  if (number === null) return null;
  return (
    <button
      type="button"
      className={fields.act}
      title="Walk the longest interview"
      onClick={() => goTo('walk', `?route=${number}`)}
    >
      route {grouped(number)}
    </button>
  );
}
