/** What two people wrote in one place, in words: where it is, and what each of them has there. */
import { readPart, STUDY_PART, type PartKey } from '../document/addresses';
import { propertiesOf, propertyWords, type HolderKind } from '../document/properties';
import type { Questionnaire, Target } from '../document/types';
import { capital } from '../document/words';
import type { Clash } from '../editing/apply-operations';
import { namedBy } from '../editing/operations';
import { targetWords } from '../wording/targets';

export interface ClashView {
  readonly key: string;
  readonly where: string;
  readonly mine: string;
  readonly theirs: string;
}

/** `document`: for the names of targets; mine or theirs. */
export function clashView(document: Questionnaire, { operation, theirs, gone }: Clash): ClashView {
  const key = `${operation.do} ${operation.part}${operation.do === 'set' ? ` ${operation.field}` : ''}`;
  const part = partWords(operation.part);
  switch (operation.do) {
    case 'set': {
      const naming = operation.field === namedBy(operation.part);
      const last = operation.field.split('.').at(-1) ?? '';
      const property = naming
        ? last === 'code'
          ? 'code'
          : 'name'
        : propertyWords(holderOf(operation.part, operation.field), last);
      const where = operation.part === STUDY_PART ? capital(property) : `${part}: ${property}`;
      const now = gone ? 'it was deleted' : valueWords(document, theirs);
      return { key, where, mine: valueWords(document, operation.after), theirs: now };
    }
    case 'add':
      return gone
        ? { key, where: part, mine: 'added', theirs: 'what it was added to was deleted' }
        : { key, where: part, mine: 'added', theirs: 'added as well, but not the same' };
    case 'remove':
      return { key, where: part, mine: 'deleted', theirs: `changed: ${titleOf(theirs)}` };
    case 'move':
      return { key, where: part, mine: 'moved', theirs: gone ? 'it was deleted' : 'moved to another place' };
    default:
      return operation satisfies never;
  }
}

function partWords(part: PartKey): string {
  const { kind, name, owner } = readPart(part);
  switch (kind) {
    case 'option':
    case 'special':
      return `Answer ${name} of ${owner ?? ''}`;
    case 'row':
      return `Row ${name} of ${owner ?? ''}`;
    case 'break':
      return 'A page break';
    case 'item':
    case 'derived':
    case 'given':
      return name;
    default:
      return `${capital(kind)} ${name}`;
  }
}

/** Of what kind of part a property of an operation is: `answer.min` one of an answer. */
function holderOf(part: PartKey, field: string): HolderKind | null {
  const [outer = '', inner] = field.split('.');
  if (inner !== undefined) return outer === 'answer' || outer === 'settings' ? outer : null;
  const { kind } = readPart(part);
  if (kind === 'break') return null;
  if (kind === 'item') return outer in propertiesOf('question') ? 'question' : 'statement';
  return kind === 'special' ? 'option' : kind;
}

function titleOf(value: unknown): string {
  const { text, title, label } = value as { text?: string; title?: string; label?: string };
  return `“${text ?? title ?? label ?? ''}”`;
}

/** Any value of a property, short and readable. */
function valueWords(document: Questionnaire, value: unknown): string {
  if (value === undefined || value === '') return 'nothing';
  if (value === true) return 'yes';
  if (typeof value === 'string' || typeof value === 'number') return String(value);
  if (Array.isArray(value))
    return value.length === 0 ? 'nothing' : value.map((each) => valueWords(document, each)).join('; ');
  const entries = Object.entries(value as object).filter(([, each]) => each !== undefined);
  const { if: condition, to } = value as { if?: string; to?: Target };
  if (to !== undefined) return `${condition ?? 'always'} → ${targetWords(document, to)}`;
  const target = value as Target;
  if (entries.length === 1 && ['item', 'section', 'ending', 'nextPass'].includes(entries[0]?.[0] ?? ''))
    return `→ ${targetWords(document, target)}`;
  return entries
    .map(([name, each]) => `${propertyWords(null, name)} ${valueWords(document, each)}`)
    .join(', ');
}
