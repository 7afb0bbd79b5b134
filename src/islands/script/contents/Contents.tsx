/** Sections and endings at a glance; sections are dragged into another order here. */
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS as Transform } from '@dnd-kit/utilities';
import { MessageSquare } from 'lucide-react';
import { memo, useMemo } from 'react';
import { flushSync } from 'react-dom';
import {
  address,
  fieldId,
  readAddress,
  WHOLE_STUDY,
  wholeField,
  type Address,
} from '../../../core/document/addresses';
import type { Section } from '../../../core/document/types';
import { sectionLetter } from '../../../core/document/variables';
import { addDerived, addGiven, addQuota, quotaProblem } from '../../../core/editing/declarations';
import { moveSection } from '../../../core/editing/structure';
import { selectionOf } from '../../../core/views/places';
import { endingLabel } from '../../../core/wording/targets';
import type { Comment } from '../../../wire/comments';
import type { Selection } from '../../state/study-state';
import { EndingMark } from '../../ui/EndingMark';
import { countText, grouped, plural } from '../../ui/format';
import { useStudy, useStudyStore } from '../../state/store';
import { announcementsFor } from '../sheet/announcements';
import { useAddSection } from '../sheet/Sheet';
import { showField, thenFocus } from '../../fields/focus';
import classes from './contents.module.css';

export function Contents() {
  const document = useStudy((state) => state.document);
  const analysis = useStudy((state) => state.analysis);
  const selection = useStudy((state) => state.selection);
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
  const add = useAddSection();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: sortableKeyboardCoordinates,
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] },
    }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const at = (id: unknown) => document.sections.findIndex((section) => section.id === id);
    if (over === null || active.id === over.id) return;
    commit(moveSection(store.getState().document, at(active.id), at(over.id)));
  };
  const announcements = announcementsFor((side) => {
    const found = document.sections.find(({ id }) => id === side?.id);
    return found === undefined ? null : `section ${found.title}`;
  });
  const order = document.sections.map(({ id }) => id).join(' ');
  // A new list would have every row drawn anew.
  const ids = useMemo(() => order.split(' '), [order]);
  const comments = useStudy((state) => state.comments);
  const open = useMemo(() => openByPlace(comments), [comments]);
  const holding = sectionHolding(document.sections, selection);
  const routesTo = new Map(analysis?.endings.map(({ id, routes }) => [id, routes]));
  return (
    <nav className={classes.contents} aria-label="Contents">
      <h2>Sections</h2>
      <DndContext
        id="contents"
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ announcements }}
        onDragEnd={onDragEnd}
      >
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          {document.sections.map((section, index) => (
            <Row
              key={index}
              section={section}
              index={index}
              current={index === holding}
              comments={commentsIn(open, section)}
            />
          ))}
        </SortableContext>
      </DndContext>
      <button
        type="button"
        className={classes.add}
        title={holding < 0 ? undefined : 'After the section that is selected'}
        onClick={() => add(holding < 0 ? undefined : holding + 1)}
      >
        Add a section
      </button>
      <h2>Endings</h2>
      {document.endings.map((ending) => {
        const routes = routesTo.get(ending.id);
        return (
          <button
            key={ending.id}
            type="button"
            className={selection === address('ending', ending.id) ? classes.current : undefined}
            title={routes === undefined ? undefined : `${grouped(routes)} routes end here`}
            onClick={() => goTo(store.getState().select, address('ending', ending.id))}
          >
            <EndingMark kind={ending.kind} />
            <span>{endingLabel(document, ending.id)}</span>
            <small>{routes === undefined ? '' : countText(routes, 6)}</small>
          </button>
        );
      })}
      <AroundList />
    </nav>
  );
}

const AROUND = {
  given: 'Add a given value',
  arm: 'Add a random arm',
  quota: 'Add a quota',
  cases: 'Add a grouping',
  value: 'Add a sum',
} as const;

/** What stands around the questions, and the study as a whole. */
function AroundList() {
  const document = useStudy((state) => state.document);
  const selection = useStudy((state) => state.selection);
  const commit = useStudy((state) => state.commit);
  const select = useStudy((state) => state.select);
  const rows = [
    ...(document.given ?? []).map(
      ({ name, random }) => [address('given', name), name, random ? 'arm' : 'given'] as const,
    ),
    ...(document.quotas ?? []).map(({ id }) => [address('quota', id), id, 'quota'] as const),
    ...(document.derived ?? []).map(
      (entry) => [address('derived', entry.name), entry.name, 'cases' in entry ? 'cases' : 'sum'] as const,
    ),
  ];
  const openComments = useStudy(
    (state) => state.comments.filter(({ settledBy }) => settledBy === null).length,
  );
  const noQuota = quotaProblem(document);
  const add = (what: keyof typeof AROUND) => {
    const change =
      what === 'quota'
        ? addQuota(document)
        : what === 'given' || what === 'arm'
          ? addGiven(document, what === 'arm')
          : addDerived(document, what);
    if (commit(change) !== null) return;
    const kind = what === 'quota' ? 'quota' : what === 'given' || what === 'arm' ? 'given' : 'derived';
    thenFocus(() => select(address(kind, change.name)), wholeField(address(kind, change.name)));
  };
  return (
    <>
      <h2>Around the questions</h2>
      {rows.map(([key, name, kind]) => (
        <button
          key={key}
          type="button"
          className={selection === key ? classes.current : undefined}
          onClick={() => goTo(select, key)}
        >
          <i aria-hidden="true" />
          <code>{name}</code>
          <small>{kind}</small>
        </button>
      ))}
      <select
        className={classes.adder}
        aria-label="Add around the questions"
        value=""
        onChange={(event) => add(event.target.value as keyof typeof AROUND)}
      >
        <option value="" disabled>
          Add …
        </option>
        {(Object.keys(AROUND) as (keyof typeof AROUND)[]).map((what) => (
          <option
            key={what}
            value={what}
            disabled={what === 'quota' && noQuota !== null}
            title={(what === 'quota' && noQuota) || undefined}
          >
            {AROUND[what]}
          </option>
        ))}
      </select>
      <button
        type="button"
        className={selection === WHOLE_STUDY ? classes.current : undefined}
        onClick={() => select(WHOLE_STUDY)}
      >
        <i aria-hidden="true" />
        <span>Settings of the study</span>
      </button>
      <button
        type="button"
        className={selection === 'comments' ? classes.current : undefined}
        onClick={() => select('comments')}
      >
        <i aria-hidden="true" />
        <span>Comments</span>
        <small>{openComments === 0 ? '' : `${openComments} open`}</small>
      </button>
    </>
  );
}

interface RowProps {
  readonly section: Section;
  readonly index: number;
  readonly current: boolean;
  /** How many are open on the section, its items and their skips. */
  readonly comments: number;
}

const Row = memo(function Row({ section, index, current, comments }: RowProps) {
  const store = useStudyStore();
  const select = useStudy((state) => state.select);
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: section.id });
  const items = section.items.filter(({ kind }) => kind !== 'page_break').length;
  return (
    <button
      type="button"
      ref={setNodeRef}
      {...attributes}
      {...listeners}
      style={{ transform: Transform.Translate.toString(transform), transition }}
      className={current ? classes.current : undefined}
      aria-current={current || undefined}
      onClick={() => goTo(select, address('section', section.id))}
      data-field={fieldId('@contents', section.id)}
      title="Alt with ↑ or ↓ moves the section"
      onKeyDown={(event) => {
        const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
        if (!event.altKey || by === 0) {
          listeners?.onKeyDown?.(event);
          return;
        }
        event.preventDefault();
        const { document, commit } = store.getState();
        if (document.sections[index + by] === undefined) return;
        thenFocus(() => commit(moveSection(document, index, index + by)), fieldId('@contents', section.id));
      }}
    >
      <b>{sectionLetter(index)}</b>
      <span>
        {section.title || 'Untitled section'}
        {section.repeat !== undefined && <small> ×{section.repeat.max}</small>}
        {comments > 0 && (
          <small className={classes.comments} title={plural(comments, 'open comment')}>
            {' '}
            <MessageSquare size={11} aria-hidden="true" /> {comments}
            <span className={classes.unseen}> open {comments === 1 ? 'comment' : 'comments'}</span>
          </small>
        )}
      </span>
      <small>{items}</small>
    </button>
  );
});

function openByPlace(comments: readonly Comment[]): ReadonlyMap<Address, number> {
  const open = new Map<Address, number>();
  for (const { place, settledBy } of comments) {
    const key = selectionOf(place);
    if (settledBy === null) open.set(key, (open.get(key) ?? 0) + 1);
  }
  return open;
}

function commentsIn(open: ReadonlyMap<Address, number>, { id, items }: Section): number {
  if (open.size === 0) return 0;
  return items.reduce(
    (sum, item) => sum + (item.kind === 'page_break' ? 0 : (open.get(address('item', item.name)) ?? 0)),
    open.get(address('section', id)) ?? 0,
  );
}

function goTo(select: (selection: Selection) => void, key: Address): void {
  flushSync(() => select(key));
  showField(wholeField(key), 'start');
}

function sectionHolding(sections: readonly Section[], selection: Selection): number {
  if (selection === null || selection === 'comments') return -1;
  const { kind, name } = readAddress(selection);
  if (kind === 'break') return Number(name);
  return sections.findIndex(
    (section) =>
      selection === address('section', section.id) ||
      section.items.some((item) => item.kind !== 'page_break' && selection === address('item', item.name)),
  );
}
