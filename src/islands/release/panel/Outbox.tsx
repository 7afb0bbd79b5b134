/** The outbox of a made-up panel: letters in the piles in which they went out, opened one at a time as their member got them. */
import { useState } from 'react';
import { LETTER_WORDS } from '../../../core/panel/letters';
import type { Letter, Panel } from '../../../wire/panels';
import type { PanelInHand } from '../../state/panels';
import { grouped, plural } from '../../ui/format';
import { dayWords, momentWords } from './moments';
import { Problem } from '../../ui/Problem';
import { submitting } from '../../ui/submitting';
import classes from './panel.module.css';

type Pile = Panel['piles'][number];

interface Props {
  readonly piles: Panel['piles'];
  readonly letterOf: PanelInHand['letter'];
}

export function Outbox({ piles, letterOf }: Props) {
  const [open, setOpen] = useState<{ readonly letter: Letter; readonly pile: Pile } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  if (piles.length === 0)
    return <p className={classes.note}>The outbox is empty: let the clock run, and letters go out.</p>;
  const show = async (pile: Pile, wanted: { place: number } | { name: string }) => {
    const reply = await letterOf(pile, wanted);
    setProblem(reply.ok ? null : reply.problem);
    if (reply.ok) setOpen({ letter: reply.body, pile });
  };
  const count = piles.reduce((sum, pile) => sum + pile.count, 0);
  return (
    <div className={classes.outbox}>
      <h4>Outbox, {plural(count, 'letter')}</h4>
      <ul>
        {piles.map((pile) => {
          const { kind, at } = pile;
          const isOpen = open?.letter.kind === kind && open.letter.at === at;
          return (
            <li key={`${kind} ${at}`}>
              <button
                type="button"
                className={classes.pile}
                aria-expanded={isOpen}
                onClick={() => (isOpen ? setOpen(null) : void show(pile, { place: 0 }))}
              >
                <b>{LETTER_WORDS[kind].one}</b>
                <span>{dayWords(at)}</span>
                <em>{grouped(pile.count)}</em>
              </button>
            </li>
          );
        })}
      </ul>
      <Problem of={problem} />
      {open !== null && (
        <OpenLetter
          letter={open.letter}
          count={piles.find(({ kind, at }) => kind === open.pile.kind && at === open.pile.at)?.count ?? 1}
          show={(wanted) => void show(open.pile, wanted)}
          close={() => setOpen(null)}
        />
      )}
    </div>
  );
}

interface LetterProps {
  readonly letter: Letter;
  /** In its pile. */
  readonly count: number;
  readonly show: (wanted: { place: number } | { name: string }) => void;
  readonly close: () => void;
}

function OpenLetter({ letter, count, show, close }: LetterProps) {
  const { kind, at, to, place, subject, text, link } = letter;
  const [before, ...after] = text.split(link);
  return (
    <article className={classes.letter} aria-label={`${LETTER_WORDS[kind].one} to ${to}`}>
      <header>
        <p>
          To <b>{to}</b>, {momentWords(at)}
        </p>
        <p>
          <b>{subject}</b>
        </p>
      </header>
      <p className={classes.words}>
        {before}
        {after.map((rest, n) => (
          // The order of parts is all that tells them apart.
          <span key={n}>
            <a href={link} target="_blank" rel="noreferrer">
              {location.origin}
              {link}
            </a>
            {rest}
          </span>
        ))}
      </p>
      <form
        className={classes.turning}
        onSubmit={submitting((form) => {
          const name = String(new FormData(form).get('member') ?? '').trim();
          if (name !== '') show({ name });
        })}
      >
        <button type="button" disabled={place === 0} onClick={() => show({ place: place - 1 })}>
          Previous
        </button>
        <button type="button" disabled={place + 1 >= count} onClick={() => show({ place: place + 1 })}>
          Next
        </button>
        <span role="status">
          {grouped(place + 1)} of {grouped(count)}
        </span>
        <input name="member" size={14} placeholder="Member …" aria-label="Find the letter to" />
        <button type="submit">Find</button>
        <button type="button" onClick={close}>
          Put it back
        </button>
      </form>
    </article>
  );
}
