/**
 * The stand-alone instrument: runs one questionnaire from a file, with no server and no network, and keeps its cases in the
 * browser. Bundled by itself (`scripts/programs.mjs`) and put into a page by `core/release/instrument`.
 */
import { createRoot } from 'react-dom/client';
import { InstrumentDataSchema } from '../core/responding/instrument-data';
import { readPageData } from '../islands/responding/page-data';
import { storageHere } from '../islands/ui/storage-here';
import '../styles/base.css';
import { Instrument } from './Instrument';
import { BROWSER, Sender } from './sender';
import { Shelf } from './shelf';

const place = document.getElementById('instrument');
if (place !== null) start(place);

function start(root: HTMLElement): void {
  const read = readPageData(InstrumentDataSchema);
  if (read === null) {
    root.textContent =
      'The questionnaire in this file has been changed and cannot be read any more. Ask for the file anew.';
    return;
  }
  const {
    plan,
    data: { asked, post },
  } = read;
  const shelf = new Shelf(storageHere(), asked.checksum);
  const sender = post === undefined ? null : new Sender(plan, asked, post, shelf, BROWSER);
  addEventListener('online', () => void sender?.sendNow(false));
  addEventListener('storage', () => shelf.reread());
  void sender?.send();
  createRoot(root).render(<Instrument plan={plan} asked={asked} shelf={shelf} sender={sender} />);
}
