/** How the walk is shown, and which route it follows. */
import type { Device } from './RespondentPage';
import type { Following } from './use-following';
import classes from './walk.module.css';

/** How the walk is shown; paper: the printed script with this walk on it. */
export type WalkDisplay = Device | 'Paper';

interface Props {
  readonly display: WalkDisplay;
  readonly setDisplay: (display: WalkDisplay) => void;
  /** Null where a response is walked again: no route is to be chosen. */
  readonly following: Following | null;
  /** Goes to the last page; null where there is none, or nobody is followed. */
  readonly toEnd: (() => void) | null;
}

export function WalkTools({ display, setDisplay, following, toEnd }: Props) {
  return (
    <div className={classes.tools} role="toolbar" aria-label="How to walk">
      {(['Desktop', 'Phone', 'Paper'] as const).map((name) => (
        <button key={name} type="button" aria-pressed={display === name} onClick={() => setDisplay(name)}>
          {name}
        </button>
      ))}
      {following !== null && <Chosen following={following} />}
      {toEnd !== null && (
        <button type="button" onClick={toEnd}>
          To the end
        </button>
      )}
    </div>
  );
}

/** Which route is followed, or none. */
function Chosen({ following }: { readonly following: Following }) {
  const { number, wanted, setWanted, follow, free } = following;
  return (
    <>
      <span className={classes.follow}>
        <button type="button" aria-pressed={number !== null} onClick={() => void follow(wanted)}>
          Follow route
        </button>
        <input
          aria-label="Route to follow"
          inputMode="numeric"
          value={wanted}
          size={7}
          onChange={(event) => setWanted(event.target.value.replace(/\D/g, ''))}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && wanted !== '') void follow(wanted);
          }}
        />
      </span>
      <button type="button" aria-pressed={number === null} onClick={free}>
        Choose freely
      </button>
    </>
  );
}
