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

export interface Cells {
  /** Node of each name; further nodes lie along the lines. */
  readonly nodes: ReadonlyMap<string, number>;
  readonly count: number;
  /** Nodes along each line, its ends included, at equal steps. */
  readonly along: readonly Int32Array[];
  /** Of each node: capacitance, F, and conductance to soil, S. */
  readonly C: Float64Array;
  readonly G: Float64Array;
  /** Of each cell: its two nodes, inductance, H, and resistance, ohm. */
  readonly from: Int32Array;
  readonly to: Int32Array;
  readonly L: Float64Array;
  readonly R: Float64Array;
  /** The longest stable step of time, s; infinite without a line. */
  readonly step_s: number;
}

/** A line shorter than this share of a cell is no cell of its own: its two ends are one node. */
const LUMPED = 0.5;

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

  const many = (line: PulseLine) => (short(line) ? 0 : Math.ceil(line.length_m / cell_m - 1e-9));
  const cells = lines.reduce((n, line) => n + many(line), 0);
  const inner = lines.reduce((n, line) => n + Math.max(0, many(line) - 1), 0);
  const C = new Float64Array(count + inner);
  const G = new Float64Array(count + inner);
  const from = new Int32Array(cells);
  const to = new Int32Array(cells);
  const L = new Float64Array(cells);
  const R = new Float64Array(cells);
  let step_s = Infinity;
  let cell = 0;
  const along = lines.map((line) => {
    const [a, b] = [nodes.get(line.from)!, nodes.get(line.to)!];
    const n = many(line);
    if (n === 0) {
      C[a]! += line.c_f_per_m * line.length_m;
      G[a]! += line.g_s_per_m * line.length_m;
      return Int32Array.of(a, b);
    }
    const dx = line.length_m / n;
    step_s = Math.min(step_s, dx * Math.sqrt(line.l_h_per_m * line.c_f_per_m));
    const own = new Int32Array(n + 1);
    own[0] = a;
    own[n] = b;
    for (let k = 1; k < n; k++) own[k] = count++;
    for (let k = 0; k < n; k++, cell++) {
      const [p, q] = [own[k]!, own[k + 1]!];
      from[cell] = p;
      to[cell] = q;
      L[cell] = line.l_h_per_m * dx;
      R[cell] = line.r_ohm_per_m * dx;
      for (const end of [p, q]) {
        C[end]! += (line.c_f_per_m * dx) / 2;
        G[end]! += (line.g_s_per_m * dx) / 2;
      }
    }
    return own;
  });
  for (const load of loads) G[nodes.get(load.node)!]! += 1 / load.r_ohm;
  return { nodes, count, along, C, G, from, to, L, R, step_s };
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
