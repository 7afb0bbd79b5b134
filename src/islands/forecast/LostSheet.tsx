/** Where people are lost: who is left, who is shown each section, and how all of them end; beside it without break-off. */
import type { EndingKind } from '../../core/document/types';
import type { Expected, Hanging } from '../../core/forecast/forecast';
import { ENDINGS } from '../../core/document/vocabularies';
import type { MadeFor } from '../../core/forecast/made-for';
import type { Plan } from '../../core/routing/plan';
import { endingColour } from '../../core/views/river-colours';
import type { Figures } from '../../worker/forecast/types';
import { EndingMark } from '../ui/EndingMark';
import { countOf } from './figures';
import { LostBars, type LostStep } from './LostBars';
import { TableHead } from '../ui/TableHead';
import classes from './lost.module.css';

interface Props {
  readonly figures: Figures;
  readonly held: MadeFor;
  readonly plan: Plan;
  readonly select: (of: Hanging) => void;
}

type Shares = Pick<Figures, 'sections' | 'endings'>;

export function LostSheet({ figures, held, plan, select }: Props) {
  const { whole, endings } = figures;
  const { starts, breakOff } = held;
  const kinds = new Map(plan.endings.map(({ ending }) => [ending.id, ending.kind]));
  const kindOf = (id: string): EndingKind => kinds.get(id) ?? 'complete';
  const step = (id: string, words: string, colour: string, of: (shares: Shares) => number): LostStep => ({
    id,
    words,
    colour,
    share: of(figures),
    whole: whole === null ? null : of(whole),
  });
  const endedIn = (of: Shares, fits: (kind: EndingKind) => boolean) =>
    of.endings.reduce(
      (sum, { group, share }) => ('ending' in group && fits(kindOf(group.ending)) ? sum + share : sum),
      0,
    );
  const left = [
    step('start', 'Started', 'var(--ink)', () => 1),
    step('consented', 'Not declined', 'var(--ink)', (of) => 1 - endedIn(of, isDeclined)),
    step(
      'eligible',
      'Nor turned away',
      'var(--ink)',
      (of) => 1 - endedIn(of, isDeclined) - endedIn(of, isTurnedAway),
    ),
  ];
  const sections = plan.sections.map(({ section: { id, title } }) =>
    step(id, title, 'var(--series-3)', (of) =>
      shareOf(of.sections, (group) => 'section' in group && group.section === id),
    ),
  );
  const ends = plan.endings.map(({ ending: { id, kind } }) =>
    step(id, id, endingColour(kind), (of) =>
      shareOf(of.endings, (group) => 'ending' in group && group.ending === id),
    ),
  );
  const broken = 1 - endedIn(figures, () => true);
  return (
    <>
      <LostBars title="Who is left" steps={left} starts={starts} hasAxis={false} />
      <LostBars title="Who is shown something of" steps={sections} starts={starts} hasAxis={false} />
      <LostBars title="How they end" steps={ends} starts={starts} hasAxis />
      {whole !== null && <p className={classes.note}>Pale: if nobody broke off.</p>}
      <table className={classes.table}>
        <TableHead of={['how they end', 'people', '95 in 100 times', 'of all']} />
        <tbody>
          {endings.map(({ group, expected, low, high, share: own }) => {
            if (!('ending' in group)) return null;
            const kind = kindOf(group.ending);
            return (
              <tr key={group.ending}>
                <th scope="row">
                  <EndingMark kind={kind} />{' '}
                  <button type="button" title={ENDINGS[kind].meaning} onClick={() => select({ group })}>
                    {group.ending}
                  </button>
                </th>
                <td>{countOf(expected)}</td>
                <td>
                  {countOf(low)} to {countOf(high)}
                </td>
                <td>{(100 * own).toFixed(1)}%</td>
              </tr>
            );
          })}
          {breakOff > 0 && (
            <tr>
              <th scope="row">break off on the way</th>
              <td>{countOf(broken * starts)}</td>
              <td />
              <td>{(100 * broken).toFixed(1)}%</td>
            </tr>
          )}
        </tbody>
      </table>
      <StepsTable head="left of all who start" steps={left} starts={starts} />
      <StepsTable head="shown something of" steps={sections} starts={starts} />
    </>
  );
}

function StepsTable({
  head,
  steps,
  starts,
}: {
  readonly head: string;
  readonly steps: readonly LostStep[];
  readonly starts: number;
}) {
  const hasWhole = steps.some(({ whole }) => whole !== null);
  return (
    <table className={classes.table}>
      <TableHead of={[head, 'people', 'of all', ...(hasWhole ? ['if nobody broke off'] : [])]} />
      <tbody>
        {steps.map(({ id, words, share, whole }) => (
          <tr key={id}>
            <th scope="row">{words}</th>
            <td>{countOf(share * starts)}</td>
            <td>{(100 * share).toFixed(1)}%</td>
            {whole !== null && <td>{countOf(whole * starts)}</td>}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const isDeclined = (kind: EndingKind) => kind === 'declined';
/** Screened out, or of a quota that is full. */
const isTurnedAway = (kind: EndingKind) => kind === 'screened_out' || kind === 'quota_full';

function shareOf(all: readonly Expected[], is: (group: Expected['group']) => boolean): number {
  return all.find(({ group }) => is(group))?.share ?? 0;
}
