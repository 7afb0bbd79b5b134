/** The slip of an item. */
import { address, type Address } from '../../core/document/addresses';
import { askIfToSkip, skipToAskIf } from '../../core/editing/convert';
import { editItem, type ItemPlace } from '../../core/editing/structure';
import type { Plan, PlanItem } from '../../core/routing/plan';
import { usedLaterBy } from '../../core/views/used-later';
import { useStudy } from '../state/store';
import primitives from '../ui/primitives.module.css';
import { CommentCards } from './CommentCards';
import { ItemActs } from './ItemActs';
import { Rewrite } from './Rewrite';
import { SkipRules } from './SkipRules';
import classes from './slip.module.css';
import { SnagCards } from './SnagCards';
import { WhoIsAsked } from './WhoIsAsked';

interface Props {
  readonly plan: Plan;
  readonly planItem: PlanItem;
}

export function ItemSlip({ plan, planItem }: Props) {
  const { item } = planItem;
  const place: ItemPlace = { section: planItem.section, item: planItem.place };
  const section = plan.sections[planItem.section]?.section;
  const fixed = section?.draw !== undefined || section?.shuffle === true;
  return (
    <>
      <h2>
        <code>{item.name}</code> · who is asked
      </h2>
      <WhoIsAsked plan={plan} planItem={planItem} />
      {item.askIf !== undefined && !fixed && (
        <p className={classes.under}>
          <Rewrite
            words="Write as a skip from the item before"
            make={() => askIfToSkip(plan.document, place)}
          />
        </p>
      )}
      <h2>Then</h2>
      <div className={primitives.card}>
        {fixed ? (
          <p className={classes.plain}>
            The section{' '}
            {section?.draw === undefined ? 'is shuffled' : `draws ${section.draw} of its questions`}, so no
            skip can leave from here.
          </p>
        ) : (
          <SkipsOfItem plan={plan} planItem={planItem} place={place} />
        )}
      </div>
      <SnagCards belongs={({ at }) => at.item === item.name} />
      <CommentCards
        places={[
          [address('item', item.name), item.name],
          ...(item.skips ?? []).map((_, n) => [address('skip', item.name, n + 1), `skip ${n + 1}`] as const),
        ]}
      />
      <UsedLater plan={plan} name={item.name} />
      <ItemActs plan={plan} item={item} place={place} />
    </>
  );
}

function SkipsOfItem({ plan, planItem, place }: Props & { readonly place: ItemPlace }) {
  const { item } = planItem;
  const commit = useStudy((state) => state.commit);
  return (
    <SkipRules
      plan={plan}
      place={place}
      id={item.name}
      skips={item.skips ?? []}
      isProblem={({ at }, index) => at.item === item.name && at.skip === index}
      reads={{ section: place.section, item: place.item + 1 }}
      from={place.item}
      otherwise={nextInOrder(plan, planItem)}
      leaves={{ item: item.name }}
      asAskIf={(index) => skipToAskIf(plan.document, place, index)}
      change={(skips, field, label) =>
        commit(
          editItem(place, field, label, (draft) => {
            if (draft.kind === 'page_break') return;
            if (skips.length === 0) delete draft.skips;
            else draft.skips = [...skips] as typeof draft.skips;
          }),
        )
      }
    />
  );
}

function nextInOrder(plan: Plan, { section, index }: PlanItem): string {
  const here = plan.sections[section];
  const next = here?.items[index + 1];
  if (next !== undefined) return next.item.name;
  return `the end of the section`;
}

function UsedLater({ plan, name }: { readonly plan: Plan; readonly name: string }) {
  const select = useStudy((state) => state.select);
  const used = usedLaterBy(plan, name);
  if (used.length === 0) return null;
  return (
    <>
      <h2>Used later by</h2>
      <div className={`${primitives.card} ${classes.chips}`}>
        {used.map((user) => (
          <button key={user} type="button" onClick={() => select(keyOf(plan, user))}>
            {user}
          </button>
        ))}
      </div>
    </>
  );
}

/** Of an item by its name, or a section by its title. */
function keyOf(of: Plan, user: string): Address | null {
  for (const { section: home, items } of of.sections) {
    if (home.title === user) return address('section', home.id);
    if (items.some(({ item: other }) => other.name === user)) return address('item', user);
  }
  return null;
}
