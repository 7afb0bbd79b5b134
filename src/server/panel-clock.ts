/** How late it is to somebody who answers: by the clock of the server, or under the link of a made-up panel by its own. */
import { CLOCK_HEADER, PROGRAM_HEADER } from '../../server/inner.mjs';
import type { Store } from '../store/open';
import { findPanel } from '../store/panels';

export function timeFor(db: Store, token: string, { headers }: Request, now: number): number {
  const panel = findPanel(db, token);
  if (panel === null) return now;
  // A program of this house alone says what time it is.
  const said = headers.get(PROGRAM_HEADER) === null ? NaN : Number(headers.get(CLOCK_HEADER) ?? NaN);
  return Number.isSafeInteger(said) && said >= panel.settings.startsAt ? said : panel.clock;
}
