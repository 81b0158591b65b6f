/**
 * What an animal feels at a place of the fence: a load of the pulse's network, through its hooves to the soil, or
 * between a live and an earth strand, whose current comes home by metal.
 */
import { recordOf, type Animal, type SeasonId } from '../plan/catalogue.js';
import { simulate } from '../pulse/simulate.js';
import { assemble, drive, factorOf } from './assembly.js';
import { circuitOf, strandName } from './circuit.js';
import { earthOf, earthPart } from './earthSide.js';
import { carries } from './leakage.js';
import { pulseNet, type Place } from './pulseNet.js';
import { unitOf } from './unit.js';
import { pulseOptions } from './volts.js';
import type { Network } from './wired.js';

/** The network as it is seen from a place: peak volts with nothing touching, and what it stands behind. */
export interface Seen {
  readonly open_V: number;
  readonly self_ohm: number;
  /** Width of a pulse that has the peak all along and the same energy, s. */
  readonly width_s: number;
  /** No load takes more than the unit puts out, J. */
  readonly most_J: number;
}

export interface Felt {
  /** Peak across the animal itself, without its hooves' contact to the soil, V. */
  readonly volts_V: number;
  readonly amps_A: number;
  readonly energy_J: number;
}

/** Load that the network is probed with, ohm: about what an animal on moist ground is. */
const PROBE = 1000;
/** As good as nothing touching, ohm. */
const NOTHING = 1e7;

/** Cells of a probe are so many times longer: its ratio is wanted, not its front. */
const COARSE = 2;

export interface SeenOptions {
  /** Peak to soil there with nothing touching, V, where it is known. */
  readonly open_V?: number;
  /** Whether energies are wanted: they take the pulse to its end. */
  readonly energy?: boolean;
}

/**
 * The network seen from a place, through the soil and by its earth strands.
 * One pulse with nothing touching and one with a probe: between them the peak follows a resistance behind the open
 * volts within a few per cent [derived; held against pulses with the animal itself in the tests].
 */
export function seenAt(
  net: Network,
  season: SeasonId,
  place: Place,
  options: SeenOptions = {},
): { soil: Seen | null; between: Seen | null } {
  const unit = unitOf(net.energiser, net.cat);
  const earth_ohm = earthOf(net, season);
  const home = returnOf(net, season, place);
  const of = (by: 'soil' | 'metal', r_ohm: number) => {
    const pulse = pulseNet(net, season, { loads: [{ ...place, r_ohm }] });
    const load = pulse?.loads[0];
    if (!pulse || !load) return null;
    const look = pulseOptions(pulse, !options.energy || r_ohm >= NOTHING);
    const run = simulate(
      { source: unit.source, at: pulse.at, earth_ohm, lines: pulse.lines, ...(by === 'soil' ? { loads: [load] } : { back: load }) }, // prettier-ignore
      { ...look, cell_m: COARSE * look.cell_m! },
    );
    return by === 'soil'
      ? { V: run.peak_V[run.nodes.get(load.node)!]!, J: run.load_J[0]! }
      : { V: run.back.peak_V, J: run.back.energy_J };
  };
  const seen = (by: 'soil' | 'metal', series_ohm: number): Seen | null => {
    const known = by === 'soil' ? options.open_V : undefined;
    const open = known === undefined ? of(by, NOTHING) : { V: known };
    const probe = of(by, PROBE + series_ohm);
    if (!open || !probe) return null;
    const all = PROBE + series_ohm;
    return {
      open_V: Math.min(open.V, unit.plate.open_V),
      self_ohm: Math.max(0, all * (open.V / probe.V - 1)) + series_ohm,
      width_s: (probe.J * unit.yield * all) / probe.V ** 2,
      most_J: unit.plate.output_J,
    };
  };
  const soil = seen('soil', 0);
  const between =
    home?.by === 'metal'
      ? seen('metal', home.ohm)
      : home && soil && { ...soil, self_ohm: soil.self_ohm + home.ohm };
  return { soil, between };
}

/**
 * How the current of an animal between strands comes home: by metal to the unit's terminal, or from earth strands
 * that hang on rods of their own through the soil. Null: the line has no earth strand, or no live one.
 */
function returnOf(
  net: Network,
  season: SeasonId,
  place: Place,
): { by: 'metal' | 'soil'; ohm: number } | null {
  const line = net.wired[place.line]!.line;
  const k = line.strands.findIndex((s) => s.duty === 'earth' && carries(s, season));
  const live = line.strands.some((s) => s.duty === 'live' && carries(s, season));
  if (k < 0 || !live) return null;
  const a = assemble(earthPart(circuitOf(net, season)));
  const marks = net.topology.marks[place.line]!;
  const near = marks.reduce((x, m) =>
    Math.abs(m.s - place.at_m) < Math.abs(x.s - place.at_m) ? m : x,
  );
  const node = a.nodes.find(near.location, strandName(place.line, k));
  if (node === undefined || a.row[node]! < 0) return null;
  const home = a.groups.of[node] === a.groups.of[a.earth] ? a.earth : -1;
  const volts = drive(a, factorOf(a), home, node);
  return {
    by: home < 0 ? 'soil' : 'metal',
    ohm: volts[node]! - (home < 0 ? 0 : volts[home]!),
  };
}

/** What an animal feels there. @param contact_ohm what stands in series with it: hooves on soil */
export function felt(seen: Seen, body_ohm: number, contact_ohm: number): Felt {
  const amps_A = seen.open_V / (seen.self_ohm + contact_ohm + body_ohm);
  const volts_V = amps_A * body_ohm;
  return {
    volts_V,
    amps_A,
    energy_J: Math.min(seen.most_J, (seen.width_s * volts_V ** 2) / body_ohm),
  };
}

/** Resistance of two hooves on soil, as surface discs in parallel, ohm [published: rho/(4 b) each]. */
export const hoofContact = (rho_ohm_m: number, radius_m: number): number =>
  rho_ohm_m / (8 * radius_m);

/** Volts across an animal on moist ground at a stiff fence that reads its aim. */
export const wantOf = (aim_V: number, animal: Animal, moist_ohm_m: number): number =>
  (aim_V * animal.body_ohm) / (animal.body_ohm + hoofContact(moist_ohm_m, animal.hoof_m));

/** The animal of a profile. */
export const animalOf = (cat: Network['cat'], profile: string): Animal =>
  recordOf(cat.animals, recordOf(cat.profiles, profile).animal);
