/**
 * The pulse on a network of tied strands: a capacitor discharged through its windings into lines with
 * inductance, resistance, capacitance and leakage, branches and loops as they come. Leapfrog in time on cells
 * of 25 m, volts at whole steps and currents at half ones [published: Yee, IEEE Trans. AP-14 (1966) 302-307, in
 * one dimension]. The source and every load are taken implicitly: an explicit source rings where it is connected.
 */
import { cellsOf, type Load, type PulseLine } from './cells.js';
import { charged, type PulseSource } from './source.js';

export type { Load, PulseLine, PulseSource };

export interface PulseNetwork {
  readonly source: PulseSource;
  /** The node that the source feeds, and the earth that its current comes back through. */
  readonly at: string;
  readonly earth_ohm?: number;
  readonly lines: readonly PulseLine[];
  readonly loads?: readonly Load[];
}

export interface PulseOptions {
  /** How long is looked at, s. */
  readonly until_s: number;
  /** Peaks are sought until then, s, and energies added up; as long as is looked at where nothing is said. */
  readonly peaksUntil_s?: number;
  readonly energyUntil_s?: number;
  /** The switch opens when the current would turn round. */
  readonly blocksReverse?: boolean;
  /** Longest cell, m. */
  readonly cell_m?: number;
}

export interface Pulse {
  /** Node of each name, and those along each line at equal steps. */
  readonly nodes: ReadonlyMap<string, number>;
  readonly along: readonly Int32Array[];
  /** Peak of each node's volts, V, and when, s. */
  readonly peak_V: Float64Array;
  readonly peak_s: Float64Array;
  /** Energy that each load takes, J. */
  readonly load_J: Float64Array;
  /** When the switch opened, s; null: not while it was looked at. */
  readonly off_s: number | null;
}

const CELL = 25;
/** Share of the longest stable step that is taken. */
const STEP = 0.6;
/** Without lines: a step that resolves every unit's rise, s. */
const BARE_STEP = 5e-8;
/** Cells times steps that one pulse may take. */
const MOST = 4e9;

/**
 * Runs one pulse.
 * @throws RangeError for figures that are none, and for what would take too long
 */
export function simulate(net: PulseNetwork, options: PulseOptions): Pulse {
  const loads = net.loads ?? [];
  sound(net, options);
  const { nodes, count, along, C, G, from, to, L, R, step_s } = cellsOf(
    net.at,
    net.lines,
    loads,
    options.cell_m ?? CELL,
  );
  const cells = from.length;
  const dt = step_s === Infinity ? BARE_STEP : STEP * step_s;
  const steps = Math.ceil(options.until_s / dt);
  if (steps * (cells + count) > MOST)
    throw new RangeError('too many cells for so long a time: look at less of either');

  const V = new Float64Array(count);
  const I = new Float64Array(cells);
  /** Currents that flow into each node from its cells, A. */
  const S = new Float64Array(count);
  const [keepI, pushI] = factors(cells, (b) => [L[b]! / dt, R[b]! / 2]);
  const [keepV, pushV] = factors(count, (k) => [C[k]! / dt, G[k]! / 2]);
  const peak_V = new Float64Array(count);
  const peak_s = new Float64Array(count);
  const loadAt = loads.map((l) => nodes.get(l.node)!);
  const load_J = new Float64Array(loads.length);
  const before = new Float64Array(loads.length);
  const root = nodes.get(net.at)!;
  const [Cr, Gr] = [C[root]!, G[root]!];
  const source = charged(net.source, net.earth_ohm ?? 0, dt);
  const peaksUntil = options.peaksUntil_s ?? options.until_s;
  const energyUntil = options.energyUntil_s ?? options.until_s;
  let off_s: number | null = null;
  let last_A = 0;

  for (let n = 0; n < steps; n++) {
    S.fill(0);
    for (let b = 0; b < cells; b++) {
      const [p, q] = [from[b]!, to[b]!];
      const i = keepI[b]! * I[b]! + pushI[b]! * (V[p]! - V[q]!);
      I[b] = i;
      S[p]! -= i;
      S[q]! += i;
    }
    let fed: number | null = null;
    if (off_s === null) {
      const i = source.current(V[root]!, S[root]!, Cr, Gr);
      if (options.blocksReverse && i < 0 && n > 0)
        // Both are means over a step: the current passed nothing between the middles of the two.
        off_s = (n - 1 + last_A / (last_A - i)) * dt;
      else fed = source.advance(i, V[root]!, S[root]!, Cr, Gr);
      last_A = i;
    }
    for (let k = 0; k < loadAt.length; k++) before[k] = V[loadAt[k]!]!;
    for (let k = 0; k < count; k++) V[k] = keepV[k]! * V[k]! + pushV[k]! * S[k]!;
    if (fed !== null) V[root] = fed;
    // The first step was half as long.
    const time = (n + 0.5) * dt;
    if (time <= energyUntil)
      for (let k = 0; k < loadAt.length; k++) {
        const node = loadAt[k]!;
        // By the mean of the step; a node without capacitance stands at it.
        const v = C[node] === 0 ? V[node]! : (before[k]! + V[node]!) / 2;
        load_J[k]! += ((v * v) / loads[k]!.r_ohm) * dt;
      }
    if (time > peaksUntil) continue;
    for (let k = 0; k < count; k++)
      if (V[k]! > peak_V[k]!) {
        peak_V[k] = V[k]!;
        peak_s[k] = time;
      }
  }
  return { nodes, along, peak_V, peak_s, load_J, off_s };
}

/** What a quantity keeps of itself in a step, and what a drive adds, by the trapezoidal rule. */
function factors(
  n: number,
  of: (k: number) => readonly [storage: number, loss: number],
): [keep: Float64Array, push: Float64Array] {
  const keep = new Float64Array(n);
  const push = new Float64Array(n);
  for (let k = 0; k < n; k++) {
    const [storage, loss] = of(k);
    if (storage + loss === 0) continue;
    keep[k] = (storage - loss) / (storage + loss);
    push[k] = 1 / (storage + loss);
  }
  // What stores nothing has no memory: it stands at its mean.
  for (let k = 0; k < n; k++) if (of(k)[0] === 0) [keep[k], push[k]] = [0, push[k]! / 2];
  return [keep, push];
}

function sound({ source, lines, loads = [], earth_ohm = 0 }: PulseNetwork, o: PulseOptions): void {
  const above = (value: number, what: string) => {
    if (!(value > 0) || !Number.isFinite(value)) throw new RangeError(`${what} must be above 0`);
  };
  const notBelow = (value: number, what: string) => {
    if (!(value >= 0) || !Number.isFinite(value)) throw new RangeError(`${what} must be 0 or more`);
  };
  above(source.c_eq_f, 'c_eq_f');
  above(source.n_v0_v, 'n_v0_v');
  above(source.l_s_h, 'l_s_h');
  notBelow(source.r_s_ohm, 'r_s_ohm');
  if (source.r_d_ohm !== undefined) above(source.r_d_ohm, 'r_d_ohm');
  notBelow(earth_ohm, 'earth_ohm');
  above(o.until_s, 'the time');
  lines.forEach((line, k) => {
    above(line.length_m, `lines/${k}/length_m`);
    above(line.l_h_per_m, `lines/${k}/l_h_per_m`);
    above(line.c_f_per_m, `lines/${k}/c_f_per_m`);
    notBelow(line.r_ohm_per_m, `lines/${k}/r_ohm_per_m`);
    notBelow(line.g_s_per_m, `lines/${k}/g_s_per_m`);
  });
  loads.forEach((load, k) => above(load.r_ohm, `loads/${k}/r_ohm`));
}
