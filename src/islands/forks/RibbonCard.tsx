/** Of a ribbon: who flows there and why, how many, what sets it, and what they pass over. */
import { useState } from 'react';
import { address, nameAt, type Address, type WrittenWay } from '../../core/document/addresses';
import { reaimWay, removeWay } from '../../core/editing/fork-edits';
import { routesAlong, waysAlong, type ForksRibbon } from '../../core/views/forks';
import type { River } from '../../core/views/river';
import { flowingSentence } from '../../core/wording/flowing';
import { endingLabel, sectionLabel } from '../../core/wording/targets';
import { percentText } from '../../core/wording/percent';
import { useAsked } from '../ui/use-asked';
import { shownSearch } from '../state/routes-shown';
import { SnagCards } from '../slips/SnagCards';
import { Problem } from '../ui/Problem';
import slip from '../slips/slip.module.css';
import rows from '../slips/rows.module.css';
import primitives from '../ui/primitives.module.css';
import { AimButton } from '../slips/AimButton';
import { useAnalysisClient } from '../state/analysis';
import { RoutesDoor } from '../slips/RoutesDoor';
import { useStudy } from '../state/store';
import { countText, grouped } from '../ui/format';
import classes from './forks.module.css';

interface Props {
  readonly river: River;
  readonly ribbon: ForksRibbon;
}

export function RibbonCard({ river, ribbon }: Props) {
  const { plan, model } = river;
  const total = useStudy((state) => state.analysis?.routes ?? '0');
  const isReadOnly = useStudy((state) => state.readOnly !== null);
  const { who, routes } = useFlowing(river, ribbon);
  const source = model.nodes.find(({ id }) => id === ribbon.from);
  const target = model.nodes.find(({ id }) => id === ribbon.to);
  const along = routesAlong(plan, model, ribbon);
  const ways = waysAlong(plan, model, ribbon);
  const over = passedOver(river, ribbon);
  const name = (id: Address) => {
    const node = model.nodes.find((each) => each.id === id);
    if (node === undefined) return endingLabel(plan.document, nameAt(id, 'ending') ?? '');
    return nameAt(id, 'section') !== null ? `${node.mark} ${node.label}` : node.mark || node.label;
  };
  return (
    <aside className={slip.slip} aria-label="Ribbon">
      <h2>
        Ribbon: {name(ribbon.from)} → {name(ribbon.to)}
      </h2>
      <div className={primitives.card}>
        <p className={slip.who}>{who === undefined ? '…' : flowingSentence(who, plan.variables)}</p>
        {who !== undefined && who !== null && who !== 'always' && who !== 'never' && <code>{who}</code>}
        <div className={rows.pair}>
          <span>Share of sample</span>
          <b>{ribbon.share === null ? 'not exact' : percentText(Math.min(1, ribbon.share))}</b>
        </div>
        <div className={rows.pair}>
          <span>Routes</span>
          <b>
            {along === null ? (
              'told by passes'
            ) : routes === null ? (
              '…'
            ) : (
              <RoutesDoor
                search={shownSearch({
                  through: along.through.flatMap((names) => placeOf(river, names)),
                  avoid: along.avoid,
                  ending: along.ending,
                })}
                title={`${grouped(routes)} of ${grouped(total)}`}
              >
                {`${countText(routes)} of ${countText(total)}`}
              </RoutesDoor>
            )}
          </b>
        </div>
        <div className={rows.pair}>
          <span>Set by</span>
          <b>
            {ways.length === 0
              ? over.length === 0
                ? 'it follows'
                : 'who is asked what lies between'
              : ways.map((way) => ('item' in way ? `skip at ${way.item}` : 'onward')).join(', ')}
          </b>
        </div>
        {(isReadOnly ? [] : ways).map((way) => (
          <WayTools key={JSON.stringify(way)} way={way} />
        ))}
      </div>
      {over.length > 0 && (
        <>
          <h2>They pass over</h2>
          <div className={primitives.card}>
            {over.map(({ label, columns, code }) => (
              <div key={label} className={rows.pair}>
                <span>{label}</span>
                <b className={classes.code}>
                  {columns} × {code}
                </b>
              </div>
            ))}
          </div>
        </>
      )}
      <SnagCards
        belongs={({ at }) =>
          [source, target].some(
            (node) =>
              node !== undefined &&
              ((at.item !== undefined && node.items.includes(at.item)) ||
                (at.item === undefined &&
                  at.section !== undefined &&
                  node.id === address('section', at.section))),
          )
        }
      />
    </aside>
  );
}

/** Aims a way anew, or deletes it. */
function WayTools({ way }: { readonly way: WrittenWay }) {
  const plan = useStudy((state) => state.plan);
  const commit = useStudy((state) => state.commit);
  const [problem, setProblem] = useState<string | null>(null);
  const section = plan.sections.find(({ section: { id }, items }) =>
    'section' in way ? id === way.section : items.some(({ item }) => item.name === way.item),
  );
  const at = 'item' in way ? (section?.items.findIndex(({ item }) => item.name === way.item) ?? -1) : null;
  if (section === undefined) return null;
  return (
    <div className={classes.wayTools}>
      <AimButton
        section={section.index}
        from={at}
        className={slip.button}
        choose={(target) => {
          const change = reaimWay(plan, way, target);
          setProblem(typeof change === 'string' ? change : commit(change));
        }}
      >
        Re-aim
      </AimButton>
      <button type="button" className={slip.button} onClick={() => commit(removeWay(way))}>
        Delete
      </button>
      <Problem of={problem} />
    </div>
  );
}

/** Who flows there, undefined until it is known, and how many routes. */
function useFlowing(
  river: River,
  ribbon: ForksRibbon,
): { who: string | null | undefined; routes: string | null } {
  const client = useAnalysisClient();
  const [found, setFound] = useState<{ key: ForksRibbon; who: string | null; routes: string | null } | null>(
    null,
  );
  const look = async () => {
    const { plan, model } = river;
    const items = (id: string) => model.nodes.find((node) => node.id === id)?.items ?? [];
    const target = model.nodes.find(({ id }) => id === ribbon.to);
    const to =
      target === undefined || target.section === null
        ? { ending: nameAt(ribbon.to, 'ending') ?? '' }
        : items(ribbon.to);
    const along = routesAlong(plan, model, ribbon);
    const routes = along === null ? null : ((await client.api.totals([along]))[0] ?? null);
    const who = await client.api.whoFlows({ from: items(ribbon.from), to });
    return { key: ribbon, who, routes };
  };
  useAsked(look, [client, river, ribbon], setFound);
  return found?.key === ribbon ? found : { who: undefined, routes: null };
}

/** The items of a whole section as the ledger names it. */
function placeOf({ model, plan }: River, names: readonly string[]): string[] {
  const node = model.nodes.find(({ items }) => items === names);
  if (node === undefined || node.section === null) return [...names];
  const id = plan.sections[node.section]?.section.id ?? '';
  return nameAt(node.id, 'section') !== null ? [address('section', id)] : [...names];
}

/** The sections, or items, between the ends of a ribbon, with how many questions are not applicable. */
function passedOver(
  { model, plan }: River,
  ribbon: ForksRibbon,
): { label: string; columns: number; code: number }[] {
  const ids = model.nodes.map(({ id }) => id);
  const after = ids.indexOf(ribbon.from) + 1;
  const target = ids.indexOf(ribbon.to);
  const until = target >= 0 ? target : model.nodes.findIndex(({ section }) => section === null);
  const code = plan.document.missing.find(({ reason }) => reason === 'not_applicable')?.code ?? -1;
  return model.nodes.slice(after, until < 0 ? undefined : until).flatMap((node) => {
    if (node.section === null) return [];
    const questions = plan.sections[node.section]?.items.filter(
      ({ item }) => node.items.includes(item.name) && item.kind === 'question',
    );
    const columns = questions?.length ?? 0;
    const label = nameAt(node.id, 'section') !== null ? sectionLabel(plan.document, node.section) : node.mark;
    return columns === 0 ? [] : [{ label, columns, code }];
  });
}
