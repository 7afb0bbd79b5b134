/** The slip where nothing can be changed: of an item who is asked, and what was said of it. */
import { address, readAddress } from '../../core/document/addresses';
import type { Plan } from '../../core/routing/plan';
import { conditionSentence } from '../../core/wording/sentence';
import { endingLabel, sectionLabel } from '../../core/wording/targets';
import { useStudy } from '../state/store';
import { plural } from '../ui/format';
import primitives from '../ui/primitives.module.css';
import { CommentCards } from './CommentCards';
import classes from './slip.module.css';
import { WhoIsAsked } from './WhoIsAsked';

export function ReadSlip() {
  const selection = useStudy((state) => state.selection);
  const plan = useStudy((state) => state.plan);
  if (selection === null || selection === 'comments') return null;
  const { kind, name } = readAddress(selection);
  const planItem =
    kind === 'item'
      ? plan.sections.flatMap(({ items }) => items).find(({ item }) => item.name === name)
      : undefined;
  const index = plan.sections.findIndex(({ section: { id } }) => kind === 'section' && id === name);
  const title =
    index >= 0
      ? sectionLabel(plan.document, index)
      : kind === 'ending'
        ? endingLabel(plan.document, name)
        : name;
  return (
    <aside className={classes.slip} aria-label="Slip">
      <h2>{title}</h2>
      {index >= 0 && <SectionCard plan={plan} index={index} />}
      {planItem !== undefined && (
        <>
          <div className={primitives.card}>{planItem.item.text}</div>
          <WhoIsAsked plan={plan} planItem={planItem} />
        </>
      )}
      <CommentCards key={selection} places={[[kind === 'item' ? address('item', name) : selection, title]]} />
    </aside>
  );
}

function SectionCard({ plan, index }: { readonly plan: Plan; readonly index: number }) {
  const { items, section, gate } = plan.sections[index] as Plan['sections'][number];
  return (
    <div className={primitives.card}>
      <p>
        {plural(items.length, 'item')}
        {gate === null ? ', for everybody who comes here' : `, if ${conditionSentence(gate, plan.variables)}`}
        .
      </p>
      {section.intro !== undefined && <p className={classes.plain}>{section.intro}</p>}
    </div>
  );
}
