/** What of a questionnaire decides who is presented what: while it is the same, every route is the same. */
import { PROPERTIES, propertiesOf, propertiesThat, type HolderKind } from './properties';
import type { Questionnaire } from './types';

const KINDS = Object.keys(PROPERTIES) as HolderKind[];
/** Names that steer in no part; what the study itself has is told by `OF_STUDY`, where a name may mean something else. */
const IDLE: ReadonlySet<string> = new Set(
  KINDS.filter((kind) => kind !== 'study')
    .flatMap((kind) => propertiesThat(kind, ({ steers }) => steers !== true))
    .filter((name) => KINDS.every((kind) => kind === 'study' || propertiesOf(kind)[name]?.steers !== true)),
);
const OF_STUDY = propertiesThat('study', ({ steers }) => steers === true);

/** A text; equal texts mean the same routes, in the same order, taken by the same answers. */
export function routingContent(document: Questionnaire): string {
  return routingText(OF_STUDY.map((name) => document[name] ?? null));
}

/** The same of any part within a questionnaire. */
export function routingText(part: unknown): string {
  return JSON.stringify(part, (name, value: unknown) => (IDLE.has(name) ? undefined : value)) ?? '';
}
