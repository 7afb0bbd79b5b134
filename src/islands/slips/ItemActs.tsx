/** What can be done to an item as a whole. */
import { address, fieldId } from '../../core/document/addresses';
import { splitProblem, splitSection } from '../../core/editing/restructure';
import type { ItemPlace } from '../../core/editing/structure';
import type { Plan, PlanItem } from '../../core/routing/plan';
import { thenFocus } from '../fields/focus';
import { useItemMoves } from '../fields/part-moves';
import { openPaste } from '../state/open-paste';
import { useStudy, useStudyStore } from '../state/store';
import { KeepButton } from './KeepButton';
import { MoveActs } from './MoveActs';
import classes from './slip.module.css';

interface Props {
  readonly plan: Plan;
  readonly item: PlanItem['item'];
  readonly place: ItemPlace;
}

export function ItemActs({ plan, item, place }: Props) {
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
  const select = useStudy((state) => state.select);
  const moves = useItemMoves();
  const notSplit = splitProblem(plan.document, place);
  const split = () => {
    const change = splitSection(plan.document, place);
    thenFocus(
      () => {
        if (commit(change) === null) select(address('section', change.id));
      },
      fieldId('@section', change.id, 'title'),
      'all',
    );
  };
  return (
    <div className={classes.acts}>
      <MoveActs
        up={() => moves.moveBy(place, -1)}
        down={() => moves.moveBy(place, 1)}
        copy={() => moves.duplicate(place)}
        copyKeys="Ctrl+D"
      />
      <button
        type="button"
        title="Questions drafted elsewhere, after this item"
        onClick={() => openPaste(store, address('item', item.name))}
      >
        Paste a list after it
      </button>
      <button
        type="button"
        disabled={notSplit !== null}
        title={notSplit ?? 'This item and all after it become a section of their own'}
        onClick={split}
      >
        Begin a section here
      </button>
      {item.kind === 'question' && (
        <KeepButton
          words="Keep in the bank"
          title={item.label ?? item.text}
          content={{ kind: 'question', question: item }}
        />
      )}
      {item.kind === 'question' && 'options' in item.answer && (
        <KeepButton
          words="Keep its answers"
          title={`Answers of ${item.label ?? item.name}`}
          content={{ kind: 'answers', options: item.answer.options }}
        />
      )}
      <button type="button" title="Delete" onClick={() => moves.remove(place)}>
        Delete {item.kind}
      </button>
    </div>
  );
}
