/** One section on the sheet: its heading, its items, where its end leads, and ways to add. */
import { useDroppable } from '@dnd-kit/core';
import { useState, type KeyboardEvent } from 'react';
import { flushSync } from 'react-dom';
import { sectionLetter } from '../../core/document/variables';
import { SECTION_KINDS, type SectionKind } from '../../core/document/types';
import { onwardList, type Plan, type PlanSection } from '../../core/routing/plan';
import { editSection, moveSection, removeSection } from '../../core/editing/structure';
import { addSections } from '../../core/editing/restructure';
import { nameSectionByTitle, retitleSection } from '../../core/editing/titles';
import { targetWords } from '../../core/views/targets';
import { plural } from '../ui/format';
import { useStudy, useStudyStore } from '../study/store';
import { ConditionField } from './ConditionField';
import { ConditionPicker } from './ConditionPicker';
import { TextField } from './Fields';
import { fieldId, focusField, thenFocus } from './focus';
import { ItemBlock } from './ItemBlock';
import { useItemMoves, wholeItem } from './moves';
import { TargetPicker } from './TargetPicker';
import classes from './sheet.module.css';

interface Props {
  readonly plan: Plan;
  readonly planSection: PlanSection;
  readonly outline: string;
}

export function SectionBlock({ plan, planSection, outline }: Props) {
  const { section, index } = planSection;
  const moves = useItemMoves();
  const byPlace = new Map(planSection.items.map((planItem) => [planItem.place, planItem]));
  const { setNodeRef, isOver } = useDroppable({
    id: `end ${index}`,
    data: { place: { section: index, item: section.items.length } },
  });
  const folded = useStudy((state) => state.folded.has(section.id));
  if (folded)
    return (
      <section aria-label={section.title}>
        <Heading planSection={planSection} folded />
      </section>
    );
  return (
    <section aria-label={section.title}>
      <Heading planSection={planSection} />
      {section.items.map((item, i) => (
        <ItemBlock
          key={item.kind === 'page_break' ? `break ${i}` : byPlaceKey(section.items, i)}
          plan={plan}
          planItem={byPlace.get(i) ?? null}
          section={index}
          item={i}
          outline={outline}
        />
      ))}
      <div ref={setNodeRef} className={classes.end} data-over={isOver || undefined}>
        {section.items.length === 0 && (
          <span className={classes.empty}>Nothing is asked in this section yet. It may hold text only.</span>
        )}
        <Onward plan={plan} planSection={planSection} />
        <span className={classes.adders}>
          {(['question', 'statement', 'page_break'] as const).map((kind) => (
            <button
              key={kind}
              type="button"
              data-field={fieldId('add', kind, section.id)}
              onClick={() => moves.addAt({ section: index, item: section.items.length }, kind)}
            >
              Add {kind === 'page_break' ? 'a page break' : `a ${kind}`}
            </button>
          ))}
        </span>
      </div>
    </section>
  );
}

/** The item's name; where names are used twice, with how often it stood before. */
function byPlaceKey(items: Props['planSection']['section']['items'], at: number): string {
  const item = items[at];
  if (item === undefined || item.kind === 'page_break') return `break ${at}`;
  const before = items
    .slice(0, at)
    .filter((other) => other.kind !== 'page_break' && other.name === item.name).length;
  return before === 0 ? item.name : `${item.name} ${before}`;
}

function Heading({
  planSection,
  folded = false,
}: {
  readonly planSection: PlanSection;
  readonly folded?: boolean;
}) {
  const fold = useStudy((state) => state.fold);
  const { section, index } = planSection;
  const key = `section:${section.id}`;
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
      if (store.getState().selection === key) select(`section:${change.id}`);
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
        queueMicrotask(() => focusField(wholeItem(key)));
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
      className={`${classes.heading} ${selected ? classes.selected : ''}`}
      data-anchor={key}
      data-field={wholeItem(key)}
      tabIndex={0}
      role="group"
      aria-label={`Section ${sectionLetter(index)} ${section.title}`}
      onFocus={() => {
        if (!selected) select(key);
      }}
      onKeyDown={onKeyDown}
    >
      <div className={classes.headline}>
        <button
          type="button"
          className={classes.letter}
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
              field={fieldId(section.id, 'title')}
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
                focusField(fieldId('add', 'question', nameByTitle()));
              }}
            />
          </h2>
        ) : (
          <h2
            data-field={fieldId(section.id, 'title')}
            onClick={() => thenFocus(() => select(key), fieldId(section.id, 'title'))}
          >
            {section.title || 'Untitled section'}
          </h2>
        )}
        {selected ? (
          <select
            className={classes.type}
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
          <span className={classes.kindWord}>{section.kind}</span>
        )}
        {folded && (
          <span className={classes.kindWord}>· {plural(planSection.items.length, 'item')} folded away</span>
        )}
        <span className={classes.asked}>
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
      {!selected && section.intro !== undefined && <p className={classes.intro}>{section.intro}</p>}
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
        <div className={classes.askIfEditor}>
          <span>ask if</span>
          <div>
            <ConditionField
              field={fieldId(section.id, 'askIf')}
              label="The section is asked if"
              value={section.askIf}
              place={place}
              isProblem={({ at, field }) =>
                at.section === section.id && at.onward === undefined && field === 'askIf'
              }
              change={(text) => set('askIf', text)}
              placeholder="heat_main = 2"
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
        <div className={classes.intro}>
          <TextField
            field={fieldId(section.id, 'intro')}
            label="Introduction"
            value={section.intro}
            placeholder="What respondents read first"
            change={(text) => set('intro', text)}
          />
        </div>
      )}
      <div className={classes.extras}>
        {section.askIf === undefined && (
          <button
            type="button"
            onClick={() => thenFocus(() => set('askIf', ''), fieldId(section.id, 'askIf'))}
          >
            Ask all, or only if …
          </button>
        )}
        <button
          type="button"
          onClick={() =>
            section.intro === undefined
              ? thenFocus(() => set('intro', ''), fieldId(section.id, 'intro'))
              : set('intro', undefined)
          }
        >
          {section.intro === undefined ? 'Add an introduction' : 'Remove the introduction'}
        </button>
      </div>
    </>
  );
}

function Onward({ plan, planSection }: Omit<Props, 'outline'>) {
  const { section, index } = planSection;
  const { document } = plan;
  const commit = useStudy((state) => state.commit);
  const [aiming, setAiming] = useState(false);
  const list = onwardList(section);
  const next = document.sections[index + 1];
  const usual =
    next === undefined
      ? targetWords(document, { ending: document.endings[plan.lastEnding]?.id ?? '' })
      : `${sectionLetter(index + 1)} ${next.title}`;
  return (
    <div className={classes.onward} data-anchor={list.length > 0 ? `onward:${section.id}` : undefined}>
      <span>At the end of {sectionLetter(index)}</span>
      {list.map((onward, n) => (
        <span key={n}>
          {onward.if !== undefined && <code>{onward.if}</code>} <i aria-hidden="true">→</i>{' '}
          <b>{targetWords(document, onward.to)}</b>
        </span>
      ))}
      {!list.some((onward) => onward.if === undefined) && (
        <span>
          {list.length > 0 && 'else '}
          <i aria-hidden="true">→</i> <b>{usual}</b>
        </span>
      )}
      <span className={classes.aim}>
        <button
          type="button"
          data-field={fieldId('onward', section.id)}
          aria-expanded={aiming}
          onClick={() => setAiming(!aiming)}
        >
          Change
        </button>
        {aiming && (
          <TargetPicker
            section={index}
            item={null}
            none={`on to ${usual}`}
            close={() => setAiming(false)}
            choose={(target) => {
              setAiming(false);
              commit(
                editSection(index, 'onward', `Lead on from the end of ${sectionLetter(index)}`, (draft) => {
                  const conditional = onwardList(section).filter((onward) => onward.if !== undefined);
                  const all = target === null ? conditional : [...conditional, { to: target }];
                  if (all.length === 0) delete draft.onward;
                  else draft.onward = all as typeof draft.onward;
                }),
              );
            }}
          />
        )}
      </span>
    </div>
  );
}
