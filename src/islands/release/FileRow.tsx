/** One kind of file: what it is and for whom, a button for each of its endings, and what came of the press. */
import { useState } from 'react';
import type { Questionnaire } from '../../core/document/types';
import type { Loss } from '../../core/release/format-types';
import { KNOWN, kindsOf, type FormatName } from '../../core/release/formats/known';
import { postAddress } from '../../core/responding/instrument-data';
import type { Version } from '../../wire/versions';
import { useReleaseClient } from '../state/gate';
import { markOf } from '../state/versions';
import { plural, sizeText } from '../ui/format';
import { saveBlob } from '../ui/save-blob';
import type { DataPicked } from './DataPicker';
import classes from './files.module.css';
import { LostList } from './LostList';
import { why } from '../ui/why';

interface RowProps {
  readonly format: FormatName;
  readonly forWhom: string;
  readonly version: Version | null;
  /** Null until it has come. */
  readonly document: Questionnaire | null;
  /** Of a format of data. */
  readonly data: DataPicked | null;
  /** The address that the instrument posts its cases to, as it was written; empty for none. */
  readonly post: string;
}

interface Told {
  readonly words: string;
  readonly lost: readonly Loss[];
}

export function FileRow({ format, forWhom, version, document, data, post }: RowProps) {
  const client = useReleaseClient();
  const [told, setTold] = useState<Told | null>(null);
  /** What is told while it is made; null while it is not. */
  const [making, setMaking] = useState<string | null>(null);
  const make = async (kind: string) => {
    const posting = postAddress(post);
    if (!posting.ok) {
      setTold({ words: posting.problem, lost: [] });
      return;
    }
    setMaking('making …');
    setTold(null);
    try {
      const mark = version && markOf(version);
      const rows = data === null ? null : await data.rows();
      const asked = {
        format,
        kind,
        ...(rows === null ? {} : { rows }),
        ...(posting.address === null ? {} : { post: posting.address }),
      };
      const { name, blob, losses } = await client.file(asked, document, mark, (done, of) =>
        setMaking(`making … ${done} of ${of}`),
      );
      saveBlob(blob, name);
      setTold({ words: sizeText(blob.size), lost: losses });
    } catch (error) {
      setTold({ words: why(error), lost: [] });
    }
    setMaking(null);
  };
  const { words } = KNOWN[format];
  return (
    <li>
      <div className={classes.file}>
        <span>{words}</span>
        <i aria-hidden="true" />
        <div>
          {kindsOf(format).map((kind) => (
            <button
              key={kind}
              type="button"
              aria-label={`${words}, .${kind.split('.').at(-1)}`}
              // Made unusable, it would lose the focus, and whoever goes by keyboard their place.
              aria-disabled={making !== null}
              disabled={document === null}
              onClick={() => making === null && void make(kind)}
            >
              .{kind.split('.').at(-1)}
            </button>
          ))}
        </div>
      </div>
      <small>
        {forWhom} <b role="status">{making ?? told?.words ?? ''}</b>
      </small>
      {told !== null && told.lost.length > 0 && document !== null && (
        <LostList
          words={`Not in it: ${plural(told.lost.length, 'thing')}`}
          lost={told.lost}
          document={document}
        />
      )}
    </li>
  );
}
