/** The earth of one energiser: resistance by season, the predicted test, the rods that meet it. */
import { bisect } from '../base/numbers.js';
import { soilAt } from '../land/things.js';
import { figure, recordOf, type Catalogue, type SeasonId, type Soil } from '../plan/catalogue.js';
import { pointAt } from '../plan/geometry.js';
import type { Energiser, Plan } from '../plan/schema.js';
import type { EarthReport } from '../report/schema.js';
import { rodGroup, rodsInLine, surfaceRise } from '../earth/rods.js';
import type { RodAt } from './circuit.js';
import type { LoadLine } from './loadLine.js';

const groupOf = (e: Energiser, rho: number, count: number) =>
  rodGroup({
    rho_ohm_m: rho,
    rod_length_m: e.rodLength_m,
    rod_diameter_m: e.rodDiameter_m,
    rods_xy_m: rodsInLine(count, e.rodSpacing_m),
  });

/** Resistance of one rod of an earth strand in the soil of its place, by season. */
export function strandRods(
  plan: Pick<Plan, 'soil' | 'things'>,
  season: SeasonId,
  cat: Catalogue,
): RodAt {
  const state = `${cat.seasons[season]!.soil}_ohm_m` as const;
  return (line, s) =>
    rodGroup({
      rho_ohm_m: recordOf(cat.soils, soilAt(plan, pointAt(line.vertices, s)))[state],
      rod_length_m: figure(cat, 'earth.strandRodLength'),
      rod_diameter_m: figure(cat, 'earth.strandRodDiameter'),
      rods_xy_m: rodsInLine(1, 1),
    }).r_group_ohm;
}

/** Earth resistance of an energiser's rods in a soil of resistivity rho, ohm. */
export const earthResistance = (e: Energiser, rho: number): number =>
  groupOf(e, rho, e.rods).r_group_ohm;

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
  const dry = groupOf(e, soil.dry_ohm_m, e.rods);
  const path = fence_ohm_per_m * figure(cat, 'earth.testDistance');
  const limit = figure(cat, 'earth.testLimit');
  const fenceV = figure(cat, 'earth.testFence');
  const load = testLoad(line, path, dry.r_group_ohm, fenceV);
  const rise_V = load.current_A * dry.r_group_ohm;
  const probe = figure(cat, 'earth.testProbe');
  const atProbe = dry.current_share.reduce((v, share, k) => {
    const away = (e.rods - 1 - k) * e.rodSpacing_m + probe;
    return v + surfaceRise(soil.dry_ohm_m, e.rodLength_m, share * load.current_A, away);
  }, 0);
  const least = figure(cat, 'earth.rodsMin');
  const most = figure(cat, 'earth.rodsMax');
  const meets = (n: number): boolean => {
    const R = groupOf(e, soil.dry_ohm_m, n).r_group_ohm;
    return testLoad(line, path, R, fenceV).current_A * R <= limit;
  };
  const rodsNeeded = meets(most) ? leastMeeting(meets, least, most) : null;
  return {
    rods: e.rods,
    r_dry_ohm: dry.r_group_ohm,
    r_damp_ohm: earthResistance(e, soil.damp_ohm_m),
    r_wet_ohm: earthResistance(e, soil.wet_ohm_m),
    single_dry_ohm: dry.r_single_dwight_ohm,
    factor: dry.multiplying_factor,
    rodsNeeded,
    test: { ...load, rise_V, reading_V: rise_V - atProbe },
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
