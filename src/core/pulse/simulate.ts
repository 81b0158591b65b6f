/**
 * The pulse on a network of tied strands: a capacitor discharged through its windings into lines with
 * inductance, resistance, capacitance and leakage, branches and loops as they come. Leapfrog in time on cells
 * of 25 m, volts at whole steps and currents at half ones [published: Yee, IEEE Trans. AP-14 (1966) 302-307, in
 * one dimension]. The source and every load are taken implicitly: an explicit source rings where it is connected.
 */
import { cellsOf, type Load, type PulseLine, type Stretch } from './cells.js';
import { charged, type PulseSource } from './source.js';

export type { Load, PulseLine, PulseSource };

export interface PulseNetwork {
  readonly source: PulseSource;
  /** The node that the source feeds, and the earth that its current comes back through. */
  readonly at: string;
  readonly earth_ohm?: number;
  readonly lines: readonly PulseLine[];
  readonly loads?: readonly Load[];
  /** A load whose current comes back to the unit's earth terminal by metal, not through the soil. */
  readonly back?: Load;
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
  /** Share of the longest stable step of time that is taken: the smaller, the more the front rings with the cells. */
  readonly step?: number;
  /** Ends as soon as every peak stands: none has risen for as long as it took, nor for `QUIET`. */
  readonly peaksAlone?: boolean;
  /** Peaks of the currents along the lines are sought too, as a meter shows them that is so slow, s. */
  readonly amps_s?: number;
}

export interface Pulse {
  /** Node of each name, and those along each line at equal steps. */
  readonly nodes: ReadonlyMap<string, number>;
  readonly along: readonly Int32Array[];
  /** Peak of each node's volts, V, and when, s. */
  readonly peak_V: Float64Array;
  readonly peak_s: Float64Array;
  /**
   * By line and cell: the current towards its `to` when it was largest either way, A; a line too short to count has
   * none. Null where it was not asked for.
   */
  readonly amps: readonly Float64Array[] | null;
  /** Energy that each load takes, J. */
  readonly load_J: Float64Array;
  /** Peak across `back`, V, and what it takes, J. */
  readonly back: { readonly peak_V: number; readonly energy_J: number };
  /** Peak of the unit's current, A, and the energy that leaves it while it is looked at, J. */
  readonly out_A: number;
  readonly out_J: number;
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
/** Volts that stand everywhere before the pulse. */
const SPECK = 1e-9;
/** A network is quiet when no peak has risen for this long, s: a wave is still on its way for less. */
const QUIET = 6e-5;

/**
 * Runs one pulse.
 * @throws RangeError for figures that are none, and for what would take too long
 */
export function simulate(net: PulseNetwork, options: PulseOptions): Pulse {
  const loads = net.loads ?? [];
  sound(net, options);
  const earth_ohm = net.earth_ohm ?? 0;
  const { back } = net;
  // A load to the terminal is one to soil in series with the earth, beside what the unit's own current does to it.
  const cut = cellsOf(
    net.at,
    net.lines,
    back ? [...loads, { node: back.node, r_ohm: back.r_ohm + earth_ohm }] : loads,
    options.cell_m ?? CELL,
  );
  const { nodes, named, count, stretches, along, C, G } = cut;
  const dt = cut.step_s === Infinity ? BARE_STEP : (options.step ?? STEP) * cut.step_s;
  const steps = Math.ceil(options.until_s / dt);
  if (steps * (cut.cells + count) > MOST)
    throw new RangeError('too many cells for so long a time: look at less of either');

  // Not quite nothing: what runs ahead of the front would fall to figures too small for the processor's fast ways.
  const V = new Float64Array(count).fill(SPECK);
  const I = new Float64Array(cut.cells);
  /** Currents that flow into each named node from its cells, A. */
  const S = new Float64Array(named);
  const peak_V = new Float64Array(count);
  const peak_s = new Float64Array(count);
  const peak_A = new Float64Array(options.amps_s ? cut.cells : 0);
  const slow_A = new Float64Array(peak_A.length);
  const slowly = options.amps_s ? -Math.expm1(-dt / options.amps_s) : 1;
  const lines = marchOf(stretches, dt);
  const node = Array.from({ length: named }, (_, k) => factor(C[k]! / dt, G[k]! / 2));
  const keep = Float64Array.from(node, (f) => f.keep);
  const push = Float64Array.from(node, (f) => f.push);
  const loadAt = loads.map((l) => nodes.get(l.node)!);
  const load_J = new Float64Array(loads.length);
  const before = new Float64Array(loads.length);
  const root = nodes.get(net.at)!;
  const [Cr, Gr] = [C[root]!, G[root]!];
  const shared = back ? earth_ohm / (back.r_ohm + earth_ohm) : 0;
  const source = charged(net.source, back ? shared * back.r_ohm : earth_ohm, dt);
  const backAt = back ? nodes.get(back.node)! : -1;
  const returned = { peak_V: 0, energy_J: 0 };
  const peaksUntil = options.peaksUntil_s ?? options.until_s;
  const energyUntil = options.energyUntil_s ?? options.until_s;
  let off_s: number | null = null;
  let last_A = 0;
  let [out_A, out_J, risen_s] = [0, 0, 0];

  for (let n = 0; n < steps; n++) {
    // The first step was half as long.
    const time = (n + 0.5) * dt;
    const seeking = time <= peaksUntil;
    S.fill(0);
    if (march(lines, V, I, S, peak_V, peak_s, seeking ? time : -1)) risen_s = time;
    if (options.amps_s && follow(slow_A, peak_A, I, slowly)) risen_s = time;
    let fed: number | null = null;
    if (off_s === null) {
      const v = V[root]!;
      if (backAt === root) S[root]! -= shared * last_A;
      const lift = back ? shared * V[backAt]! : 0;
      const i = source.current(v, S[root]!, Cr, Gr, lift);
      if (options.blocksReverse && i < 0 && n > 0)
        // Both are means over a step: the current passed nothing between the middles of the two.
        off_s = (n - 1 + last_A / (last_A - i)) * dt;
      else {
        fed = source.advance(i, v, S[root]!, Cr, Gr);
        if (back && backAt !== root) S[backAt]! -= shared * i;
        if (i > out_A) out_A = i;
        if (time <= energyUntil) out_J += i * (Cr === 0 ? fed : (v + fed) / 2) * dt;
      }
      last_A = i;
    }
    for (let k = 0; k < loadAt.length; k++) before[k] = V[loadAt[k]!]!;
    for (let k = 0; k < named; k++) {
      const v = k === root && fed !== null ? fed : keep[k]! * V[k]! + push[k]! * S[k]!;
      V[k] = v;
      if (seeking && v > peak_V[k]!) {
        peak_V[k] = v;
        peak_s[k] = time;
        risen_s = time;
      }
    }
    if (time <= energyUntil)
      for (let k = 0; k < loadAt.length; k++) {
        const at = loadAt[k]!;
        // By the mean of the step; a node without capacitance stands at it.
        const v = C[at] === 0 ? V[at]! : (before[k]! + V[at]!) / 2;
        load_J[k]! += ((v * v) / loads[k]!.r_ohm) * dt;
      }
    if (back) {
      const across = (V[backAt]! * back.r_ohm) / (back.r_ohm + earth_ohm) + (off_s === null ? shared * back.r_ohm * last_A : 0); // prettier-ignore
      if (seeking && across > returned.peak_V) returned.peak_V = across;
      if (time <= energyUntil) returned.energy_J += (across ** 2 / back.r_ohm) * dt;
    }
    if (options.peaksAlone && time > 2 * risen_s && time > risen_s + QUIET) break;
  }
  const amps = options.amps_s
    ? cut.own.map((s) => (s ? peak_A.slice(s.cell, s.cell + s.cells) : new Float64Array()))
    : null;
  return { nodes, along, amps, peak_V, peak_s, load_J, back: returned, out_A, out_J, off_s };
}

/** Lines side by side in plain arrays, which the processor runs through fastest: nodes, places and factors of each. */
interface March {
  readonly a: Int32Array;
  readonly b: Int32Array;
  /** First inner node, one past the last of them, and first cell. */
  readonly inner: Int32Array;
  readonly end: Int32Array;
  readonly cell: Int32Array;
  readonly keepI: Float64Array;
  readonly pushI: Float64Array;
  readonly keepV: Float64Array;
  readonly pushV: Float64Array;
}

function marchOf(stretches: readonly Stretch[], dt: number): March {
  const ints = (of: (s: Stretch) => number) => Int32Array.from(stretches, of);
  const i = stretches.map((s) => factor(s.L / dt, s.R / 2));
  const v = stretches.map((s) => factor(s.C / dt, s.G / 2));
  return {
    a: ints((s) => s.a),
    b: ints((s) => s.b),
    inner: ints((s) => s.inner),
    end: ints((s) => s.inner + s.cells - 1),
    cell: ints((s) => s.cell),
    keepI: Float64Array.from(i, (f) => f.keep),
    pushI: Float64Array.from(i, (f) => f.push),
    keepV: Float64Array.from(v, (f) => f.keep),
    pushV: Float64Array.from(v, (f) => f.push),
  };
}

/**
 * One step of every line: its cells' currents, then its inner nodes' volts; what flows into its ends is added to
 * `S`. A node has done its work for both of its cells when the one after it is stepped, and moves on at once.
 * A function of its own, so that it is compiled as a whole and not in the middle of its run.
 * @param time of the step, s; below nothing where no peaks are sought
 * @returns whether a peak rose
 */
function march(
  m: March,
  V: Float64Array,
  I: Float64Array,
  S: Float64Array,
  peak_V: Float64Array,
  peak_s: Float64Array,
  time: number,
): boolean {
  let rose = false;
  const seeking = time >= 0;
  const { a, b, inner, end: ends, cell, keepI, pushI, keepV, pushV } = m;
  for (let j = 0; j < a.length; j++) {
    const [kI, pI, kV, pV] = [keepI[j]!, pushI[j]!, keepV[j]!, pushV[j]!];
    const end = ends[j]!;
    const last = V[b[j]!]!;
    let at = inner[j]!;
    let k = cell[j]!;
    let left = V[a[j]!]!;
    let right = at === end ? last : V[at]!;
    let into = kI * I[k]! + pI * (left - right);
    I[k] = into;
    S[a[j]!]! -= into;
    for (k++; at < end; at++, k++) {
      left = right;
      right = at + 1 === end ? last : V[at + 1]!;
      const i = kI * I[k]! + pI * (left - right);
      I[k] = i;
      const v = kV * left + pV * (into - i);
      V[at] = v;
      into = i;
      if (seeking && v > peak_V[at]!) {
        peak_V[at] = v;
        peak_s[at] = time;
        rose = true;
      }
    }
    S[b[j]!]! += into;
  }
  return rose;
}

/**
 * What a slow meter shows of every cell's current, and its peak either way.
 * @param share of the way that it follows in a step
 * @returns whether a peak rose, by more than a hair
 */
function follow(
  slow_A: Float64Array,
  peak_A: Float64Array,
  I: Float64Array,
  share: number,
): boolean {
  let rose = false;
  for (let k = 0; k < peak_A.length; k++) {
    const slow = (slow_A[k]! += share * (I[k]! - slow_A[k]!));
    if (Math.abs(slow) <= Math.abs(peak_A[k]!)) continue;
    peak_A[k] = slow;
    rose ||= Math.abs(slow) > HAIR_A;
  }
  return rose;
}
/** Less than this no meter shows, A. */
const HAIR_A = 1e-4;

interface Factor {
  readonly keep: number;
  readonly push: number;
}

/** What a quantity keeps of itself in a step, and what a drive adds, by the trapezoidal rule. */
function factor(storage: number, loss: number): Factor {
  if (storage + loss === 0) return { keep: 0, push: 0 };
  // What stores nothing has no memory: it stands at its mean.
  if (storage === 0) return { keep: 0, push: 1 / (2 * loss) };
  return { keep: (storage - loss) / (storage + loss), push: 1 / (storage + loss) };
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
