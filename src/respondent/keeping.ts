/** What a respondent's browser keeps of a link: under which ticket it answers, and the page in hand until the server has it. */
import * as v from 'valibot';
import { AnswersSchema } from '../core/document/walked';
import { TurnSchema } from '../core/responding/turn';

/** As much of `Storage` as is used. */
export type Kept = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

const Id = v.pipe(v.string(), v.uuid());

const DraftSchema = v.strictObject({
  /** Of the part that it belongs to. */
  id: Id,
  turn: v.pipe(v.number(), v.integer(), v.minValue(1)),
  key: Id,
  page: v.string(),
  /** What was changed on the page. */
  answers: AnswersSchema,
  /** Where it goes on to, once that was asked for: then it is on its way. */
  go: v.nullable(TurnSchema.entries.go),
});
export type Draft = v.InferOutput<typeof DraftSchema>;

const RecordSchema = v.strictObject({
  ticket: Id,
  /** Whether the server knows the ticket. */
  begun: v.boolean(),
  /** Tells this browser from others, for this link alone. */
  browser: Id,
  draft: v.nullable(DraftSchema),
});
export type KeptRecord = v.InferOutput<typeof RecordSchema>;

export class Keeping {
  /** Here alone, where the browser keeps nothing. */
  private here: KeptRecord | null = null;

  constructor(
    private readonly storage: Kept | null,
    private readonly name: string,
  ) {}

  read(): KeptRecord | null {
    if (this.here !== null) return this.here;
    try {
      const read = v.safeParse(RecordSchema, JSON.parse(this.storage?.getItem(this.name) ?? 'null'));
      if (read.success) this.here = read.output;
    } catch {
      // Another program's, or nothing.
    }
    return this.here;
  }

  write(record: KeptRecord): void {
    this.here = record;
    try {
      this.storage?.setItem(this.name, JSON.stringify(record));
    } catch {
      // No room: the page itself still has it.
    }
  }
}
