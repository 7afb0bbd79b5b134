/** The slip of an item. */
import { parseCondition } from '../../core/condition/parse';
import { printCondition } from '../../core/condition/print';
import { address, fieldId, type Address } from '../../core/document/addresses';
import { askIfToSkip, skipToAskIf } from '../../core/editing/convert';
import { splitProblem, splitSection } from '../../core/editing/restructure';
import { editItem, type ItemPlace } from '../../core/editing/structure';
import { secondsOf } from '../../core/routing/burden';
import type { Plan, PlanItem } from '../../core/routing/plan';
import { usedLaterBy } from '../../core/views/used-later';
import { baseOf } from '../../core/wording/base';
import { openPaste } from '../state/open-paste';
import { countText, grouped, percentText, secondsText } from '../ui/format';
import { shownSearch } from '../state/routes-shown';
import { RoutesDoor } from './RoutesDoor';
import { askedOf } from '../state/asked';
import { useStudy, useStudyStore } from '../state/store';
import { thenFocus } from '../fields/focus';
import { useItemMoves } from '../fields/part-moves';
import { CommentCards } from './CommentCards';
import { KeepButton } from './KeepButton';
import { Rewrite } from './Rewrite';
import { SkipRules } from './SkipRules';
import { SnagCards } from './SnagCards';
import classes from './slip.module.css';
import rows from './rows.module.css';
import primitives from '../ui/primitives.module.css';

interface Props {
  readonly plan: Plan;
  readonly planItem: PlanItem;
}

export function ItemSlip({ plan, planItem }: Props) {
  const { item } = planItem;
  const place: ItemPlace = { section: planItem.section, item: planItem.place };
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
  const select = useStudy((state) => state.select);
  const moves = useItemMoves();
  const used = usedLaterBy(plan, item.name);
  const section = plan.sections[planItem.section]?.section;
  const fixed = section?.draw !== undefined || section?.shuffle === true;
  const next = nextInOrder(plan, planItem);
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
          <SkipRules
            plan={plan}
            place={place}
            id={item.name}
            skips={item.skips ?? []}
            isProblem={({ at }, index) => at.item === item.name && at.skip === index}
            reads={{ section: place.section, item: place.item + 1 }}
            from={place.item}
            otherwise={next}
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
        )}
      </div>
      <SnagCards belongs={({ at }) => at.item === item.name} />
      <CommentCards
        places={[
          [address('item', item.name), item.name],
          ...(item.skips ?? []).map((_, n) => [address('skip', item.name, n + 1), `skip ${n + 1}`] as const),
        ]}
      />
      {used.length > 0 && (
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
      )}
      <div className={classes.acts}>
        <button type="button" title="Alt+↑" onClick={() => moves.moveBy(place, -1)}>
          Move up
        </button>
        <button type="button" title="Alt+↓" onClick={() => moves.moveBy(place, 1)}>
          Move down
        </button>
        <button type="button" title="Ctrl+D" onClick={() => moves.duplicate(place)}>
          Copy
        </button>
        <button
          type="button"
          title="Questions drafted elsewhere, after this item"
          onClick={() => openPaste(store, address('item', item.name))}
        >
          Paste a list after it
        </button>
        <button
          type="button"
          disabled={splitProblem(plan.document, place) !== null}
          title={
            splitProblem(plan.document, place) ?? 'This item and all after it become a section of their own'
          }
          onClick={() => {
            const change = splitSection(plan.document, place);
            thenFocus(
              () => {
                if (commit(change) === null) select(address('section', change.id));
              },
              fieldId('@section', change.id, 'title'),
              'all',
            );
          }}
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
    </>
  );

  function keyOf(of: Plan, user: string): Address | null {
    for (const { section: home, items } of of.sections) {
      if (home.title === user) return address('section', home.id);
      if (items.some(({ item: other }) => other.name === user)) return address('item', user);
    }
    return null;
  }
}

function nextInOrder(plan: Plan, { section, index }: PlanItem): string {
  const here = plan.sections[section];
  const next = here?.items[index + 1];
  if (next !== undefined) return next.item.name;
  return `the end of the section`;
}

function WhoIsAsked({ plan, planItem }: Props) {
  const analysis = useStudy((state) => state.analysis);
  const { name } = planItem.item;
  const { section } = plan.sections[planItem.section] ?? {};
  const routes = analysis?.items[name];
  const total = analysis?.routes;
  const sample = analysis?.sample;
  const expected = sample?.items[name];
  const broken = useStudy((state) => state.snags).some(
    ({ at, field }) =>
      at.item === name && field === 'askIf' && at.option === undefined && at.row === undefined,
  );
  const base = baseOf(plan.variables, askedOf(analysis, name));
  const parts = base.conditions.flatMap((text) => partsOf(text));
  const notApplicable = plan.document.missing.find(({ reason }) => reason === 'not_applicable');
  const some = routes !== undefined && total !== undefined && total !== '0';
  const drawn = section?.draw !== undefined && planItem.item.kind === 'question';
  return (
    <div className={primitives.card}>
      <p className={classes.who}>
        {broken ? 'Nobody, until the condition is mended' : base.sentence}
        {drawn && `, where it is drawn (${section?.draw} of ${questionsIn(section)})`}
      </p>
      {parts.length > 0 && !broken && (
        <div className={classes.chips}>
          {parts.map((part) => (
            <code key={part}>{part}</code>
          ))}
        </div>
      )}
      <div className={classes.bar} aria-hidden="true">
        <i style={{ width: some ? `${share(routes, total)}%` : 0 }} />
      </div>
      <div className={rows.pair}>
        <span>{analysis?.exact === false ? 'On routes counted so far' : 'On routes'}</span>
        <b>
          {some ? (
            <RoutesDoor
              search={shownSearch({ through: [name] })}
              title={`${grouped(routes)} of ${grouped(total)}`}
            >
              {`${countText(routes)} of ${countText(total)}`}
            </RoutesDoor>
          ) : (
            '…'
          )}
        </b>
      </div>
      <div className={rows.pair}>
        <span>Of the sample</span>
        <b title="By the answers that are assumed, with quotas open">
          {sample === null ? 'not known exactly' : expected === undefined ? '…' : percentText(expected.share)}
        </b>
      </div>
      <div className={rows.pair}>
        <span>Takes {section?.repeat === undefined ? '' : 'each time '}about</span>
        <b>{secondsText(secondsOf(planItem.item))}</b>
      </div>
      {planItem.item.kind === 'question' && (
        <div className={rows.pair}>
          <span>Others get</span>
          <code>{notApplicable?.code} not applicable</code>
        </div>
      )}
    </div>
  );
}

/** The parts of a condition that all have to hold, each by itself. */
function partsOf(text: string): string[] {
  const parsed = parseCondition(text);
  if (!parsed.ok || parsed.tree.kind !== 'and') return [text];
  return parsed.tree.parts.map(printCondition);
}

function questionsIn(section: Plan['sections'][number]['section'] | undefined): number {
  return section?.items.filter(({ kind }) => kind === 'question').length ?? 0;
}

/** Per cent, from decimal strings of any length. */
function share(part: string, whole: string): number {
  return Number((BigInt(part) * 10_000n) / BigInt(whole)) / 100;
}
