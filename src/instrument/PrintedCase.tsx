/** A case on paper: every page so far with its answers, one after the other. Made when the browser begins to print. */
import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';
import { inputsOf, sessionOfCase, type KeptCase } from '../core/responding/kept-case';
import { followed, sessionOf } from '../core/responding/session';
import type { Plan } from '../core/routing/plan';
import { shownText } from '../core/wording/values';
import { ItemForm } from '../islands/answering/ItemForm';
import classes from './instrument.module.css';

interface Props {
  readonly plan: Plan;
  readonly kept: KeptCase;
  /** Of the questionnaire: “Draft”. */
  readonly version: string;
}

export function PrintedCase(props: Props) {
  const [printing, setPrinting] = useState(false);
  useEffect(() => {
    const before = () => flushSync(() => setPrinting(true));
    const after = () => setPrinting(false);
    addEventListener('beforeprint', before);
    addEventListener('afterprint', after);
    return () => {
      removeEventListener('beforeprint', before);
      removeEventListener('afterprint', after);
    };
  }, []);
  return printing ? <Pages {...props} /> : null;
}

function Pages({ plan, kept, version }: Props) {
  const ways = followed(plan, { answers: kept.answers, inputs: inputsOf(kept) });
  const session = sessionOf(plan, sessionOfCase(kept), ways, () => undefined);
  const { walk } = session;
  if (walk === null) return null;
  const reached = session.pages.slice(0, Math.max(kept.at, kept.reached) + 1);
  return (
    // A form of its own: radios of the same question stand on the page in hand.
    <form className={classes.printed} inert>
      <h1 className={classes.title}>{plan.document.title}</h1>
      <p>
        {version}. Case {kept.id}, begun {new Date(kept.startedAt).toLocaleString()}
        {kept.closed?.by === 'stop' && ', stopped'}
      </p>
      {reached.map((page, n) => {
        const section = plan.sections[page.section]?.section;
        const before = reached[n - 1];
        const opens = before?.section !== page.section || before.pass !== page.pass;
        return (
          <section key={page.key}>
            {opens && section !== undefined && (
              <h2>{shownText(plan, walk, section.title, page.section, page.pass)}</h2>
            )}
            {page.steps.map((step) => (
              <ItemForm
                key={step.key}
                {...{ plan, session, walk, step }}
                current={false}
                focused={() => undefined}
              />
            ))}
          </section>
        );
      })}
    </form>
  );
}
