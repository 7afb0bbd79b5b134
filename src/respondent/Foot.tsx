/** What stands under the sheet: how to come back, what becomes of the answers, and which page this is. */
import type { AnswerPage, Sitting } from '../wire/answer';
import { ReturnForm } from './ReturnForm';
import classes from './respondent.module.css';
import type { Sitter } from './sitter';

interface Props {
  readonly page: AnswerPage;
  readonly sitter: Sitter;
  readonly sitting: Sitting | null;
}

export function Foot({ page, sitter, sitting }: Props) {
  const { mayReturn, stopped, stoppedAfter, signed } = page.settings;
  const isOpen = sitting !== null && sitting.kept.closed === null;
  const isFirst = sitting === null || (sitting.kept.turns === 0 && sitting.questionnaire === 0);
  return (
    <footer className={classes.foot}>
      {isOpen && (
        <>
          <p>
            Each page is saved when you go on.{' '}
            {stopped === 'remove' &&
              `If you stop, what you have answered is removed after ${hoursWords(stoppedAfter)}. `}
            {sitting.code !== null && (
              <>
                To go on later in another browser, open this link there and give the code{' '}
                <b className={classes.code}>{spaced(sitting.code)}</b>.
              </>
            )}
            {mayReturn && page.key !== null && 'To go on later, open your link again, in any browser.'}
          </p>
          {isFirst && sitting.code !== null && <ReturnForm sitter={sitter} />}
        </>
      )}
      <p>
        {page.title}
        {signed && ' · made with Jolly Fork'}
      </p>
    </footer>
  );
}

/** In two halves, as it is read out. */
const spaced = (code: string) => `${code.slice(0, 4)} ${code.slice(4)}`;

function hoursWords(hours: number): string {
  if (hours % 24 === 0) return hours === 24 ? 'a day' : `${hours / 24} days`;
  return hours === 1 ? 'an hour' : `${hours} hours`;
}
