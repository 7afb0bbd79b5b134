/** How the map is read and moved over, where nothing is chosen on it. */
import { useStudy } from '../state/store';
import classes from './forks.module.css';

export function MapHelp() {
  const isReadOnly = useStudy((state) => state.readOnly !== null);
  return (
    <aside className={classes.help} aria-label="Slip">
      <h2>Reading the map</h2>
      <p>
        Bars are sections, as wide as the share of the sample that comes to them. Ribbons are those who go
        from one straight to another; early endings leave at the right.
      </p>
      <dl>
        <dt>Click</dt>
        <dd>a section or ribbon: who flows there, and why</dd>
        <dt>Two clicks</dt>
        <dd>on a section unfold it into its items, and fold it again</dd>
        <dt>↓ ↑</dt>
        <dd>along the flow</dd>
        <dt>← →</dt>
        <dd>from ribbon to ribbon</dd>
        <dt>Enter</dt>
        <dd>unfold a section, open an item in Script</dd>
        <dt>F, +, −</dt>
        <dd>fit, zoom; drag the ground to move</dd>
        {!isReadOnly && (
          <>
            <dt>Drag the dot</dt>
            <dd>of what is chosen onto a later place to make a skip, or to aim one anew</dd>
          </>
        )}
      </dl>
    </aside>
  );
}
