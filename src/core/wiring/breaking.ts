/** What one break of one strand costs beyond it, and which one tie more would mend that. */
import { figure, type SeasonId } from '../plan/catalogue.js';
import type { Circuit } from '../power/circuitTypes.js';
import { fedOf } from '../power/fed.js';
import { strandName, strandOf } from '../power/joined.js';
import { solveUnit, type Unit } from '../power/network.js';
import { loadLineOf, plateOfUnit } from '../power/unit.js';
import { insideOf, type Network } from '../power/wired.js';
import { fedCircuit, furtherTies, withTies, type FurtherTie } from './further.js';

/** Where a strand parts: its place among the strands of the line, and plan distance, m. */
export interface Break {
  readonly line: string;
  readonly strand: number;
  readonly at_m: number;
}

/** What a fence is like with a break in it. */
export interface Broken {
  /** Live strand that nothing feeds then, beyond what is dead already, m. */
  readonly dark_m: number;
  /** The place on a live strand that loses most, V before and after; dark counts as 0. */
  readonly worst: { readonly line: string; readonly before_V: number; readonly after_V: number };
}

export interface BreakCost extends Broken {
  /** The one tie more that helps most, and what is left to lose with it; null: none helps. */
  readonly mend: (Broken & { readonly tie: FurtherTie }) | null;
}

/**
 * By the resistive network per strand, behind the load line of the unit: shares and what is dead, not the peak of the
 * pulse. Null where nothing is fed, or the strand is not live there.
 */
export function breakCost(net: Network, season: SeasonId, at: Break): BreakCost | null {
  const whole = fedCircuit(net, season);
  const parted = whole && breakIn(whole, net, at);
  if (!whole || !parted) return null;
  const ohm = figure(net.cat, 'network.jumper');
  const loads = loadLineOf(plateOfUnit(net.energiser, net.cat));
  const before = { volts: voltsOf(solveUnit(whole), loads), fed_m: fedOf(whole)!.fed_m };
  const broken = (ties: readonly FurtherTie[]): Broken => {
    const circuit = withTies({ ...whole, breaks: [parted] }, ties, ohm);
    const after = voltsOf(solveUnit(circuit), loads);
    let worst: Broken['worst'] = { line: at.line, before_V: 0, after_V: 0 };
    for (const [key, before_V] of before.volts) {
      const after_V = after.get(key) ?? 0;
      if (before_V - after_V > worst.before_V - worst.after_V + 1e-9)
        worst = { line: strandOf(key.slice(key.indexOf(' ') + 1))!.line, before_V, after_V };
    }
    return { dark_m: Math.max(0, before.fed_m - fedOf(circuit)!.fed_m), worst };
  };
  const now = broken([]);
  let mend: BreakCost['mend'] = null;
  if (lost(now) > WORTH_A_TIE * now.worst.before_V)
    for (const tie of furtherTies(net, season)) {
      const then = { ...broken([tie]), tie };
      if (lost(then) < lost(mend ?? now) - 1) mend = then;
    }
  return { ...now, mend };
}

const lost = ({ worst }: Broken): number => worst.before_V - worst.after_V;

/** A loss of less than this share of the volts asks for no tie. */
const WORTH_A_TIE = 0.05;

/** The break in the circuit: the stretch of the strand in which it lies. */
function breakIn(circuit: Circuit, net: Network, { line, strand, at_m }: Break) {
  const own = net.wired[line];
  const run = own?.runs.findIndex((r) => at_m >= r.from_m && at_m <= r.to_m) ?? -1;
  if (!own || run < 0 || own.line.strands[strand]?.duty !== 'live') return null;
  const name = strandName(line, strand, run);
  const { from_m, to_m, ground_m } = own.runs[run]!;
  const marks = insideOf(own.runs[run]!, net.topology.marks[line]!);
  const sections = circuit.sections.filter((s) => name in s.strands);
  const k = sections.findIndex((_, i) => at_m <= (marks[i + 1]?.s ?? -Infinity));
  const section = sections[k];
  if (!section) return null;
  const x_m = ((at_m - marks[k]!.s) * ground_m) / Math.max(to_m - from_m, 1e-6);
  return {
    section: section.id,
    strand: name,
    x_m: Math.min(Math.max(x_m, 0.01 * section.length_m), 0.99 * section.length_m),
  };
}

/** Volts of the live nodes of the fence, by place and strand; what nothing feeds has none. */
function voltsOf(unit: Unit, loads: (r_ohm: number) => number): Map<string, number> {
  const out = new Map<string, number>();
  const open = unit.r_in_ohm === Infinity;
  const k = open ? loads(Infinity) : loads(unit.r_in_ohm) / unit.r_in_ohm;
  for (const { location, strand, v_v } of unit.nodes)
    if (v_v !== null && strandOf(strand)) out.set(`${location} ${strand}`, Math.max(0, v_v * k));
  return out;
}
