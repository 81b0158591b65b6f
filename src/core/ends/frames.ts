/**
 * End assemblies as frames: posts bend and stand in the ground. What they give beyond the hinged model is the greater
 * force in rail, wire and foot of posts that the ground holds upright.
 */
import { range } from '../base/numbers.js';
import { solveFrame, type Hold, type Member } from './frame.js';
import { hBrace, type HBrace, type Pulled } from './statics.js';

/** How the ground holds an embedded post: springs along it, growing with depth, and one under its foot. */
export interface Bedded {
  readonly embed_depth_m: number;
  readonly nh_N_per_m3: number;
  readonly vertical_spring_N_per_m: number;
  readonly embed_node_spacing_m: number;
  /** Of the same at every depth, N/m for each metre, as in stiff clay; absent: none. */
  readonly k0_N_per_m2?: number;
}

/** An upright post on the ground at its own height. */
export interface Upright {
  readonly x_m: number;
  readonly base_m: number;
  readonly EA_N: number;
  readonly EI_Nm2: number;
  /** Held in the ground; absent: hinged at it. */
  readonly bed?: Bedded;
}

/** A rail, strut, wire or guy between two posts, from height to height above the ground of each. */
export interface Bar {
  readonly from: readonly [post: number, height_m: number];
  readonly to: readonly [post: number, height_m: number];
  readonly EA_N: number;
}

/** What the posts and bars of an assembly carry when the strands pull its first post along x. */
export function standing(posts: readonly Upright[], bars: readonly Bar[], pulled: Pulled) {
  const nodes: [number, number][] = [];
  const members: Member[] = [];
  const holds: Hold[] = [];
  /** By post and height, which is the same to a thousandth of a micrometre. */
  const known = posts.map(() => new Map<number, number>());
  const same = (y: number) => Math.round(y * 1e9);
  const at = (p: number, y: number) => known[p]!.get(same(y))!;
  const held = posts.map((post, p) => {
    const touched = bars.flatMap(({ from, to }) => [from, to]).filter(([of]) => of === p);
    const below = post.bed ? depths(post.bed) : [];
    const heights = [0, ...touched.map(([, y]) => y), ...(p === 0 ? pulled.strand_heights_m : []), ...below]; // prettier-ignore
    const own = [...new Set(heights.map(same))].sort((a, b) => a - b);
    own.forEach((y, k) => {
      known[p]!.set(y, nodes.length);
      nodes.push([post.x_m, post.base_m + y / 1e9]);
      const [b, { EA_N, EI_Nm2 }] = [nodes.length - 1, post];
      if (k > 0) members.push({ a: b - 1, b, EA_N, EI_Nm2 });
    });
    const first = holds.length;
    if (post.bed) holds.push(...springs(post.bed, (y) => at(p, y), below));
    else holds.push({ node: at(p, 0), x_N_per_m: Infinity, y_N_per_m: Infinity });
    return [first, holds.length] as const;
  });
  const beams = members.length;
  members.push(...bars.map(({ from, to, EA_N }) => ({ a: at(...from), b: at(...to), EA_N })));
  const loads = pulled.strand_heights_m.map((h, k) => ({ node: at(0, h), x_N: pulled.strand_tensions_N[k]! })); // prettier-ignore
  const solved = solveFrame({ nodes, members, holds, loads });
  const given = (axis: 0 | 1) =>
    held.map(([a, b]) => solved.given_N.slice(a, b).reduce((s, g) => s + g[axis], 0));
  return {
    /** Of each bar, N; pull is positive. */
    bars_N: solved.axial_N.slice(beams),
    /** What the ground gives each post: against the pull, and upwards, N. */
    ground_horizontal_N: given(0).map((x) => -x),
    ground_vertical_N: given(1),
    max_moment_Nm: Math.max(...solved.moment_Nm.slice(0, beams)),
    moved_m: (p: number, height_m: number) => solved.moved[at(p, height_m)]![0],
  };
}

/** Heights of the nodes under the ground, the topmost first; at least two. */
function depths({ embed_depth_m: d, embed_node_spacing_m: each }: Bedded): number[] {
  const n = Math.max(2, Math.round(d / each));
  return range(n).map((k) => (-(k + 1) * d) / n);
}

/** Springs along a post: each node answers for half the way to its neighbours. */
function springs(bed: Bedded, at: (y: number) => number, below: readonly number[]): Hold[] {
  const each = -below[0]!;
  const beside = (depth: number, length: number) =>
    ((bed.k0_N_per_m2 ?? 0) + bed.nh_N_per_m3 * depth) * length;
  return [
    { node: at(0), x_N_per_m: beside(each / 4, each / 2), y_N_per_m: 0 },
    ...below.map((y, k): Hold => {
      const last = k === below.length - 1;
      return {
        node: at(y),
        x_N_per_m: beside(-y, last ? each / 2 : each),
        y_N_per_m: last ? bed.vertical_spring_N_per_m : 0,
      };
    }),
  ];
}

/** What the members of a brace are made of. */
export interface Stiff {
  readonly post_EA_N: number;
  readonly post_EI_Nm2: number;
  readonly rail_EA_N: number;
  /** Of one leg of the brace wire. */
  readonly brace_leg_EA_N: number;
}

/**
 * A row of posts with a level rail and a brace wire in each bay; the strands pull the first post.
 * @param bays 1: a single brace, 2: a double one
 * @param bed absent: hinged at the ground
 */
export function braceFrame(i: HBrace & Stiff, bays: 1 | 2, bed?: Bedded) {
  const rise = i.rise_m ?? 0;
  const posts = range(bays + 1).map((p): Upright => ({
    x_m: p * i.rail_length_m,
    base_m: p * rise,
    EA_N: i.post_EA_N,
    EI_Nm2: i.post_EI_Nm2,
    ...(bed ? { bed } : {}),
  }));
  // What is level stays level: lower on a post that stands on higher ground.
  const rail = (p: number) => [p, i.rail_height_m - p * rise] as const;
  const bars = range(bays).flatMap((p): Bar[] => [
    { from: rail(p), to: rail(p + 1), EA_N: i.rail_EA_N },
    {
      from: [p, i.wire_foot_height_m],
      to: [p + 1, i.wire_top_height_m - (p + 1) * rise],
      EA_N: i.brace_leg_EA_N * i.brace_wire_legs,
    },
  ]);
  const made = standing(posts, bars, i);
  const wire_N = range(bays).map((p) => made.bars_N[2 * p + 1]!);
  return {
    rail_N: range(bays).map((p) => -made.bars_N[2 * p]!),
    wire_N,
    brace_wire_leg_N: wire_N.map((w) => w / i.brace_wire_legs),
    ground_vertical_N: made.ground_vertical_N,
    ground_horizontal_N: made.ground_horizontal_N,
    // Of the end post at its rail, of the others where their wire comes to.
    top_disp_m: posts.map((_, p) =>
      p === 0 ? made.moved_m(0, i.rail_height_m) : made.moved_m(p, i.wire_top_height_m - p * rise),
    ),
    max_moment_Nm: made.max_moment_Nm,
    single_h_hinged_uplift_N: hBrace(i).end_post_uplift_N,
  };
}

/** Two braces one behind the other, posts hinged at the ground (kind `double_h`). */
export function doubleH(i: HBrace & Stiff) {
  const made = braceFrame(i, 2);
  return { ...made, equal_share_uplift_N: made.single_h_hinged_uplift_N / 2 };
}

/** One brace whose posts stand in the ground (kind `h_brace_embedded`). */
export const hBraceEmbedded = (i: HBrace & Stiff & Bedded) => braceFrame(i, 1, i);
