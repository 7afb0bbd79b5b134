/** What the map of forks shows: the river of the document analysed last, its sizes, and where everything stands. */
import { useEffect, useMemo, useState } from 'react';
import type { Transition } from '../../core/analysis';
import { readAddress } from '../../core/document/addresses';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import type { ForksModel } from '../../core/views/forks';
import { legibleForks } from '../../core/views/legible-forks';
import {
  askedRoutes,
  layoutTask,
  routeWeights,
  shareWeights,
  sizesFor,
  type RibbonMeasure,
  type River,
} from '../../core/views/river';
import { LayoutClient } from '../../worker/layout-client';
import { useAnalysisClient } from '../state/analysis';
import { useStudy } from '../state/store';
import { useAsked } from '../ui/use-asked';
import { why } from '../ui/why';

interface Flows {
  readonly plan: Plan;
  readonly transitions: readonly Transition[];
}

/** `river` null while it is worked out; the one before stays meanwhile. */
export function useRiver(
  unfolded: ReadonlySet<string>,
  wanted: RibbonMeasure,
  height: number,
): { readonly river: River | null; readonly problem: string | null; readonly measure: RibbonMeasure } {
  const { flows, problem: unknown } = useFlows();
  const sample = useStudy((state) => state.analysis?.sample);
  const legible = useMemo(
    () => (flows === null ? null : legibleForks(flows.plan, flows.transitions, unfolded, sample?.items)),
    [flows, unfolded, sample],
  );
  const model = legible?.model ?? null;
  const known = flows?.transitions.every(({ share }) => share !== null) !== false;
  const measure: RibbonMeasure = known ? wanted : 'routes';
  const counted = useRouteWeights(flows?.plan ?? null, model, measure === 'routes');
  const weights = useMemo(() => {
    if (model === null) return null;
    if (measure === 'routes') return counted;
    return shareWeights(model);
  }, [model, measure, counted]);
  const [client] = useState(() => new LayoutClient());
  const [river, setRiver] = useState<River | null>(null);
  const [undrawn, setUndrawn] = useState<string | null>(null);
  useEffect(() => () => client.stop(), [client]);
  const lay = async (): Promise<River | null> => {
    if (flows === null || legible === null || model === null || weights === null) return null;
    const sizes = sizesFor(model.nodes.length, height);
    const layout = await client.layout(layoutTask(model, sizes, weights));
    return { plan: flows.plan, ...legible, layout, sizes, weights, measure };
  };
  useAsked(
    () => lay().catch((error: unknown) => `The map could not be drawn. ${why(error)}`),
    [client, flows, legible, weights, height, measure],
    (laid) => {
      setUndrawn(typeof laid === 'string' ? laid : null);
      if (laid !== null && typeof laid !== 'string') setRiver(laid);
    },
  );
  return { river, problem: unknown ?? undrawn, measure };
}

function useFlows(): { flows: Flows | null; problem: string | null } {
  const client = useAnalysisClient();
  const analysis = useStudy((state) => state.analysis);
  const plan = useStudy((state) => state.plan);
  const failed = useStudy((state) => state.analysisProblem);
  const [flows, setFlows] = useState<Flows | null>(null);
  const [entangled, setEntangled] = useState(false);
  const document = analysis?.document ?? null;
  useAsked(
    () => (document === null ? null : client.api.flows()),
    [client, document],
    (transitions) => {
      setEntangled(transitions === null);
      if (transitions === null || document === null) return;
      setFlows({ plan: plan.document === document ? plan : planOf(document), transitions });
    },
  );
  const problem =
    failed !== null
      ? `The routes could not be counted: ${failed}`
      : entangled
        ? 'The conditions are too entangled to tell who flows where.'
        : null;
  return { flows, problem };
}

/** How large a part of all routes goes along each ribbon; null until they are counted. */
function useRouteWeights(
  plan: Plan | null,
  model: ForksModel | null,
  wanted: boolean,
): ReadonlyMap<string, number | null> | null {
  const client = useAnalysisClient();
  const total = useStudy((state) => state.analysis?.routes ?? null);
  const [weights, setWeights] = useState<ReadonlyMap<string, number | null> | null>(null);
  const weigh = async () => {
    if (plan === null || model === null || total === null || total === '0' || !wanted) return null;
    const asked = askedRoutes(plan, model);
    const counts = await client.api.totals(asked.flatMap(({ along }) => along ?? []));
    return routeWeights(asked, counts.map(BigInt), BigInt(total));
  };
  useAsked(weigh, [client, plan, model, total, wanted], (found) => found && setWeights(found));
  return wanted ? weights : null;
}

/** The nodes on some route with a selected one; null where none is selected. */
export function useLit(river: River | null, selected: string | null): ReadonlySet<string> | null {
  const client = useAnalysisClient();
  const [lit, setLit] = useState<{ key: string; ids: ReadonlySet<string> } | null>(null);
  const node = river?.model.nodes.find(({ id }) => id === selected) ?? null;
  const key = river === null || node === null ? '' : `${node.id} ${river.model.nodes.length}`;
  const look = async () => {
    if (river === null || node === null) return null;
    const of = (id: string) => river.model.nodes.find((each) => each.id === id);
    const choice = (other: string) => {
      const nodes = [node, of(other)];
      const endings = nodes.flatMap((each) => (each?.section === null ? [readAddress(each.id).name] : []));
      return {
        through: nodes.flatMap((each) => (each === undefined || each.section === null ? [] : [each.items])),
        avoid: [],
        ending: endings[0] ?? null,
      };
    };
    const others = river.model.nodes.filter((each) => each.section !== null || node.section !== null);
    const totals = await client.api.totals(others.map(({ id }) => choice(id)));
    const ids = others.filter((_, n) => totals[n] !== '0').map(({ id }) => id);
    return { key, ids: new Set([...ids, node.id]) };
  };
  useAsked(look, [client, river?.model, key], (found) => found && setLit(found));
  return lit !== null && lit.key === key ? lit.ids : null;
}
