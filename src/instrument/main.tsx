/**
 * The stand-alone instrument: runs one questionnaire from a file, with no server and no network, and keeps its cases in the
 * browser. Bundled by itself (`scripts/programs.mjs`) and put into a page by `core/release/instrument`.
 */
import { createRoot } from 'react-dom/client';
import * as v from 'valibot';
import { readDocument } from '../core/document/read';
import { InstrumentDataSchema } from '../core/responding/instrument-data';
import { planOf } from '../core/routing/planner';
import { storageHere } from '../islands/ui/storage-here';
import '../styles/base.css';
import { Instrument } from './Instrument';
import { BROWSER, Sender } from './sender';
import { Shelf } from './shelf';

const place = document.getElementById('instrument');
if (place !== null) start(place);

function start(root: HTMLElement): void {
  const written = document.getElementById('questionnaire')?.textContent ?? 'null';
  const data = v.safeParse(InstrumentDataSchema, JSON.parse(written));
  const read = data.success ? readDocument(data.output.document) : null;
  if (!data.success || read?.ok !== true) {
    root.textContent =
      'The questionnaire in this file has been changed and cannot be read any more. Ask for the file anew.';
    return;
  }
  const { asked, post } = data.output;
  const plan = planOf(read.document);
  const shelf = new Shelf(storageHere(), asked.checksum);
  const sender = post === undefined ? null : new Sender(plan, asked, post, shelf, BROWSER);
  addEventListener('online', () => void sender?.sendNow(false));
  addEventListener('storage', () => shelf.reread());
  void sender?.send();
  createRoot(root).render(<Instrument plan={plan} asked={asked} shelf={shelf} sender={sender} />);
}
