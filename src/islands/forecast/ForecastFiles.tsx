/** The forecast as files: a workbook, a table, a page to print. */
import { useState } from 'react';
import { kindsOf } from '../../core/release/formats/known';
import { useReleaseClient } from '../state/gate';
import { useStudy } from '../state/store';
import { markOf } from '../state/versions';
import { saveBlob } from '../ui/save-blob';
import classes from './forecast.module.css';
import { why } from '../ui/why';

export function ForecastFiles() {
  const client = useReleaseClient();
  const document = useStudy((state) => state.document);
  const version = useStudy((state) => state.version);
  const [told, setTold] = useState('');
  const make = async (kind: string) => {
    setTold('making …');
    try {
      const mark = version === null ? null : markOf(version);
      const { name, blob } = await client.file({ format: 'forecast', kind }, document, mark, () => undefined);
      saveBlob(blob, name);
      setTold('');
    } catch (error) {
      setTold(why(error));
    }
  };
  return (
    <span className={classes.files}>
      <span aria-live="polite">{told === '' ? 'keep' : told}</span>
      {kindsOf('forecast').map((kind) => {
        const ending = kind.split('.').at(-1) ?? '';
        return (
          <button
            key={kind}
            type="button"
            aria-label={`Forecast, .${ending}`}
            onClick={() => void make(kind)}
          >
            .{ending}
          </button>
        );
      })}
    </span>
  );
}
