/** The slip at the right: of what is selected, who is asked, where it leads, its snags, and what uses it later. */
import { readAddress } from '../../core/document/addresses';
import { useStudy } from '../state/store';
import { DeclarationSlip } from './DeclarationSlip';
import { CommentsSlip } from './CommentsSlip';
import { EndingSlip } from './EndingSlip';
import { GroupSlip } from './GroupSlip';
import { ItemSlip } from './ItemSlip';
import { NoticeCard } from './NoticeCard';
import { SectionSlip } from './SectionSlip';
import { StudySlip } from './StudySlip';
import classes from './slip.module.css';
import primitives from '../ui/primitives.module.css';

export function Slip() {
  const selection = useStudy((state) => state.selection);
  const plan = useStudy((state) => state.plan);
  const several = useStudy((state) => state.group.size > 1);
  const content = () => {
    if (several) return <GroupSlip plan={plan} />;
    if (selection === 'comments') return <CommentsSlip />;
    if (selection === null) return <Keys />;
    const { kind, name } = readAddress(selection);
    if (kind === 'study') return <StudySlip />;
    if (kind === 'given' || kind === 'quota' || kind === 'derived')
      return <DeclarationSlip key={selection} plan={plan} kind={kind} name={name} />;
    if (kind === 'item') {
      const planItem = plan.sections.flatMap(({ items }) => items).find(({ item }) => item.name === name);
      if (planItem !== undefined) return <ItemSlip key={name} plan={plan} planItem={planItem} />;
    }
    if (kind === 'section') {
      const found = plan.sections.find(({ section }) => section.id === name);
      if (found !== undefined) return <SectionSlip key={found.section.id} plan={plan} planSection={found} />;
    }
    if (kind === 'ending') {
      const at = plan.endings.findIndex(({ ending }) => ending.id === name);
      if (at >= 0) return <EndingSlip plan={plan} at={at} />;
    }
    return <Keys />;
  };
  return (
    <aside className={classes.slip} aria-label="Slip">
      <NoticeCard />
      {content()}
    </aside>
  );
}

/** Nothing is selected: how to begin. */
function Keys() {
  return (
    <>
      <h2>Writing on the sheet</h2>
      <div className={primitives.card}>
        <dl className={classes.keys}>
          <dt>Click, Tab</dt>
          <dd>write where you are</dd>
          <dt>Enter</dt>
          <dd>next answer; after an empty one, next question</dd>
          <dt>Ctrl Enter</dt>
          <dd>next question at once</dd>
          <dt>Alt →</dt>
          <dd>from an answer: where it leads, then a digit</dd>
          <dt>Alt ↑ ↓</dt>
          <dd>move the answer, item or section</dd>
          <dt>Shift ↑ ↓</dt>
          <dd>take several items together; Shift with a click, too</dd>
          <dt>Ctrl D</dt>
          <dd>copy the item, or all that are taken</dd>
          <dt>Esc, Delete</dt>
          <dd>out of the field; delete the item</dd>
          <dt>Ctrl B, I</dt>
          <dd>bold, italic; {'{'} pipes an earlier answer in</dd>
          <dt>Ctrl K</dt>
          <dd>find anything; replace</dd>
          <dt>Ctrl Z</dt>
          <dd>undo, with Shift redo, anything</dd>
        </dl>
      </div>
    </>
  );
}
