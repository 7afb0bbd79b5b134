/** Where people are lost: who starts, who is shown each section, and how all of them end; beside it without break-off. */
import { Bar, BarChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { Hanging } from '../../core/forecast/forecast';
import type { Group } from '../../core/analysis';
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
  const share = (
    of: readonly { readonly group: Group; readonly share: number }[],
    fits: (group: Group) => boolean,
  ) => of.reduce((sum, each) => (fits(each.group) ? sum + each.share : sum), 0);
  const kinds = new Map(plan.endings.map(({ ending }) => [ending.id, ending.kind]));
  const endingIn = (group: Group, ...wanted: string[]) =>
    'ending' in group && wanted.includes(kinds.get(group.ending) ?? '');
  const ended = share(figures.endings, () => true);
  const declined = share(figures.endings, (group) => endingIn(group, 'declined'));
  const out = share(figures.endings, (group) => endingIn(group, 'screened_out', 'quota_full'));
  const steps = [
    { id: 'start', words: 'Started', share: 1 },
    { id: 'consented', words: 'Not declined', share: 1 - declined },
    { id: 'eligible', words: 'Nor screened out', share: 1 - declined - out },
    ...plan.sections.map(({ section }) => ({
      id: `section ${section.id}`,
      words: section.title,
      share: share(figures.sections, (group) => 'section' in group && group.section === section.id),
    })),
  ];
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
            data={steps.map((step) => ({ ...step, people: step.share * held.starts }))}
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
            <Bar
              dataKey="people"
              fill="var(--pine-mid)"
              isAnimationActive={false}
              barSize={13}
              label={{
                position: 'right',
                fontSize: 11.5,
                fill: 'var(--ink)',
                formatter: (people: unknown) => countOf(Number(people)),
              }}
            />
          </BarChart>
        </ResponsiveContainer>
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
          </tr>
        </thead>
        <tbody>
          {steps.map(({ id, words, share: own }) => (
            <tr key={id}>
              <th scope="row">{words}</th>
              <td>{countOf(own * held.starts)}</td>
              <td>{(100 * own).toFixed(1)}%</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
