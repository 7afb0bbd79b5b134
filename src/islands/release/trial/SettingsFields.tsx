/** What an author settles about a link, as fields in groups. */
import type { SettingsText } from './settings-text';
import classes from './trial.module.css';

interface Props {
  readonly text: SettingsText;
  readonly set: (text: SettingsText) => void;
}

export function SettingsFields({ text, set }: Props) {
  const put = (change: Partial<SettingsText>) => set({ ...text, ...change });
  const line = (
    name: keyof SettingsText,
    label: string,
    more: React.InputHTMLAttributes<HTMLInputElement> = {},
  ) => (
    <label>
      {label}
      <input {...more} value={String(text[name])} onChange={(event) => put({ [name]: event.target.value })} />
    </label>
  );
  const tick = (name: 'mayGoBack' | 'mayReturn' | 'signed', label: string) => (
    <label className={classes.tick}>
      <input
        type="checkbox"
        checked={text[name]}
        onChange={(event) => put({ [name]: event.target.checked })}
      />
      {label}
    </label>
  );
  return (
    <div className={classes.groups}>
      <fieldset>
        <legend>Who</legend>
        <label>
          Who may answer
          <select
            value={text.toldApart}
            onChange={(event) => put({ toldApart: event.target.value as SettingsText['toldApart'] })}
          >
            <option value="anyone">everybody with the link, as often as they like</option>
            <option value="browser">everybody with the link, told apart by browser</option>
            <option value="personal">people with links of their own</option>
          </select>
        </label>
        {text.toldApart !== 'anyone' &&
          line('attempts', 'How often each at most', { size: 4, inputMode: 'numeric' })}
        {line('mostResponses', 'Responses in all, at most', {
          size: 8,
          inputMode: 'numeric',
          placeholder: 'any',
        })}
        <label>
          Human check
          <select
            value={text.humanCheck}
            onChange={(event) => put({ humanCheck: event.target.value as SettingsText['humanCheck'] })}
          >
            <option value="as-written">as the questionnaire says</option>
            <option value="asked">before the first page</option>
            <option value="not-asked">none</option>
          </select>
        </label>
      </fieldset>
      <fieldset>
        <legend>When</legend>
        {line('opensAt', 'Opens (nothing: at once)', { type: 'datetime-local' })}
        {line('closesAt', 'Closes (nothing: when you close it)', { type: 'datetime-local' })}
        {line('minutes', 'Minutes for the whole, at most', {
          size: 4,
          inputMode: 'numeric',
          placeholder: 'any',
        })}
        {tick('mayGoBack', 'Respondents may go back')}
        {tick('mayReturn', 'They may come back later from another browser, with a code')}
      </fieldset>
      <fieldset>
        <legend>What they read</legend>
        {line('closing', 'At the end, under the message of the ending', { maxLength: 2000 })}
        {line('whenClosed', 'Once it is closed', {
          maxLength: 2000,
          placeholder: 'This questionnaire is closed. …',
        })}
        {line('language', 'Language of the page, as a tag', {
          size: 8,
          maxLength: 60,
          placeholder: 'as written',
        })}
        {tick('signed', 'A line at the foot names Jolly Fork')}
      </fieldset>
      <fieldset>
        <legend>What is kept, and where it is shown</legend>
        <label>
          What people answered who stop
          <select
            value={text.stopped}
            onChange={(event) => put({ stopped: event.target.value as SettingsText['stopped'] })}
          >
            <option value="keep">is kept, up to their last page</option>
            <option value="remove">is removed, and only counted</option>
          </select>
        </label>
        {line('stoppedAfter', 'Somebody has stopped after so many hours', { size: 5, inputMode: 'numeric' })}
        {line('embeddedIn', 'The one site that may show it inside a page', {
          type: 'url',
          maxLength: 300,
          placeholder: 'https://example.org',
        })}
      </fieldset>
    </div>
  );
}
