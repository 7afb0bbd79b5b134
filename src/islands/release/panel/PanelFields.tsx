/** What an author settles about a made-up panel, as fields in groups: days, letters, and how its members behave. */
import TextareaAutosize from 'react-textarea-autosize';
import { LETTER_WORDS, LETTERS, type LetterKind } from '../../../core/panel/letters';
import type { Behaviour } from '../../../core/panel/panel-settings';
import type { PanelText } from './panel-text';
import classes from './panel.module.css';

interface Props {
  readonly text: PanelText;
  readonly set: (text: PanelText) => void;
  /** Names of values that letters may put in, beside the person and the link. */
  readonly known: readonly string[];
  /** Once the clock has moved, its days stay. */
  readonly hasBegun: boolean;
}

const TIMING: readonly (readonly [keyof PanelText['numbers'], string])[] = [
  ['days', 'Days in the field'],
  ['hour', 'Letters go out at (hour of the day)'],
  ['reminderAfter', 'First reminder, days after the invitation'],
  ['secondReminderAfter', 'Second reminder, days after the invitation'],
];

const BEHAVIOUR: readonly (readonly [keyof Behaviour, string])[] = [
  ['invitation', 'begin after the invitation'],
  ['reminder', 'begin after the first reminder'],
  ['second_reminder', 'begin after the second reminder'],
  ['comeBack', 'come back after a reminder, of those who had left'],
  ['refuse', 'refuse to take part, of those who begin'],
  ['breakOff', 'leave in a minute; on grids and open questions three times as many'],
  ['phones', 'answer on a phone'],
  ['careless', 'rush through, and answer rows of a grid all alike'],
];

export function PanelFields({ text, set, known, hasBegun }: Props) {
  const putText = (kind: LetterKind, change: Partial<PanelText['texts'][LetterKind]>) =>
    set({ ...text, texts: { ...text.texts, [kind]: { ...text.texts[kind], ...change } } });
  const setNumber = (name: keyof PanelText['numbers'], written: string) =>
    set({ ...text, numbers: { ...text.numbers, [name]: written } });
  return (
    <div className={classes.groups}>
      <fieldset>
        <legend>When, by the panel’s own clock</legend>
        <label>
          First day
          <input
            type="date"
            disabled={hasBegun}
            value={text.firstDay}
            onChange={(event) => set({ ...text, firstDay: event.target.value })}
          />
        </label>
        {TIMING.map(([name, label]) => (
          <label key={name}>
            {label}
            <input
              size={4}
              inputMode="numeric"
              disabled={hasBegun && name === 'days'}
              value={text.numbers[name]}
              onChange={(event) => setNumber(name, event.target.value)}
            />
          </label>
        ))}
      </fieldset>
      <fieldset>
        <legend>Of a hundred who could</legend>
        {BEHAVIOUR.map(([name, label]) => (
          <label key={name} className={classes.share}>
            <input
              size={4}
              inputMode="decimal"
              value={text.behaviour[name]}
              onChange={(event) =>
                set({ ...text, behaviour: { ...text.behaviour, [name]: event.target.value } })
              }
            />
            {label}
          </label>
        ))}
        <p className={classes.note}>
          What they answer follows the assumed shares of each question, and how long they take the seconds of
          each item: people differ in pace, by a third up or down.
        </p>
        <label>
          Seed of chance
          <input
            size={8}
            inputMode="numeric"
            disabled={hasBegun}
            value={text.numbers.seed}
            onChange={(event) => setNumber('seed', event.target.value)}
          />
        </label>
        <p className={classes.note}>
          The same seed gives the same people once more: when they come, and what they answer where they are
          asked the same. What the questionnaire itself leaves to chance is drawn anew.
        </p>
      </fieldset>
      <fieldset className={classes.letters}>
        <legend>Letters</legend>
        <p className={classes.note}>
          {['{person}', '{link}', ...known.map((name) => `{${name}}`)].join(', ')}: put in for each. Nothing
          is sent anywhere; the outbox keeps what each would have got.
        </p>
        {LETTERS.map((kind) => (
          <details key={kind}>
            <summary>
              {LETTER_WORDS[kind].one} <span>{LETTER_WORDS[kind].to}</span>
            </summary>
            <label>
              Subject
              <input
                maxLength={200}
                aria-label={`Subject of the ${LETTER_WORDS[kind].one.toLowerCase()}`}
                value={text.texts[kind].subject}
                onChange={(event) => putText(kind, { subject: event.target.value })}
              />
            </label>
            <label>
              Text
              <TextareaAutosize
                maxLength={4000}
                aria-label={`Text of the ${LETTER_WORDS[kind].one.toLowerCase()}`}
                value={text.texts[kind].text}
                onChange={(event) => putText(kind, { text: event.target.value })}
              />
            </label>
          </details>
        ))}
      </fieldset>
    </div>
  );
}
