/** The snags of one place. */
import type { Snag } from '../../core/snags';
import { SEVERITY_WORDS, SnagEntry } from './SnagEntry';
import { useSnags } from '../state/snags';
import primitives from '../ui/primitives.module.css';

export function SnagCards({ belongs }: { readonly belongs: (snag: Snag) => boolean }) {
  const { open, aside } = useSnags();
  const here = open.filter(belongs);
  const settled = aside.filter(({ snag }) => belongs(snag));
  if (here.length + settled.length === 0) return null;
  return (
    <>
      <h2>{here.length + settled.length === 1 ? 'Snag' : 'Snags'}</h2>
      <div className={primitives.card}>
        {here.map((snag, index) => (
          <SnagEntry key={`${snag.rule} ${index}`} snag={snag} heading={<b>{partWords(snag)}</b>} />
        ))}
        {settled.map(({ snag, aside: why }, index) => (
          <SnagEntry key={`aside ${index}`} snag={snag} aside={why} heading={<b>Set aside</b>} />
        ))}
      </div>
    </>
  );
}

function partWords({ severity, at }: Snag): string {
  const part =
    at.skip !== undefined
      ? `, skip ${at.skip + 1}`
      : at.onward !== undefined
        ? `, onward ${at.onward + 1}`
        : at.option !== undefined
          ? `, answer ${at.option}`
          : at.row !== undefined
            ? `, row ${at.row}`
            : '';
  return `${SEVERITY_WORDS[severity]}${part}`;
}
