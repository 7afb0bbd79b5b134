/** How many questions may still come from the page in hand on, and on how many routes, from the analysis of all. */
import { useState } from 'react';
import { passKey } from '../../core/document/addresses';
import type { WalkStep } from '../../core/routing/walk';
import { useAnalysisClient } from '../state/analysis';
import { useStudy } from '../state/store';
import type { Session } from '../../core/responding/session';
import type { QuestionsAhead } from '../responding/PageHead';
import { useAsked } from '../ui/use-asked';

export interface ItemsAhead extends QuestionsAhead {
  /** Routes that begin so, as a decimal string. */
  readonly routes: string;
}

/** From the first item of the page on, that item included; null while it is not known. */
export function useAhead({ walk, page }: Session): ItemsAhead | null {
  const first = page?.steps[0];
  const index = walk?.steps.findIndex(({ key }) => key === first?.key) ?? -1;
  // The page in hand is seen: what led away before it is out of the question.
  const seen = walk === null || index < 0 ? null : walk.steps.slice(0, index + 1).map(({ key }) => key);
  const after = useAheadOf(seen);
  const own = first?.planItem.item.kind === 'question' ? 1 : 0;
  return after && { ...after, least: after.least + own, most: after.most + own };
}

/** Routes that are still possible after the last answer that was given, as a decimal string. */
export function usePossible({ walk, page, answers }: Session): string | null {
  const answered = (step: WalkStep) =>
    step.parts.some(({ name }) => (answers[passKey(name, step.pass)] ?? null) !== null);
  const last = page?.steps.findLast(answered)?.key ?? null;
  const from = walk?.steps.findIndex(({ key }) => key === (last ?? page?.steps[0]?.key)) ?? -1;
  // What follows from an answer is seen in what is presented next.
  const until = from + (last === null ? 1 : 2);
  return (
    useAheadOf(walk === null || from < 0 ? null : walk.steps.slice(0, until).map(({ key }) => key))?.routes ??
    null
  );
}

function useAheadOf(before: readonly string[] | null): ItemsAhead | null {
  const client = useAnalysisClient();
  const analysis = useStudy((state) => state.analysis);
  const [known, setKnown] = useState<{ key: string; ahead: ItemsAhead | null } | null>(null);
  const key = JSON.stringify(before);
  useAsked(
    () => (analysis === null || key === 'null' ? null : client.api.ahead(JSON.parse(key) as string[])),
    [client, analysis, key],
    (ahead) => setKnown({ key, ahead }),
  );
  return known?.key === key ? known.ahead : (known?.ahead ?? null);
}
