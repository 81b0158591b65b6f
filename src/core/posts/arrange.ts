/**
 * The posts of one line placed by its ground: the line's limits as inputs of the placement, run by
 * run; what it saves against equal bays; and where it cannot be done, what to loosen.
 */
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import { barredOn, soilAt } from '../land/things.js';
import { pointAt } from '../plan/geometry.js';
import type { Joint } from '../plan/meets.js';
import type { Gate, Line, PatchStep, PlacedPost, Plan } from '../plan/schema.js';
import type { Requirement } from '../report/schema.js';
import { gAt, profileOf, sAtG, zAt, type Profile } from '../terrain/profile.js';
import type { Ground } from '../terrain/ground.js';
import { insulatorAt } from '../strands/insulators.js';
import { mostUnder } from '../strands/under.js';
import { bottomOf } from '../wire/bottom.js';
import { strungAt } from '../wire/strung.js';
import { tensionAt } from '../wire/strain.js';
import { wireOf } from '../wire/wires.js';
import { placeGreedy, placeUniform } from './baselines.js';
import { ANY_STOCK, equalBays, type HeldBay } from './bays.js';
import { kindFor, longEnough, outFor } from './kinds.js';
import { fixedPosts, longestBay, type Fixed, type PostedLine } from './layout.js';
import type { Must, PlacedKind, Placement, PlacementInputs } from './limits.js';
import { loosenings, type Loosening } from './loosen.js';
import { place } from './placement.js';
import { pullOut } from './pullout.js';

/** One strained run of a line, ready to be placed. */
export interface RunJob {
  readonly from_m: number;
  readonly to_m: number;
  readonly inputs: PlacementInputs;
  /** Plan distance along the line of every sample. */
  readonly s_m: readonly number[];
}

export interface RunResult {
  readonly from_m: number;
  readonly to_m: number;
  readonly best: Placement | null;
  readonly uniform: Placement | null;
  readonly greedy: {
    readonly posts: number;
    readonly cost: number;
    readonly lifting: number;
  } | null;
  /** Posts other than those that are fixed anyway. */
  readonly placed: readonly PlacedPost[];
  /** Why there is none: the place that nothing gets past, and each limit that would free it alone. */
  readonly stuck: { readonly at_m: number; readonly loosen: readonly Loosening[] } | null;
}

/**
 * The runs of a line as placement jobs.
 * @param requirement what the stock asks of the line; null without stock
 */
export function runJobs(
  bare: Line,
  gates: readonly Gate[],
  ground: Ground,
  requirement: Requirement | null,
  plan: Pick<Plan, 'soil' | 'things' | 'climate'>,
  cat: Catalogue,
  joints: readonly Joint[] = [],
  ends: Pick<PostedLine, 'seconds' | 'kinds'> = {},
): RunJob[] {
  if (bare.strands.length === 0) return [];
  const line = { ...bare, out_m: outFor(bare.strands, cat), ...ends };
  const profile = profileOf(line.vertices, ground, line.levels);
  const barred = barredOn(line, Object.values(plan.things ?? {}), cat);
  const fixed = fixedPosts(line, gates, joints);
  const jobs: RunJob[] = [];
  let start = 0;
  for (let i = 1; i < fixed.length; i++) {
    if (fixed[i - 1]!.opens) {
      start = i;
      continue;
    }
    if (!fixed[i]!.strains) continue;
    jobs.push(runJob(line, fixed.slice(start, i + 1), { profile, requirement, barred, plan, cat }));
    start = i;
  }
  return jobs;
}

interface On {
  readonly profile: Profile;
  readonly requirement: Requirement | null;
  readonly barred: ReturnType<typeof barredOn>;
  readonly plan: Pick<Plan, 'soil' | 'things' | 'climate'>;
  readonly cat: Catalogue;
}

function runJob(line: Line & PostedLine, fixed: readonly Fixed[], on: On): RunJob {
  const { profile, requirement, barred, plan, cat } = on;
  const held = requirement ?? ANY_STOCK;
  const [from, to] = [fixed[0]!.s, fixed.at(-1)!.s];
  const stands = musts(line, fixed, profile, held, cat);
  const { s_m, only } = samples(
    profile,
    from,
    to,
    stands.map((m) => m.s),
    figure(cat, 'posts.step'),
  );
  const rank = new Map(s_m.map((s, k) => [s, k]));
  const lengths = fixed.slice(1).map((f, i) => ({
    from: fixed[i]!.s,
    longest: longestBay(line, profile, fixed[i]!.s, f.s, held, cat).maxBay_m,
  }));
  // Short bays pull hardest in the cold and least in the heat, long ones most in the heat: whatever bays come
  // out, their pulls lie between.
  const longest = Math.max(...lengths.map((l) => l.longest));
  const tension = tensions(line, plan, figure(cat, 'posts.minBay'), longest, cat);
  const soils = s_m.map((s) => soilAt(plan, pointAt(line.vertices, s)));
  const kindOf = (id: string): PlacedKind => {
    const kind = recordOf(cat.posts, id);
    const holds = new Map<string, number>();
    const hold = (soil: string) => {
      if (!holds.has(soil)) holds.set(soil, pullOut(kind, recordOf(cat.soils, soil), cat));
      return holds.get(soil)!;
    };
    return {
      name: id,
      price: postPrice(id, line, cat),
      pullout_capacity_N: hold(plan.soil),
      pullout_by_sample_N: soils.map(hold),
    };
  };
  const longest_m = s_m.map((s) => lengths.findLast((l) => s >= l.from - 1e-9)!.longest);
  const lowest = bottomOf(line.strands, cat)!.height_m;
  return {
    from_m: from,
    to_m: to,
    s_m,
    inputs: {
      ground_s_m: s_m,
      ground_z_m: s_m.map((s) => zAt(profile, s)),
      tape_m: s_m.map((s) => gAt(profile, s)),
      strands: line.strands.length,
      tension_N: tension.cold / line.strands.length,
      sag_tension_N: tension.hot,
      sag_tension_most_N: tension.hotMost,
      wire_weight_N_per_m: tension.weight / line.strands.length,
      wire_height_low_m: lowest,
      clearance_min_m: Math.min(figure(cat, 'posts.clearanceMin'), lowest),
      clearance_max_m: mostUnder(lowest, requirement, cat) + (line.fill_m ?? 0),
      max_spacing_m: longest,
      min_spacing_m: figure(cat, 'posts.minBay'),
      longest_m,
      safety_factor: figure(cat, 'posts.upliftSafety'),
      post_kinds: kindsFor(line, cat).map(kindOf),
      barred: s_m.map((s) => only.has(s) || barred.some((b) => s > b.from_m && s < b.to_m)),
      musts: stands
        .filter((m) => m.s > from && m.s < to)
        .map((m): Must => ({
          at: rank.get(m.s)!,
          ...(m.kind
            ? { kind: { ...kindOf(m.kind), price: m.free ? 0 : postPrice(m.kind, line, cat) } }
            : {}),
        })),
    },
  };
}

/** What stands anyway: fixed posts, and those of stretches with equal bays. */
function musts(
  line: PostedLine,
  fixed: readonly Fixed[],
  p: Profile,
  held: HeldBay,
  cat: Catalogue,
) {
  const out: { s: number; kind: string | null; free: boolean }[] = [];
  fixed.forEach((f, i) => {
    const own = f.role === 'line' ? f.kind : (f.kind ?? kindFor(f.role, line, line.out_m, cat));
    out.push({ s: f.s, kind: own, free: f.role !== 'line' });
    const next = fixed[i + 1];
    if (!f.equal || !next) return;
    const { maxBay_m } = longestBay(line, p, f.s, next.s, held, cat);
    const g0 = gAt(p, f.s);
    const { bays, bay_m } = equalBays(gAt(p, next.s) - g0, maxBay_m, 'maximum');
    for (let k = 1; k < bays; k++)
      out.push({ s: sAtG(p, g0 + k * bay_m), kind: null, free: false });
  });
  return out;
}

/**
 * Places where a post may stand: to the millimetre and a step apart, with the musts among them; between
 * them every sample of the profile, so that no ground is missed. Beside a must no post stands, but the
 * ground there counts (`only`).
 */
function samples(p: Profile, from: number, to: number, musts: readonly number[], step: number) {
  const keep = [...new Set([from, ...musts, to])].sort((a, b) => a - b);
  const mm = (s: number) => Math.round(s * 1000) / 1000;
  const free = new Set<number>();
  for (let k = 1; from + k * step < to; k++) free.add(mm(from + k * step));
  for (const s of p.s) free.add(mm(s));
  const only = new Set<number>();
  const out = [...keep];
  let k = 0;
  for (const s of [...free].sort((a, b) => a - b)) {
    if (s <= from || s >= to) continue;
    while (k + 1 < keep.length && keep[k + 1]! < s) k++;
    const near = Math.min(Math.abs(s - keep[k]!), Math.abs(s - (keep[k + 1] ?? Infinity)));
    if (near < 1e-6) continue;
    if (near <= BESIDE) only.add(s);
    out.push(s);
  }
  return { s_m: out.sort((a, b) => a - b), only };
}
/** No post stands closer than this to one that must, m. */
const BESIDE = 0.05;

/** Sum of the strands' pulls on the coldest night, the least of one on the hottest day, weight. */
function tensions(
  line: Line,
  plan: Pick<Plan, 'climate'>,
  bay: number,
  longest: number,
  cat: Catalogue,
) {
  let cold = 0;
  let weight = 0;
  for (const s of line.strands) {
    cold += tensionAt(strungAt(line, s.wire, cat), bay, s.wire, plan.climate.cold_C, cat);
    weight += wireOf(s.wire, cat).weight_N_per_m;
  }
  const lowest = bottomOf(line.strands, cat)!.wire;
  const set = strungAt(line, lowest, cat);
  const hotIn = (span: number, kept: number) =>
    tensionAt(kept * set, span, lowest, plan.climate.hot_C, cat);
  // Friction is known once posts stand; until then the slackest bay has what it usually leaves.
  return {
    cold,
    hot: hotIn(bay, figure(cat, 'posts.pullLeft')),
    hotMost: hotIn(longest, 1),
    weight,
  };
}

/** The line's own kind of post, and the dearer line posts that stand in where it would lift. */
export function kindsFor(line: Line, cat: Catalogue): string[] {
  const price = (id: string) => recordOf(cat.prices, recordOf(cat.posts, id).price).price;
  return Object.entries(cat.posts)
    .filter(
      ([id, p]) =>
        id === line.post ||
        (p.use === 'line' &&
          !p.flexible &&
          // What the strands hang on stays one kind of thing along the line.
          p.takes === recordOf(cat.posts, line.post).takes &&
          price(id) > price(line.post) &&
          longEnough(id, outFor(line.strands, cat), cat)),
    )
    .map(([id]) => id);
}

/** A line post with what is fixed to it. */
function postPrice(id: string, line: Line, cat: Catalogue): number {
  const kind = recordOf(cat.posts, id);
  const price = (item: string) => recordOf(cat.prices, item).price;
  return line.strands.reduce((sum, s) => {
    const on = s.insulated ? insulatorAt(line, kind.family, kind.family, s.wire, cat) : null;
    return sum + (on === null ? 0 : price(recordOf(cat.insulators, on).price));
  }, price(kind.price));
}

/** Places one run, and everything that it is compared with. */
export function solveRun(job: RunJob): RunResult {
  const found = place(job.inputs);
  const greedy = placeGreedy(job.inputs);
  const limits = { from_m: job.from_m, to_m: job.to_m };
  const common = {
    ...limits,
    uniform: placeUniform(job.inputs),
    greedy: greedy && {
      posts: greedy.intermediate_posts,
      cost: greedy.cost,
      lifting: lifting(job, greedy),
    },
  };
  if (found.feasible && 'cost' in found) {
    const own = new Set((job.inputs.musts ?? []).map((m) => job.s_m[m.at]!));
    const placed = found.positions_m
      .slice(1, -1)
      .map((at_m, i): PlacedPost => ({
        at_m: Math.round(at_m * 1000) / 1000,
        kind: found.kinds[i]!,
      }))
      .filter((_, i) => !own.has(found.positions_m[i + 1]!));
    return { ...common, best: found, placed, stuck: null };
  }
  const at_m = 'furthest_reachable_m' in found ? found.furthest_reachable_m : job.from_m;
  return { ...common, best: null, placed: [], stuck: { at_m, loosen: loosenings(job.inputs) } };
}

function lifting(job: RunJob, p: Placement): number {
  const safe = job.inputs.safety_factor;
  const most = Math.max(...job.inputs.post_kinds.map((k) => k.pullout_capacity_N));
  return p.net_uplift_N.filter((u) => u * safe > most).length;
}

/** What the placement of a whole line comes to. */
export interface LineArrangement {
  readonly runs: readonly RunResult[];
  /** All posts between the fixed ones; null where some run has no placement. */
  readonly placed: readonly PlacedPost[] | null;
}

/** Puts the results of a line's runs together. */
export function arrangement(runs: readonly RunResult[]): LineArrangement {
  const whole = runs.length > 0 && runs.every((r) => r.best !== null);
  return { runs, placed: whole ? runs.flatMap((r) => r.placed) : null };
}

/** The change that puts an arrangement into a plan; null where there is none. */
export function placedPatch(plan: Plan, id: string, made: LineArrangement): PatchStep[] | null {
  if (!made.placed) return null;
  const op = plan.lines[id]!.placed ? 'replace' : 'add';
  return [{ op, path: `/lines/${id}/placed`, value: made.placed.map((p) => ({ ...p })) }];
}
