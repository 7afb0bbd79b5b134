/** The slip of a section. */
import { address, wholeField } from '../../core/document/addresses';
import { sectionLetter } from '../../core/document/variables';
import { duplicateSection, mergeProblem, mergeSections } from '../../core/editing/restructure';
import { editSection, moveSection, removeSection } from '../../core/editing/structure';
import { onwardList, type Plan, type PlanSection } from '../../core/routing/plan';
import { conditionSentence } from '../../core/wording/sentence';
import { endingLabel } from '../../core/wording/targets';
import { PasteListButton } from './PasteListButton';
import { plural } from '../ui/format';
import { useStudy } from '../state/store';
import { CommentCards } from './CommentCards';
import { thenFocus } from '../fields/focus';
import { KeepButton } from './KeepButton';
import { SectionRuns } from './SectionRuns';
import { SkipRules } from './SkipRules';
import { SnagCards } from './SnagCards';
import { MoveActs } from './MoveActs';
import classes from './slip.module.css';
import primitives from '../ui/primitives.module.css';

interface Props {
  readonly plan: Plan;
  readonly planSection: PlanSection;
}

export function SectionSlip({ plan, planSection }: Props) {
  const { section, index, gate } = planSection;
  const commit = useStudy((state) => state.commit);
  const select = useStudy((state) => state.select);
  const letter = sectionLetter(index);
  const next = plan.document.sections[index + 1];
  const last = endingLabel(plan.document, plan.endings[plan.lastEnding]?.ending.id ?? '');
  const past = { section: index + 1, item: 0 };
  /** With the one after it; the two go on as the first. */
  const merge = (at: number) => {
    const key = address('section', plan.document.sections[at]?.id ?? '');
    thenFocus(() => {
      if (commit(mergeSections(plan.document, at)) === null) select(key);
    }, wholeField(key));
  };
  const move = (to: number) => commit(moveSection(plan.document, index, to));
  return (
    <>
      <h2>Section {letter} · who is asked</h2>
      <div className={primitives.card}>
        <p className={classes.who}>
          {gate === null ? 'Everyone who gets here' : `If ${conditionSentence(gate, plan.variables)}`}
        </p>
        <p className={classes.plain}>
          {plural(planSection.items.length, 'item')}
          {section.repeat !== undefined &&
            `, repeated ${'times' in section.repeat ? `${section.repeat.times} times` : `for each pick of ${section.repeat.each}`}, at most ${section.repeat.max}`}
          {section.draw !== undefined && `, ${section.draw} of the questions drawn for each respondent`}
          {section.shuffle && ', shown in random order'}.
        </p>
      </div>
      <h2>At the end of {letter}</h2>
      <div className={primitives.card}>
        <SkipRules
          plan={plan}
          place={{ section: index }}
          id={section.id}
          skips={onwardList(section)}
          isProblem={({ at }, n) => at.section === section.id && at.onward === n}
          reads={past}
          from={null}
          leaves={{ section: section.id }}
          otherwise={next === undefined ? last : `${sectionLetter(index + 1)} ${next.title}`}
          change={(skips, field, label) =>
            commit(
              editSection(index, field, label, (draft) => {
                if (skips.length === 0) delete draft.onward;
                else draft.onward = [...skips] as typeof draft.onward;
              }),
            )
          }
        />
      </div>
      <SectionRuns plan={plan} section={section} index={index} />
      <SnagCards belongs={({ at }) => at.section === section.id} />
      <CommentCards places={[[address('section', section.id), section.title]]} />
      <div className={classes.acts}>
        <MoveActs
          up={index === 0 ? null : () => move(index - 1)}
          down={next === undefined ? null : () => move(index + 1)}
          copy={() => commit(duplicateSection(plan.document, index))}
        />
        <PasteListButton
          section={section.id}
          title="Questions drafted elsewhere, at the end of this section"
        />
        <KeepButton words="Keep in the bank" title={section.title} content={{ kind: 'section', section }} />
        <button
          type="button"
          disabled={mergeProblem(plan.document, index - 1) !== null}
          title={mergeProblem(plan.document, index - 1) ?? undefined}
          onClick={() => merge(index - 1)}
        >
          Merge with the one above
        </button>
        <button
          type="button"
          disabled={mergeProblem(plan.document, index) !== null}
          title={mergeProblem(plan.document, index) ?? undefined}
          onClick={() => merge(index)}
        >
          Merge with the one below
        </button>
        <button
          type="button"
          disabled={plan.sections.length === 1}
          title={plan.sections.length === 1 ? 'A questionnaire has at least one section' : undefined}
          onClick={() => commit(removeSection(plan.document, index))}
        >
          Delete section {letter}
        </button>
      </div>
    </>
  );
}
