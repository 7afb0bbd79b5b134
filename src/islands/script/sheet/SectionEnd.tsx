/** The end of a section on the sheet: where it leads, and ways to add to the section. */
import { useDroppable } from '@dnd-kit/core';
import { useState } from 'react';
import { address, fieldId } from '../../../core/document/addresses';
import { sectionLetter } from '../../../core/document/variables';
import { editSection } from '../../../core/editing/structure';
import { onwardList, type Plan, type PlanSection } from '../../../core/routing/plan';
import { targetWords } from '../../../core/wording/targets';
import { PasteListButton } from '../../slips/PasteListButton';
import { useStudy } from '../../state/store';
import { useItemMoves } from '../../fields/part-moves';
import { TargetPicker } from '../../fields/TargetPicker';
import answersClasses from '../item/answers.module.css';
import endClasses from './section-end.module.css';

interface Props {
  readonly plan: Plan;
  readonly planSection: PlanSection;
}

export function SectionEnd({ plan, planSection }: Props) {
  const { section, index } = planSection;
  const moves = useItemMoves();
  const { setNodeRef, isOver } = useDroppable({
    id: `end ${index}`,
    data: { place: { section: index, item: section.items.length } },
  });
  return (
    <div ref={setNodeRef} className={endClasses.end} data-over={isOver || undefined}>
      {section.items.length === 0 && (
        <span className={endClasses.empty}>Nothing is asked in this section yet. It may hold text only.</span>
      )}
      <Onward plan={plan} planSection={planSection} />
      <span className={endClasses.adders}>
        {(['question', 'statement', 'page_break'] as const).map((kind) => (
          <button
            key={kind}
            type="button"
            data-field={fieldId('@add', kind, section.id)}
            onClick={() => moves.addAt({ section: index, item: section.items.length }, kind)}
          >
            Add {kind === 'page_break' ? 'a page break' : `a ${kind}`}
          </button>
        ))}
        <PasteListButton
          section={section.id}
          title="Several questions at once, as they were drafted elsewhere"
        />
      </span>
    </div>
  );
}

function Onward({ plan, planSection }: Props) {
  const { section, index } = planSection;
  const { document } = plan;
  const commit = useStudy((state) => state.commit);
  const [aiming, setAiming] = useState(false);
  const list = onwardList(section);
  const next = document.sections[index + 1];
  const usual =
    next === undefined
      ? targetWords(document, { ending: document.endings[plan.lastEnding]?.id ?? '' })
      : `${sectionLetter(index + 1)} ${next.title}`;
  return (
    <div
      className={endClasses.onward}
      data-anchor={list.length > 0 ? address('onward', section.id) : undefined}
    >
      <span>At the end of {sectionLetter(index)}</span>
      {list.map((onward, n) => (
        <span key={n}>
          {onward.if !== undefined && <code>{onward.if}</code>} <i aria-hidden="true">→</i>{' '}
          <b>{targetWords(document, onward.to)}</b>
        </span>
      ))}
      {!list.some((onward) => onward.if === undefined) && (
        <span>
          {list.length > 0 && 'else '}
          <i aria-hidden="true">→</i> <b>{usual}</b>
        </span>
      )}
      <span className={answersClasses.aim}>
        <button
          type="button"
          data-field={fieldId('@onward', section.id)}
          aria-expanded={aiming}
          onClick={() => setAiming(!aiming)}
        >
          Change
        </button>
        {aiming && (
          <TargetPicker
            section={index}
            item={null}
            none={`on to ${usual}`}
            close={() => setAiming(false)}
            choose={(target) => {
              setAiming(false);
              commit(
                editSection(index, 'onward', `Lead on from the end of ${sectionLetter(index)}`, (draft) => {
                  const conditional = onwardList(section).filter((onward) => onward.if !== undefined);
                  const all = target === null ? conditional : [...conditional, { to: target }];
                  if (all.length === 0) delete draft.onward;
                  else draft.onward = all as typeof draft.onward;
                }),
              );
            }}
          />
        )}
      </span>
    </div>
  );
}
