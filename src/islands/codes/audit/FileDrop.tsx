/** Where a collected file is chosen or dropped. */
import { FileSpreadsheet } from 'lucide-react';
import { useState } from 'react';
import { FileButton } from '../../ui/FileField';
import { Problem } from '../../ui/Problem';
import classes from './audit.module.css';

interface Props {
  readonly choose: (file: File) => void;
  readonly problem: string | null;
}

export function FileDrop({ choose, problem }: Props) {
  const [over, setOver] = useState(false);
  return (
    <div className={classes.empty}>
      <div
        className={classes.drop}
        data-over={over || undefined}
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          const [file] = event.dataTransfer.files;
          if (file !== undefined) choose(file);
        }}
      >
        <FileSpreadsheet size={28} aria-hidden="true" />
        <h1>Hold collected rows against the routing</h1>
        <p>
          Choose a file with one row a respondent and names of columns in its first row: CSV with any
          delimiter, or XLSX. Blanks that the routing explains are filled in with their codes; answers where
          none can be, blanks where there should be one, and codes that are not on the list are told, and left
          as they are.
        </p>
        <FileButton
          label="Collected file"
          accept=".csv,.tsv,.txt,.xlsx"
          choose={choose}
          className={classes.main}
        >
          Choose a file
        </FileButton>
        <small>Or drop it here. The file is read in this browser and not sent anywhere.</small>
        <Problem of={problem} className={classes.problem} />
      </div>
    </div>
  );
}
