/** The pieces of a file handed to several auditors at once, and what they say, in the order of the pieces. */
import type { RowsPiece } from '../exchange/csv';
import type { PieceAudited, PieceAuditor } from './piece';

/** Pieces that each of them has in hand: one under way, and one to go on with at once. */
const IN_HAND = 2;

/** However many pieces there are, only so many are held as are in hand. Whoever stops early ends nothing: see `PieceAuditor.end`. */
export async function* auditedInOrder<Piece extends { readonly piece: RowsPiece }>(
  pieces: AsyncIterable<Piece>,
  auditors: readonly PieceAuditor[],
): AsyncGenerator<{ readonly from: Piece; readonly audited: PieceAudited }> {
  const underWay: { readonly from: Piece; readonly audited: Promise<PieceAudited> }[] = [];
  let next = 0;
  for await (const from of pieces) {
    if (from.piece.length === 0) continue;
    const auditor = auditors[next % auditors.length] as PieceAuditor;
    next += 1;
    const audited = auditor.audit(from.piece);
    // Told when it is its turn.
    audited.catch(() => undefined);
    underWay.push({ from, audited });
    if (underWay.length >= auditors.length * IN_HAND) yield* first(underWay);
  }
  while (underWay.length > 0) yield* first(underWay);
}

async function* first<From>(underWay: { readonly from: From; readonly audited: Promise<PieceAudited> }[]) {
  const each = underWay.shift();
  if (each !== undefined) yield { from: each.from, audited: await each.audited };
}
