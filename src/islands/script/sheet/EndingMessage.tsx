/** One message of an ending: shown where its condition is the first to hold. */
import type { Draft } from 'immer';
import { address, fieldId } from '../../../core/document/addresses';
import type { Ending, Message } from '../../../core/document/types';
import { editEnding } from '../../../core/editing/structure';
import { useStudy } from '../../state/store';
import { ConditionField } from '../../fields/ConditionField';
import { thenFocus } from '../../fields/focus';
import { RichField } from '../../fields/RichField';
import { RichText } from '../../ui/RichText';
import askIfClasses from '../item/ask-if.module.css';
import blockClasses from '../item/block.module.css';
import detailsClasses from '../item/details.module.css';

interface Props {
  readonly ending: Ending;
  readonly at: number;
  readonly m: number;
  readonly message: Message;
  readonly selected: boolean;
}

export function EndingMessage({ ending, at, m, message, selected }: Props) {
  const commit = useStudy((state) => state.commit);
  const past = useStudy((state) => state.plan.sections.length);
  const { id, messages } = ending;
  const edit = (field: string, change: (draft: Draft<Message>) => void) =>
    commit(
      editEnding(at, `message ${m} ${field}`, `Write ending ${id}`, (draft) => {
        const found = draft.messages[m];
        if (found !== undefined) change(found);
      }),
    );
  const setCondition = (text: string | undefined) =>
    edit('if', (draft) => {
      if (text === undefined) delete draft.if;
      else draft.if = text;
    });
  const rearrange = (label: string, change: (list: Draft<Message>[]) => void) =>
    commit(editEnding(at, 'messages', label, (draft) => change(draft.messages)));
  const select = useStudy((state) => state.select);
  const field = fieldId('@ending', id, m);
  const condition = fieldId('@ending', id, m, 'if');
  return (
    <div className={blockClasses.message}>
      {message.if !== undefined && !selected && <div className={askIfClasses.askIf}>if {message.if}</div>}
      {message.if !== undefined && selected && (
        <div className={askIfClasses.askIfEditor}>
          <span>if</span>
          <div>
            <ConditionField
              field={condition}
              label={`Message ${m + 1} is shown if`}
              value={message.if}
              place={{ section: past, item: 0 }}
              isProblem={(snag) => snag.at.ending === id && snag.field === `messages[${m}].if`}
              change={setCondition}
            />
          </div>
          <button type="button" onClick={() => setCondition(undefined)}>
            To all
          </button>
        </div>
      )}
      {selected ? (
        <RichField
          field={field}
          label={`Message of ending ${id}`}
          value={message.text}
          place={{ section: past, item: 0 }}
          placeholder="What respondents read at this ending"
          change={(text) => edit('text', (draft) => void (draft.text = text))}
        />
      ) : (
        <div data-field={field} onClick={() => thenFocus(() => select(address('ending', id)), field)}>
          {message.text === '' ? 'No words yet' : <RichText text={message.text} />}
        </div>
      )}
      {selected && (
        <div className={detailsClasses.extras}>
          {message.if === undefined && (
            <button type="button" onClick={() => thenFocus(() => setCondition(''), condition)}>
              To all, or only if …
            </button>
          )}
          {m > 0 && (
            <button
              type="button"
              onClick={() =>
                rearrange('Try a message earlier', (list) => list.splice(m - 1, 0, ...list.splice(m, 1)))
              }
            >
              Try it earlier
            </button>
          )}
          {messages.length > 1 && (
            <button type="button" onClick={() => rearrange('Delete a message', (list) => list.splice(m, 1))}>
              Delete this message
            </button>
          )}
        </div>
      )}
    </div>
  );
}
