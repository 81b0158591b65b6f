/**
 * The elevation of an end from its own figures, in metres: x along the fence away from the end post, y up from the
 * ground there. Whoever draws it turns it round and scales it.
 */
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import type { EndReport } from '../report/schema.js';
import { levelRise, type Both, type Built } from './assembly.js';
import { widthOf } from './materials.js';

export type XY = readonly [x_m: number, y_m: number];

export interface DrawnPost {
  readonly x_m: number;
  readonly width_m: number;
  readonly top_m: number;
  /** Ground at it, and its foot. */
  readonly ground_m: number;
  readonly foot_m: number;
  /** What fills its hole: width and from where to where. */
  readonly fill: {
    readonly width_m: number;
    readonly from_m: number;
    readonly to_m: number;
  } | null;
}

/** A force as an arrow: where it acts, and which way. */
export interface DrawnForce {
  readonly of: 'pull' | 'rail' | 'wire' | 'lift' | 'down' | 'guy' | 'strut';
  readonly at: XY;
  readonly to: XY;
  readonly N: number;
}

export interface EndDrawing {
  readonly ground: readonly XY[];
  readonly posts: readonly DrawnPost[];
  /** Rails and struts. */
  readonly bars: readonly { readonly from: XY; readonly to: XY; readonly strut: boolean }[];
  /** Wires: which diagonal is right, and those that do nothing under the fence's pull. */
  readonly wires: readonly { readonly from: XY; readonly to: XY; readonly idle: boolean }[];
  readonly strands: readonly {
    readonly y_m: number;
    readonly from_m: number;
    readonly to_m: number;
  }[];
  /** Pins: from, to. */
  readonly pins: readonly { readonly from: XY; readonly to: XY }[];
  readonly log: { readonly at: XY; readonly side_m: number } | null;
  readonly block: XY | null;
  readonly forces: readonly DrawnForce[];
  readonly left_m: number;
  readonly right_m: number;
  readonly top_m: number;
  readonly bottom_m: number;
}

/** Pins: half of each stays out, m. */
export const PIN_END = 0.125;
export const PIN_THROUGH = 0.25;
/** The longest arrow, m. */
const ARROW = 0.75;

type Drawn = Built & Pick<EndReport, 'strands' | 'side' | 'setting'>;

export function endDrawing(e: Drawn, forces: Both, cat: Catalogue): EndDrawing {
  const rise = levelRise(e);
  const slope = rise / e.rail_m;
  const bays = e.kind === 'double-h' ? 2 : 1;
  const tall = Math.max(...e.strands.map(([h]) => h)) + figure(cat, 'posts.aboveTop');
  const reach = e.kind === 'post' ? 1.6 : e.kind === 'tie-back' ? 1.6 : bays * e.rail_m;
  const g = (x: number) => slope * x;
  const post = (x: number, id: string, topOver: number, depth = e.depth_m): DrawnPost => {
    const width_m = widthOf(recordOf(cat.posts, id));
    return { x_m: x, width_m, top_m: g(x) + topOver, ground_m: g(x), foot_m: g(x) - depth, fill: fillAt(e, id, g(x), depth, cat) }; // prettier-ignore
  };
  const railY = e.railHeight_m;
  const foot = figure(cat, 'ends.wireFoot');
  const posts = [post(0, e.post, tall)];
  const bars: EndDrawing['bars'][number][] = [];
  const wires: EndDrawing['wires'][number][] = [];
  const pins: EndDrawing['pins'][number][] = [];
  let log: EndDrawing['log'] = null;
  let block: XY | null = null;
  const w0 = posts[0]!.width_m / 2;
  if (e.kind === 'h' || e.kind === 'double-h') {
    for (let p = 0; p < bays; p++) {
      const [a, b] = [p * e.rail_m, (p + 1) * e.rail_m];
      posts.push(post(b, e.second ?? e.post, Math.max(tall, railY - g(b) + 0.1)));
      const w1 = posts.at(-1)!.width_m / 2;
      bars.push({ from: [a + (p === 0 ? w0 : w1), railY], to: [b - w1, railY], strut: false });
      pins.push({ from: [a + (p === 0 ? w0 : w1) - PIN_END / 2, railY], to: [a + (p === 0 ? w0 : w1) + PIN_END / 2, railY] }); // prettier-ignore
      pins.push({ from: [b - w1 - 0.05, railY], to: [b - w1 - 0.05 + PIN_THROUGH, railY] });
      const good = { from: [a, g(a) + foot] as XY, to: [b, railY] as XY };
      const bad = { from: [b, g(b) + foot] as XY, to: [a, railY] as XY };
      if (e.wire !== 'brace') wires.push({ ...good, idle: false });
      if (e.wire !== 'end') wires.push({ ...bad, idle: true });
    }
  } else if (e.kind === 'n') {
    posts.push(post(e.rail_m, e.second ?? e.post, tall));
    bars.push({ from: [w0, railY], to: [e.rail_m - 0.05, g(e.rail_m) + foot], strut: true });
    wires.push({ from: [0, foot], to: [e.rail_m, g(e.rail_m) + foot], idle: false });
  } else if (e.kind === 'stay' || e.kind === 'concreted') {
    if (e.second && e.foot === 'post')
      posts.push(post(e.rail_m, e.second, tall, figure(cat, 'ends.picketDepth'))); // prettier-ignore
    else block = [e.rail_m, g(e.rail_m)];
    const short = e.second && e.foot === 'post' ? 0.06 : 0;
    bars.push({ from: [w0, railY], to: [e.rail_m - short, g(e.rail_m) + 0.02], strut: true });
  } else if (e.kind === 'tie-back') {
    const side_m = figure(cat, 'ends.logWidth');
    const deep = figure(cat, 'ends.logTop') + side_m / 2;
    const further = -e.rail_m - (deep * e.rail_m) / railY;
    log = { at: [further, -deep], side_m };
    wires.push({ from: [0, railY], to: [further, -deep], idle: false });
  }
  return {
    ground: [
      [log ? log.at[0] - 0.6 : -0.9, 0],
      [0, 0],
      [reach + 1.7, g(reach + 1.7)],
    ],
    posts,
    bars,
    wires,
    strands: e.strands.map(([h]) => ({ y_m: h, from_m: 0, to_m: reach + 1.6 })),
    pins,
    log,
    block,
    forces: arrows(e, forces, reach, g),
    left_m: log ? log.at[0] - 0.6 : -0.9,
    right_m: reach + 1.7,
    top_m: Math.max(tall, tall + g(reach + 1.7)) + 0.12,
    bottom_m: Math.min(...posts.map((p) => p.foot_m), log ? log.at[1] - 0.2 : 0) - 0.2,
  };
}

/** What a hole is filled with, where it is filled. */
function fillAt(
  { setting }: Drawn,
  id: string,
  ground: number,
  depth: number,
  cat: Catalogue,
): DrawnPost['fill'] {
  const { room_m } = recordOf(cat.settings, setting);
  if (room_m === 0) return null;
  const kind = recordOf(cat.posts, id);
  const topless = setting === 'concrete' && !kind.conducts ? figure(cat, 'ends.topBelow') : 0;
  const deep = setting === 'wet' ? (depth * 2) / 3 : depth;
  return { width_m: widthOf(kind) + 2 * room_m, from_m: ground - topless, to_m: ground - deep };
}

/** Arrows to one scale: the greatest force is the longest. */
function arrows(
  e: Drawn,
  { hinged, embedded }: Both,
  reach: number,
  g: (x: number) => number,
): DrawnForce[] {
  const worst = (key: keyof typeof embedded) => Math.max(embedded[key], hinged?.[key] ?? -Infinity);
  const pull = e.strands.reduce((sum, [, t]) => sum + t, 0);
  const height = e.strands.reduce((sum, [h, t]) => sum + h * t, 0) / Math.max(pull, 1e-9);
  const out: { of: DrawnForce['of']; at: XY; dir: XY; N: number }[] = [
    { of: 'pull', at: [reach + 0.35, g(reach) + height], dir: [1, 0], N: pull },
  ];
  const lift = worst('lift_N');
  if (lift > 0) out.push({ of: 'lift', at: [0, -0.15], dir: [0, 1], N: lift });
  const unit = (a: XY, b: XY): XY => {
    const d = Math.hypot(b[0] - a[0], b[1] - a[1]);
    return [(b[0] - a[0]) / d, (b[1] - a[1]) / d];
  };
  const railY = e.railHeight_m;
  const bay = e.rail_m;
  if (e.kind === 'h' || e.kind === 'double-h') {
    out.push({ of: 'rail', at: [bay * 0.62, railY], dir: [-1, 0], N: worst('rail_N') });
    out.push({ of: 'wire', at: [bay * 0.34, 0.1 + (railY - 0.1) * 0.34], dir: unit([0, 0.1], [bay, railY]), N: worst('wire_N') }); // prettier-ignore
    out.push({ of: 'down', at: [reach, g(reach) - 0.15], dir: [0, -1], N: worst('secondDown_N') });
  } else if (e.kind === 'n' || e.kind === 'stay' || e.kind === 'concreted') {
    out.push({ of: 'strut', at: [bay * 0.45, railY * 0.55 + g(bay) * 0.45], dir: unit([bay, g(bay)], [0, railY]), N: worst('rail_N') }); // prettier-ignore
    if (e.kind === 'n') out.push({ of: 'wire', at: [bay * 0.4, 0.1], dir: unit([0, 0], [bay, g(bay)]), N: worst('wire_N') }); // prettier-ignore
    out.push({ of: 'down', at: [bay, g(bay) - 0.15], dir: [0, -1], N: worst('secondDown_N') });
  } else if (e.kind === 'tie-back') {
    out.push({ of: 'guy', at: [-bay * 0.4, railY * 0.6], dir: unit([0, railY], [-bay, 0]), N: worst('wire_N') }); // prettier-ignore
  }
  const most = Math.max(...out.map((f) => f.N), 1e-9);
  return out
    .filter((f) => f.N > 0.02 * most)
    .map(({ of, at, dir, N }) => {
      const long = Math.max(0.12, (ARROW * N) / most);
      return { of, at, to: [at[0] + dir[0] * long, at[1] + dir[1] * long], N };
    });
}
