/** A line with its wire wrapped round its corners, and the same line in separate runs from corner to corner. */
import { hoursOf } from './ends/takes.js';
import { alone, createPipeline, type Pipeline } from './pipeline.js';
import { recordOf, type Catalogue } from './plan/catalogue.js';
import { catalogue } from './plan/shipped.js';
import type { Line, Plan } from './plan/schema.js';
import { baysOf } from './posts/layout.js';
import type { LineReport } from './report/schema.js';
import { priceInUse } from './supplies/takeoff.js';
import { tyingHours } from './supplies/hours.js';
import type { Ground } from './terrain/ground.js';
import { weakestOf } from './ends/judge.js';
import { apart, strungIn } from './wire/strung.js';
import { turnsOf, type Turn } from './wire/turns.js';

export interface Way {
  readonly runs: number;
  /** Along the line, the tension of each bay at the reference temperature: its ends, m, and N; of the main wire. */
  readonly bays: readonly {
    readonly from_m: number;
    readonly to_m: number;
    readonly tension_N: number;
  }[];
  readonly least_N: number;
  readonly mean_N: number;
  /** Ends, ties and tensioners. */
  readonly hours: number;
  readonly cost: number;
  readonly tensioners: number;
  readonly ties: number;
  /** What stands at each corner. */
  readonly corners: readonly Corner[];
}

export interface Corner {
  readonly at_m: number;
  readonly turn_deg: number;
  /** What holds it. */
  readonly kinds: readonly string[];
  /** Pull of all strands on each side on the coldest night; wrapped, what both pull sideways. */
  readonly pull_N: number;
  /** The most of what holds it that is used; above 1 it does not hold. */
  readonly share: number;
}

export interface BothWays {
  readonly wire: string;
  readonly set_N: number;
  readonly separate: Way;
  readonly wrapped: Way;
  /** Which of them stands in the plan; mixed: some corners this way, some that. */
  readonly now: 'separate' | 'wrapped' | 'mixed';
  /** Changes of the plan that make it so: kinds of vertices, by their place. */
  readonly corners: readonly number[];
}

/** The line with its turns of one kind. */
export const asKind = (line: Line, turns: readonly Turn[], kind: 'corner' | 'bend'): Line => ({
  ...line,
  vertices: line.vertices.map((v, i) => (turns.some((t) => t.vertex === i) ? { ...v, kind } : v)),
});

/** Both ways of a line; null without sharp turns or strands. Worked out whole, ends and posts and all. */
export function bothWays(
  id: string,
  plan: Plan,
  ground: Ground,
  pipeline: Pipeline = createPipeline(),
): BothWays | null {
  const line = plan.lines[id];
  if (!line || line.strands.length === 0) return null;
  const { cat, joints } = pipeline(plan, ground, catalogue, { hurry: true });
  const turns = turnsOf(line, cat);
  if (turns.length === 0) return null;
  const wire =
    line.strands.find((s) => cat.wires[s.wire]!.form === 'plain')?.wire ?? line.strands[0]!.wire;
  const thought = createPipeline();
  const wayOf = (kind: 'corner' | 'bend'): Way => {
    const other = asKind(line, turns, kind);
    const asked = alone({ ...plan, lines: { ...plan.lines, [id]: other } }, id);
    const worked = thought(asked, ground, catalogue, { joints });
    const report = worked.lines[id]!;
    const cost = worked
      .counted()
      [id]!.reduce((sum, [item, n]) => sum + n * priceInUse(item, cat), 0);
    return {
      ...tensionsOf(other, report, wire, cat),
      ...workOf(other, report, cat),
      cost,
      corners: turns.map((t) => cornerOf(t, report)),
    };
  };
  const kinds = new Set(turns.map((t) => line.vertices[t.vertex]!.kind));
  return {
    wire,
    set_N: recordOf(cat.schools, line.school).tension_N,
    separate: wayOf('corner'),
    wrapped: wayOf('bend'),
    now: kinds.size > 1 ? 'mixed' : kinds.has('corner') ? 'separate' : 'wrapped',
    corners: turns.map((t) => t.vertex),
  };
}

function tensionsOf(line: Line, report: LineReport, wire: string, cat: Catalogue) {
  const bays = baysOf(report).flatMap((bayed) => {
    const { tension15_N } = strungIn(line, bayed, wire, cat);
    const posts = apart(bayed.posts);
    return [...tension15_N].map((tension_N, k) => ({ from_m: posts[k]!.s_m, to_m: posts[k + 1]!.s_m, tension_N })); // prettier-ignore
  });
  const length = bays.reduce((sum, b) => sum + b.to_m - b.from_m, 0);
  return {
    runs: report.runs.length,
    bays,
    least_N: Math.min(...bays.map((b) => b.tension_N)),
    mean_N: bays.reduce((sum, b) => sum + b.tension_N * (b.to_m - b.from_m), 0) / length,
  };
}

/** Hours of ends, ties and tensioners. */
function workOf(line: Line, report: LineReport, cat: Catalogue) {
  const strung = report.runs.length * line.strands.filter((s) => !s.kept).length;
  const ties = 2 * strung;
  const ends = report.ends.reduce((sum, e) => sum + hoursOf(e, cat), 0);
  const hours = ends + tyingHours(strung, cat);
  return { ties, tensioners: line.tensioner ? strung : 0, hours };
}

function cornerOf({ s_m, deg }: Turn, report: LineReport): Corner {
  const away = (p: { readonly s_m: number }) => Math.abs(p.s_m - s_m);
  const post = report.posts.reduce((a, b) => (away(b) < away(a) ? b : a));
  const own = report.ends.filter((e) => Math.abs(e.at_m - post.s_m) < 0.05);
  return {
    at_m: post.s_m,
    turn_deg: deg,
    kinds: own.map((e) => e.kind),
    pull_N: Math.max(0, ...own.map((e) => e.pull_N)),
    share: Math.max(0, ...own.map((e) => weakestOf(e.checks)?.share ?? 0)),
  };
}
