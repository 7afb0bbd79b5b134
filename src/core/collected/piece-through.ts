/**
 * An auditor of pieces on another thread: what the two sides say to each other, by whatever carries their calls across. Both
 * sides check what they are given.
 */
import * as v from 'valibot';
import { PROBLEM_KINDS } from '../audit/problems';
import { documentGiven } from '../document/read';
import { planOf } from '../routing/planner';
import { unlessFailed, type Across } from './across';
import { PieceAudit, type AuditSetting, type PieceApi, type PieceAudited, type PieceAuditor } from './piece';

const Cells = v.array(v.string());
const Count = v.pipe(v.number(), v.integer(), v.minValue(0));
const Kind = v.picklist(PROBLEM_KINDS);
const RowsPiece = v.union([v.string(), v.array(Cells)]);

const Setting = v.strictObject({
  header: Cells,
  options: v.strictObject({ codeBlanks: v.optional(v.boolean()), blankPicks: v.optional(v.boolean()) }),
  said: v.record(v.string(), v.nullable(v.string())),
  caseColumn: v.nullable(v.string()),
  format: v.strictObject({ delimiter: v.string(), quote: v.string() }),
  newline: v.undefinedable(v.string()),
  keepsRows: v.boolean(),
  tabulates: v.boolean(),
});

const Audited = v.strictObject({
  written: v.instance(Uint8Array),
  counts: v.strictObject({
    rows: Count,
    clean: Count,
    filled: Count,
    recoded: Count,
    problems: Count,
    byProblem: v.map(Kind, Count),
    byColumn: v.map(v.string(), v.map(Kind, Count)),
    byEnding: v.map(v.string(), Count),
  }),
  problems: v.array(
    v.strictObject({
      row: Count,
      problem: Kind,
      column: v.string(),
      value: v.string(),
      instead: v.optional(v.string()),
    }),
  ),
  cases: Cells,
  kept: v.array(v.strictObject({ row: Count, cells: Cells })),
  columns: v.nullable(
    v.array(
      v.strictObject({
        ids: v.union([v.instance(Uint8Array), v.instance(Uint16Array), v.instance(Uint32Array)]),
        texts: Cells,
      }),
    ),
  ),
  ragged: v.nullable(v.strictObject({ row: Count, cells: Cells })),
});

/** The other thread's side. */
export function pieceApi(): PieceApi {
  let audit: PieceAudit | null = null;
  return {
    open(document, setting) {
      audit = new PieceAudit(planOf(documentGiven(document)), v.parse(Setting, setting));
    },
    audit(piece) {
      if (audit === null) throw new Error('no questionnaire has been opened');
      return audit.audit(v.parse(RowsPiece, piece));
    },
  };
}

/** This thread's side. `failed`: rejects where the other breaks down, after which no call comes back. */
export function auditorThrough(
  api: Across<PieceApi>,
  document: Parameters<PieceApi['open']>[0],
  setting: AuditSetting,
  failed: Promise<never>,
  end: () => void,
): PieceAuditor {
  const opened = api.open(document, setting);
  // Told by whatever is audited by it.
  opened.catch(() => undefined);
  const unlessBroken = unlessFailed(failed);
  return {
    audit: async (piece): Promise<PieceAudited> => {
      const [, audited] = await unlessBroken(Promise.all([opened, api.audit(piece)]));
      return v.parse(Audited, audited);
    },
    end,
  };
}
