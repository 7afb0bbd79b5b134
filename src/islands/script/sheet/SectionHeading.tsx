/** The heading of a section on the sheet: printed, or written in while it is selected. */
import type { KeyboardEvent } from 'react';
import { flushSync } from 'react-dom';
import { address, fieldId, wholeField } from '../../../core/document/addresses';
import { SECTION_KINDS, type Section, type SectionKind } from '../../../core/document/types';
import { sectionLetter } from '../../../core/document/variables';
import { addSections } from '../../../core/editing/restructure';
import { editSection, moveSection, removeSection } from '../../../core/editing/structure';
import { nameSectionByTitle, retitleSection } from '../../../core/editing/titles';
import type { PlanSection } from '../../../core/routing/plan';
import { plural } from '../../ui/format';
import { useStudy, useStudyStore } from '../../state/store';
import { TextField } from '../../fields/Fields';
import { focusField, thenFocus } from '../../fields/focus';
import { RichText } from '../../ui/RichText';
import { SheetBlock } from '../item/SheetBlock';
import blockClasses from '../item/block.module.css';
import { SectionFields } from './SectionFields';

interface Props {
  readonly planSection: PlanSection;
  readonly folded: boolean;
}

export function SectionHeading({ planSection, folded }: Props) {
  const fold = useStudy((state) => state.fold);
  const { section, index } = planSection;
  const key = address('section', section.id);
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
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
    <SheetBlock
      selection={key}
      title={`Section ${sectionLetter(index)} ${section.title}`}
      className={blockClasses.heading}
      onKeyDown={onKeyDown}
    >
      {(selected) => (
        <>
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
              <WrittenTitle planSection={planSection} />
            ) : (
              <PrintedTitle planSection={planSection} />
            )}
            {folded && (
              <span className={blockClasses.kindWord}>
                · {plural(planSection.items.length, 'item')} folded away
              </span>
            )}
            <AskedOf section={section} selected={selected} />
          </div>
          {selected && <SectionFields planSection={planSection} />}
          {!selected && section.intro !== undefined && (
            <div className={blockClasses.intro}>
              <RichText text={section.intro} />
            </div>
          )}
        </>
      )}
    </SheetBlock>
  );
}

function PrintedTitle({ planSection: { section } }: { readonly planSection: PlanSection }) {
  const select = useStudy((state) => state.select);
  const title = fieldId('@section', section.id, 'title');
  return (
    <>
      <h2 data-field={title} onClick={() => thenFocus(() => select(address('section', section.id)), title)}>
        {section.title || 'Untitled section'}
      </h2>
      <span className={blockClasses.kindWord}>{section.kind}</span>
    </>
  );
}

function WrittenTitle({ planSection: { section, index } }: { readonly planSection: PlanSection }) {
  const key = address('section', section.id);
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
  const retitle = (title: string) => commit(retitleSection(store.getState().document, index, title));
  /** An outline: a section for every line, this one for the first. */
  const pasteTitles = (text: string): boolean => {
    const titles = text.split(/\r?\n/).flatMap((line) => line.trim() || []);
    const [first, ...rest] = titles;
    if (first === undefined || rest.length === 0) return false;
    retitle(section.title + first);
    commit(addSections(store.getState().document, index + 1, rest));
    return true;
  };
  const setKind = (kind: SectionKind) =>
    commit(
      editSection(index, 'kind', `Make section ${sectionLetter(index)} ${kind}`, (draft) => {
        draft.kind = kind;
      }),
    );
  return (
    <>
      <h2>
        <TextField
          field={fieldId('@section', section.id, 'title')}
          label="Title of the section"
          value={section.title}
          placeholder="Section title"
          change={retitle}
          onPaste={pasteTitles}
          onBlur={nameByTitle}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            focusField(fieldId('@add', 'question', nameByTitle()));
          }}
        />
      </h2>
      <select
        className={blockClasses.type}
        aria-label="Kind of section"
        value={section.kind}
        onChange={(event) => setKind(event.target.value as SectionKind)}
      >
        {SECTION_KINDS.map((kind) => (
          <option key={kind}>{kind}</option>
        ))}
      </select>
    </>
  );
}

interface AskedProps {
  readonly section: Section;
  readonly selected: boolean;
}

/** Repeats, draws and whom it is asked of; while it is selected the condition stands below, to be written. */
function AskedOf({ section, selected }: AskedProps) {
  return (
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
  );
}
