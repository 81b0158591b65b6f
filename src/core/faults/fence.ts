/**
 * A fence made ready for the search: what every meter would read with a fault in any cell. One factor of the healthy
 * network serves all of them: a leak is one conductance more, a break or a bad joint one outer product less (docs/model.md, Faults).
 */
import { assemble, drive, factorOf, type Piece } from '../power/assembly.js';
import type { Circuit } from '../power/circuitTypes.js';
import type { Place } from '../power/pulseNet.js';
import { loadLine, type LoadLine, type LoadLinePlate } from '../power/loadLine.js';

/** A stretch of a strand that a fault may lie in, taken at its middle. */
export interface Cell {
  readonly section: string;
  /** Of its middle, m from the section's `from`. */
  readonly x_m: number;
  readonly length_m: number;
}

/**
 * What can be read where: volts of a strand against the soil at a location, or amps that pass an end of a section towards
 * its `to`; either of them also in the middle of a cell.
 */
export type Meter = (
  | { readonly quantity: 'voltage'; readonly location: string }
  /** Volts of the unit's earth terminal against far soil, as a size. */
  | { readonly quantity: 'earth' }
  | { readonly quantity: 'current'; readonly section: string; readonly at: 'from' | 'to' | number }
) & {
  /** Switches that stand open while it is read: only a fence that knows its switches can say what it reads then. */
  readonly open?: readonly Place[];
  /** What the same meter read there before they were opened, V: by how much it changed is known better than either. */
  readonly beside_V?: number;
};

/** How the middle of a cell is called as a location. */
export const middle = ({ section, x_m }: Pick<Cell, 'section' | 'x_m'>): string =>
  `${section}@${x_m}`;

export interface FaultGrid {
  readonly cell_m: number;
  /** Resistances that a leak may have, ohm. */
  readonly leaks_ohm: readonly number[];
  /** Resistances that a bad joint in the strand may have, ohm; none where nothing is said. */
  readonly joints_ohm?: readonly number[];
  /** The strand that is looked at. */
  readonly strand: string;
}

/** Volts per amp at the places that meters and terminals need, for every fault: rows of cells. */
export interface FaultFence {
  readonly cells: readonly Cell[];
  readonly leaks_ohm: readonly number[];
  /** In the way of the current: bad joints, and last the break, Infinity. */
  readonly series_ohm: readonly number[];
  /** How many faults there are: the leaks of each cell in their order, then what stands in the way in each. */
  readonly count: number;
  /**
   * What a meter reads with each fault, V or A.
   * @param some the faults that matter, in any order; all where none is named
   * @throws RangeError where there is nothing to read
   */
  read(meter: Meter, some?: Uint32Array): Float64Array;
  /** What it reads while nothing is wrong. */
  healthy(meter: Meter): number;
}

/** So little leaks that it is nothing; without any, what is cut off would hang on nothing, S/km. */
const LEAST_S = 1e-9;

/** Resistances from one to another, each the same step above the last. */
export const geometric = (from: number, to: number, count: number): number[] =>
  Array.from({ length: count }, (_, k) => from * (to / from) ** (count > 1 ? k / (count - 1) : 0));

/** The circuit with so many times its leakage and its resistance. */
export const timesOf = (circuit: Circuit, leakage: number, resistance: number): Circuit => ({
  ...circuit,
  strand_types: Object.fromEntries(
    Object.entries(circuit.strand_types).map(([k, t]) => [k, { ...t, g_s_per_km: t.g_s_per_km * leakage, r_ohm_per_km: t.r_ohm_per_km * resistance }]), // prettier-ignore
  ),
});

/** Equal cells from the section's `from`, the last one shorter. */
export function cellsOf(circuit: Pick<Circuit, 'sections'>, { cell_m, strand }: Pick<FaultGrid, 'cell_m' | 'strand'>): Cell[] {
  if (!(cell_m > 0)) throw new RangeError('cell_m must be above 0');
  return circuit.sections
    .filter((s) => strand in s.strands)
    .flatMap(({ id, length_m }) =>
      Array.from({ length: Math.ceil(length_m / cell_m - 1e-9) }, (_, k): Cell => {
        const to = Math.min(length_m, (k + 1) * cell_m);
        return { section: id, x_m: (k * cell_m + to) / 2, length_m: to - k * cell_m };
      }),
    );
} // prettier-ignore

/**
 * @param unit its plate, or its volts into any resistance
 * @throws RangeError naming the part, where the circuit or a meter names something that is not there
 */
export function faultFence(healthy: Circuit, unit: LoadLinePlate | LoadLine, grid: FaultGrid): FaultFence {
  const { strand, leaks_ohm } = grid;
  const cells = cellsOf(healthy, grid);
  if (cells.length === 0) throw new RangeError(`no section has a strand "${strand}"`);
  const circuit: Circuit = {
    ...healthy,
    strand_types: Object.fromEntries(
      Object.entries(healthy.strand_types).map(([k, t]) => [k, { ...t, g_s_per_km: Math.max(t.g_s_per_km, LEAST_S) }]), // prettier-ignore
    ),
    probes: [...healthy.probes, ...cells.map((c) => ({ ...c, strand }))],
  };
  const a = assemble(circuit);
  const factor = factorOf(a);
  const volts = drive(a, factor, a.earth, a.hot);
  const line = typeof unit === 'function' ? unit : loadLine(unit);

  // The node at the middle of each cell, and the piece of wire that leaves it.
  const pieces = a.pieces.filter((p) => p.strand === strand);
  const from = new Map(pieces.map((p) => [p.a, p]));
  const ends = new Map<string, { from: Piece; to: Piece }>();
  for (const p of pieces) ends.set(p.section, { from: ends.get(p.section)?.from ?? p, to: p });
  const nodes = cells.map((c) => a.nodes.find(middle(c), strand)!);
  const beyond = nodes.map((n) => from.get(n)!);

  // What one amp into a node raises everywhere, kept for the nodes that are asked about.
  const columns = new Map<number, Float64Array>();
  const column = (node: number): Float64Array => {
    let c = columns.get(node);
    if (!c) columns.set(node, (c = drive(a, factor, -1, node)));
    return c;
  };

  const series_ohm = [...(grid.joints_ohm ?? []), Infinity];
  const [M, R, S] = [cells.length, leaks_ohm.length, series_ohm.length];
  const count = M * (R + S);
  const all = Uint32Array.from({ length: count }, (_, f) => f);
  const { shift, leak } = faults();
  /** What meters read with every fault, of those that were asked for. */
  const whole = new Map<string, Float64Array>();
  const amps = new Float64Array(count);
  {
    const [hot, earth] = [raised(a.hot, all), raised(a.earth, all)];
    for (let f = 0; f < count; f++) amps[f] = line(hot[f]! - earth[f]!) / (hot[f]! - earth[f]!);
  }
  const r_in = volts[a.hot]! - volts[a.earth]!;
  const healthyAmps = line(r_in) / r_in;

  return {
    cells,
    leaks_ohm,
    series_ohm,
    count,
    read(meter, some) {
      if (meter.open?.length) throw new RangeError('this fence knows no switches');
      if (!some) {
        const key = JSON.stringify(meter);
        let known = whole.get(key);
        if (!known) whole.set(key, (known = this.read(meter, all)));
        return known;
      }
      const out = meter.quantity === 'current' ? passed(meter, some) : raised(nodeOf(meter), some);
      const way = meter.quantity === 'earth' ? -1 : 1;
      for (let i = 0; i < some.length; i++) out[i]! *= way * amps[some[i]!]!;
      return out;
    },
    healthy(meter) {
      if (meter.quantity !== 'current') return Math.abs(volts[nodeOf(meter)]!) * healthyAmps;
      const { piece, end } = pieceOf(meter);
      return healthyAmps * through(piece, end, volts[piece.a]!, volts[piece.b]!);
    },
  };

  /** Each fault as a change of the volts of all nodes: so many times a column of the healthy network's inverse. */
  function faults() {
    /** Of a leak: the amps that it draws, for 1 A of the unit. */
    const leak = new Float64Array(M * R);
    /** Of what stands in the way: what its outer product takes away. */
    const shift = new Float64Array(M * S);
    for (let k = 0; k < M; k++) {
      const node = nodes[k]!;
      const own = column(node);
      for (let r = 0; r < R; r++) leak[k * R + r] = volts[node]! / (leaks_ohm[r]! + own[node]!);
      const { b, series: s, shunt: g } = beyond[k]!;
      const other = column(b);
      // u = ((s + g) e_k - s e_b) / sqrt(s + g): the piece beyond the break leaves its node, and hangs on the next.
      const norm = Math.sqrt(s + g);
      const uV = ((s + g) * volts[node]! - s * volts[b]!) / norm;
      const at = (n: number) => ((s + g) * own[n]! - s * other[n]!) / norm;
      const uw = ((s + g) * at(node) - s * at(b)) / norm;
      // Of a joint only a part of the product: R Y / (1 + R Y), with Y = s + g what the piece takes at its node.
      for (let j = 0; j < S; j++) {
        const part = 1 / (1 + 1 / (series_ohm[j]! * (s + g)));
        shift[k * S + j] = (part * uV) / (1 - part * uw);
      }
    }
    return { shift, leak };
  }

  /** Volts per amp of the unit at a node, with some faults. */
  function raised(node: number, some: Uint32Array): Float64Array {
    // The inverse is symmetric: one column says what every cell does to this node.
    const col = column(node);
    const v = volts[node]!;
    const out = new Float64Array(some.length);
    for (let i = 0; i < some.length; i++) {
      const f = some[i]!;
      if (f < M * R) out[i] = v - leak[f]! * col[nodes[(f / R) | 0]!]!;
      else {
        const k = ((f - M * R) / S) | 0;
        const { b, series: s, shunt: g } = beyond[k]!;
        out[i] = v + (shift[f - M * R]! * ((s + g) * col[nodes[k]!]! - s * col[b]!)) / Math.sqrt(s + g);
      }
    }
    return out;
  }

  /** Amps per amp of the unit that pass a meter, with some faults. */
  function passed(meter: Extract<Meter, { quantity: 'current' }>, some: Uint32Array): Float64Array {
    const { piece, end } = pieceOf(meter);
    const [va, vb] = [raised(piece.a, some), raised(piece.b, some)];
    const own = beyond.indexOf(piece);
    const first = M * R + own * S;
    const Y = piece.series + piece.shunt;
    const out = new Float64Array(some.length);
    for (let i = 0; i < some.length; i++) {
      const j = some[i]! - first;
      // What stands in the way in the measured piece itself: behind it the piece begins at other volts; behind a break at
      // those that its far end gives it.
      if (own >= 0 && j >= 0 && j < S) {
        const behind = (va[i]! + series_ohm[j]! * piece.series * vb[i]!) / (1 + series_ohm[j]! * Y);
        out[i] = through(piece, end, series_ohm[j] === Infinity ? (piece.series * vb[i]!) / Y : behind, vb[i]!);
      } else out[i] = through(piece, end, va[i]!, vb[i]!);
    }
    return out;
  }

  function through(p: Piece, end: 'a' | 'b', va: number, vb: number): number {
    return p.series * (va - vb) + (end === 'a' ? p.shunt * va : -p.shunt * vb);
  }

  function nodeOf(meter: Meter & { readonly location?: string }): number {
    if (meter.quantity === 'earth') return a.earth;
    return nodeAt(meter.location ?? '');
  }

  function nodeAt(location: string): number {
    const node = a.nodes.find(location, strand);
    if (node === undefined) throw new RangeError(`no strand "${strand}" at "${location}"`);
    return node;
  }

  function pieceOf({ section, at }: Extract<Meter, { quantity: 'current' }>): { piece: Piece; end: 'a' | 'b' } {
    const piece = typeof at === 'number' ? from.get(nodeAt(middle({ section, x_m: at }))) : ends.get(section)?.[at];
    if (!piece) throw new RangeError(`no section "${section}" with a strand "${strand}"`);
    return { piece, end: at === 'to' ? 'b' : 'a' };
  }
} // prettier-ignore
