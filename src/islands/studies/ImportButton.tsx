/** Chooses a file to be read as a questionnaire. */
import { FileUp } from 'lucide-react';
import { useRef } from 'react';
import { isRead, KNOWN, type FormatName } from '../../core/release/formats/known';

interface Props {
  readonly choose: (file: File) => void;
  readonly busy: boolean;
}

/** What a file chooser offers: what the formats that are read end with, and what others call the same. */
const ACCEPTED = [
  ...(Object.keys(KNOWN) as FormatName[])
    .filter(isRead)
    .flatMap((format) => KNOWN[format].endings.map((ending) => `.${ending}`)),
  '.json',
  '.xml',
  '.zip',
].join();

export function ImportButton({ choose, busy }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" disabled={busy} onClick={() => input.current?.click()}>
        <FileUp size={16} /> {busy ? 'Reading …' : 'Import a file'}
      </button>
      <input
        ref={input}
        type="file"
        accept={ACCEPTED}
        hidden
        aria-label="Questionnaire file"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) choose(file);
        }}
      />
    </>
  );
}
