/** Taking an earlier version as the draft again: one step of the history, so that it can be taken back. */
import isEqual from 'fast-deep-equal';
import type { Questionnaire } from '../document/types';
import type { Change } from './change';

/** A document that is the same already is left as it is. */
export function restoreVersion(number: number, version: Questionnaire): Change {
  return {
    label: `Restore version ${number} as the draft`,
    said: `Version ${number} is the draft again.`,
    telling: true,
    apply(draft) {
      const held = draft as unknown as Record<string, unknown>;
      for (const key of Object.keys(held)) if (!(key in version)) delete held[key];
      for (const [key, value] of Object.entries(version)) if (!isEqual(held[key], value)) held[key] = value;
    },
  };
}
