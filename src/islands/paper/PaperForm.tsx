/** A form to be printed and filled in by hand: boxes to tick, scales, tables, lines, and where to go. */
import { useMemo } from 'react';
import type { Plan } from '../../core/routing/plan';
import {
  formOf,
  type FormAnswer,
  type FormBox,
  type FormItem,
  type FormOptions,
  type FormSection,
} from '../../core/views/form';
import type { Analysed } from '../../worker/client';
import { useStudy } from '../state/store';
import { plural } from '../ui/format';
import { RichText } from '../ui/RichText';
import { TableHead } from '../ui/TableHead';
import { Asked } from './Asked';
import classes from './form.module.css';
import { styleNonce } from '../ui/style-nonce';
import { token } from '../ui/token';

export interface FormLook extends FormOptions {
  readonly codes: boolean;
}

interface Props {
  readonly plan: Plan;
  readonly look: FormLook;
}

/** Whether it is known of whom each item is asked, or that it cannot be: the sample is worked out after it. */
const isTold = ({ asked, sample }: Analysed) => Object.keys(asked).length > 0 || sample !== undefined;

export function PaperForm({ plan, look }: Props) {
  const asked = useStudy((state) =>
    state.analysis?.document === plan.document && isTold(state.analysis) ? state.analysis.asked : null,
  );
  const form = useMemo(() => formOf(plan, look, asked), [plan, look, asked]);
  const { title, language } = plan.document;
  const waits = look.routing === 'questions' && asked === null;
  return (
    <article className={classes.form} aria-label="Form to fill in" lang={language}>
      <style nonce={styleNonce()}>{pageStyle(title)}</style>
      <header>
        <h1>{title}</h1>
        <p>
          Form <span className={classes.number} /> {look.reader === 'interviewer' && 'Interviewer'}
          {look.reader === 'interviewer' && <span className={classes.number} />} Date{' '}
          <span className={classes.number} />
        </p>
        <p>
          Tick one circle; of squares, tick all that fit.{' '}
          {look.routing === 'answers'
            ? 'Without an arrow, go on with the next question.'
            : 'A question without a line is for the same people as the one before it.'}
        </p>
        {form.unsaid > 0 && (
          <p role="alert" className={classes.unsaid}>
            Whom {plural(form.unsaid, 'question or text', 'questions or texts')}{' '}
            {form.unsaid === 1 ? 'is' : 'are'} for could not be worked out: the conditions are too entangled.
            Have the form say where to go at the answers instead.
          </p>
        )}
        {waits && <p role="status">Whom each question is for is being worked out …</p>}
      </header>
      {form.sections.map((section) => (
        <Section key={section.key} section={section} codes={look.codes} />
      ))}
      <section>
        <h2>Ends</h2>
        {form.endings.map(({ key, label, when, text }) => (
          <div key={key} className={classes.ending}>
            <b>{label}</b>
            {when !== null && <span> if {when}</span>}
            <RichText text={text} />
          </div>
        ))}
      </section>
    </article>
  );
}

/** Page numbers and the running title stand in the margins of the printed page. */
function pageStyle(title: string): string {
  const soft = token('--ink-soft');
  const words = title.replace(/["\\\n\r<]/g, ' ');
  return `@page { size: A4; margin: 18mm 16mm 17mm; @top-left { content: "${words}"; font: 9pt sans-serif; color: ${soft} } @bottom-right { content: "Page " counter(page) " of " counter(pages); font: 9pt sans-serif; color: ${soft} } }`;
}

function Section({ section, codes }: { readonly section: FormSection; readonly codes: boolean }) {
  const { letter, title, intro, only, runs, blocks, columns, onward } = section;
  return (
    <section>
      <h2>
        <span>{letter}</span> {title}
      </h2>
      {only !== null && <p className={classes.only}>{only}: this section</p>}
      {runs !== null && <p className={classes.only}>{runs}</p>}
      {intro !== '' && <RichText text={intro} />}
      {blocks.map(({ key, title: pass, items }) => (
        <div key={key}>
          {pass !== null && (
            <h3>
              {title} <b>{pass}</b>
            </h3>
          )}
          {items.map((item) => (
            <Item key={item.key} item={item} codes={codes} columns={columns} />
          ))}
        </div>
      ))}
      {onward.map((words) => (
        <p key={words} className={classes.rule}>
          <i aria-hidden="true">→</i> {words}
        </p>
      ))}
    </section>
  );
}

interface ItemProps {
  readonly item: FormItem;
  readonly codes: boolean;
  readonly columns: readonly string[] | null;
}

function Item({ item, codes, columns }: ItemProps) {
  const { number, only, instruction, text, note, picks, image, answer, rules } = item;
  return (
    <div className={classes.item} data-text={answer === null || undefined}>
      <b className={classes.at}>{number}</b>
      <div>
        {only !== null && <p className={classes.only}>{only}</p>}
        <Asked
          {...{ instruction, text, note, picks, image }}
          looks={{
            instruction: classes.instruction,
            note: classes.note,
            words: answer === null ? undefined : classes.question,
          }}
        />
        {answer !== null &&
          (columns === null ? (
            <Answer answer={answer} codes={codes} />
          ) : (
            <InColumns answer={answer} codes={codes} columns={columns} />
          ))}
        {rules.length > 1 && <p className={classes.note}>Take the first of these that is true:</p>}
        {rules.map((words) => (
          <p key={words} className={classes.rule}>
            <i aria-hidden="true">→</i> {words}
          </p>
        ))}
      </div>
    </div>
  );
}

interface AnswerProps {
  readonly answer: FormAnswer;
  readonly codes: boolean;
}

function Answer({ answer, codes }: AnswerProps) {
  switch (answer.as) {
    case 'boxes':
      return <Boxes boxes={answer.boxes} codes={codes} several={answer.several} />;
    case 'rank':
      return (
        <>
          <p className={classes.note}>
            {answer.places === answer.boxes.length
              ? 'Write 1 for the first, 2 for the second, and so on.'
              : `Write 1 for the first, up to ${answer.places}; leave the others empty.`}
          </p>
          {answer.boxes.map(({ code, label }) => (
            <p key={code} className={classes.box}>
              <span className={classes.digit} /> {codes && <code>{code}</code>} {label}
            </p>
          ))}
        </>
      );
    case 'scale':
      return (
        <>
          <table className={classes.scale}>
            <tbody>
              <tr>
                <td>{answer.ends[0]}</td>
                {answer.points.map((point) => (
                  <td key={point}>
                    <span className={classes.tick} data-round />
                    {point}
                  </td>
                ))}
                <td>{answer.ends[2]}</td>
              </tr>
            </tbody>
          </table>
          {answer.ends[1] !== '' && <p className={classes.note}>The middle is: {answer.ends[1]}.</p>}
          <Boxes boxes={answer.boxes} codes={codes} several={false} />
        </>
      );
    case 'grid':
      return (
        <table className={classes.grid}>
          <thead>
            <tr>
              <td />
              {answer.boxes.map(({ code, label }) => (
                <th key={code} scope="col">
                  {label}
                  {codes && <code>{code}</code>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {answer.rows.map(({ name, label }) => (
              <tr key={name}>
                <th scope="row">{label}</th>
                {answer.boxes.map(({ code }) => (
                  <td key={code}>
                    <span className={classes.tick} data-round={!answer.several || undefined} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      );
    case 'digits':
    case 'moment':
      return (
        <>
          <p className={classes.box}>
            <Digits pattern={answer.digits} />
            {answer.as === 'digits' && answer.unit !== '' && <span>{answer.unit}</span>}
            {answer.limits !== '' && <small>{answer.limits}</small>}
          </p>
          <Boxes boxes={answer.boxes} codes={codes} several={false} />
        </>
      );
    case 'lines':
      return (
        <>
          {Array.from({ length: answer.lines }, (_, n) => (
            <span key={n} className={classes.line} />
          ))}
        </>
      );
    default:
      return answer satisfies never;
  }
}

interface BoxesProps {
  readonly boxes: readonly FormBox[];
  readonly codes: boolean;
  readonly several: boolean;
}

function Boxes({ boxes, codes, several }: BoxesProps) {
  return boxes.map(({ code, label, write, goTo }) => (
    <p key={code} className={classes.box}>
      <span className={classes.tick} data-round={!several || undefined} />
      {codes && <code>{code}</code>}
      <span>{label}</span>
      {write !== null && (
        <>
          <small>({write})</small>
          <span className={classes.write} />
        </>
      )}
      {goTo !== null && <b>→ {goTo}</b>}
    </p>
  ));
}

/** A box for each letter of a pattern; points, colons and spaces stand between them. */
function Digits({ pattern }: { readonly pattern: string }) {
  return (
    <span className={classes.digits}>
      {[...pattern].map((sign, n) =>
        /[.: ]/.test(sign) ? (
          <i key={n}>{sign}</i>
        ) : (
          <span key={n} className={classes.digit}>
            {/[DMYhm±]/.test(sign) ? sign : ''}
          </span>
        ),
      )}
    </span>
  );
}

/** The passes of a repeated section beside each other: a row for each answer, a column for each pass. */
function InColumns({ answer, codes, columns }: AnswerProps & { readonly columns: readonly string[] }) {
  const boxes = 'boxes' in answer ? answer.boxes : [];
  const points: readonly (readonly [string, string])[] =
    answer.as === 'scale'
      ? answer.points.map((point, n) => {
          const end = n === 0 ? answer.ends[0] : n === answer.points.length - 1 ? answer.ends[2] : '';
          return [String(point), end === '' ? String(point) : `${point} ${end}`];
        })
      : [];
  const written = answer.as === 'digits' || answer.as === 'moment' || answer.as === 'lines';
  const several = answer.as === 'boxes' && answer.several;
  const leads = boxes.some(({ goTo }) => goTo !== null);
  return (
    <table className={classes.passes}>
      <TableHead of={[null, ...columns, ...(leads ? [null] : [])]} />
      <tbody>
        {written && (
          <tr>
            <th scope="row">
              {answer.as === 'lines'
                ? ''
                : answer.as === 'digits'
                  ? `${answer.unit} ${answer.limits}`
                  : answer.digits}
            </th>
            {columns.map((label) => (
              <td key={label}>
                <span className={classes.cell} />
              </td>
            ))}
            {leads && <td />}
          </tr>
        )}
        {points.map(([key, label]) => (
          <tr key={key}>
            <th scope="row">{label}</th>
            {columns.map((pass) => (
              <td key={pass}>
                <span className={classes.tick} data-round />
              </td>
            ))}
            {leads && <td />}
          </tr>
        ))}
        {boxes.map(({ code, label, write, goTo }) => (
          <tr key={code}>
            <th scope="row">
              {codes && <code>{code}</code>} {label} {write !== null && <small>({write})</small>}
            </th>
            {columns.map((pass) => (
              <td key={pass}>
                <span className={classes.tick} data-round={!several || undefined} />
                {write !== null && <span className={classes.cell} />}
              </td>
            ))}
            {leads && <td>{goTo !== null && <b>→ {goTo}</b>}</td>}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
