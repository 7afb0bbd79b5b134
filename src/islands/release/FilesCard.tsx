/** The files of a version or of the draft: what each is and for whom; one press makes it, and says how large it is. */
import { useId, useState } from 'react';
import { HANDED_OVER, type FormatName } from '../../core/release/formats/known';
import type { Version } from '../../wire/versions';
import { useStudy } from '../state/store';
import { useVersionDocument } from '../state/versions';
import { DataPicker, useDataPicked, type DataPicked } from './DataPicker';
import { FileRow } from './FileRow';
import classes from './files.module.css';

type Offered = readonly HandedOver[];
type HandedOver = keyof typeof HANDED_OVER;

const GROUPS: readonly { readonly head: string; readonly files: Offered }[] = [
  { head: 'Questionnaire', files: ['document', 'script', 'test-pack', 'schema'] },
  {
    head: 'To read and to print',
    files: ['paper', 'form', 'codebook', 'route-book', 'map', 'items', 'forecast'],
  },
  { head: 'To archive and exchange', files: ['ddi-lifecycle', 'ddi-codebook'] },
];
const DATA: Offered = ['csvw', 'data-package', 'parquet', 'r'];

export function FilesCard({ version }: { readonly version: Version | null }) {
  const draft = useStudy((state) => state.document);
  const frozen = useVersionDocument(version?.number ?? null);
  const document = version === null ? draft : frozen;
  const picked = useDataPicked();
  const [post, setPost] = useState('');
  const postField = useId();
  const of = { version, document: typeof document === 'string' ? null : document };
  const row = (format: FormatName, forWhom: string, rows: DataPicked | null) => (
    <FileRow
      key={`${format} ${version?.number}`}
      {...of}
      format={format}
      forWhom={forWhom}
      data={rows}
      post={format === 'instrument' || format === 'package' ? post : ''}
    />
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
        <section aria-label="In the field">
          <h3>In the field</h3>
          <ul className={classes.files}>{rowOf('instrument', null)}</ul>
          <label className={classes.post} htmlFor={postField}>
            Post each closed case to (nothing: it stays on the device)
            <input
              id={postField}
              type="url"
              value={post}
              placeholder="https://example.org/cases"
              onChange={(event) => setPost(event.target.value)}
            />
            {/^\s*http:/i.test(post) && <small>Over http:// the answers travel unprotected.</small>}
          </label>
        </section>
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
