/** What an item can have besides its words and answers: each shown where it is set, the rest one choice away. */
import type { RoutedItem } from '../../../core/document/types';
import type { ItemPlace } from '../../../core/editing/structure';
import type { Plan } from '../../../core/routing/plan';
import { PictureButton } from '../../ui/PictureButton';
import { Problem } from '../../ui/Problem';
import detailsClasses from './details.module.css';
import { ChecksOfAnswer, ExtraTexts, ItemExtraRows, QuestionExtras } from './ExtraRows';
import { ADDED, addable, TEXTS, type Addable, type TextKey } from './extras';
import { useExtras, type Extras } from './use-extras';

interface Props {
  readonly plan: Plan;
  readonly item: RoutedItem;
  readonly place: ItemPlace;
}

export function ItemExtras({ plan, item, place }: Props) {
  const extras = useExtras(item, place);
  const { question, problem } = extras;
  return (
    <>
      <ExtraTexts item={item} place={place} extras={extras} />
      {question !== null && <QuestionExtras plan={plan} question={question} extras={extras} />}
      <ItemExtraRows item={item} extras={extras} />
      {question !== null && <ChecksOfAnswer question={question} place={place} extras={extras} />}
      <ExtrasBar name={item.name} left={addable(plan, item, place)} extras={extras} />
      <Problem of={problem} className={detailsClasses.wrong} />
    </>
  );
}

interface BarProps {
  readonly name: string;
  readonly left: readonly Addable[];
  readonly extras: Extras;
}

/** What is ticked or not, and what could be added. */
function ExtrasBar({ name, left, extras: { question, set, field, add, say } }: BarProps) {
  return (
    <div className={detailsClasses.extras}>
      {question !== null && (
        <label>
          <input
            type="checkbox"
            data-field={field('required')}
            checked={question.required ?? false}
            onChange={(event) => set('required', event.target.checked ? true : undefined)}
          />{' '}
          required
        </label>
      )}
      {question?.sensitive && (
        <label>
          <input type="checkbox" checked onChange={() => set('sensitive', undefined)} /> sensitive
        </label>
      )}
      <select
        className={detailsClasses.adder}
        data-field={field('add')}
        aria-label={`Add to ${name}`}
        value=""
        onChange={(event) => add(event.target.value as Addable)}
      >
        <option value="" disabled>
          Add …
        </option>
        {left
          .filter((key) => key !== 'image')
          .map((key) => (
            <option key={key} value={key}>
              {key in TEXTS ? TEXTS[key as TextKey][0] : ADDED[key as keyof typeof ADDED]}
            </option>
          ))}
      </select>
      {left.includes('image') && (
        <PictureButton
          words="Add a picture"
          take={(read) => {
            if (read.ok) set('image', { src: read.src, alt: '' });
            else say(read.problem);
          }}
        />
      )}
    </div>
  );
}
