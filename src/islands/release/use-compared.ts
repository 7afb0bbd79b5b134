/** Two versions held against each other, as the worker finds it. */
import { useState } from 'react';
import type { Compared } from '../../worker/release/types';
import { useReleaseClient } from '../state/gate';
import { useStudy } from '../state/store';
import { useVersionDocument } from '../state/versions';
import { useAsked } from '../ui/use-asked';
import type { Shown } from './shown';
import { why } from '../ui/why';

export type Comparing =
  | { readonly state: 'waiting' }
  | { readonly state: 'failed'; readonly problem: string }
  | { readonly state: 'found'; readonly found: Compared; readonly isNew: boolean };

/** What was found last stays while the draft is edited and compared anew. */
export function useCompared(of: Shown, against: number): Comparing {
  const client = useReleaseClient();
  const draft = useStudy((state) => state.document);
  const version = useVersionDocument(of);
  const before = useVersionDocument(against);
  const now = of === null ? draft : version;
  const pair = `${against} ${of ?? 'draft'}`;
  const [last, setLast] = useState<{ pair: string; now: unknown; is: Compared | string } | null>(null);
  const ready = typeof now === 'object' && now !== null && typeof before === 'object' && before !== null;
  useAsked(
    () => (ready ? client.compare(before, now).catch(why) : null),
    [client, before, now, ready],
    (is) => setLast({ pair, now, is }),
  );
  const problem = [now, before].find((each) => typeof each === 'string');
  if (problem !== undefined) return { state: 'failed', problem: problem as string };
  if (last === null || last.pair !== pair) return { state: 'waiting' };
  if (typeof last.is === 'string') return { state: 'failed', problem: last.is };
  return { state: 'found', found: last.is, isNew: last.now === now };
}
