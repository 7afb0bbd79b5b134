/** What one more point of an answer gives: bars to the right for more, to the left for less, beside their figures. */
import { Bar, BarChart, Cell, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { assumedWords } from '../../core/forecast/answer-words';
import type { Effect } from '../../core/forecast/steering';
import type { Plan } from '../../core/routing/plan';
import { signed } from './figures';
import { TableHead } from '../ui/TableHead';
import classes from './selected.module.css';

interface Props {
  readonly effects: readonly Effect[];
  /** What a figure is multiplied by to be told, and in what. */
  readonly scale: { readonly by: number; readonly unit: string };
  readonly plan: Plan;
}

/** Of each question one answer, and as many questions. */
const MOST = 6;
const ROW = 24;

export function HangsOn({ effects, scale, plan }: Props) {
  const told = new Map<string, Effect>();
  // Sorted: the first of a question has the most effect.
  for (const effect of effects) if (!told.has(effect.name)) told.set(effect.name, effect);
  const rows = [...told.values()].slice(0, MOST).map(({ name, where, answer, perPoint }) => ({
    key: name,
    name,
    words: wordsOf(plan, name, where, answer),
    change: perPoint * scale.by,
  }));
  if (rows.length === 0) return <p className={classes.note}>It hangs on no answer.</p>;
  const most = Math.max(...rows.map(({ change }) => Math.abs(change)));
  const least = Math.min(0, ...rows.map(({ change }) => change));
  return (
    <div className={classes.hangs}>
      <table>
        <colgroup>
          <col />
          <col className={classes.gives} />
        </colgroup>
        <TableHead className={classes.unseen} of={['one point more of', 'gives']} />
        <tbody>
          {rows.map(({ key, name, words, change }) => (
            <tr key={key} style={{ height: ROW }}>
              <th scope="row" title={`${name}: ${words}`}>
                <code>{name}</code> {words}
              </th>
              <td>
                {signed(change)}
                {scale.unit && ` ${scale.unit}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className={classes.tornado} aria-hidden="true">
        <ResponsiveContainer width="100%" height={rows.length * ROW}>
          <BarChart
            layout="vertical"
            data={rows}
            margin={{ top: 0, right: 2, bottom: 0, left: 2 }}
            barCategoryGap={6}
            accessibilityLayer={false}
          >
            <XAxis type="number" hide domain={[least === 0 ? 0 : -most, most]} />
            <YAxis type="category" dataKey="key" hide />
            <ReferenceLine x={0} stroke="var(--ink)" />
            <Bar dataKey="change" isAnimationActive={false}>
              {rows.map(({ key, change }) => (
                <Cell key={key} fill={change < 0 ? 'var(--series-4)' : 'var(--pine-mid)'} />
              ))}
            </Bar>
          </BarChart>
        </ResponsiveContainer>
      </div>
    </div>
  );
}

function wordsOf(plan: Plan, name: string, where: number | null, answer: Effect['answer']): string {
  const given = plan.document.given?.find((each) => each.name === name);
  const item = plan.sections.flatMap(({ items }) => items).find((each) => each.item.name === name)?.item;
  const of = given?.answer ?? (item?.kind === 'question' ? item.answer : null);
  if (of === null) return '';
  const among = where === null || item?.kind !== 'question' ? undefined : item.assume?.where?.[where]?.if;
  return `${assumedWords(of, answer)}${among === undefined ? '' : ` where ${among}`}`;
}
