/** The volts of an energiser's network: one pulse, its peaks along every line. */
import type { SeasonId } from '../plan/catalogue.js';
import { first } from '../pulse/first.js';
import { simulate, type Pulse, type PulseOptions } from '../pulse/simulate.js';
import { earthOf } from './earthSide.js';
import { pulseNet, type Beside, type Piece, type Place, type PulseNet } from './pulseNet.js';
import { unitOf, type Unit } from './unit.js';
import type { Network } from './wired.js';

/** Volts along a line: plan distance, m, and peak to soil, V; 0 where nothing feeds it. */
export interface Along {
  s_m: number[];
  v_V: number[];
}

export interface Worst extends Place {
  readonly v_V: number;
  readonly aim_V: number;
  /** When its peak comes, s. */
  readonly peak_s: number;
}

export interface Volts {
  readonly season: SeasonId;
  /** Peak at the unit's terminal to soil, V, and of the current that leaves it, A. */
  readonly out_V: number;
  readonly out_A: number;
  readonly earth_ohm: number;
  readonly lines: Readonly<Record<string, Along>>;
  /** The point with the least volts against its aim; null: nothing is fed. */
  readonly worst: Worst | null;
  readonly unfed: readonly Piece[];
  /** Least volts along each of `Beside.links`; null where it is not fed. */
  readonly links: readonly (number | null)[];
  /** Along each line of the pulse's network, where they were asked for: largest currents towards its `to` at equal cells, A. */
  readonly amps?: readonly Float64Array[];
  /** Across each load, V, and what it takes, J; in the order that they were given. */
  readonly loads: readonly ({ readonly v_V: number; readonly energy_J: number } | null)[];
}

/** Fences longer than this take longer cells, up to twice as long, m. */
const FINE_FOR = 15_000;
const CELL = 25;
/** Of the longest stable step: at all of it a uniform line carries a wave as it is (docs/model.md, Power). */
const STEP = 0.9;
/** How long is looked at: so long, and to every far end and back, s and s/m. */
const LOOK = 4e-4;
const THERE_AND_BACK = 1.4e-8;
const MOST_LOOK = 5e-3;

/** Length of a cell for a network of so many metres. */
export const cellOf = (length_m: number): number =>
  CELL * Math.min(2, Math.max(1, length_m / FINE_FOR));

/** What is asked of one pulse. */
export interface PulseAsked {
  /** Currents are wanted too, as a meter shows them that is so slow, s. */
  readonly amps_s?: number;
  /** What the loads take is not asked: it ends when every peak stands. */
  readonly peaksAlone?: boolean;
  /** Cells are so many times as long as usual. */
  readonly coarse?: number;
}

export interface VoltsOptions extends Beside, PulseAsked {
  /** The unit, where it is not the energiser's own. */
  readonly unit?: Unit;
  /** Resistance of its earth, ohm, where it is not that of the rods. */
  readonly earth_ohm?: number;
}

/** Volts of a network in a season; null while the energiser feeds nothing. */
export function voltsOf(net: Network, season: SeasonId, options: VoltsOptions = {}): Volts | null {
  const pulse = pulseNet(net, season, options);
  if (!pulse) return null;
  return voltsBy(net, season, pulse, options);
}

/** The volts of a network of the pulse that is at hand. */
export function voltsBy(
  net: Network,
  season: SeasonId,
  pulse: PulseNet,
  options: Pick<VoltsOptions, 'unit' | 'earth_ohm'> & PulseAsked = {},
): Volts {
  const unit = options.unit ?? unitOf(net.energiser, net.cat);
  const earth_ohm = options.earth_ohm ?? earthOf(net, season);
  return readOff(net, season, pulse, unit, earth_ohm, runPulse(pulse, unit, earth_ohm, options));
}

/**
 * Volts before the pulse has been simulated, in closed form: one figure for the whole network, within about a third
 * (docs/model.md, First figure). Null while the energiser feeds nothing.
 */
export function aboutVolts(net: Network, season: SeasonId): Volts | null {
  const pulse = pulseNet(net, season);
  if (!pulse) return null;
  const unit = unitOf(net.energiser, net.cat);
  const earth_ohm = earthOf(net, season);
  const v_V = Math.min(unit.plate.open_V, first(pulse.lines, unit.source, pulse.at, earth_ohm));
  const lines: Record<string, Along> = {};
  let worst: Worst | null = null;
  const put = ({ line, from_m, to_m }: Piece, v: number) => {
    const track = (lines[line] ??= { s_m: [], v_V: [] });
    track.s_m.push(from_m, to_m);
    track.v_V.push(v, v);
    const aim_V = net.wired[line]!.aim_V;
    if (v > 0 && (!worst || aim_V > worst.aim_V)) worst = { line, at_m: to_m, v_V: v, aim_V, peak_s: 0 }; // prettier-ignore
  };
  for (const piece of pulse.pieces) if (piece) put(piece, v_V);
  for (const piece of pulse.unfed) put(piece, 0);
  return { season, out_V: v_V, out_A: 0, earth_ohm, lines, worst, unfed: pulse.unfed, links: [], loads: [] }; // prettier-ignore
}

/** One pulse of a unit on a network. */
export const runPulse = (
  pulse: PulseNet,
  unit: Unit,
  earth_ohm: number,
  { amps_s, peaksAlone = pulse.loads.length === 0, coarse = 1 }: PulseAsked = {},
): Pulse =>
  simulate(
    {
      source: unit.source,
      at: pulse.at,
      earth_ohm,
      lines: pulse.lines,
      loads: pulse.loads.filter((l) => l !== null),
    },
    // What loads take is added up to the end.
    { ...pulseOptions(pulse, peaksAlone, coarse), ...(amps_s ? { amps_s } : {}) },
  );

/** How a network is looked at: cells by its size, for as long as its peaks want. */
export const pulseOptions = (pulse: PulseNet, peaksAlone: boolean, coarse = 1): PulseOptions => ({
  until_s: Math.min(MOST_LOOK, LOOK + THERE_AND_BACK * pulse.length_m),
  blocksReverse: true,
  peaksAlone,
  cell_m: coarse * cellOf(pulse.length_m),
  step: STEP,
});

function readOff(
  net: Network,
  season: SeasonId,
  pulse: PulseNet,
  unit: Unit,
  earth_ohm: number,
  { nodes, along, amps, peak_V, peak_s, load_J, out_A }: Pulse,
): Volts {
  // No place reads more than the plate's open volts: windings and core lose what an ideal circuit would ring up.
  const most = unit.plate.open_V;
  const volts = (node: number) => Math.min(most, peak_V[node]!);
  const lines: Record<string, Along> = {};
  let worst: Worst | null = null;
  const stretches = [
    ...pulse.pieces.map((piece, k) => ({ piece, nodes: along[k]! as Int32Array | null })),
    ...pulse.unfed.map((piece) => ({ piece, nodes: null })),
  ].filter((s): s is { piece: Piece; nodes: Int32Array | null } => s.piece !== null);
  stretches.sort((a, b) => a.piece.from_m - b.piece.from_m);
  for (const { piece, nodes: own } of stretches) {
    const { line, from_m, to_m } = piece;
    const track = (lines[line] ??= { s_m: [], v_V: [] });
    const n = own ? own.length - 1 : 1;
    for (let k = 0; k <= n; k++) {
      const s = from_m + ((to_m - from_m) * k) / n;
      const v = own ? volts(own[k]!) : 0;
      if (track.s_m.at(-1) === s && track.v_V.at(-1) === v) continue;
      track.s_m.push(s);
      track.v_V.push(v);
      const aim_V = net.wired[line]!.aim_V;
      // Dead places are a finding of their own; here they would only hide the live ones.
      if (own && (!worst || v / aim_V < worst.v_V / worst.aim_V))
        worst = { line, at_m: s, v_V: v, aim_V, peak_s: peak_s[own[k]!]! };
    }
  }
  const able = unit.plate.output_J;
  let k = 0;
  return {
    season,
    out_V: volts(nodes.get(pulse.at)!),
    out_A,
    earth_ohm,
    lines,
    worst,
    unfed: pulse.unfed,
    ...(amps ? { amps } : {}),
    links: pulse.links.map((k) => (k === null ? null : Math.min(...Array.from(along[k]!, volts)))),
    loads: pulse.loads.map(
      (l) =>
      l ? { v_V: volts(nodes.get(l.node)!), energy_J: Math.min(able, load_J[k++]! * unit.yield) } : null, // prettier-ignore
    ),
  };
}
