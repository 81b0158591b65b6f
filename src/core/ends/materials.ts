/** What posts and rails of the catalogue are as beams. */
import { figure, type Catalogue, type PostKind } from '../plan/catalogue.js';

/** Width of a post, m: of round ones what the tape round them says. */
export const widthOf = ({ perimeter_m }: Pick<PostKind, 'perimeter_m'>): number => perimeter_m / Math.PI; // prettier-ignore

export interface Beam {
  readonly EA_N: number;
  readonly EI_Nm2: number;
  /** Moment that it bears for years, Nm. */
  readonly bears_Nm: number;
}

/** A post as a beam: round timber, or a tube. */
export function beamOf(kind: PostKind, cat: Catalogue): Beam {
  const d = widthOf(kind);
  const tube = kind.conducts;
  const inner = tube ? Math.max(0, d - 2 * figure(cat, 'ends.tubeWall')) : 0;
  const E = figure(cat, tube ? 'ends.steelModulus' : 'ends.timberModulus') * 1e9;
  const I = (Math.PI * (d ** 4 - inner ** 4)) / 64;
  const strength = figure(cat, tube ? 'ends.steelStrength' : 'ends.timberStrength') * 1e6;
  return {
    EA_N: (E * Math.PI * (d * d - inner * inner)) / 4,
    EI_Nm2: E * I,
    bears_Nm: (strength * I) / (d / 2),
  };
}

/** A rail or strut of timber of a length, m; a long one is stouter. */
export function railOf(length_m: number, cat: Catalogue) {
  const long = length_m > figure(cat, 'ends.railLong');
  const d = figure(cat, long ? 'ends.railWidthLong' : 'ends.railWidth');
  const E = figure(cat, 'ends.timberModulus') * 1e9;
  return {
    width_m: d,
    EA_N: (E * Math.PI * d * d) / 4,
    // Hinged at both ends [published: Euler].
    buckles_N: (Math.PI ** 2 * E * Math.PI * d ** 4) / 64 / length_m ** 2,
  };
}
