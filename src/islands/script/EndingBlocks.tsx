/** The endings, at the foot of the sheet: each with its kind and what respondents read there. */
import { ENDING_KINDS, type EndingKind } from '../../core/document/types';
import { addEnding, editEnding, removeEnding } from '../../core/editing/structure';
import { ENDING_WORDS } from '../../core/views/targets';
import { EndingMark } from '../ui/EndingMark';
import { useStudy, useStudyStore } from '../study/store';
import { TextField } from './Fields';
import { fieldId } from './focus';
import { wholeItem } from './moves';
import classes from './sheet.module.css';

export function EndingBlocks() {
  const endings = useStudy((state) => state.document.endings);
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
  return (
    <section aria-label="Endings">
      <div className={classes.heading}>
        <div className={classes.headline}>
          <h2>Endings</h2>
        </div>
      </div>
      {endings.map((ending, e) => (
        <EndingBlock key={ending.id} at={e} />
      ))}
      <div className={classes.end}>
        <span className={classes.adders}>
          {ENDING_KINDS.map((kind) => (
            <button
              key={kind}
              type="button"
              onClick={() => commit(addEnding(store.getState().document, kind))}
            >
              Add {ENDING_WORDS[kind].toLowerCase()}
            </button>
          ))}
        </span>
      </div>
    </section>
  );
}

function EndingBlock({ at }: { readonly at: number }) {
  const ending = useStudy((state) => state.document.endings[at]);
  const selection = useStudy((state) => state.selection);
  const select = useStudy((state) => state.select);
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
  if (ending === undefined) return null;
  const key = `ending:${ending.id}`;
  const selected = selection === key;
  return (
    <div
      className={`${classes.item} ${selected ? classes.selected : ''}`}
      data-anchor={key}
      data-field={wholeItem(key)}
      tabIndex={0}
      role="group"
      aria-label={`Ending ${ending.id}`}
      onFocus={() => {
        if (!selected) select(key);
      }}
      onKeyDown={(event) => {
        if (event.target !== event.currentTarget || (event.key !== 'Delete' && event.key !== 'Backspace'))
          return;
        event.preventDefault();
        commit(removeEnding(store.getState().document, at));
      }}
    >
      <div className={classes.name}>
        {ending.id}
        <small className={classes.endingKind}>
          <EndingMark kind={ending.kind} />{' '}
          {selected ? (
            <select
              className={classes.type}
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
                  {ENDING_WORDS[kind].toLowerCase()}
                </option>
              ))}
            </select>
          ) : (
            ENDING_WORDS[ending.kind].toLowerCase()
          )}
        </small>
      </div>
      <div>
        {ending.messages.map((message, m) => (
          <div key={m} className={classes.message}>
            {message.if !== undefined && <div className={classes.askIf}>if {message.if}</div>}
            <TextField
              field={fieldId('ending', ending.id, m)}
              label={`Message of ending ${ending.id}`}
              value={message.text}
              placeholder="What respondents read at this ending"
              change={(text) =>
                commit(
                  editEnding(at, `message ${m}`, `Write ending ${ending.id}`, (draft) => {
                    const found = draft.messages[m];
                    if (found !== undefined) found.text = text;
                  }),
                )
              }
            />
          </div>
        ))}
        {ending.messages.length === 0 && (
          <div className={classes.message}>No message: respondents see nothing here.</div>
        )}
        {ending.next !== undefined && (
          <div className={classes.note}>
            Then on to {'url' in ending.next ? ending.next.url : ending.next.questionnaire}
            {'carry' in ending.next && ending.next.carry ? `, carrying ${ending.next.carry.join(', ')}` : ''}
          </div>
        )}
      </div>
    </div>
  );
}
