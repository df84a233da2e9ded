const PIECE = 65_536;

/** Joins rows to pieces that are worth a write each. */
export function* inPieces(rows: Iterable<string>): Generator<string> {
  let piece = '';
  for (const row of rows) {
    piece += row;
    if (piece.length < PIECE) continue;
    yield piece;
    piece = '';
  }
  if (piece) yield piece;
}
