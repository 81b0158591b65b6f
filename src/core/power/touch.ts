/**
 * What an animal feels at a place of the fence: the network seen from two terminals, the
 * energiser's and the animal's, so that any animal and any load line follow from one solve.
 */
import { assemble, drive, factorOf } from './assembly.js';
import type { Circuit } from './circuitTypes.js';
import type { LoadLine } from './loadLine.js';
import { unitOf, type Unit } from './network.js';

/** Where an animal bridges: from a strand to another strand of the place, or to the soil. */
export interface Bridge {
  readonly location: string;
  readonly strand: string;
  readonly to: string | null;
}

/** The network seen from a bridge. */
export interface Seen {
  /** Volts between the two sides for 1 A from the energiser, nothing touching. */
  readonly open_ohm: number;
  /** Resistance of the network between the two sides, energiser not working: Thevenin's. */
  readonly self_ohm: number;
}

/** Solves a circuit, and sees it from every bridge; null where a side carries nothing. */
export function seenFrom(
  c: Circuit,
  bridges: (unit: Unit) => readonly Bridge[],
): { unit: Unit; seen: { bridge: Bridge; seen: Seen | null }[] } {
  const a = assemble(c);
  const factor = a.returns ? factorOf(a) : null;
  const driven = factor && drive(a, factor, a.earth, a.hot);
  const unit = unitOf(a, driven);
  const seen = bridges(unit).map((bridge) => {
    const p = a.nodes.find(bridge.location, bridge.strand) ?? -1;
    const q = bridge.to === null ? -1 : (a.nodes.find(bridge.location, bridge.to) ?? -2);
    if (!factor || !driven || p < 0 || q === -2 || a.row[p]! < 0 || (q >= 0 && a.row[q]! < 0))
      return { bridge, seen: null };
    const across = drive(a, factor, q, p);
    const between = (v: Float64Array) => v[p]! - (q < 0 ? 0 : v[q]!);
    return { bridge, seen: { open_ohm: between(driven), self_ohm: between(across) } };
  });
  return { unit, seen };
}

export interface Felt {
  /** Peak across the animal itself, without its hooves' contact to the soil, V. */
  readonly volts_V: number;
  readonly amps_A: number;
}

/**
 * Peak volts across an animal that bridges. The animal loads the fence, so the energiser's volts
 * are taken from its load line at what it then sees: R_in - z12^2 / (z22 + R), exact for a linear
 * network.
 * @param body_ohm the animal itself
 * @param contact_ohm what stands in series with it: hooves on soil
 * @param cap_ohm surge impedance that the front of the pulse meets, or null
 */
export function felt(
  unit: Pick<Unit, 'r_in_ohm'>,
  seen: Seen,
  line: LoadLine,
  cap_ohm: number | null,
  body_ohm: number,
  contact_ohm: number,
): Felt {
  const load = body_ohm + contact_ohm;
  const whole = seen.self_ohm + load;
  const r_in = unit.r_in_ohm - seen.open_ohm ** 2 / whole;
  const v = Math.min(line(r_in), cap_ohm === null ? Infinity : line(cap_ohm));
  const amps_A = ((v / r_in) * seen.open_ohm) / whole;
  return { volts_V: Math.abs(amps_A) * body_ohm, amps_A: Math.abs(amps_A) };
}

/** Resistance of two hooves on soil, as surface discs in parallel, ohm [published: rho/(4 b) each]. */
export const hoofContact = (rho_ohm_m: number, radius_m: number): number =>
  rho_ohm_m / (8 * radius_m);
