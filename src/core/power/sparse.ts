/**
 * Sparse symmetric solver for networks: minimum-degree order, then LDL^T.
 * Up-looking factorisation over the elimination tree [published: Algorithm 849, ACM Trans. Math.
 * Softw. 31 (2005) 587-591]. Doubles throughout: a fence mixes 10 S jumpers with 1e-6 S leaks.
 */

/** Collects a symmetric matrix entry by entry; entries at one place add up. */
export class SymmetricBuilder {
  readonly diagonal: Float64Array;
  private readonly rows: number[] = [];
  private readonly cols: number[] = [];
  private readonly values: number[] = [];

  constructor(readonly size: number) {
    this.diagonal = new Float64Array(size);
  }

  /** A conductance between two nodes; stamps both diagonals and the pair. */
  between(a: number, b: number, g: number): void {
    if (a === b) return;
    this.diagonal[a]! += g;
    this.diagonal[b]! += g;
    this.rows.push(Math.min(a, b));
    this.cols.push(Math.max(a, b));
    this.values.push(-g);
  }

  /** A conductance from a node to the reference. */
  toReference(a: number, g: number): void {
    this.diagonal[a]! += g;
  }

  get offDiagonal() {
    return { rows: this.rows, cols: this.cols, values: this.values };
  }
}

export interface Factor {
  /** Non-zeros of L below its diagonal. */
  readonly fill: number;
  /** Solves A x = b; b is left as it was. */
  solve(b: ArrayLike<number>): Float64Array;
}

/**
 * Factorises a symmetric positive definite matrix.
 * @throws RangeError at a pivot that is not positive: some node hangs on nothing
 */
export function factorise(matrix: SymmetricBuilder): Factor {
  const n = matrix.size;
  const { rows, cols, values } = matrix.offDiagonal;
  const order = minimumDegree(n, rows, cols);
  const place = new Int32Array(n);
  order.forEach((node, k) => (place[node] = k));

  // Upper triangle by columns, in the new order.
  const start = new Int32Array(n + 1);
  const count = rows.length;
  for (let k = 0; k < count; k++) {
    start[Math.max(place[rows[k]!]!, place[cols[k]!]!) + 1]!++;
  }
  for (let j = 0; j < n; j++) start[j + 1]! += start[j]!;
  const fillAt = start.slice(0, n);
  const index = new Int32Array(count);
  const entry = new Float64Array(count);
  for (let k = 0; k < count; k++) {
    const a = place[rows[k]!]!;
    const b = place[cols[k]!]!;
    const at = fillAt[Math.max(a, b)]!++;
    index[at] = Math.min(a, b);
    entry[at] = values[k]!;
  }
  const diagonal = new Float64Array(n);
  for (let k = 0; k < n; k++) diagonal[k] = matrix.diagonal[order[k]!]!;
  return numeric(n, start, index, entry, diagonal, order);
}

function numeric(
  n: number,
  start: Int32Array,
  index: Int32Array,
  entry: Float64Array,
  diagonal: Float64Array,
  order: Int32Array,
): Factor {
  const parent = new Int32Array(n).fill(-1);
  const flag = new Int32Array(n).fill(-1);
  const below = new Int32Array(n);
  for (let j = 0; j < n; j++) {
    flag[j] = j;
    for (let p = start[j]!; p < start[j + 1]!; p++) {
      for (let i = index[p]!; flag[i] !== j; i = parent[i]!) {
        if (parent[i] === -1) parent[i] = j;
        below[i]!++;
        flag[i] = j;
      }
    }
  }
  const lStart = new Int32Array(n + 1);
  for (let j = 0; j < n; j++) lStart[j + 1] = lStart[j]! + below[j]!;
  const lIndex = new Int32Array(lStart[n]!);
  const lValue = new Float64Array(lStart[n]!);
  const d = new Float64Array(n);
  const y = new Float64Array(n);
  const pattern = new Int32Array(n);
  const filled = new Int32Array(n);
  flag.fill(-1);
  for (let j = 0; j < n; j++) {
    let top = n;
    flag[j] = j;
    for (let p = start[j]!; p < start[j + 1]!; p++) {
      let i = index[p]!;
      y[i]! += entry[p]!;
      let length = 0;
      for (; flag[i] !== j; i = parent[i]!) {
        pattern[length++] = i;
        flag[i] = j;
      }
      while (length > 0) pattern[--top] = pattern[--length]!;
    }
    let dj = diagonal[j]!;
    for (; top < n; top++) {
      const i = pattern[top]!;
      const yi = y[i]!;
      y[i] = 0;
      const end = lStart[i]! + filled[i]!;
      for (let p = lStart[i]!; p < end; p++) y[lIndex[p]!]! -= lValue[p]! * yi;
      const l = yi / d[i]!;
      dj -= l * yi;
      lIndex[end] = j;
      lValue[end] = l;
      filled[i]!++;
    }
    if (!(dj > 0)) throw new RangeError('the network hangs on nothing at some node');
    d[j] = dj;
  }
  return {
    fill: lIndex.length,
    solve(b) {
      const x = new Float64Array(n);
      for (let k = 0; k < n; k++) x[k] = b[order[k]!]!;
      for (let j = 0; j < n; j++) {
        for (let p = lStart[j]!; p < lStart[j + 1]!; p++) x[lIndex[p]!]! -= lValue[p]! * x[j]!;
      }
      for (let j = n - 1; j >= 0; j--) {
        x[j]! /= d[j]!;
        for (let p = lStart[j]!; p < lStart[j + 1]!; p++) x[j]! -= lValue[p]! * x[lIndex[p]!]!;
      }
      const out = new Float64Array(n);
      for (let k = 0; k < n; k++) out[order[k]!] = x[k]!;
      return out;
    },
  };
}

/**
 * Fill-reducing order: repeatedly the node with fewest neighbours, whose neighbours then become a
 * clique [published: minimum-degree ordering, SIAM Review 31 (1989) 1-19]. Fences are nearly trees,
 * so the plain elimination graph stays small.
 */
export function minimumDegree(
  n: number,
  rows: ArrayLike<number>,
  cols: ArrayLike<number>,
): Int32Array {
  const neighbours: number[][] = Array.from({ length: n }, () => []);
  for (let k = 0; k < rows.length; k++) {
    neighbours[rows[k]!]!.push(cols[k]!);
    neighbours[cols[k]!]!.push(rows[k]!);
  }
  const mark = new Int32Array(n).fill(-1);
  let stamp = 0;
  const unique = (list: number[], skip: number) => {
    stamp++;
    return list.filter((x) => x !== skip && mark[x] !== stamp && ((mark[x] = stamp), true));
  };
  const buckets: number[][] = [];
  const put = (node: number) => (buckets[neighbours[node]!.length] ??= []).push(node);
  for (let v = 0; v < n; v++) {
    neighbours[v] = unique(neighbours[v]!, v);
    put(v);
  }
  const done = new Uint8Array(n);
  const order = new Int32Array(n);
  let degree = 0;
  for (let k = 0; k < n;) {
    const v = buckets[degree]?.pop();
    if (v === undefined) {
      degree++;
      continue;
    }
    // Buckets keep stale entries; a node counts only where its degree still says so.
    if (done[v] || neighbours[v]!.length !== degree) continue;
    done[v] = 1;
    order[k++] = v;
    const clique = neighbours[v]!;
    for (const u of clique) {
      // In place: v goes, the rest of the clique comes in.
      const own = neighbours[u]!;
      stamp++;
      mark[u] = stamp;
      let kept = 0;
      for (const x of own) {
        mark[x] = stamp;
        if (x !== v) own[kept++] = x;
      }
      own.length = kept;
      for (const x of clique) if (mark[x] !== stamp) own.push(x);
      put(u);
      if (own.length < degree) degree = own.length;
    }
    neighbours[v] = [];
  }
  return order;
}
