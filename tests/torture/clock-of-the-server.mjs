/** Loaded into a server before anything else: its clock is off by what a file says, in milliseconds. */
import { readFileSync } from 'node:fs';
import process from 'node:process';

const now = Date.now.bind(Date);
const RealDate = Date;
let off = 0;
setInterval(() => {
  try {
    off = Number(readFileSync(process.env.CLOCK_OFF_BY ?? '', 'utf8')) || 0;
  } catch {
    // Being written just now.
  }
}, 10).unref();
globalThis.Date = class extends RealDate {
  constructor(...given) {
    super(...(given.length === 0 ? [now() + off] : given));
  }
  static now() {
    return now() + off;
  }
};
