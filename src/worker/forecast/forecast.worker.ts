/** Forecasts off the main thread: a questionnaire is made ready once, and worked out again with every share that is moved. */
import { expose } from 'comlink';
import * as v from 'valibot';
import { documentGiven } from '../../core/document/read';
import { AssumeSchema } from '../../core/document/schema';
import { Forecaster } from '../../core/forecast/forecast';
import { sampleOfRows } from '../../core/forecast/seen/from-rows';
import { assumedInSet, setsOf } from '../../core/forecast/sets';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import { contained } from '../contained';
import type { ForecastApi, SteeringShown } from './types';

const Asked = v.object({
  starts: v.pipe(v.number(), v.integer(), v.minValue(1)),
  breakOff: v.pipe(v.number(), v.minValue(0), v.ltValue(1)),
  assumptions: v.array(v.tuple([v.string(), AssumeSchema])),
});
const AnyGroup = v.union([
  v.object({ item: v.string(), pass: v.nullable(v.number()) }),
  v.object({ section: v.string() }),
  v.object({ ending: v.string() }),
]);
const Hanging = v.union([v.literal('minutes'), v.object({ group: AnyGroup })]);
const Header = v.array(v.string());
const Rows = v.array(v.array(v.union([v.string(), v.number()])));

type Asked = v.InferOutput<typeof Asked>;

let forecaster: Forecaster | null = null;
let plan: Plan | null = null;
let steering: readonly SteeringShown[] | null = null;
let last: Asked = { starts: 1, breakOff: 0, assumptions: [] };

function loaded(): Forecaster {
  if (forecaster === null) throw new Error('no questionnaire has been taken up');
  return forecaster;
}

function current(): Plan {
  if (plan === null) throw new Error('no questionnaire has been taken up');
  return plan;
}

const assumed = () => new Map(last.assumptions.map(([name, assume]) => [name, assume] as const));

const api: ForecastApi = {
  load(document) {
    plan = planOf(documentGiven(document));
    forecaster = new Forecaster(plan);
    steering = null;
    last = { ...last, assumptions: [] };
  },

  figures(asked) {
    last = v.parse(Asked, asked);
    const assumptions = assumed();
    const { goals: _, ...forecast } = loaded().forecast({ ...last, assumptions });
    const whole =
      last.breakOff === 0 ? null : loaded().forecast({ starts: last.starts, breakOff: 0, assumptions });
    // In their order as the document has them assumed: while one is dragged, none moves.
    steering ??= loaded()
      .steering()
      .map(({ shares, ...rest }) => ({
        ...rest,
        shares: shares.map(({ where, answer, share }) => ({ where, answer, share })),
      }));
    return {
      ...forecast,
      whole: whole && { sections: whole.sections, endings: whole.endings },
      steering,
    };
  },

  effects: (of) => loaded().effects(v.parse(Hanging, of), assumed()),

  minutesBySection: () => loaded().minutesBySection(assumed()),

  doublings: (of) => loaded().doublings(v.parse(AnyGroup, of), assumed()),

  quotas: (of) =>
    loaded().quotas({ ...last, assumptions: assumed() }, of === null ? null : v.parse(AnyGroup, of)),

  sets() {
    const { document } = current();
    return [null, ...setsOf(document).map(({ name }) => name)].map((set) => {
      const { starts, breakOff } = last;
      const assumptions = assumedInSet(document, set);
      const { items, endings, minutes } = loaded().forecast({ starts, breakOff, assumptions });
      return { set, items, endings, minutes };
    });
  },

  sample: (header, rows) => sampleOfRows(current(), v.parse(Header, header), v.parse(Rows, rows)),

  minutesByEnding: () => loaded().minutesByEnding({ ...last, assumptions: assumed() }),
};

expose(contained(api));
