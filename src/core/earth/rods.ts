/** Earth rods in uniform soil. */
import { sum } from '../base/numbers.js';
import { solveSpd } from '../base/spd.js';

export interface RodGroupInputs {
  readonly rho_ohm_m: number;
  readonly rod_length_m: number;
  readonly rod_diameter_m: number;
  readonly rods_xy_m: readonly (readonly [number, number])[];
}

/** Single rod, rho/(2 pi L)(ln(4L/a) - 1), a the radius [published: Dwight, AIEE Trans. 55, 1936]. */
export function singleRod(rho: number, length: number, diameter: number): number {
  return (rho / (2 * Math.PI * length)) * (Math.log((8 * length) / diameter) - 1);
}

/** Mutual resistance of two equal parallel rods at distance s, uniform current, image included, ohm. */
export function mutualRods(rho: number, length: number, s: number): number {
  const half = s / (2 * length);
  return (
    (rho / (2 * Math.PI * length)) * (Math.asinh(1 / half) - Math.sqrt(1 + half * half) + half)
  );
}

/**
 * Resistance of a rod group: M y = 1, R = 1/sum y (docs/model.md, Earth).
 * @throws RangeError when two rods stand closer than one diameter, or there is none
 */
export function rodGroup(i: RodGroupInputs) {
  const n = i.rods_xy_m.length;
  if (n === 0) throw new RangeError('a rod group needs at least one rod');
  const own = singleRod(i.rho_ohm_m, i.rod_length_m, i.rod_diameter_m);
  const m = i.rods_xy_m.map((a, r) =>
    i.rods_xy_m.map((b, c) => {
      if (r === c) return own;
      const s = Math.hypot(a[0] - b[0], a[1] - b[1]);
      if (s < i.rod_diameter_m) {
        throw new RangeError(
          `rods ${Math.min(r, c) + 1} and ${Math.max(r, c) + 1} stand in one place`,
        );
      }
      return mutualRods(i.rho_ohm_m, i.rod_length_m, s);
    }),
  );
  const y = sharesOf(m, n);
  const R = 1 / sum(y);
  return {
    r_single_dwight_ohm: own,
    r_group_ohm: R,
    current_share: y.map((x) => x * R),
    multiplying_factor: (n * R) / own,
  };
}

function sharesOf(m: readonly (readonly number[])[], n: number): number[] {
  try {
    return solveSpd(m, new Array<number>(n).fill(1));
  } catch {
    throw new RangeError('these rods are too close together to solve for');
  }
}

/** Rods in one straight line, first at the origin. */
export const rodsInLine = (count: number, spacing: number): [number, number][] =>
  Array.from({ length: count }, (_, k) => [k * spacing, 0]);

/**
 * Rise of the soil surface at distance d from a rod that leads a current I, V: the uniform line
 * source with its image, rho I/(2 pi L) asinh(L/d) [derived].
 */
export function surfaceRise(rho: number, length: number, current: number, d: number): number {
  return ((rho * current) / (2 * Math.PI * length)) * Math.asinh(length / d);
}
