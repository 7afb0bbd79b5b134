/** What the app works out while somebody writes, questionnaire after questionnaire. */
import { analyse, AnalysisCache, DEFAULT_CAPS, type Analysis } from '../../src/core/analysis';
import { routingContent } from '../../src/core/document/routing-content';
import type { Questionnaire } from '../../src/core/document/types';
import type { Plan } from '../../src/core/routing/plan';
import { planOf } from '../../src/core/routing/planner';
import { routedSnagsOf, snagsOf } from '../../src/core/snags';

/** All that the screen shows while somebody writes, as the app works it out: what leads nobody elsewhere is not counted again. */
export class Screen {
  private readonly cache = new AnalysisCache();
  private plan: Plan | null = null;
  private content = '';
  private analysis: Analysis | null = null;

  show(document: Questionnaire): unknown {
    const plan = planOf(document, this.plan);
    this.plan = plan;
    const content = routingContent(document);
    const analysis =
      this.analysis !== null && content === this.content
        ? this.analysis
        : analyse(plan, DEFAULT_CAPS, this.cache);
    [this.analysis, this.content] = [analysis, content];
    const shown = [analysis.items, analysis.endings, analysis.asked, snagsOf(plan)];
    return [...shown, routedSnagsOf(plan, analysis, this.cache)];
  }
}
