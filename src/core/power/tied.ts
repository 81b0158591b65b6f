/** Constants of a metre of a line's tied live strands, and of cable. */
import { figure, recordOf, type Catalogue, type SeasonId } from '../plan/catalogue.js';
import { lineConstants } from '../pulse/lineConstants.js';
import type { PulseLine } from '../pulse/simulate.js';
import { carries, growthOf, leakageOfAll } from './leakage.js';
import type { Electric } from './wired.js';

export type Constants = Omit<PulseLine, 'from' | 'to' | 'length_m'>;

/**
 * Constants of a metre of a line's tied live strands: images, what soil and wires add, leakage by height
 * [reference set, "Constants of a line for a property"; docs/model.md, Pulse].
 */
export function constantsOf(
  line: Electric,
  season: SeasonId,
  growth: number,
  cat: Catalogue,
): Constants {
  const live = line.strands.filter((s) => s.duty === 'live' && carries(s, season));
  const earth = line.strands.filter((s) => s.duty === 'earth');
  const grown = growth * growthOf(line, cat);
  const wires = live.map((s) => recordOf(cat.wires, s.wire));
  const side = (of: (w: (typeof wires)[number]) => number) =>
    1 / wires.reduce((sum, w) => sum + 1 / of(w), 0);
  const thick_m = Math.max(...wires.map((w) => w.diameter_mm)) / 1000;
  const heights_m = apart(live.map((s) => s.height_m), [], thick_m); // prettier-ignore
  const images = lineConstants({
    wire_diameter_mm: thick_m * 1000,
    heights_m,
    earth_heights_m: apart(earth.map((s) => s.height_m), heights_m, thick_m), // prettier-ignore
  });
  const leak = leakageOfAll(line.strands, season, grown, cat);
  return {
    l_h_per_m: images.l_external_h_per_m + 1e-6 * (figure(cat, 'network.surgeSoil') + side((w) => w.pulse_uH_per_m)), // prettier-ignore
    r_ohm_per_m: (figure(cat, 'network.soilResistance') + side((w) => w.pulse_ohm_per_km)) / 1000,
    c_f_per_m: images.c_f_per_m,
    g_s_per_m: leak / 1000,
  };
}

/** Heights that hang clear of the ground, of one another and of others: what touches counts as one. */
function apart(heights: readonly number[], others: readonly number[], thick_m: number): number[] {
  const kept: number[] = [];
  for (const h of heights) {
    const clear = Math.max(h, thick_m);
    if ([...kept, ...others].every((o) => Math.abs(o - clear) > 1.01 * thick_m)) kept.push(clear);
  }
  return kept;
}

export const cableConstants = (cat: Catalogue): Constants => ({
  l_h_per_m: figure(cat, 'network.cableL') * 1e-6,
  c_f_per_m: figure(cat, 'network.cableC') * 1e-12,
  r_ohm_per_m: (figure(cat, 'network.gateCable') + figure(cat, 'network.soilResistance')) / 1000,
  g_s_per_m: figure(cat, 'network.cableLeakage') / 1000,
});
