/** All snags of the open study: those the document shows at once, those of the routes as they are found. */
import type { Questionnaire } from '../../core/document/types';
import type { Plan } from '../../core/routing/plan';
import {
  handOffSnags,
  inOrder,
  respondentSnags,
  snagKey,
  type OtherStudy,
  type Snag,
} from '../../core/snags';
import type { Aside } from '../../wire/asides';
import { useStudy } from './store';
import type { StudyState } from './study-state';

export interface StudySnags {
  /** In document order. Of an older document than the one shown, without mends, until they have been looked for again. */
  readonly open: readonly Snag[];
  readonly aside: readonly { readonly snag: Snag; readonly aside: Aside }[];
  /** False while the routes are still being looked through. */
  readonly complete: boolean;
}

type SnagParts = readonly [
  document: Questionnaire,
  written: readonly Snag[],
  routed: StudyState['routed'],
  asides: readonly Aside[],
  ofRespondents: readonly Snag[],
  ofHandOffs: readonly Snag[],
];

/** Of the document and the respondents last asked about. */
let again: {
  readonly plan: Plan;
  readonly kept: StudyState['respondents'];
  readonly snags: readonly Snag[];
} | null = null;

function useRespondentSnags(): readonly Snag[] {
  const plan = useStudy((state) => state.plan);
  const kept = useStudy((state) => state.respondents);
  if (kept.length === 0) return NONE;
  if (again?.plan !== plan || again.kept !== kept) again = { plan, kept, snags: respondentSnags(plan, kept) };
  return again.snags;
}

/** Of the document and the other studies last asked about. */
let handed: {
  readonly plan: Plan;
  readonly others: readonly OtherStudy[];
  readonly snags: readonly Snag[];
} | null = null;

function useHandOffSnags(): readonly Snag[] {
  const plan = useStudy((state) => state.plan);
  const others = useStudy((state) => state.others);
  if (others === null) return NONE;
  if (handed?.plan !== plan || handed.others !== others)
    handed = { plan, others, snags: handOffSnags(plan, others) };
  return handed.snags;
}

const NONE: readonly Snag[] = [];

/** Several views ask for the same at once. */
let last: { readonly parts: SnagParts; readonly snags: StudySnags } | null = null;

export function useSnags(): StudySnags {
  const parts: SnagParts = [
    useStudy((state) => state.document),
    useStudy((state) => state.snags),
    useStudy((state) => state.routed),
    useStudy((state) => state.asides),
    useRespondentSnags(),
    useHandOffSnags(),
  ];
  if (last === null || !last.parts.every((part, n) => part === parts[n]))
    last = { parts, snags: together(parts) };
  return last.snags;
}

function together([document, written, routed, asides, ofRespondents, ofHandOffs]: SnagParts): StudySnags {
  const complete = routed?.document === document;
  const fromRoutes = (routed?.snags ?? []).map((snag) => (complete ? snag : { ...snag, mends: [] }));
  const all = inOrder(document, [...written, ...fromRoutes, ...ofRespondents, ...ofHandOffs]);
  if (asides.length === 0) return { open: all, aside: [], complete };
  const byKey = new Map(asides.map((aside) => [aside.snag, aside]));
  return {
    open: all.filter((snag) => !byKey.has(snagKey(snag))),
    aside: all.flatMap((snag) => {
      const aside = byKey.get(snagKey(snag));
      return aside === undefined ? [] : [{ snag, aside }];
    }),
    complete,
  };
}
