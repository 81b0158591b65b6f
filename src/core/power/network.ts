/**
 * The fence as an electrical network, resistive model (docs/model.md, Power).
 * Nodes are (location, strand); remote soil is the reference; every stretch of strand is an exact
 * leaking line. One solve with 1 A gives the input resistance, and the load line scales the rest.
 */
import { assemble, drive, factorOf, type Assembly, type Piece } from './assembly.js';
import type { Circuit, FenceResistiveInputs } from './circuitTypes.js';
import { loadLine } from './loadLine.js';

export type {
  Circuit,
  FenceResistiveInputs,
  InSection,
  Jumper,
  Section,
  Shunt,
  StrandType,
} from './circuitTypes.js';

export interface NodeVolts {
  readonly location: string;
  readonly strand: string;
  /** Null: nothing connects it to anything. */
  readonly v_v: number | null;
}

/** Answer for 1 A; multiply volts and amps by the energiser's real current. */
export interface Unit {
  /** Infinity when no current can return. */
  readonly r_in_ohm: number;
  readonly v_hot: number;
  readonly v_earth: number;
  readonly nodes: readonly NodeVolts[];
  readonly currents: readonly { section: string; strand: string; i_from: number; i_to: number }[];
}

/**
 * Solves the circuit for 1 A driven from the earth terminal to the hot terminal.
 * @throws RangeError naming the part, when the inputs name something that is not there
 */
export function solveUnit(c: Circuit): Unit {
  const a = assemble(c);
  return unitOf(a, a.returns ? drive(a, factorOf(a), a.earth, a.hot) : null);
}

/** The answer for 1 A from the volts of every node; null: no current can return. */
export function unitOf(a: Assembly, driven: Float64Array | null): Unit {
  const { groups, hot, earth } = a;
  const live = groups.of[hot]!;
  // Without a return the live part stands at the open voltage: shares of it instead of volts.
  const volts = driven ?? Float64Array.from(groups.of, (g) => (g === live ? 1 : 0));
  const alone = (k: number) =>
    groups.of[k] !== live && groups.of[k] !== groups.of[earth] && !groups.soil.has(groups.of[k]!);
  return {
    r_in_ohm: driven ? volts[hot]! - volts[earth]! : Infinity,
    v_hot: volts[hot]!,
    v_earth: volts[earth]!,
    nodes: a.nodes.list.map((n, k) => ({ ...n, v_v: alone(k) ? null : volts[k]! })),
    currents: driven ? currentsOf(a.pieces, volts) : [],
  };
}

function currentsOf(pieces: readonly Piece[], volts: Float64Array) {
  const out: { section: string; strand: string; i_from: number; i_to: number }[] = [];
  pieces.forEach((p) => {
    const through = p.series * (volts[p.a]! - volts[p.b]!);
    const i_from = through + p.shunt * volts[p.a]!;
    const i_to = through - p.shunt * volts[p.b]!;
    const last = out.at(-1);
    // Pieces of one strand follow one another: its far end is the last piece's.
    if (last && last.section === p.section && last.strand === p.strand) last.i_to = i_to;
    else out.push({ section: p.section, strand: p.strand, i_from, i_to });
  });
  return out;
}

/** The whole answer for one energiser with its load line (kind `fence_resistive`). */
export function solveFence(i: FenceResistiveInputs) {
  const unit = solveUnit(i);
  const v_out = loadLine(i.energiser.load_line)(unit.r_in_ohm);
  const open = unit.r_in_ohm === Infinity;
  // Without a return path `unit` holds shares of the open voltage instead of volts for one amp.
  const k = open ? v_out : v_out / unit.r_in_ohm;
  return {
    r_in_ohm: open ? null : unit.r_in_ohm,
    v_out_v: v_out,
    i_out_a: open ? 0 : k,
    v_hot_terminal_v: unit.v_hot * k,
    v_earth_terminal_v: unit.v_earth * k,
    i_earth_rods_a: (unit.v_earth * k) / i.r_earth_ohm,
    nodes: unit.nodes.map((n) => ({ ...n, v_v: n.v_v === null ? null : n.v_v * k })),
    strand_currents: unit.currents.map((s) => ({
      section: s.section,
      strand: s.strand,
      i_from_a: s.i_from * k,
      i_to_a: s.i_to * k,
    })),
  };
}
