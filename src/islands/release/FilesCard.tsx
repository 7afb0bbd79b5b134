/** The files of a version or of the draft: what each is and for whom; one press makes it, and says how large it is. */
import { useState } from 'react';
import type { FileFormat, Loss } from '../../core/release/format-types';
import { FORMATS, kindsOf, type FormatName } from '../../core/release/formats';
import type { Version } from '../../wire/versions';
import { useReleaseClient } from '../state/gate';
import { useStudy } from '../state/store';
import { useVersionDocument } from '../state/versions';
import { plural, sizeText } from '../ui/format';
import { saveBlob } from '../ui/save-blob';
import { DataPicker, useDataPicked, type DataPicked } from './DataPicker';
import classes from './files.module.css';
import { LostList } from './LostList';

type Offered = readonly (readonly [FormatName, forWhom: string])[];

/** Offered here, with whom each is for. */
const GROUPS: readonly { readonly head: string; readonly files: Offered }[] = [
  {
    head: 'Questionnaire',
    files: [
      ['document', 'to open it elsewhere, or to keep it'],
      ['script', 'to read in a mail, and to compare line by line'],
      ['test-pack', 'for whoever programs it: every fork, step by step'],
      ['schema', 'for whoever reads the questionnaire by program'],
    ],
  },
];
const DATA: Offered = [
  ['csvw', 'for programs that read data of the web'],
  ['data-package', 'for an archive: labels, limits and codes beside the rows'],
  ['parquet', 'for large data, and for databases'],
  ['r', 'with labels, factors, and why a value is missing'],
];

export function FilesCard({ version }: { readonly version: Version | null }) {
  const draft = useStudy((state) => state.document);
  const frozen = useVersionDocument(version?.number ?? null);
  const document = version === null ? draft : frozen;
  const picked = useDataPicked();
  const of = { version, document: typeof document === 'string' ? null : document };
  const row = ([format, forWhom]: Offered[number], rows: DataPicked | null) => (
    <FileRow key={`${format} ${version?.number}`} {...of} format={format} forWhom={forWhom} data={rows} />
  );
  return (
    <>
      <h2>{version === null ? 'Files, from the draft' : `Files, from version ${version.number}`}</h2>
      <div className={classes.card}>
        {typeof document === 'string' && <p role="alert">{document}</p>}
        {GROUPS.map(({ head, files }) => (
          <section key={head} aria-label={head}>
            <h3>{head}</h3>
            <ul className={classes.files}>{files.map((each) => row(each, null))}</ul>
          </section>
        ))}
        <section aria-label="Data">
          <h3>Data</h3>
          <DataPicker picked={picked} />
          <ul className={classes.files}>{DATA.map((each) => row(each, picked))}</ul>
        </section>
      </div>
    </>
  );
}

interface RowProps {
  readonly format: FormatName;
  readonly forWhom: string;
  readonly version: Version | null;
  /** Null until it has come. */
  readonly document: object | null;
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
  const [busy, setBusy] = useState<string | null>(null);
  const make = async (kind: string) => {
    setBusy(kind);
    setTold(null);
    try {
      const mark = version && { number: version.number, frozen: version.frozen, at: version.at };
      const rows = data === null ? null : await data.rows();
      const asked = { format, kind, ...(rows === null ? {} : { rows }) };
      const { name, blob, losses } = await client.file(asked, document, mark);
      saveBlob(blob, name);
      setTold({ words: sizeText(blob.size), lost: losses });
    } catch (error) {
      setTold({ words: error instanceof Error ? error.message : String(error), lost: [] });
    }
    setBusy(null);
  };
  const { words }: FileFormat = FORMATS[format];
  return (
    <li>
      <div className={classes.file}>
        <span>{words}</span>
        <i aria-hidden="true" />
        {kindsOf(format).map((kind) => (
          <button
            key={kind}
            type="button"
            aria-label={`${words}, .${kind}`}
            disabled={busy !== null || document === null}
            onClick={() => void make(kind)}
          >
            .{kind}
          </button>
        ))}
      </div>
      <small>
        {forWhom} <b role="status">{busy === null ? (told?.words ?? '') : 'making …'}</b>
      </small>
      {told !== null && told.lost.length > 0 && (
        <LostList words={`Not in it: ${plural(told.lost.length, 'thing')}`} lost={told.lost} />
      )}
    </li>
  );
}
