/** The earth of one energiser: resistance by season, the predicted test, the rods that meet it. */
import { bisect } from '../base/numbers.js';
import { soilAt } from '../land/things.js';
import {
  figure,
  recordOf,
  type Catalogue,
  type SeasonId,
  type Soil,
  type SoilState,
} from '../plan/catalogue.js';
import { pointAt } from '../plan/geometry.js';
import type { Energiser, Plan } from '../plan/schema.js';
import type { EarthReport } from '../report/schema.js';
import { earthTest, layered } from '../earth/earthTest.js';
import { rodGroup, rodsInLine } from '../earth/rods.js';
import type { LoadLine } from './loadLine.js';
import type { Electric, Network } from './wired.js';

const groupOf = (e: Energiser, rho: number, count: number) =>
  rodGroup({
    rho_ohm_m: rho,
    rod_length_m: e.rodLength_m,
    rod_diameter_m: e.rodDiameter_m,
    rods_xy_m: rodsInLine(count, e.rodSpacing_m),
  });

/** Resistance of one rod at a place of a line, ohm. */
export type RodAt = (line: Electric, s: number) => number;

/** Resistivity at the surface in a state of the soil, ohm m. */
export const surfaceSoil = (soil: Soil, state: SoilState, cat: Catalogue): number =>
  state === 'frozen' ? soil.damp_ohm_m * figure(cat, 'earth.frozen') : soil[`${state}_ohm_m`];

/** Resistivity that a rod meets in a state of its soil, ohm m: what is dry or frozen is so at the top alone. */
export function rodSoil(soil: Soil, state: SoilState, length_m: number, cat: Catalogue): number {
  const top = surfaceSoil(soil, state, cat);
  if (state === 'damp' || state === 'wet') return top;
  return layered(length_m, top, soil.damp_ohm_m, figure(cat, 'earth.dryDepth'));
}

/** Resistance of one rod of an earth strand in the soil of its place, by season. */
export function strandRods(
  plan: Pick<Plan, 'soil' | 'things'>,
  season: SeasonId,
  cat: Catalogue,
): RodAt {
  const state = cat.seasons[season]!.soil;
  const length = figure(cat, 'earth.strandRodLength');
  return (line, s) =>
    rodGroup({
      rho_ohm_m: rodSoil(recordOf(cat.soils, soilAt(plan, pointAt(line.vertices, s))), state, length, cat), // prettier-ignore
      rod_length_m: length,
      rod_diameter_m: figure(cat, 'earth.strandRodDiameter'),
      rods_xy_m: rodsInLine(1, 1),
    }).r_group_ohm;
}

/** Earth resistance of an energiser's rods in a state of their soil, ohm. */
export const earthResistance = (
  e: Energiser,
  soil: Soil,
  state: SoilState,
  cat: Catalogue,
): number => groupOf(e, rodSoil(soil, state, e.rodLength_m, cat), e.rods).r_group_ohm;

/** Resistance of the energiser's own rods in a season, ohm. */
export const rodsOf = ({ energiser, plan, cat }: Network, season: SeasonId): number =>
  earthResistance(
    energiser,
    recordOf(cat.soils, soilAt(plan, energiser)),
    cat.seasons[season]!.soil,
    cat,
  );

/**
 * The earth test: the fence is loaded until it shows `fence_V`, and the current that then returns
 * through the rods is found on the load line.
 * @param path_ohm fence between the energiser and the load
 */
export function testLoad(line: LoadLine, path_ohm: number, r_earth: number, fence_V: number) {
  const at = (load: number) => {
    const total = load + path_ohm + r_earth;
    const amps = line(total) / total;
    return { current_A: amps, fence_V: amps * load };
  };
  const unloaded = at(1e7);
  if (unloaded.fence_V <= fence_V) return { ...unloaded, load_ohm: null };
  const load = Math.exp(
    bisect((x) => at(Math.exp(x)).fence_V - fence_V, Math.log(1e-3), Math.log(1e7)),
  );
  return { ...at(load), load_ohm: load };
}

/** Everything about the earth of one energiser; the test and the count are for the dry season. */
export function earthing(
  e: Energiser,
  soil: Soil,
  line: LoadLine,
  fence_ohm_per_m: number,
  cat: Catalogue,
): EarthReport {
  const dry = groupOf(e, rodSoil(soil, 'dry', e.rodLength_m, cat), e.rods);
  const path = fence_ohm_per_m * figure(cat, 'earth.testDistance');
  const limit = figure(cat, 'earth.testLimit');
  const fenceV = figure(cat, 'earth.testFence');
  const load = testLoad(line, path, dry.r_group_ohm, fenceV);
  /** For each ampere: what a probe beside the last of so many rods reads, and how far they rise above far soil. */
  const perAmpere = (rods: number) => {
    const rods_m = rodsInLine(rods, e.rodSpacing_m);
    return earthTest({
      rods_m,
      rod_length_m: e.rodLength_m,
      rod_diameter_m: e.rodDiameter_m,
      rho_dry_ohm_m: soil.dry_ohm_m,
      rho_damp_ohm_m: soil.damp_ohm_m,
      dry_depth_m: figure(cat, 'earth.dryDepth'),
      probe_m: [rods_m.at(-1)![0] + figure(cat, 'earth.testProbe'), 0],
      current_a: 1,
    });
  };
  const now = perAmpere(e.rods);
  const least = figure(cat, 'earth.rodsMin');
  const most = figure(cat, 'earth.rodsMax');
  const meets = (n: number): boolean => {
    const { r_ohm, reading_v } = perAmpere(n);
    return testLoad(line, path, r_ohm, fenceV).current_A * reading_v <= limit;
  };
  const rodsNeeded = meets(most) ? leastMeeting(meets, least, most) : null;
  return {
    rods: e.rods,
    r_dry_ohm: dry.r_group_ohm,
    r_damp_ohm: earthResistance(e, soil, 'damp', cat),
    r_wet_ohm: earthResistance(e, soil, 'wet', cat),
    single_dry_ohm: dry.r_single_dwight_ohm,
    factor: dry.multiplying_factor,
    rodsNeeded,
    test: {
      ...load,
      rise_V: load.current_A * now.rise_v,
      reading_V: load.current_A * now.reading_v,
    },
  };
}

/**
 * What a reading of the earth test says of the soil: the soil that would give it, as a factor on what was taken,
 * with the rods' resistance and the resistivity round a rod then. Null: no soil gives such a reading.
 */
export function soilOfReading(
  e: Energiser,
  soil: Soil,
  line: LoadLine,
  reading_V: number,
  cat: Catalogue,
): { readonly factor: number; readonly r_ohm: number; readonly rho_ohm_m: number } | null {
  const dug = (x: number): Soil => ({
    ...soil,
    dry_ohm_m: soil.dry_ohm_m * Math.exp(x),
    damp_ohm_m: soil.damp_ohm_m * Math.exp(x),
  });
  const off = (x: number) => earthing(e, dug(x), line, 0, cat).test.reading_V - reading_V;
  const far = Math.log(100);
  if (!(off(-far) < 0 && off(far) > 0)) return null;
  const x = bisect(off, -far, far, 1e-4);
  return {
    factor: Math.exp(x),
    r_ohm: earthResistance(e, dug(x), 'dry', cat),
    rho_ohm_m: rodSoil(dug(x), 'dry', e.rodLength_m, cat),
  };
}

/** The least whole number that meets, where every greater one does too. */
function leastMeeting(meets: (n: number) => boolean, least: number, most: number): number {
  let [low, high] = [least, most];
  while (low < high) {
    const mid = Math.floor((low + high) / 2);
    if (meets(mid)) high = mid;
    else low = mid + 1;
  }
  return low;
}
