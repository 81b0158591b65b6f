/** A network of lines cut into short cells: what the leapfrog of `simulate` steps through. */

/** A stretch of tied live strands, all alike, against remote soil. */
export interface PulseLine {
  readonly from: string;
  readonly to: string;
  readonly length_m: number;
  readonly r_ohm_per_m: number;
  readonly l_h_per_m: number;
  readonly c_f_per_m: number;
  readonly g_s_per_m: number;
}

export interface Load {
  readonly node: string;
  readonly r_ohm: number;
}

/** One line in cells: its inner nodes, and its cells, follow one another. */
export interface Stretch {
  readonly a: number;
  readonly b: number;
  readonly cells: number;
  /** First of its `cells - 1` inner nodes, and of its cells. */
  readonly inner: number;
  readonly cell: number;
  /** Of one cell: inductance, H, and resistance, ohm; of an inner node: capacitance, F, and leakage, S. */
  readonly L: number;
  readonly R: number;
  readonly C: number;
  readonly G: number;
}

export interface Cells {
  /** Node of each name, those first; further nodes lie along the lines. */
  readonly nodes: ReadonlyMap<string, number>;
  readonly named: number;
  readonly count: number;
  readonly cells: number;
  readonly stretches: readonly Stretch[];
  /** Nodes along each line, its ends included, at equal steps. */
  readonly along: readonly Int32Array[];
  /** The stretch of each line; null: it is too short to be one. */
  readonly own: readonly (Stretch | null)[];
  /** Of each named node: capacitance, F, and conductance to soil, S. */
  readonly C: Float64Array;
  readonly G: Float64Array;
  /** The longest stable step of time, s; infinite without a line. */
  readonly step_s: number;
}

/** A line shorter than this share of a cell is no cell of its own: its two ends are one node. */
const LUMPED = 0.8;

/**
 * Cuts lines into pi cells, half of each cell's capacitance and leakage at either end.
 * @param cell_m longest cell
 */
export function cellsOf(
  root: string,
  lines: readonly PulseLine[],
  loads: readonly Load[],
  cell_m: number,
): Cells {
  const short = (line: PulseLine) => line.length_m < LUMPED * cell_m;
  const same = joined(lines.filter(short));
  const nodes = new Map<string, number>();
  let count = 0;
  const nodeOf = (name: string): number => {
    const first = same(name);
    let node = nodes.get(first);
    if (node === undefined) nodes.set(first, (node = count++));
    nodes.set(name, node);
    return node;
  };
  nodeOf(root);
  for (const line of lines) [line.from, line.to].forEach(nodeOf);
  for (const load of loads) nodeOf(load.node);
  const named = count;
  const C = new Float64Array(named);
  const G = new Float64Array(named);
  const stretches: Stretch[] = [];
  let cells = 0;
  let step_s = Infinity;
  const own: (Stretch | null)[] = [];
  const along = lines.map((line) => {
    const [a, b] = [nodes.get(line.from)!, nodes.get(line.to)!];
    if (short(line)) {
      C[a]! += line.c_f_per_m * line.length_m;
      G[a]! += line.g_s_per_m * line.length_m;
      own.push(null);
      return Int32Array.of(a, b);
    }
    const n = Math.ceil(line.length_m / cell_m - 1e-9);
    const dx = line.length_m / n;
    step_s = Math.min(step_s, dx * Math.sqrt(line.l_h_per_m * line.c_f_per_m));
    const one: Stretch = {
      a,
      b,
      cells: n,
      inner: count,
      cell: cells,
      L: line.l_h_per_m * dx,
      R: line.r_ohm_per_m * dx,
      C: line.c_f_per_m * dx,
      G: line.g_s_per_m * dx,
    };
    stretches.push(one);
    own.push(one);
    for (const end of [a, b]) {
      C[end]! += one.C / 2;
      G[end]! += one.G / 2;
    }
    count += n - 1;
    cells += n;
    return Int32Array.from({ length: n + 1 }, (_, k) => (k === 0 ? a : k === n ? b : one.inner + k - 1)); // prettier-ignore
  });
  for (const load of loads) G[nodes.get(load.node)!]! += 1 / load.r_ohm;
  return { nodes, named, count, cells, stretches, along, own, C, G, step_s };
}

/** Names that are one, since a line too short to count joins them. */
function joined(lines: readonly PulseLine[]): (name: string) => string {
  const up = new Map<string, string>();
  const root = (name: string): string => {
    const next = up.get(name);
    return next === undefined ? name : root(next);
  };
  for (const { from, to } of lines) {
    const [a, b] = [root(from), root(to)];
    if (a !== b) up.set(b, a);
  }
  return root;
}
