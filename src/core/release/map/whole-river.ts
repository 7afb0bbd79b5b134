/** The whole questionnaire as a river, every section unfolded: what the files of the map are made of. */
import { transitionsOf, type Transition } from '../../analysis';
import type { Questionnaire } from '../../document/types';
import { filterAlong, forksOf, type ForksModel } from '../../views/forks';
import { legibleForks } from '../../views/legible-forks';
import {
  askedRoutes,
  layoutTask,
  routeWeights,
  shareWeights,
  sizesFor,
  type RibbonMeasure,
  type River,
} from '../../views/river';
import { layOut } from '../../views/river-layout';
import { CannotWrite } from '../cannot-write';
import { once } from '../formats/once';
import { preparedFor, sharesFor } from '../formats/prepared';

/** From one item to the next, in pixels. */
const PITCH = 34;

/** All of it, however dense. Throws `CannotWrite` where the conditions are too entangled. */
export function wholeForks(document: Questionnaire): ForksModel {
  const { plan, unfolded, asked } = unfoldedWhole(document);
  return forksOf(plan, transitionsFor(document), unfolded, asked);
}

const unfoldedWhole = once((document: Questionnaire) => {
  const { plan } = preparedFor(document);
  return {
    plan,
    unfolded: new Set(plan.sections.map(({ section }) => section.id)),
    asked: Object.fromEntries(sharesFor(document)?.items ?? []),
  };
});

const transitionsFor = once((document: Questionnaire): readonly Transition[] => {
  const found = transitionsOf(preparedFor(document).plan, sharesFor(document));
  if (found === null) throw new CannotWrite('the conditions are too entangled to tell who goes where');
  return found;
});

/** To be drawn, as far as it can be told apart. Rejects with `CannotWrite` where the conditions are too entangled. */
export const wholeRiver = once(laidOut);

async function laidOut(document: Questionnaire): Promise<River> {
  const { plan, unfolded, asked } = unfoldedWhole(document);
  const { model, tooDense } = legibleForks(plan, transitionsFor(document), unfolded, asked);
  const { measure, weights } = weighed(document, model);
  const sizes = sizesFor(model.nodes.length, model.nodes.length * PITCH);
  const layout = await layOut(layoutTask(model, sizes, weights));
  return { plan, model, tooDense, layout, sizes, weights, measure };
}

/** By shares of the sample, or where those are not exact by routes. */
function weighed(
  document: Questionnaire,
  model: ForksModel,
): { readonly measure: RibbonMeasure; readonly weights: ReadonlyMap<string, number | null> } {
  const weights = shareWeights(model);
  if ([...weights.values()].every((weight) => weight !== null)) return { measure: 'share', weights };
  const { plan, analysis } = preparedFor(document);
  const asked = askedRoutes(plan, model);
  const counts = asked.flatMap(({ along }) =>
    along === null ? [] : [analysis.filtered(filterAlong(along)).total],
  );
  return {
    measure: 'routes',
    weights: analysis.routes === 0n ? weights : routeWeights(asked, counts, analysis.routes),
  };
}
