/** The other ways in which one end could be built, side by side. */
import { recordOf, figure, type Catalogue } from '../plan/catalogue.js';
import { outFor } from '../posts/kinds.js';
import type { Line } from '../plan/schema.js';
import type { EndReport } from '../report/schema.js';
import type { Built } from './assembly.js';
import { poleEmbedment } from './embedment.js';
import { judge, type Judged } from './judge.js';
import { widthOf } from './materials.js';
import { railLength, usualBuilt, type Wanted } from './propose.js';
import type { Pulled } from './statics.js';

/** One way of building an end, with what it carries. */
export interface Option {
  readonly built: Built;
  readonly judged: Judged;
  /** By the building code, as if nothing braced the post, m. */
  readonly codeDepth_m: number;
  /** As it stands in the plan. */
  readonly own: boolean;
}

/** The strands of an end as they pull it. */
export const pulledOf = ({ strands }: Pick<EndReport, 'strands'>): Pulled => ({
  strand_heights_m: strands.map(([h]) => h),
  strand_tensions_N: strands.map(([, t]) => t),
});

/** An end as it stands, with all its measures. */
export const builtOf = (e: EndReport): Built => ({
  kind: e.kind,
  rail_m: e.rail_m,
  railHeight_m: e.railHeight_m,
  rise_m: e.rise_m,
  foot: e.foot,
  wire: e.wire,
  post: e.post,
  second: e.second,
  depth_m: e.depth_m,
  ...(e.shared ? { shared: true } : {}),
});

/** What an end waits for, from what is said of it. */
export function wantedOf(
  e: EndReport,
  line: Pick<Line, 'strands'>,
  frost_m: number,
  cat: Catalogue,
): Wanted {
  return {
    side: e.side,
    pulled: pulledOf(e),
    soil: recordOf(cat.soils, e.soil),
    setting: e.setting,
    post: e.post,
    out_m: outFor(line.strands, cat),
    topStrand_m: Math.max(...e.strands.map(([h]) => h)),
    railHeight_m: e.railHeight_m,
    grade: e.grade,
    frost_m,
    strung_N: 0,
    long: false,
    room_m: e.shared ? e.rail_m : Infinity,
    gate: e.role === 'gate',
    behind: e.role !== 'gate',
  };
}

/** Every kind that could stand at an end, its own first as it is, the others as they are usual here. */
export function optionsFor(
  e: EndReport,
  line: Pick<Line, 'strands'>,
  frost_m: number,
  cat: Catalogue,
): Option[] {
  const w = wantedOf(e, line, frost_m, cat);
  const on = { soil: w.soil, setting: recordOf(cat.settings, e.setting) };
  const option = (built: Built, own: boolean): Option => {
    const judged = judge(built, w.pulled, on, cat);
    return { built, judged, codeDepth_m: codeDepth(built, judged, w, cat), own };
  };
  const steel = recordOf(cat.posts, e.post).conducts;
  const kinds: Built['kind'][] =
    e.side === 'bend' ? ['post', 'stay', 'tie-back']
    : steel ? ['concreted', 'tie-back']
    : ['h', 'double-h', 'n', 'stay', 'tie-back']; // prettier-ignore
  const others = kinds.filter((k) => k !== e.kind && (w.behind || k !== 'tie-back'));
  return [
    option(builtOf(e), true),
    ...others.map((kind) => option(usualBuilt(kind, w, cat), false)),
  ];
}

/** Depth by the building code for the pull that the foot of the end post has to give back, m. */
function codeDepth(b: Built, { forces }: Judged, w: Wanted, cat: Catalogue): number {
  const F = Math.max(forces.embedded.foot_N, forces.hinged?.foot_N ?? 0);
  const moment = w.pulled.strand_heights_m.reduce((m, h, k) => m + h * w.pulled.strand_tensions_N[k]!, 0); // prettier-ignore
  const all = w.pulled.strand_tensions_N.reduce((s, t) => s + t, 0);
  return poleEmbedment({
    lateral_load_N: F,
    load_height_m: b.kind === 'post' && all > 0 ? moment / all : 0,
    post_width_m: widthOf(recordOf(cat.posts, b.post)),
    lateral_bearing_kPa_per_m: w.soil.lateral_kPa_per_m,
    bearing_factor: figure(cat, 'ends.codeMoves'),
  }).depth_m;
}

/** What the end post lifts with against the length of the rail, for the schools and this end. */
export function railCurve(
  e: EndReport,
  line: Pick<Line, 'strands'>,
  frost_m: number,
  cat: Catalogue,
) {
  const w = wantedOf(e, line, frost_m, cat);
  const on = { soil: w.soil, setting: recordOf(cat.settings, e.setting) };
  const own = e.kind === 'double-h' ? 'double-h' : e.kind === 'n' ? 'n' : 'h';
  const base = e.kind === own ? builtOf(e) : usualBuilt(own, w, cat);
  const free = { ...base, shared: false };
  const at = (heights: number) => {
    const rail_m = heights * w.topStrand_m;
    const { forces } = judge({ ...free, rail_m, rise_m: e.grade * rail_m }, w.pulled, on, cat);
    return { heights, rail_m, hinged_N: forces.hinged!.lift_N, embedded_N: forces.embedded.lift_N };
  };
  return {
    curve: Array.from({ length: 19 }, (_, k) => at(1.2 + 0.1 * k)),
    schools: [1.5, 2, 2.5].map(at),
    own: at(e.kind === own ? e.rail_m / w.topStrand_m : railLength(figure(cat, 'ends.railHeights'), w, cat) / w.topStrand_m), // prettier-ignore
  };
}
