/** The files of a version or of the draft: what each is and for whom; one press makes it, and says how large it is. */
import { useState } from 'react';
import { FORMATS, type FormatName } from '../../core/release/formats';
import type { Version } from '../../wire/versions';
import { useReleaseClient } from '../state/gate';
import { useStudy } from '../state/store';
import { useVersionDocument } from '../state/versions';
import { sizeText } from '../ui/format';
import { saveBlob } from '../ui/save-blob';
import classes from './gate.module.css';

/** Offered here, with whom each is for. */
const FILES: readonly (readonly [FormatName, forWhom: string])[] = [
  ['document', 'to open it elsewhere, or to keep it'],
  ['script', 'to read in a mail, and to compare line by line'],
  ['test-pack', 'for whoever programs it: every fork, step by step'],
  ['schema', 'for whoever reads the questionnaire by program'],
];

export function FilesCard({ version }: { readonly version: Version | null }) {
  const draft = useStudy((state) => state.document);
  const frozen = useVersionDocument(version?.number ?? null);
  const document = version === null ? draft : frozen;
  return (
    <>
      <h2>{version === null ? 'Files, from the draft' : `Files, from version ${version.number}`}</h2>
      <div className={classes.card}>
        {typeof document === 'string' && <p role="alert">{document}</p>}
        <ul className={classes.files}>
          {FILES.map(([format, forWhom]) => (
            <FileRow
              key={`${format} ${version?.number}`}
              format={format}
              forWhom={forWhom}
              version={version}
              document={typeof document === 'string' ? null : document}
            />
          ))}
        </ul>
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
}

function FileRow({ format, forWhom, version, document }: RowProps) {
  const client = useReleaseClient();
  const [told, setTold] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const make = async () => {
    setBusy(true);
    setTold(null);
    try {
      const mark = version && { number: version.number, frozen: version.frozen, at: version.at };
      const { name, blob } = await client.file(format, document, mark);
      saveBlob(blob, name);
      setTold(sizeText(blob.size));
    } catch (error) {
      setTold(error instanceof Error ? error.message : String(error));
    }
    setBusy(false);
  };
  const { words, endings } = FORMATS[format];
  return (
    <li>
      <button type="button" disabled={busy || document === null} onClick={() => void make()}>
        <span>
          {words} <small>.{endings[0]}</small>
        </span>
        <i aria-hidden="true" />
        <b role="status">{busy ? 'making …' : (told ?? '')}</b>
      </button>
      <small>{forWhom}</small>
    </li>
  );
}
