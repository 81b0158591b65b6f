/** What each kind of stock feels of a make-up at the line's worst point, through hoof and between strands. */
import { soilAt } from '../land/things.js';
import { figure, recordOf, type Catalogue, type SeasonId } from '../plan/catalogue.js';
import type { Plan } from '../plan/schema.js';
import { surfaceSoil } from '../power/earthing.js';
import { animalOf, felt, hoofContact, seenAt, wantOf } from '../power/feel.js';
import { carries } from '../power/leakage.js';
import { unitOf } from '../power/unit.js';
import { voltsOf, type Volts } from '../power/volts.js';
import type { Electric, Network } from '../power/wired.js';
import type { Need, Post } from '../report/schema.js';

/** The seasons that a make-up is compared in: the worst for the return, the worst for leakage. */
export const COMPARED = ['dry', 'wet'] as const satisfies readonly SeasonId[];
export type ComparedSeason = (typeof COMPARED)[number];

export interface Shock {
  readonly profile: string;
  readonly season: SeasonId;
  readonly way: 'hoof' | 'between';
  /** Peak across the animal, V, and amperes through it. */
  readonly volts_V: number;
  readonly amps_A: number;
  /** What the aim gives the same animal on moist ground, V. */
  readonly want_V: number;
}

/** Highest resistivity of the soil under the posts of a line in a season, ohm m. */
export function soilUnder(
  posts: readonly Pick<Post, 'e' | 'n'>[],
  plan: Pick<Plan, 'soil' | 'things'>,
  season: SeasonId,
  snow: boolean,
  cat: Catalogue,
): number {
  const state = cat.seasons[season]!.soil;
  const names = new Set(posts.map((p) => soilAt(plan, p)));
  const soil = Math.max(...[...names].map((s) => surfaceSoil(recordOf(cat.soils, s), state, cat)));
  // Snow and frost come in the season of the poorest return.
  return snow && (season === 'dry' || season === 'frozen')
    ? Math.max(soil, figure(cat, 'shock.snow'))
    : soil;
}

/** One season of a make-up: what an animal sees of the network, whatever the soil under its hooves. */
export interface Prospect {
  readonly season: SeasonId;
  readonly at_m: number;
  /** Volts to soil there, nothing touching. */
  readonly open_V: number;
  /** The same figure through hooves on soil of any resistivity, and between strands. */
  feel(need: Need, rho_ohm_m: number): Shock[];
}

/**
 * The line as it stands in the network, at its worst point in one season; null: not fed.
 * @param volts of the network, where they are at hand
 */
export function prospectOf(
  line: string,
  net: Network,
  season: SeasonId,
  volts: Volts | null = null,
): Prospect | null {
  const { cat } = net;
  const own = net.wired[line]!.line;
  const worst = worstOn((volts ?? voltsOf(net, season))?.lines[line]);
  if (!worst) return null;
  // Held down to the plate, volts say nothing of what stands behind them.
  const held = worst.v >= unitOf(net.energiser, cat).plate.open_V;
  const { soil, between } = seenAt(net, season, { line, at_m: worst.at_m }, held ? null : worst.v);
  if (!soil) return null;
  const middles = pairsOf(own, season);
  return {
    season,
    at_m: worst.at_m,
    open_V: worst.v,
    feel: (need, rho) => {
      const animal = animalOf(cat, need.profile);
      const want_V = wantOf(need.aim_V, animal, figure(cat, 'shock.moist'));
      const shock = (way: Shock['way'], at: typeof soil, contact: number): Shock => ({
        profile: need.profile,
        season,
        way,
        ...felt(at, animal.body_ohm, contact),
        want_V,
      });
      const hoof = shock('hoof', soil, hoofContact(rho, animal.hoof_m));
      // Between strands only where it reaches both.
      return between && middles.some((m) => m < need.reach_m)
        ? [hoof, shock('between', between, 0)]
        : [hoof];
    },
  };
}

/** The place of a line with the least volts that is fed at all. */
function worstOn(track: Volts['lines'][string] | undefined) {
  let worst: { at_m: number; v: number } | null = null;
  track?.v_V.forEach((v, k) => {
    if (v > 0 && (!worst || v < worst.v)) worst = { at_m: track.s_m[k]!, v };
  });
  return worst as { at_m: number; v: number } | null;
}

/** Middle heights of every live and earth strand side by side. */
function pairsOf({ strands }: Electric, season: SeasonId): number[] {
  return strands.slice(1).flatMap((b, i) => {
    const a = strands[i]!;
    const pair = carries(a, season) && carries(b, season) && a.duty !== b.duty;
    return pair ? [(a.height_m + b.height_m) / 2] : [];
  });
}
