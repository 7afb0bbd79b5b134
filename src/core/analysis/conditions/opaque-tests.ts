/** Tests of several answers at once that are not looked into: each stands for itself, as a variable of its own. */
import { printCondition } from '../../condition/print';
import { eachName, mentionsPass, type Condition } from '../../condition/syntax';
import { passKey } from '../../document/addresses';
import type { Plan } from '../../routing/plan';
import type { Diagram, Diagrams } from '../diagrams/diagram';
import type { Viewpoint } from './answers-read';

export interface OpaqueTest {
  readonly text: string;
  /** `pass` null where all passes see the same. */
  readonly at: Viewpoint;
}

export class OpaqueTests {
  /** By the level that stands for each. */
  readonly byLevel = new Map<number, OpaqueTest>();
  private readonly levels = new Map<string, number>();

  /** `hidden`: the level of a new variable with this meaning. */
  constructor(
    private readonly plan: Plan,
    private readonly diagrams: Diagrams,
    private readonly hidden: (meaning: string) => number,
  ) {}

  /** The variable of a test as it is seen from a place; the same for the same test. */
  test(test: Condition, from: Viewpoint): Diagram {
    const text = printCondition(test);
    const at = readsPass(test, from, this.plan) ? from : { ...from, pass: null };
    const inPass = at.pass === null ? '' : passKey(this.plan.sections[at.section]?.section.id ?? '', at.pass);
    const key = `${text} ${inPass}`;
    const level = this.levels.get(key) ?? this.hidden(`test ${key}`);
    this.levels.set(key, level);
    this.byLevel.set(level, { text, at });
    return this.diagrams.variable(level);
  }
}

/** Whether a test can come out differently from pass to pass: by the number of the pass, its code, or its answers. */
function readsPass(test: Condition, { section, pass }: Viewpoint, plan: Plan): boolean {
  if (pass === null) return false;
  if (mentionsPass(test)) return true;
  let found = false;
  eachName(test, ({ name }) => {
    const variable = plan.variables.get(name.toLowerCase());
    found ||= (variable?.of === 'question' || variable?.of === 'row') && variable.section === section;
  });
  return found;
}
