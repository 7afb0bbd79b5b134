/** The files of a version or of the draft: what each is and for whom; one press makes it, and says how large it is. */
import { useState } from 'react';
import type { Questionnaire } from '../../core/document/types';
import type { Loss, VersionMark } from '../../core/release/format-types';
import { HANDED_OVER, KNOWN, kindsOf, type FormatName } from '../../core/release/formats/known';
import type { Version } from '../../wire/versions';
import { useReleaseClient } from '../state/gate';
import { useStudy } from '../state/store';
import { useVersionDocument } from '../state/versions';
import { plural, sizeText } from '../ui/format';
import { saveBlob } from '../ui/save-blob';
import { DataPicker, useDataPicked, type DataPicked } from './DataPicker';
import classes from './files.module.css';
import { LostList } from './LostList';

type Offered = readonly HandedOver[];
type HandedOver = keyof typeof HANDED_OVER;

const GROUPS: readonly { readonly head: string; readonly files: Offered }[] = [
  { head: 'Questionnaire', files: ['document', 'script', 'test-pack', 'schema'] },
  { head: 'To read and to print', files: ['paper', 'form', 'codebook', 'route-book', 'map', 'items'] },
  { head: 'To archive and exchange', files: ['ddi-lifecycle', 'ddi-codebook'] },
];
const DATA: Offered = ['csvw', 'data-package', 'parquet', 'r'];

export function FilesCard({ version }: { readonly version: Version | null }) {
  const draft = useStudy((state) => state.document);
  const frozen = useVersionDocument(version?.number ?? null);
  const document = version === null ? draft : frozen;
  const picked = useDataPicked();
  const of = { version, document: typeof document === 'string' ? null : document };
  const row = (format: FormatName, forWhom: string, rows: DataPicked | null) => (
    <FileRow key={`${format} ${version?.number}`} {...of} format={format} forWhom={forWhom} data={rows} />
  );
  const rowOf = (format: HandedOver, rows: DataPicked | null) => row(format, HANDED_OVER[format][1], rows);
  return (
    <>
      <h2>{version === null ? 'Files, from the draft' : `Files, from version ${version.number}`}</h2>
      <div className={classes.card}>
        {typeof document === 'string' && <p role="alert">{document}</p>}
        {GROUPS.map(({ head, files }) => (
          <section key={head} aria-label={head}>
            <h3>{head}</h3>
            <ul className={classes.files}>{files.map((each) => rowOf(each, null))}</ul>
          </section>
        ))}
        <section aria-label="Data">
          <h3>Data</h3>
          <DataPicker picked={picked} />
          <ul className={classes.files}>{DATA.map((each) => rowOf(each, picked))}</ul>
        </section>
        <section aria-label="Everything">
          <h3>Everything</h3>
          <ul className={classes.files}>
            {row('package', 'all of these in one file, the data of the rows above, with a manifest', picked)}
          </ul>
        </section>
      </div>
    </>
  );
}

/** What the files say of the version they are of. */
function markOf({ number, frozen, at, author, note, reason }: Version): VersionMark {
  return { number, frozen, at, author, note, ...(reason === null ? {} : { reason }) };
}

interface RowProps {
  readonly format: FormatName;
  readonly forWhom: string;
  readonly version: Version | null;
  /** Null until it has come. */
  readonly document: Questionnaire | null;
  /** Of a format of data. */
  readonly data: DataPicked | null;
}

interface Told {
  readonly words: string;
  readonly lost: readonly Loss[];
}

function FileRow({ format, forWhom, version, document, data }: RowProps) {
  const client = useReleaseClient();
  const [told, setTold] = useState<Told | null>(null);
  /** What is told while it is made; null while it is not. */
  const [making, setMaking] = useState<string | null>(null);
  const make = async (kind: string) => {
    setMaking('making …');
    setTold(null);
    try {
      const mark = version && markOf(version);
      const rows = data === null ? null : await data.rows();
      const asked = { format, kind, ...(rows === null ? {} : { rows }) };
      const { name, blob, losses } = await client.file(asked, document, mark, (done, of) =>
        setMaking(`making … ${done} of ${of}`),
      );
      saveBlob(blob, name);
      setTold({ words: sizeText(blob.size), lost: losses });
    } catch (error) {
      setTold({ words: error instanceof Error ? error.message : String(error), lost: [] });
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
