/** Where a line is strained off: each end, corner and gate with the posts that are set there and what holds them. */
import { addedPosts, fittings, holeTakes } from '../ends/takes.js';
import { sum } from '../base/numbers.js';
import { say } from '../base/units.js';
import { recordOf } from '../plan/catalogue.js';
import { JOIN_TOLERANCE, planLength, stations } from '../plan/geometry.js';
import type { Gate, Line } from '../plan/schema.js';
import type { EndReport, Post } from '../report/schema.js';
import { isLinePost } from '../supplies/kit.js';
import type { Items } from '../supplies/takeoff.js';
import type { Made } from './made.js';

export interface WorkPlace {
  /** Of its line: the gate, or the vertex at which it stands; else where. */
  readonly key: string;
  readonly from_m: number;
  readonly to_m: number;
  readonly gate: Gate | null;
  readonly ends: readonly EndReport[];
  /** Posts that the line brings: at the place, and of its braces. */
  readonly posts: readonly Post[];
  /** In words: `the corner at 98 m`. */
  readonly words: string;
}

const near = (a: number, b: number) => Math.abs(a - b) <= JOIN_TOLERANCE;

/** The places of a line, in order along it; none where its posts stand already or all its wire is kept. */
export function placesOf(line: Line, made: Made): WorkPlace[] {
  if (line.standing || line.strands.every((s) => s.kept)) return [];
  const report = made.lines[line.id]!;
  const gates = made.gates[line.id] ?? [];
  const at: { from_m: number; to_m: number; gate: Gate | null; ends: EndReport[] }[] = [];
  for (const e of report.ends) {
    const gate = gates.find((g) => Math.abs(e.at_m - g.at_m) <= g.width_m / 2 + JOIN_TOLERANCE) ?? null; // prettier-ignore
    const same = at.find((p) => (gate ? p.gate === gate : !p.gate && near(p.from_m, e.at_m)));
    if (!same) at.push({ from_m: e.at_m, to_m: e.at_m, gate, ends: [e] });
    else {
      same.from_m = Math.min(same.from_m, e.at_m);
      same.to_m = Math.max(same.to_m, e.at_m);
      same.ends.push(e);
    }
  }
  const posts = made.stood[line.id]!.own.filter((p) => !isLinePost(p));
  const off = (p: Post, w: (typeof at)[number]) => Math.max(w.from_m - p.s_m, p.s_m - w.to_m, 0);
  const owner = posts.map((p) => at.reduce((best, w) => (off(p, w) < off(p, best) ? w : best), at[0]!)); // prettier-ignore
  return at.map((w) => ({
    ...w,
    key: w.gate?.id ?? vertexAt(line, w.from_m) ?? `m${Math.round(w.from_m)}`,
    posts: posts.filter((_, k) => owner[k] === w),
    words: wordsOf(w, line, made),
  }));
}

function vertexAt(line: Line, s: number): string | null {
  const k = stations(line.vertices).findIndex((at) => near(at, s));
  return line.vertices[k]?.id ?? null;
}

function wordsOf(
  { gate, from_m, ends }: Pick<WorkPlace, 'gate' | 'from_m' | 'ends'>,
  line: Line,
  { plan }: Made,
): string {
  if (gate) return gate.name || `the gate at ${say(gate.at_m, 'length', plan.units)}`;
  if (from_m <= JOIN_TOLERANCE) return 'the start';
  if (near(from_m, planLength(line))) return 'the far end';
  const what = ends[0]!.side === 'bend' ? 'bend' : 'corner';
  return `the ${what} at ${say(from_m, 'length', plan.units)}`;
}

/** What its holes take, and its posts. */
export function setParts({ posts, ends }: WorkPlace, { stood, cat }: Made, line: string): Items {
  const { brought } = stood[line]!;
  const out: Items[number][] = posts.map((p) => [recordOf(cat.posts, p.kind).price, 1, p.s_m]);
  const set = new Set<number>();
  for (const e of ends) {
    const put = (post: string) => {
      for (const [item, n] of holeTakes(e.setting, post, e.depth_m, cat))
        out.push([item, n, e.at_m]);
    };
    addedPosts(e).forEach(put);
    if (!brought.some((s) => near(s, e.at_m)) && !set.has(e.at_m)) put(e.post);
    set.add(e.at_m);
  }
  return out.filter(([, n]) => n > 0);
}

/** Rails, pins, brace wire, staples. */
export const braceParts = ({ ends }: WorkPlace, cat: Made['cat']): Items =>
  ends.flatMap((e) =>
    fittings(e, cat).map(([item, n, use]): Items[number] => [item, n, e.at_m, use]),
  );

/** Hours of setting its posts, and of holding them, each with what it counts. */
export function placeHours({ ends, posts }: WorkPlace, cat: Made['cat']) {
  const setting = ends[0]!.setting;
  const braced = ends.filter((e) => fittings(e, cat).length > 0);
  return {
    set_h: posts.length * recordOf(cat.settings, setting).hours,
    setting,
    braced: braced.length,
    brace_h: sum(braced.map((e) => recordOf(cat.ends, e.kind).hours)),
    /** The longest wait of its settings, h. */
    wait_h: Math.max(...ends.map((e) => recordOf(cat.settings, e.setting).wait_h)),
  };
}
