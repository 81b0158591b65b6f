/** What of an end could give way, and how near it is to that on the coldest night. */
import {
  figure,
  recordOf,
  usual,
  type Catalogue,
  type Setting,
  type Soil,
} from '../plan/catalogue.js';
import { pullOutForce } from '../posts/pullout.js';
import type { HoldCheck } from '../report/schema.js';
import { wireOf } from '../wire/wires.js';
import { carriedBy, tieBackOf, type Both, type Built, type Carried } from './assembly.js';
import { sideHold } from './embedment.js';
import { beamOf, railOf, widthOf } from './materials.js';
import { pullOf, type Pulled } from './statics.js';

export interface Judged {
  readonly forces: Both;
  readonly checks: readonly HoldCheck[];
  /** The check with the greatest share. */
  readonly weakest: HoldCheck;
}

/** Where an end stands. */
export interface Stand {
  readonly soil: Soil;
  readonly setting: Setting;
}

/** @throws RangeError for measures that no assembly has */
export function judge(b: Built, pulled: Pulled, on: Stand, cat: Catalogue): Judged {
  const forces = carriedBy(b, pulled, on.soil, cat);
  const worst = (key: keyof Carried) =>
    Math.max(forces.embedded[key], forces.hinged?.[key] ?? -Infinity);
  const { soil, setting } = on;
  const kind = recordOf(cat.posts, b.post);
  const checks: HoldCheck[] = [];
  const check = (of: HoldCheck['of'], asked: number, gives: number, safety: number, unit: HoldCheck['unit'] = 'N') => // prettier-ignore
    checks.push({ of, asked, gives, unit, safety, share: asked > 0 ? (asked * safety) / Math.max(gives, 1e-9) : 0 }); // prettier-ignore

  const alone = b.kind === 'post';
  const footSafety = figure(cat, alone ? 'ends.aloneSafety' : 'ends.footSafety');
  const { pull_total_N: F, overturning_moment_Nm: M } = pullOf(pulled);
  check(
    'lift',
    Math.max(0, worst('lift_N')),
    liftHold(b, on, cat),
    figure(cat, 'posts.upliftSafety'),
  );
  const side = { depth_m: b.depth_m, width_m: widthOf(kind) + 2 * setWidth(setting), load_height_m: alone && F > 0 ? M / F : 0, upright: !alone }; // prettier-ignore
  check('foot', worst('foot_N'), sideHold(soil, side), footSafety);
  if (b.kind !== 'post' && b.kind !== 'tie-back')
    check('second', worst('secondFoot_N'), secondHold(b, on, cat), figure(cat, 'ends.footSafety'));
  if (worst('leg_N') > 0) {
    const leg = figure(cat, 'ends.legShare') * wireOf(usual('wire'), cat).joint_break_N;
    check('wire', worst('leg_N'), leg, 1);
  }
  if (worst('rail_N') > 0) {
    const length = b.kind === 'h' || b.kind === 'double-h' ? b.rail_m : Math.hypot(b.rail_m, b.railHeight_m); // prettier-ignore
    check('rail', worst('rail_N'), railOf(length, cat).buckles_N, figure(cat, 'ends.railSafety'));
  }
  check('bend', worst('moment_Nm'), beamOf(kind, cat).bears_Nm, 1, 'Nm');
  if (b.kind === 'tie-back') {
    const t = tieBackOf(b, pulled, soil, cat);
    const at = figure(cat, 'ends.footSafety');
    const log = logHold(soil, t, cat);
    // The worse of being dragged and being lifted.
    const dragged = t.anchor_horizontal_N / log.along_N > t.anchor_uplift_N / log.up_N;
    check('log', dragged ? t.anchor_horizontal_N : t.anchor_uplift_N, dragged ? log.along_N : log.up_N, at); // prettier-ignore
  }
  return { forces, checks, weakest: weakestOf(checks) };
}

/** The check of which the greatest share is used. */
export const weakestOf = (checks: readonly HoldCheck[]): HoldCheck =>
  checks.reduce((a, c) => (c.share > a.share ? c : a));

/** To what a leg of the brace wire, the tie or the guy is twisted or ratcheted, N; 0 without one. */
export const twistOf = ({ hinged, embedded }: Both, cat: Catalogue): number =>
  figure(cat, 'ends.twist') * Math.max(embedded.leg_N, hinged?.leg_N ?? 0);

/** Concrete round a post is as good as a thicker post; what is tamped in is ground again. */
const setWidth = (setting: Setting): number => (setting.wait_h >= 24 ? setting.room_m : 0);

/** Pull-out of the end post as it is set, N. */
function liftHold(b: Pick<Built, 'post' | 'depth_m'>, { soil, setting }: Stand, cat: Catalogue) {
  const kind = recordOf(cat.posts, b.post);
  return pullOutForce({
    perimeter_m: kind.perimeter_m + 2 * Math.PI * setWidth(setting),
    depth_m: b.depth_m,
    neglect_depth_m: figure(cat, 'posts.neglectDepth'),
    adhesion_Pa: soil.adhesion_Pa,
    growth_N_per_m3: soil.shaftGrowth_N_per_m3,
    post_mass_kg: kind.mass_kg,
    factor: setting.shaft,
  });
}

/** What the ground gives beside the second post, or the foot of a stay, N. */
function secondHold(b: Built, { soil, setting }: Stand, cat: Catalogue): number {
  if (b.second && (b.kind !== 'stay' || b.foot === 'post')) {
    const stay = b.kind === 'stay';
    return sideHold(soil, {
      depth_m: stay ? figure(cat, 'ends.picketDepth') : b.depth_m,
      width_m: widthOf(recordOf(cat.posts, b.second)) + 2 * setWidth(setting),
      load_height_m: 0,
      upright: !stay,
    });
  }
  return sideHold(soil, {
    depth_m: figure(cat, 'ends.blockDepth'),
    width_m: figure(cat, 'ends.blockWidth'),
    load_height_m: 0,
    upright: true,
  });
}

/** What the usual buried log gives along the ground and upwards, N. */
function logHold(soil: Soil, t: ReturnType<typeof tieBackOf>, cat: Catalogue) {
  const f = (key: string) => figure(cat, `ends.log${key}`);
  const [w, L, top, out] = [f('Width'), f('Length'), f('Top'), 2 * f('Spread') * f('Top')];
  const face = w * L;
  const clay = f('Clay') * soil.su_Pa * face;
  return {
    along_N: Math.max(t.deadman_horizontal_capacity_N, clay),
    up_N: (soil.gamma_N_per_m3 * top * (face + (w + out) * (L + out))) / 2,
  };
}
