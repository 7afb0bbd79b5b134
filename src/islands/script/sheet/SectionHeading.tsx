/** The heading of a section on the sheet: printed, or written in while it is selected. */
import { useState, type KeyboardEvent } from 'react';
import { flushSync } from 'react-dom';
import { address, fieldId, wholeField } from '../../../core/document/addresses';
import { SECTION_KINDS, type SectionKind } from '../../../core/document/types';
import { sectionLetter } from '../../../core/document/variables';
import { addSections } from '../../../core/editing/restructure';
import { editSection, moveSection, removeSection } from '../../../core/editing/structure';
import { nameSectionByTitle, retitleSection } from '../../../core/editing/titles';
import type { PlanSection } from '../../../core/routing/plan';
import { plural } from '../../ui/format';
import { useStudy, useStudyStore } from '../../state/store';
import { ConditionField } from '../../fields/ConditionField';
import { ConditionPicker } from '../../fields/ConditionPicker';
import { TextField } from '../../fields/Fields';
import { focusField, thenFocus } from '../../fields/focus';
import { RichText } from '../../ui/RichText';
import { RichField } from '../../fields/RichField';
import askIfClasses from '../item/ask-if.module.css';
import blockClasses from '../item/block.module.css';
import detailsClasses from '../item/details.module.css';

interface Props {
  readonly planSection: PlanSection;
  readonly folded: boolean;
}

export function SectionHeading({ planSection, folded }: Props) {
  const fold = useStudy((state) => state.fold);
  const { section, index } = planSection;
  const key = address('section', section.id);
  const selected = useStudy((state) => state.selection === key);
  const select = useStudy((state) => state.select);
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
  /** A new section is named once its title is written; gives the id it has then. */
  const nameByTitle = (): string => {
    const change = nameSectionByTitle(store.getState().document, index);
    if (change === null) return section.id;
    flushSync(() => {
      commit(change);
      if (store.getState().selection === key) select(address('section', change.id));
    });
    return change.id;
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const own = event.target === event.currentTarget;
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      const to = index + (event.key === 'ArrowUp' ? -1 : 1);
      const { document } = store.getState();
      if (document.sections[to] !== undefined) {
        commit(moveSection(document, index, to));
        queueMicrotask(() => focusField(wholeField(key)));
      }
    } else if (own && (event.key === 'ArrowLeft' || event.key === 'ArrowRight'))
      fold(section.id, event.key === 'ArrowLeft');
    else if (own && (event.key === 'Delete' || event.key === 'Backspace'))
      commit(removeSection(store.getState().document, index));
    else return;
    event.preventDefault();
  };
  return (
    <div
      className={`${blockClasses.heading} ${selected ? blockClasses.selected : ''}`}
      data-selected={selected || undefined}
      data-anchor={key}
      data-field={wholeField(key)}
      tabIndex={0}
      role="group"
      aria-label={`Section ${sectionLetter(index)} ${section.title}`}
      onFocus={() => {
        if (!selected) select(key);
      }}
      onKeyDown={onKeyDown}
    >
      <div className={blockClasses.headline}>
        <button
          type="button"
          className={blockClasses.letter}
          aria-expanded={!folded}
          aria-label={`${folded ? 'Unfold' : 'Fold'} section ${sectionLetter(index)}`}
          title={`${folded ? 'Unfold' : 'Fold'} the section (← →)`}
          onClick={() => fold(section.id, !folded)}
        >
          {sectionLetter(index)}
        </button>
        {selected ? (
          <h2>
            <TextField
              field={fieldId('@section', section.id, 'title')}
              label="Title of the section"
              value={section.title}
              placeholder="Section title"
              change={(title) => commit(retitleSection(store.getState().document, index, title))}
              onPaste={(text) => {
                // An outline: a section for every line, this one for the first.
                const titles = text.split(/\r?\n/).flatMap((line) => line.trim() || []);
                const [first, ...rest] = titles;
                if (first === undefined || rest.length === 0) return false;
                commit(retitleSection(store.getState().document, index, section.title + first));
                commit(addSections(store.getState().document, index + 1, rest));
                return true;
              }}
              onBlur={nameByTitle}
              onKeyDown={(event) => {
                if (event.key !== 'Enter') return;
                event.preventDefault();
                focusField(fieldId('@add', 'question', nameByTitle()));
              }}
            />
          </h2>
        ) : (
          <h2
            data-field={fieldId('@section', section.id, 'title')}
            onClick={() => thenFocus(() => select(key), fieldId('@section', section.id, 'title'))}
          >
            {section.title || 'Untitled section'}
          </h2>
        )}
        {selected ? (
          <select
            className={blockClasses.type}
            aria-label="Kind of section"
            value={section.kind}
            onChange={(event) =>
              commit(
                editSection(
                  index,
                  'kind',
                  `Make section ${sectionLetter(index)} ${event.target.value}`,
                  (draft) => {
                    draft.kind = event.target.value as SectionKind;
                  },
                ),
              )
            }
          >
            {SECTION_KINDS.map((kind) => (
              <option key={kind}>{kind}</option>
            ))}
          </select>
        ) : (
          <span className={blockClasses.kindWord}>{section.kind}</span>
        )}
        {folded && (
          <span className={blockClasses.kindWord}>
            · {plural(planSection.items.length, 'item')} folded away
          </span>
        )}
        <span className={blockClasses.asked}>
          {section.repeat !== undefined && `repeated up to ×${section.repeat.max} · `}
          {section.draw !== undefined && `${section.draw} drawn · `}
          {section.shuffle && 'shuffled · '}
          {section.askIf === undefined ? (
            <>
              Ask <em>all</em>
            </>
          ) : (
            !selected && <code>ask if {section.askIf}</code>
          )}
        </span>
      </div>
      {selected && <SectionFields planSection={planSection} />}
      {!selected && section.intro !== undefined && (
        <div className={blockClasses.intro}>
          <RichText text={section.intro} />
        </div>
      )}
    </div>
  );
}

function SectionFields({ planSection: { section, index } }: { readonly planSection: PlanSection }) {
  const commit = useStudy((state) => state.commit);
  const [picking, setPicking] = useState(false);
  const set = (field: 'askIf' | 'intro', text: string | undefined) =>
    commit(
      editSection(index, field, `Change section ${sectionLetter(index)}`, (draft) => {
        if (text === undefined) delete draft[field];
        else draft[field] = text;
      }),
    );
  const place = { section: index, item: 0 };
  return (
    <>
      {section.askIf !== undefined && (
        <div className={askIfClasses.askIfEditor}>
          <span>ask if</span>
          <div>
            <ConditionField
              field={fieldId('@section', section.id, 'askIf')}
              label="The section is asked if"
              value={section.askIf}
              place={place}
              isProblem={({ at, field }) =>
                at.section === section.id && at.onward === undefined && field === 'askIf'
              }
              change={(text) => set('askIf', text)}
            />
            {picking && (
              <ConditionPicker place={place} value={section.askIf} change={(text) => set('askIf', text)} />
            )}
          </div>
          <button type="button" aria-expanded={picking} onClick={() => setPicking(!picking)}>
            Pick
          </button>
          <button type="button" onClick={() => set('askIf', undefined)}>
            Ask all
          </button>
        </div>
      )}
      {section.intro !== undefined && (
        <div className={blockClasses.intro}>
          <RichField
            field={fieldId('@section', section.id, 'intro')}
            label="Introduction"
            value={section.intro}
            place={place}
            placeholder="What respondents read first"
            change={(text) => set('intro', text)}
          />
        </div>
      )}
      <div className={detailsClasses.extras}>
        {section.askIf === undefined && (
          <button
            type="button"
            onClick={() => thenFocus(() => set('askIf', ''), fieldId('@section', section.id, 'askIf'))}
          >
            Ask all, or only if …
          </button>
        )}
        <button
          type="button"
          onClick={() =>
            section.intro === undefined
              ? thenFocus(() => set('intro', ''), fieldId('@section', section.id, 'intro'))
              : set('intro', undefined)
          }
        >
          {section.intro === undefined ? 'Add an introduction' : 'Remove the introduction'}
        </button>
      </div>
    </>
  );
}
