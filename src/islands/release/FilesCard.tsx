/** The files of a version or of the draft: what each is, for whom, and its size once it has been made. */
import type { Version } from '../../wire/versions';
import { FORMATS, type FormatName } from '../../core/exchange/formats';
import { useStudy } from '../state/store';
import classes from './gate.module.css';

/** Offered here, with whom each is for. */
const FILES: readonly (readonly [FormatName, forWhom: string])[] = [
  ['document', 'to open it elsewhere, or to keep it'],
  ['script', 'to read in a mail, and to compare line by line'],
  ['schema', 'for whoever programs with it'],
];

export function FilesCard({ version }: { readonly version: Version | null }) {
  const api = useStudy((state) => state.api);
  const search = version === null ? '' : `&version=${version.number}`;
  return (
    <>
      <h2>{version === null ? 'Files, from the draft' : `Files, from version ${version.number}`}</h2>
      <div className={classes.card}>
        <ul className={classes.files}>
          {FILES.map(([format, forWhom]) => (
            <li key={format}>
              <a href={`${api}/file?format=${format}${search}`}>
                {FORMATS[format].words}
                <small> .{FORMATS[format].endings[0]}</small>
              </a>
              <small>{forWhom}</small>
            </li>
          ))}
        </ul>
      </div>
    </>
  );
}
