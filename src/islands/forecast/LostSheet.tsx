/** Where people are lost: who starts, who is shown each section, and how all of them end; beside it without break-off. */
import { Bar, BarChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { EndingKind } from '../../core/document/types';
import type { Expected, Hanging } from '../../core/forecast/forecast';
import { ENDINGS } from '../../core/document/vocabularies';
import type { MadeFor } from '../../core/forecast/made-for';
import type { Plan } from '../../core/routing/plan';
import type { Figures } from '../../worker/forecast/types';
import { EndingMark } from '../ui/EndingMark';
import { countOf } from './figures';
import classes from './lost.module.css';

interface Props {
  readonly figures: Figures;
  readonly held: MadeFor;
  readonly plan: Plan;
  readonly select: (of: Hanging) => void;
}

export function LostSheet({ figures, held, plan, select }: Props) {
  const { whole } = figures;
  const kinds = new Map(plan.endings.map(({ ending }) => [ending.id, ending.kind]));
  const endedIn = (of: readonly Expected[], fits: (kind: EndingKind) => boolean) =>
    of.reduce(
      (sum, { group, share }) =>
        'ending' in group && fits(kinds.get(group.ending) ?? 'complete') ? sum + share : sum,
      0,
    );
  const stepsOf = (of: { readonly sections: readonly Expected[]; readonly endings: readonly Expected[] }) => {
    const declined = endedIn(of.endings, (kind) => kind === 'declined');
    const out = endedIn(of.endings, (kind) => kind === 'screened_out' || kind === 'quota_full');
    return [
      { id: 'start', words: 'Started', share: 1 },
      { id: 'consented', words: 'Not declined', share: 1 - declined },
      { id: 'eligible', words: 'Nor screened out', share: 1 - declined - out },
      ...plan.sections.map(({ section }) => ({
        id: `section ${section.id}`,
        words: section.title,
        share:
          of.sections.find(({ group }) => 'section' in group && group.section === section.id)?.share ?? 0,
      })),
      { id: 'end', words: 'At an ending', share: endedIn(of.endings, () => true) },
    ];
  };
  const wholeSteps = whole === null ? null : stepsOf(whole);
  const steps = stepsOf(figures).map((step, n) => ({ ...step, whole: wholeSteps?.[n]?.share ?? null }));
  const ended = endedIn(figures.endings, () => true);
  const broken = 1 - ended;
  return (
    <>
      <figure
        className={classes.chart}
        role="img"
        aria-label="How many start, consent, are eligible and are shown each section; the same figures stand in the table"
      >
        <ResponsiveContainer width="100%" height={steps.length * 26 + 28}>
          <BarChart
            layout="vertical"
            data={steps.map((step) => ({
              ...step,
              people: step.share * held.starts,
              unbroken: step.whole === null ? null : step.whole * held.starts,
            }))}
            margin={{ top: 0, right: 40, bottom: 0, left: 0 }}
            accessibilityLayer={false}
          >
            <XAxis
              type="number"
              domain={[0, held.starts]}
              tick={{ fontSize: 11, fill: 'var(--ink-soft)' }}
              stroke="var(--line)"
            />
            <YAxis
              type="category"
              dataKey="words"
              width={170}
              interval={0}
              tick={{ fontSize: 12, fill: 'var(--ink)' }}
              stroke="var(--line)"
            />
            {whole !== null && (
              <Bar dataKey="unbroken" fill="var(--series-4)" isAnimationActive={false} barSize={6} />
            )}
            <Bar
              dataKey="people"
              fill="var(--pine-mid)"
              isAnimationActive={false}
              barSize={whole === null ? 13 : 9}
              label={{
                position: 'right',
                fontSize: 11.5,
                fill: 'var(--ink)',
                formatter: (people: unknown) => countOf(Number(people)),
              }}
            />
          </BarChart>
        </ResponsiveContainer>
        {whole !== null && <figcaption>Pale: if nobody broke off.</figcaption>}
      </figure>
      <table className={classes.table}>
        <thead>
          <tr>
            <th scope="col">how they end</th>
            <th scope="col">people</th>
            <th scope="col">95 in 100 times</th>
            <th scope="col">of all</th>
          </tr>
        </thead>
        <tbody>
          {figures.endings.map(({ group, expected, low, high, share: own }) => {
            if (!('ending' in group)) return null;
            const kind = kinds.get(group.ending) ?? 'complete';
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
          {held.breakOff > 0 && (
            <tr>
              <th scope="row">break off on the way</th>
              <td>{countOf(broken * held.starts)}</td>
              <td />
              <td>{(100 * broken).toFixed(1)}%</td>
            </tr>
          )}
        </tbody>
      </table>
      <table className={classes.table}>
        <thead>
          <tr>
            <th scope="col">shown something of</th>
            <th scope="col">people</th>
            <th scope="col">of all</th>
            {whole !== null && <th scope="col">if nobody broke off</th>}
          </tr>
        </thead>
        <tbody>
          {steps.map(({ id, words, share: own, whole: unbroken }) => (
            <tr key={id}>
              <th scope="row">{words}</th>
              <td>{countOf(own * held.starts)}</td>
              <td>{(100 * own).toFixed(1)}%</td>
              {unbroken !== null && <td>{countOf(unbroken * held.starts)}</td>}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
