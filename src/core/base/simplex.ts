/** The simplex method on a dense tableau, for programs of some ten rows and some thousand columns. */

export interface Program {
  /** By column its entries, one for each row; the columns of the first basis are unit vectors among them. */
  readonly columns: readonly (readonly number[])[];
  /** What each column is worth. */
  readonly worth: readonly number[];
  /** Right sides, none below 0. */
  readonly right: readonly number[];
  /** By row the column that stands in the first basis. */
  readonly basis: readonly number[];
}

const ZERO = 1e-9;

/**
 * The most that is worth of columns in amounts of 0 and more whose entries come to the right sides
 * [published: simplex method; rule of Bland against going round in circles].
 * @throws RangeError when there is no most
 */
export function maximise({ columns, worth, right, basis: first }: Program): number {
  const m = right.length;
  const n = columns.length;
  const rows = Array.from({ length: m }, (_, r) =>
    Float64Array.from({ length: n + 1 }, (_unused, c) => (c < n ? columns[c]![r]! : right[r]!)),
  );
  // What a unit of each column adds to the worth of the basis; in the last place the worth itself, negative.
  const gain = Float64Array.from({ length: n + 1 }, (_, c) => (c < n ? worth[c]! : 0));
  const basis = [...first];
  basis.forEach((b, r) => subtract(gain, rows[r]!, worth[b]!));
  for (let turn = 0; ; turn++) {
    const enters = entering(gain, n, turn > 50 * m);
    if (enters < 0) return -gain[n]!;
    let leaves = -1;
    for (let r = 0; r < m; r++) {
      if (rows[r]![enters]! <= ZERO) continue;
      const over = leaves < 0 ? -1 : rows[r]![n]! * rows[leaves]![enters]! - rows[leaves]![n]! * rows[r]![enters]!; // prettier-ignore
      if (over < -ZERO || (over <= ZERO && (leaves < 0 || basis[r]! < basis[leaves]!))) leaves = r;
    }
    if (leaves < 0) throw new RangeError('the worth has no most');
    const pivot = rows[leaves]!;
    const by = pivot[enters]!;
    for (let c = 0; c <= n; c++) pivot[c]! /= by;
    rows.forEach((row, r) => r !== leaves && subtract(row, pivot, row[enters]!));
    subtract(gain, pivot, gain[enters]!);
    basis[leaves] = enters;
  }
}

/** The column that gains most; after many turns the first that gains at all. */
function entering(gain: Float64Array, n: number, careful: boolean): number {
  let best = -1;
  for (let c = 0; c < n; c++) {
    if (gain[c]! <= ZERO || (best >= 0 && gain[c]! <= gain[best]!)) continue;
    best = c;
    if (careful) break;
  }
  return best;
}

function subtract(row: Float64Array, other: Float64Array, times: number): void {
  if (times === 0) return;
  for (let c = 0; c < row.length; c++) row[c]! -= times * other[c]!;
}
