/** Two versions of a questionnaire that were made of one, together. */
import { listKey, partKey, readPart, type PartKey, type PartKind } from '../document/addresses';
import type { Questionnaire } from '../document/types';
import { variablesOf } from '../document/variables';
import { applyOperations, type Clash } from './apply-operations';
import { applyChange } from './change';
import { operationsBetween, type Operation } from './operations';
import { renameVariable } from './rename';

export interface Versions {
  /** The last one that both knew. */
  readonly base: Questionnaire;
  readonly mine: Questionnaire;
  readonly theirs: Questionnaire;
}

/**
 * Two versions made of one, together: what only one of them changed is as they have it, and references follow what
 * either has renamed. Clashes keep theirs, unless `choose` says that mine is to stand.
 */
export function mergeVersions(
  { base, mine, theirs }: Versions,
  choose: (clash: Clash) => boolean = () => false,
): { readonly document: Questionnaire; readonly clashes: readonly Clash[] } {
  const operations = operationsBetween(base, mine);
  const done = operationsBetween(base, theirs);
  const { clashes } = applyOperations(theirs, operations, new Set(), done);
  const chosen = clashes.filter(choose);
  const force = new Set(chosen.map(({ operation }) => operation));
  const gone = new Set(chosen.filter((clash) => clash.gone).map(({ operation }) => operation.part));
  const restored = gone.size === 0 ? [] : bringingBack(gone, operationsBetween(theirs, mine));
  const merged = applyOperations(theirs, [...restored, ...operations], force, done).document;
  return { document: withNamesFollowed(merged, [...operations, ...done]), clashes };
}

/** What adds parts that are gone: those, the items whose answers or rows they are, and the sections that held them. */
function bringingBack(gone: ReadonlySet<PartKey>, back: readonly Operation[]): Operation[] {
  const adds = back.filter((operation) => operation.do === 'add');
  const wanted = adds.filter(({ part }) => [...gone].some((each) => each === part || ownerOf(each) === part));
  const homes = new Set(wanted.map(({ to }) => to.list));
  return [
    ...adds.filter(
      ({ part }) =>
        homes.has(listKey('items', readPart(part).name)) && !wanted.some((each) => each.part === part),
    ),
    ...wanted,
  ];
}

/** Of an answer or a row, the item. */
function ownerOf(part: PartKey): PartKey | null {
  const { owner } = readPart(part);
  return owner === null ? null : partKey('item', owner);
}

const VARIABLES: readonly PartKind[] = ['given', 'item', 'row', 'derived'];

/** What still refers to a variable by the name it had before refers to it by its name now. */
function withNamesFollowed(document: Questionnaire, operations: readonly Operation[]): Questionnaire {
  let followed = document;
  for (const operation of operations) {
    if (
      operation.do !== 'set' ||
      operation.field !== 'name' ||
      !VARIABLES.includes(readPart(operation.part).kind)
    )
      continue;
    const [old, now] = [String(operation.before), String(operation.after)];
    const variables = variablesOf(followed);
    if (variables.has(old.toLowerCase()) || !variables.has(now.toLowerCase())) continue;
    followed = applyChange(followed, renameVariable(old, now)).document;
  }
  return followed;
}
