/**
 * A respondent's page under a link, bundled by itself (`scripts/program.mjs`): the server runs this program to draw the first page
 * (`drawn`), and the browser runs it to answer.
 */
import { hydrateRoot } from 'react-dom/client';
import { renderToString } from 'react-dom/server';
import type { Plan } from '../core/routing/plan';
import { readPageData } from '../islands/responding/page-data';
import { storageHere } from '../islands/ui/storage-here';
import '../styles/base.css';
import { AnswerPageSchema, keptName, type AnswerPage } from '../wire/answer';
import { askOf } from './doors';
import { earlyDone } from './early';
import { Keeping } from './keeping';
import { Respondent } from './Respondent';
import { Sitter, type Means } from './sitter';

/** The first page as HTML. `plan`: of its questionnaire. */
export function drawn(page: AnswerPage, plan: Plan): string {
  const sitter = new Sitter(page, plan, NOT_HERE);
  const nothing = () => undefined;
  return renderToString(<Respondent {...{ page, plan, sitter }} tryNow={nothing} alive={nothing} />);
}

/** Phones, and windows as narrow as they are. */
const NARROW = '(max-width: 600px)';

if (typeof document !== 'undefined') {
  const place = document.getElementById('respondent');
  if (place !== null) start(place);
}

function start(root: HTMLElement): void {
  const read = readPageData(AnswerPageSchema);
  if (read === null) {
    root.textContent = 'This page cannot be read. Reload it, or ask for the link anew.';
    return;
  }
  const { data: page, plan } = read;
  const { token, key } = page;
  const keeping = new Keeping(storageHere(), keptName(token, key));
  const here = new EventTarget();
  const tryNow = () => here.dispatchEvent(new Event('try'));
  addEventListener('online', tryNow);
  const sitter = new Sitter(page, plan, {
    ask: askOf(token),
    keeping,
    device: () => (matchMedia(NARROW).matches ? 'narrow' : 'wide'),
    now: () => Date.now(),
    newId: randomId,
    chance: () => Math.random(),
    wait: (milliseconds) =>
      new Promise((resolve) => {
        const timer = setTimeout(resolve, milliseconds);
        here.addEventListener(
          'try',
          () => {
            clearTimeout(timer);
            resolve();
          },
          { once: true },
        );
      }),
  });
  const again = earlyDone(root);
  const isFresh = keeping.read() === null;
  hydrateRoot(
    root,
    <Respondent
      {...{ page, plan, sitter, tryNow }}
      alive={() => {
        void sitter.open();
        if (isFresh) again();
        delete document.documentElement.dataset.returning;
      }}
    />,
  );
}

/** Random, version 4 (RFC 9562). The browser's own maker of these is kept from pages without encryption. */
function randomId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const digits = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  return digits.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
}

/** Where nothing is asked of anybody: while the server draws. */
const NOT_HERE: Means = {
  ask: () => new Promise(() => undefined),
  keeping: new Keeping(null, ''),
  device: () => 'wide',
  now: () => 0,
  newId: () => '',
  chance: () => 0,
  wait: () => new Promise(() => undefined),
};
