/** A link as a slip: its address and code, who has come to what, its settings, and what can be done with it. */
import { useState } from 'react';
import { fileStem } from '../../../core/document/names';
import type { Trial } from '../../../wire/trials';
import type { PanelInHand } from '../../state/panels';
import { useStudy } from '../../state/store';
import type { Trials } from '../../state/trials';
import { toClipboard } from '../../ui/clipboard';
import { grouped, plural } from '../../ui/format';
import { MadeUpPanel } from '../panel/MadeUpPanel';
import { PeopleLine } from './PeopleLine';
import { QrCode } from './QrCode';
import { SettingsFields } from './SettingsFields';
import { SettleForm } from './SettleForm';
import { readSettings, settingsText, settingsWords } from './settings-text';
import { TrialRows } from './TrialRows';
import { Problem } from '../../ui/Problem';
import classes from './trial.module.css';

interface Props {
  readonly trial: Trial;
  readonly trials: Trials;
}

interface SlipProps extends Props {
  readonly panelOf: (token: string) => PanelInHand;
  readonly watch: (link: string) => void;
}

const STATE_WORDS = { open: 'Open', paused: 'Paused', closed: 'Closed' } as const;

export function LinkSlip({ trial, trials, panelOf, watch }: SlipProps) {
  const { token, name, version, settings, state, isPanel } = trial;
  const [problem, setProblem] = useState<string | null>(null);
  const [changing, setChanging] = useState(false);
  const address = `${location.origin}/answer/${token}`;
  const change = (to: Parameters<Trials['change']>[1]) =>
    void trials.change(token, to).then((refused) => setProblem(refused));
  const words = settingsWords(settings);
  // The address for all begins nothing there.
  const isPersonal = settings.toldApart === 'personal';
  return (
    <li className={classes.slip} data-state={state}>
      <header>
        <h3>{name}</h3>
        <p>
          <b className={classes.state}>
            {state === 'open' && trial.isOver ? 'Closed, its time is over' : STATE_WORDS[state]}
          </b>
          {version === null ? ' · draft' : ` · version ${version}`}
          {isPanel && ' · made-up panel'}
          {!isPanel && words.length > 0 && ` · ${words.join(', ')}`}
        </p>
      </header>
      <div className={classes.body} data-personal={isPersonal || undefined}>
        {isPersonal ? <span /> : <QrCode address={address} fileName={`${fileStem(name)}-link`} />}
        <div>
          {!isPersonal && <AddressLine address={address} name={name} told={setProblem} />}
          {settings.embeddedIn !== undefined && (
            <AddressLine
              address={`<iframe src="${address}${isPersonal ? '/KEY' : ''}" title="Questionnaire" width="100%" height="800"></iframe>`}
              name={name}
              label={
                isPersonal
                  ? 'To show it inside a page, with the key of each link'
                  : 'To show it inside a page'
              }
              told={setProblem}
            />
          )}
          {isPersonal && !isPanel && <PeopleLine trial={trial} trials={trials} />}
          {isPanel && <MadeUpPanel inHand={panelOf(token)} />}
          <Figures trial={trial} />
          <DataLines trial={trial} />
          {trial.begun > 0 && <TrialRows trial={trial} />}
        </div>
      </div>
      <Problem of={problem} className={classes.problem} />
      {changing ? (
        <ChangeForm trial={trial} trials={trials} close={() => setChanging(false)} />
      ) : (
        <span className={classes.acts}>
          <button type="button" className={classes.make} onClick={() => watch(token)}>
            Watch it come in
          </button>
          {state === 'open' && (
            <button type="button" onClick={() => change({ state: 'paused' })}>
              Pause it
            </button>
          )}
          {state !== 'open' && (
            <button type="button" onClick={() => change({ state: 'open' })}>
              Open it again
            </button>
          )}
          {state !== 'closed' && (
            <button type="button" onClick={() => change({ state: 'closed' })}>
              Close it
            </button>
          )}
          {!isPanel && (
            <button type="button" onClick={() => setChanging(true)}>
              Change its settings …
            </button>
          )}
        </span>
      )}
    </li>
  );
}

interface AddressProps {
  readonly address: string;
  readonly name: string;
  readonly label?: string;
  readonly told: (problem: string | null) => void;
}

function AddressLine({ address, name, label, told }: AddressProps) {
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    const isCopied = await toClipboard(address);
    setCopied(isCopied);
    told(isCopied ? null : 'Copying is not allowed here: select the address instead.');
  };
  return (
    <div className={classes.address}>
      {label !== undefined && <small>{label}</small>}
      <input
        readOnly
        aria-label={`${label ?? 'Address'} of ${name}`}
        value={address}
        onFocus={(event) => event.target.select()}
      />
      <button type="button" onClick={() => void copy()}>
        {copied ? 'Copied' : 'Copy'}
      </button>
      {label === undefined && (
        <a href={address} target="_blank" rel="noreferrer">
          Open
        </a>
      )}
    </div>
  );
}

/** Who has come to what: every one who has begun is in one line. */
function Figures({ trial }: { readonly trial: Trial }) {
  const { begun, complete, elsewhere, declined, removed, people, settings } = trial;
  const lines: readonly (readonly [string, number])[] = [
    ['begun', begun],
    ['complete', complete],
    ['came to another ending', elsewhere],
    ['under way, or stopped', begun - complete - elsewhere - declined - removed],
    ['declined: only counted', declined],
    ...(removed > 0 || settings.stopped === 'remove' ? ([['stopped, and removed', removed]] as const) : []),
    ...(settings.toldApart === 'personal' ? ([['people with a link', people]] as const) : []),
  ];
  return (
    <dl className={classes.figures}>
      {lines.map(([words, count]) => (
        <div key={words}>
          <dt>{words}</dt>
          <i aria-hidden="true" />
          <dd>{grouped(count)}</dd>
        </div>
      ))}
    </dl>
  );
}

function DataLines({ trial: { token, begun, followUps } }: { readonly trial: Trial }) {
  const api = useStudy((state) => state.api);
  if (begun === 0) return null;
  const at = (as: string, number: number) => `${api}/trials/${token}/data?as=${as}&questionnaire=${number}`;
  const lines = [
    { number: 0, words: 'Responses' },
    ...followUps
      .filter((each) => each.begun > 0)
      .map(({ number, title, begun: count }) => ({
        number,
        words: `Handed on to ${title}, ${plural(count, 'response')}`,
      })),
  ];
  return (
    <ul className={classes.data} aria-label="Data">
      {lines.map(({ number, words }) => (
        <li key={number}>
          {words}
          <a href={at('csv', number)} download aria-label={`${words}: coded rows, .csv`}>
            coded rows, .csv
          </a>
          <a href={at('json', number)} download aria-label={`${words}: with times and trails, .json`}>
            with times and trails, .json
          </a>
        </li>
      ))}
    </ul>
  );
}

interface ChangeProps extends Props {
  readonly close: () => void;
}

function ChangeForm({ trial, trials, close }: ChangeProps) {
  return (
    <SettleForm
      given={settingsText(trial.settings)}
      read={readSettings}
      settle={(settings) => trials.change(trial.token, { settings })}
      close={close}
      words="Save the settings"
    >
      {(text, set) => <SettingsFields text={text} set={set} />}
    </SettleForm>
  );
}
