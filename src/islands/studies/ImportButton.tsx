/** Chooses a file to be read as a questionnaire. */
import { FileUp } from 'lucide-react';
import { isRead, KNOWN, type FormatName } from '../../core/release/formats/known';
import { FileButton } from '../ui/FileField';

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
  return (
    <FileButton label="Questionnaire file" accept={ACCEPTED} choose={choose} disabled={busy}>
      <FileUp size={16} /> {busy ? 'Reading …' : 'Import a file'}
    </FileButton>
  );
}
