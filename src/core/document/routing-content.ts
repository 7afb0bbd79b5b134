/** What of a questionnaire decides who is presented what: while it is the same, every route is the same. */
import type { Questionnaire } from './types';

/** Properties that are shown, stored or assumed, and lead nobody anywhere; wherever they stand. */
const SHOWN: ReadonlySet<string> = new Set([
  'title',
  'language',
  'missing',
  'settings',
  'label',
  'text',
  'note',
  'instruction',
  'image',
  'intro',
  'timeLimit',
  'requiredMessage',
  'limitMessage',
  'picksMessage',
  'message',
  'agrees',
  'sensitive',
  'measure',
  'missingCodes',
  'comment',
  'seconds',
  'assume',
  'columns',
  'shuffleOptions',
  'lowLabel',
  'midLabel',
  'highLabel',
  'unit',
  'lines',
  'placeholder',
  'specify',
  'specifyLabel',
  'specifyOptional',
  'next',
  'random',
]);

/** A text; equal texts mean the same routes, in the same order, taken by the same answers. */
export function routingContent(document: Questionnaire): string {
  return routingText(document);
}

/** The same of any part of a questionnaire. */
export function routingText(part: unknown): string {
  return (
    JSON.stringify(part, (key, value: unknown) => {
      // An option's `missing` is a reason, and steers; the document's is its list of codes.
      const reason = key === 'missing' && typeof value === 'string';
      return SHOWN.has(key) && !reason ? undefined : value;
    }) ?? ''
  );
}
