/** Book: the codebook as it stands, changed in place, in bulk by a sheet, or by a convention for missing codes. */
import { useMemo, useState } from 'react';
import { codebookSheet } from '../../../core/exchange/codebook-sheet';
import { csvLines } from '../../../core/exchange/csv';
import { codebook } from '../../../core/views/codebook';
import { useSnags } from '../../state/snags';
import { useStudy } from '../../state/store';
import { saveBlob } from '../../ui/save-blob';
import { plural } from '../../ui/format';
import { useData } from '../../state/data';
import { BookTable } from './BookTable';
import { MissingPlan } from './MissingPlan';
import { SheetBack } from './SheetBack';
import { FindField } from '../../ui/FindField';
import { Problem } from '../../ui/Problem';
import classes from './book.module.css';
import { why } from '../../ui/why';

type Panel = 'missing' | 'sheet';

export function BookView() {
  const { client } = useData();
  const plan = useStudy((state) => state.plan);
  const document = useStudy((state) => state.document);
  const isReadOnly = useStudy((state) => state.readOnly !== null);
  const { open: snags } = useSnags();
  const rows = useMemo(() => codebook(plan), [plan]);
  const [wanted, setWanted] = useState('');
  const [panel, setPanel] = useState<Panel | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const words = wanted.trim().toLowerCase();
  const found = rows.filter(
    ({ column, label, text }) =>
      words === '' || [column, label, text].some((each) => each.toLowerCase().includes(words)),
  );
  const collisions = snags.filter(({ rule }) => rule === 'code-collides').length;
  const toggle = (which: Panel) => setPanel((now) => (now === which ? null : which));
  const workbook = async () => {
    setProblem(null);
    try {
      const worker = await client.about(document);
      saveBlob(await worker.sheet('Codebook', codebookSheet(document)), 'codebook.xlsx');
    } catch (error) {
      setProblem(`This file could not be made: ${why(error)}`);
    }
  };
  return (
    <div className={classes.page}>
      <div className={classes.tools}>
        <FindField label="Find a variable" value={wanted} set={setWanted} />
        <span>
          {plural(found.length, 'column')}
          {collisions > 0 && (
            <strong> · {plural(collisions, 'code')} that could also be an answer: see the snags</strong>
          )}
        </span>
        {!isReadOnly && (
          <>
            <button type="button" aria-expanded={panel === 'missing'} onClick={() => toggle('missing')}>
              Missing codes
            </button>
            <button type="button" aria-expanded={panel === 'sheet'} onClick={() => toggle('sheet')}>
              Take a sheet back
            </button>
          </>
        )}
        <button
          type="button"
          onClick={() =>
            saveBlob(new Blob([csvLines(codebookSheet(document))], { type: 'text/csv' }), 'codebook.csv')
          }
        >
          Sheet, CSV
        </button>
        <button type="button" onClick={() => void workbook()}>
          Sheet, XLSX
        </button>
      </div>
      <Problem of={problem} className={classes.problem} />
      {panel === 'missing' && <MissingPlan />}
      {panel === 'sheet' && <SheetBack close={() => setPanel(null)} />}
      {rows.length === 1 ? (
        <p className={classes.nothing}>
          The codebook fills itself: write questions in the Script, and each of their variables stands here
          with its codes and who is asked.
        </p>
      ) : (
        <BookTable rows={found} />
      )}
    </div>
  );
}
