/** One line of the pipeline: its ground, posts, tension and requirement. */
import { figure, recordOf, type Catalogue } from './plan/catalogue.js';
import { bearing, distance, fromBearing, planLength, pointAt, stations } from './plan/geometry.js';
import type { Gate, Line, Plan } from './plan/schema.js';
import { barredOn, soilAt, stretchesNear, thingsOf } from './land/things.js';
import { clearanceUnder, fillsUnder, withUplift, type RunPull } from './posts/forces.js';
import { layOut, type Layout } from './posts/layout.js';
import { pullOut } from './posts/pullout.js';
import type { AimedLine } from './power/power.js';
import type { LineReport, Post, Requirement } from './report/schema.js';
import { effectiveGap, pushedBy, reachOf } from './strands/opening.js';
import { judge } from './strands/judge.js';
import { proposeOne } from './strands/proposal.js';
import { requirementOf } from './strands/requirement.js';
import { heightAt, type Ground } from './terrain/ground.js';
import { gAt, profileOf, zAt, type Profile } from './terrain/profile.js';
import { bottomOf } from './wire/bottom.js';
import { hotPull, strainOf, wireOf, type BayedRun } from './wire/strain.js';

export interface LineStage {
  readonly report: LineReport;
  readonly layout: Layout;
  readonly wired: AimedLine;
}

/**
 * Works out one line.
 * @param things what lies on the land, for the soil under the posts and where none may stand
 */
export function lineStage(
  line: Line,
  gates: readonly Gate[],
  ground: Ground,
  soil: string,
  things: Plan['things'],
  climate: Plan['climate'],
  cat: Catalogue,
): LineStage {
  const profile = profileOf(line.vertices, ground, 1, line.levels);
  const asked = requirementOf(line, cat);
  const laid = layOut(line, gates, profile, asked?.small ?? false, cat);
  const requirement = asked && withBay(asked, laid, cat);
  const strain = strainOf(line, baysOf(laid), climate, cat);
  const weight = line.strands.reduce((sum, s) => sum + wireOf(s.wire, cat).weight_N_per_m, 0);
  const pulls = laid.runs.map((run, k): RunPull => {
    const cold = (wire: string) => strain.find((r) => r.run === k && r.wire === wire)!.cold_N;
    const tension_N = line.strands.reduce((sum, s) => sum + cold(s.wire), 0);
    return { from_m: run.from_m, to_m: run.to_m, tension_N, weight_N_per_m: weight };
  });
  const posts = withHold(withUplift(laid.posts, pulls), { soil, things }, cat);
  const layout = { ...laid, posts };
  const lowest = bottomOf(line.strands, cat);
  const own = lowest && wireOf(lowest.wire, cat).weight_N_per_m;
  const under = lowest
    ? ([
        lowest.height_m,
        profile,
        posts,
        layout.stretches,
        own!,
        hotPull(strain, lowest.wire),
      ] as const)
    : null;
  const pushed = pushedBy(strain);
  const limit = lowest ? lowest.height_m + figure(cat, 'posts.clearanceAbove') : 0;
  const report: LineReport = {
    id: line.id,
    name: line.name,
    plan_m: planLength(line),
    ground_m: gAt(profile, Infinity),
    legs: legsOf(line, profile),
    unknownGround: profile.unknown.map(([a, b]) => [a, b] as [number, number]),
    runs: [...layout.runs],
    stretches: [...layout.stretches],
    posts,
    clearance: under && clearanceUnder(...under),
    barred: barredOn(line, Object.values(things ?? {}), cat).map((b) => ({ ...b })),
    fills: under && line.fill_m ? fillsUnder(limit, ...under) : [],
    swings: Object.fromEntries(gates.map((g) => [g.id, swings(line, g, ground)])),
    signs: signsOn(line, layout, things, cat),
    requirement,
    proposal: requirement && proposeOne(requirement, cat),
    marks: requirement ? judge(line.strands, requirement, cat, pushed) : [],
    effectiveGap_m: effectiveGap(line.strands, pushed, cat, reachOf(asked)),
    strain,
  };
  const aim_V = requirement?.aim_V ?? figure(cat, 'network.aimDefault');
  return { report, layout, wired: { line, gates, runs: layout.runs, aim_V } };
}

/** The longest bay that this ground allows, beside what the stock ask of the strands. */
function withBay(asked: Requirement, { stretches }: Layout, cat: Catalogue): Requirement {
  const ground = stretches.some((s) => s.undulating) ? 'uneven' : 'even';
  const key = `posts.${ground}${asked.small ? 'Small' : 'Large'}`;
  const value = figure(cat, key);
  const path = `defaults.${key}.value`;
  const bay = { about: 'bay' as const, profile: null, path, value, note: null, usual: value };
  return { ...asked, rows: [...asked.rows, bay] };
}

/** Warning signs: along a boundary, else where the line follows a public way. */
function signsOn(line: Line, layout: Layout, things: Plan['things'], cat: Catalogue): number {
  if (!line.strands.some((s) => s.duty === 'live')) return 0;
  const every = figure(cat, 'supplies.signEvery');
  const count = (m: number) => Math.ceil(m / every) + 1;
  if (line.boundary) return count(layout.runs.reduce((n, r) => n + r.ground_m, 0));
  const reach = figure(cat, 'land.publicReach');
  return thingsOf({ things }, 'publicWay')
    .flatMap((way) => stretchesNear(line, way, reach))
    .reduce((n, [a, b]) => n + count(b - a), 0);
}

function withHold(
  posts: readonly Post[],
  land: Pick<Plan, 'soil' | 'things'>,
  cat: Catalogue,
): Post[] {
  const known = new Map<string, number>();
  return posts.map((post) => {
    const soil = soilAt(land, post);
    const key = `${post.kind} ${soil}`;
    let holds_N = known.get(key);
    if (holds_N === undefined) {
      holds_N = pullOut(recordOf(cat.posts, post.kind), recordOf(cat.soils, soil), cat);
      known.set(key, holds_N);
    }
    return { ...post, holds_N };
  });
}

/** The bays within each run, as taped from post to post. */
export function baysOf(layout: Layout): BayedRun[] {
  return layout.runs.map((run) => {
    const own = layout.posts.filter((p) => p.s_m >= run.from_m - 1e-6 && p.s_m <= run.to_m + 1e-6);
    return { run, bays_m: own.slice(1).map((p, i) => p.tape_m - own[i]!.tape_m) };
  });
}

function legsOf(line: Line, profile: Profile): LineReport['legs'] {
  const at = stations(line.vertices);
  return line.vertices.slice(1).map((b, i) => {
    const a = line.vertices[i]!;
    const plan_m = distance(a, b);
    const rise_m = zAt(profile, at[i + 1]!) - zAt(profile, at[i]!);
    return {
      plan_m,
      ground_m: gAt(profile, at[i + 1]!) - gAt(profile, at[i]!),
      bearing_deg: bearing(a, b),
      rise_m,
      grade: plan_m === 0 ? 0 : rise_m / plan_m,
    };
  });
}

/** How much the ground rises under a gate's leaves as they open to either side, m. */
function swings(line: Line, gate: Gate, ground: Ground): LineReport['swings'][string] {
  if (ground.kind === 'flat') return { left: 0, right: 0 };
  const half = gate.width_m / 2;
  const leaf = gate.leaves === 2 ? half : gate.width_m;
  const a = pointAt(line.vertices, gate.at_m - half);
  const b = pointAt(line.vertices, gate.at_m + half);
  const closed = bearing(a, b);
  const leaves = [
    { hinge: a, start: closed, turn: 1 },
    { hinge: b, start: closed + 180, turn: -1 },
  ].filter((_, k) => gate.leaves === 2 || k === (gate.hinge === 'end' ? 1 : 0));
  const rise = (side: 1 | -1) => {
    let most = 0;
    for (const { hinge, start, turn } of leaves) {
      for (let deg = 15; deg <= 90; deg += 15) {
        const tip = fromBearing(hinge, leaf, start + side * turn * deg);
        const up = heightAt(ground, tip) - heightAt(ground, hinge);
        if (!Number.isNaN(up)) most = Math.max(most, up);
      }
    }
    return most;
  };
  return { left: rise(-1), right: rise(1) };
}
