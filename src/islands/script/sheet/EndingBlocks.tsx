/** The endings, at the foot of the sheet: each with its kind and what respondents read there. */
import { address, fieldId } from '../../../core/document/addresses';
import { ENDING_KINDS, type Ending, type EndingKind } from '../../../core/document/types';
import { ENDINGS } from '../../../core/document/vocabularies';
import { addEnding, editEnding, removeEnding } from '../../../core/editing/structure';
import { EndingMark } from '../../ui/EndingMark';
import { useStudy, useStudyStore } from '../../state/store';
import { EndingMessage } from './EndingMessage';
import { EndingNext } from './EndingNext';
import { focusField } from '../../fields/focus';
import { SheetBlock } from '../item/SheetBlock';
import blockClasses from '../item/block.module.css';
import detailsClasses from '../item/details.module.css';
import endClasses from './section-end.module.css';

export function EndingBlocks() {
  const endings = useStudy((state) => state.document.endings);
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
  return (
    <section aria-label="Endings">
      <div className={blockClasses.heading}>
        <div className={blockClasses.headline}>
          <h2>Endings</h2>
        </div>
      </div>
      {endings.map((ending, e) => (
        <EndingBlock key={ending.id} at={e} />
      ))}
      <div className={endClasses.end}>
        <span className={endClasses.adders}>
          {ENDING_KINDS.map((kind) => (
            <button
              key={kind}
              type="button"
              onClick={() => commit(addEnding(store.getState().document, kind))}
            >
              Add {ENDINGS[kind].word.toLowerCase()}
            </button>
          ))}
        </span>
      </div>
    </section>
  );
}

function NextPrint({ ending: { next } }: { readonly ending: Ending }) {
  if (next === undefined) return null;
  return (
    <div className={blockClasses.note}>
      Then on to {'url' in next ? next.url : next.questionnaire}
      {'carry' in next && next.carry && next.carry.length > 0 ? `, carrying ${next.carry.join(', ')}` : ''}
    </div>
  );
}

function EndingBlock({ at }: { readonly at: number }) {
  const ending = useStudy((state) => state.document.endings[at]);
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
  if (ending === undefined) return null;
  const key = address('ending', ending.id);
  return (
    <SheetBlock
      selection={key}
      title={`Ending ${ending.id}`}
      className={blockClasses.item}
      onKeyDown={(event) => {
        if (event.target !== event.currentTarget || (event.key !== 'Delete' && event.key !== 'Backspace'))
          return;
        event.preventDefault();
        commit(removeEnding(store.getState().document, at));
      }}
    >
      {(selected) => (
        <>
          <div className={blockClasses.name}>
            {ending.id}
            <small className={blockClasses.endingKind}>
              <EndingMark kind={ending.kind} />{' '}
              {selected ? (
                <select
                  className={blockClasses.type}
                  aria-label="Kind of ending"
                  value={ending.kind}
                  onChange={(event) =>
                    commit(
                      editEnding(at, 'kind', `Change ending ${ending.id}`, (draft) => {
                        draft.kind = event.target.value as EndingKind;
                      }),
                    )
                  }
                >
                  {ENDING_KINDS.map((kind) => (
                    <option key={kind} value={kind}>
                      {ENDINGS[kind].word.toLowerCase()}
                    </option>
                  ))}
                </select>
              ) : (
                ENDINGS[ending.kind].word.toLowerCase()
              )}
            </small>
          </div>
          <div>
            {ending.messages.map((message, m) => (
              <EndingMessage key={m} ending={ending} at={at} m={m} message={message} selected={selected} />
            ))}
            {ending.messages.length === 0 && (
              <div className={blockClasses.message}>No message: respondents see nothing here.</div>
            )}
            {selected && (
              <div className={detailsClasses.extras}>
                <button
                  type="button"
                  onClick={() => {
                    commit(
                      editEnding(at, 'messages', `Add a message to ${ending.id}`, (draft) => {
                        draft.messages.push({ text: '' });
                      }),
                    );
                    requestAnimationFrame(() =>
                      focusField(fieldId('@ending', ending.id, ending.messages.length)),
                    );
                  }}
                >
                  Add a message
                </button>
              </div>
            )}
            {selected ? <EndingNext ending={ending} at={at} /> : <NextPrint ending={ending} />}
          </div>
        </>
      )}
    </SheetBlock>
  );
}
