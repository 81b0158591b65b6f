/** Wires of the catalogue as they are strung: weight, stiffness, strength, and the joint that is their weakest. */
import { figure, recordOf, usual, type Catalogue } from '../plan/catalogue.js';
import type { Line } from '../plan/schema.js';
import { GRAVITY } from '../base/numbers.js';
import { wireProperties } from './properties.js';

/** Properties of a catalogue wire with the property's steel figures; `joint_break_N` with the usual joint in it. */
export function wireOf(id: string, cat: Catalogue) {
  const wire = recordOf(cat.wires, id);
  const joint_efficiency = recordOf(cat.joints, usual('joint')).efficiency;
  const round = wireProperties({
    diameter_mm: wire.diameter_mm,
    tensile_MPa: wire.tensile_MPa,
    density_kg_m3: figure(cat, 'wire.density'),
    E_GPa: figure(cat, 'wire.modulus'),
    alpha_per_K: figure(cat, 'wire.expansion'),
    joint_efficiency,
    coil_m: wire.coil_m,
  });
  const break_N = wire.break_N ?? round.break_N;
  const broken = { ...round, break_N, joint_break_N: break_N * joint_efficiency };
  if (wire.mass_kg_per_m === undefined) return broken;
  // Rope, tape and panels are no round steel: their own mass and stiffness stand.
  const EA_N = wire.EA_N ?? round.EA_N;
  return {
    ...broken,
    mass_kg_per_m: wire.mass_kg_per_m,
    weight_N_per_m: wire.mass_kg_per_m * GRAVITY,
    coil_mass_kg: wire.mass_kg_per_m * wire.coil_m,
    EA_N,
    alpha_EA_N_per_K: EA_N * figure(cat, 'wire.expansion'),
  };
}

/** How the strands of a line are tied to its ends, and joined where a coil ends. */
export const jointsOfLine = ({ tie, join }: Pick<Line, 'tie' | 'join'>) => ({
  tie: tie ?? usual('joint'),
  join: join ?? usual('joint'),
});

/**
 * The weakest joint of a line's strands, and the share of the wire's strength that it keeps. A join may fall in any run,
 * since coils are used up one after another.
 */
export function weakestJoint(line: Pick<Line, 'tie' | 'join'>, cat: Catalogue) {
  const { tie, join } = jointsOfLine(line);
  const [a, b] = [recordOf(cat.joints, tie), recordOf(cat.joints, join)];
  return b.efficiency < a.efficiency ? { id: join, efficiency: b.efficiency } : { id: tie, efficiency: a.efficiency }; // prettier-ignore
}
