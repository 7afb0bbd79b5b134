/** The keys of the view in hand, and those that work everywhere. */
import { Panel } from '../ui/Panel';
import { EVERYWHERE, SHORTCUTS, type Shortcut } from './shortcuts';
import { STOP_NAMES, type Stop } from '../state/stops';
import classes from './keys.module.css';

export function KeysPanel({ stop, close }: { readonly stop: Stop; readonly close: () => void }) {
  return (
    <Panel label="Keys" width={400} close={close}>
      <div className={classes.keys}>
        <Keys title={`Keys in ${STOP_NAMES[stop]}`} list={SHORTCUTS[stop]} />
        <Keys title="Everywhere" list={EVERYWHERE} />
      </div>
    </Panel>
  );
}

function Keys({ title, list }: { readonly title: string; readonly list: readonly Shortcut[] }) {
  return (
    <section>
      <h2>{title}</h2>
      <dl>
        {list.map(([keys, does]) => (
          <div key={`${keys} ${does}`}>
            <dt>
              <kbd>{keys}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
