/** A plane frame in small displacements: beams, bars, springs to the ground. Dense; for frames of some hundred nodes. */

/** Upright posts are beams (both stiffnesses), rails and wires bars (no bending). */
export interface Member {
  readonly a: number;
  readonly b: number;
  readonly EA_N: number;
  /** Bending stiffness, Nm2; absent: a bar with hinges. */
  readonly EI_Nm2?: number;
}

/** Holds a node to the ground: N/m along x and y; Infinity: held fast. */
export interface Hold {
  readonly node: number;
  readonly x_N_per_m: number;
  readonly y_N_per_m: number;
}

export interface Frame {
  readonly nodes: readonly (readonly [x_m: number, y_m: number])[];
  readonly members: readonly Member[];
  readonly holds: readonly Hold[];
  readonly loads: readonly { readonly node: number; readonly x_N: number; readonly y_N?: number }[];
}

export interface Solved {
  /** Along x and y, m, and turn, rad, by node. */
  readonly moved: readonly (readonly [number, number, number])[];
  /** Of every member, N; pull is positive. */
  readonly axial_N: readonly number[];
  /** The greater moment at the ends of every member, Nm; bars 0. */
  readonly moment_Nm: readonly number[];
  /** What the ground gives at each hold, N. */
  readonly given_N: readonly (readonly [number, number])[];
}

/** Instead of Infinity: far stiffer than any post, and not so stiff that doubles lose the rest. */
const FAST = 1e14;

/**
 * Displacements and forces by the stiffness method [published: any text on matrix analysis of structures].
 * @throws RangeError when the frame can move freely
 */
export function solveFrame(frame: Frame): Solved {
  const n = 3 * frame.nodes.length;
  const K = new Float64Array(n * n);
  const f = new Float64Array(n);
  const parts = frame.members.map((m) => stiffness(frame, m));
  for (const { at, k } of parts)
    for (let i = 0; i < 6; i++)
      for (let j = 0; j < 6; j++) K[at[i]! * n + at[j]!]! += k[6 * i + j]!;
  const firm = (x: number) => (x === Infinity ? FAST : x);
  for (const h of frame.holds) {
    K[3 * h.node * (n + 1)]! += firm(h.x_N_per_m);
    K[(3 * h.node + 1) * (n + 1)]! += firm(h.y_N_per_m);
  }
  // A node with bars alone has no turn of its own.
  for (let i = 2; i < n; i += 3) if (K[i * (n + 1)] === 0) K[i * (n + 1)] = 1;
  for (const { node, x_N, y_N = 0 } of frame.loads) {
    f[3 * node]! += x_N;
    f[3 * node + 1]! += y_N;
  }
  const u = cholesky(K, f);
  const moved = frame.nodes.map((_, k) => [u[3 * k]!, u[3 * k + 1]!, u[3 * k + 2]!] as const);
  const forces = parts.map(({ at, k, c, s }) => {
    const force = (i: number) => {
      let sum = 0;
      for (let j = 0; j < 6; j++) sum += k[6 * i + j]! * u[at[j]!]!;
      return sum;
    };
    return {
      axial: c * force(3) + s * force(4),
      moment: Math.max(Math.abs(force(2)), Math.abs(force(5))),
    };
  });
  return {
    moved,
    axial_N: forces.map((x) => x.axial),
    moment_Nm: forces.map((x) => x.moment),
    given_N: frame.holds.map((h) => [
      -firm(h.x_N_per_m) * moved[h.node]![0],
      -firm(h.y_N_per_m) * moved[h.node]![1],
    ]),
  };
}

/** Stiffness of one member in the frame's own directions, row by row, with its six numbers in the whole. */
function stiffness({ nodes }: Frame, { a, b, EA_N, EI_Nm2 = 0 }: Member) {
  const [dx, dy] = [nodes[b]![0] - nodes[a]![0], nodes[b]![1] - nodes[a]![1]];
  const L = Math.hypot(dx, dy);
  if (!(L > 0)) throw new RangeError('a member has no length');
  const [c, s] = [dx / L, dy / L];
  const e = EA_N / L;
  const [k1, k2, k3] = [(12 * EI_Nm2) / L ** 3, (6 * EI_Nm2) / L ** 2, (2 * EI_Nm2) / L];
  const xx = e * c * c + k1 * s * s;
  const xy = (e - k1) * c * s;
  const yy = e * s * s + k1 * c * c;
  const [tx, ty] = [-k2 * s, k2 * c];
  // prettier-ignore
  const k = [
     xx,  xy,  tx,    -xx, -xy,  tx,
     xy,  yy,  ty,    -xy, -yy,  ty,
     tx,  ty,  2*k3,  -tx, -ty,  k3,
    -xx, -xy, -tx,     xx,  xy, -tx,
    -xy, -yy, -ty,     xy,  yy, -ty,
     tx,  ty,  k3,    -tx, -ty,  2*k3,
  ];
  return { at: [3 * a, 3 * a + 1, 3 * a + 2, 3 * b, 3 * b + 1, 3 * b + 2], k, c, s };
}

/** Solves in place by Cholesky's factors, row by row from the first that is not nought. */
function cholesky(K: Float64Array, f: Float64Array): Float64Array {
  const n = f.length;
  const first = new Int32Array(n);
  for (let i = 0; i < n; i++) {
    let j0 = 0;
    while (K[i * n + j0] === 0 && j0 < i) j0++;
    first[i] = j0;
    for (let j = j0; j <= i; j++) {
      let s = K[i * n + j]!;
      for (let k = Math.max(j0, first[j]!); k < j; k++) s -= K[i * n + k]! * K[j * n + k]!;
      if (j < i) K[i * n + j] = s / K[j * n + j]!;
      else if (s > 0) K[i * n + i] = Math.sqrt(s);
      else throw new RangeError('the frame can move freely');
    }
  }
  const x = f.slice();
  for (let i = 0; i < n; i++) {
    for (let k = first[i]!; k < i; k++) x[i]! -= K[i * n + k]! * x[k]!;
    x[i]! /= K[i * (n + 1)]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    x[i]! /= K[i * (n + 1)]!;
    for (let k = first[i]!; k < i; k++) x[k]! -= K[i * n + k]! * x[i]!;
  }
  return x;
}
