/** One fence made into two, each with a unit of its own: lines parted where the two would touch. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import { pointAt, planLength } from '../plan/geometry.js';
import { legIndexOf, segmentsApart } from '../plan/legIndex.js';
import { meetingsOf, type Meeting } from '../plan/meets.js';
import type { Line, Plan, Point } from '../plan/schema.js';
import { topologyOf } from '../plan/topology.js';
import { addEnergiser } from './edits.js';
import { keepPlaces } from './places.js';

export interface Split {
  /** Lines that the new unit feeds. */
  readonly lines: readonly string[];
  /** Where lines were parted. */
  readonly gaps: readonly { readonly line: string; readonly at: Point; readonly wide_m: number }[];
  readonly energiser: string;
}

const END = 0.35;
/** Furthest that an end is drawn back, m. */
const MOST_BACK = 15;
const isEnd = (line: Line, s: number) => s <= END || s >= planLength(line) - END;

/**
 * Parts the lines that hang on an energiser into two fences of about the same length, in place.
 * The gaps must be closed with something that does not conduct: a wooden gate, a hedge, a wall.
 * @returns null where they cannot be parted at ends of lines; the plan may then be half changed
 */
export function splitFence(plan: Plan, energiser: string, cat: Catalogue): Split | null {
  const unit = plan.energisers[energiser];
  if (!unit?.line || !plan.lines[unit.line]) return null;
  const before = topologyOf(plan.lines, {});
  const ids = before.groups.find((g) => g.includes(unit.line!)) ?? [];
  const own = new Set(ids);
  const met = meetingsOf(plan.lines).filter((m) => m.a !== m.b && own.has(m.a) && own.has(m.b));
  const moved = halfOf(plan, unit.line, ids, met);
  if (!moved || moved.size === ids.length) return null;
  const least = figure(cat, 'land.networksApart') + 0.05;
  const gaps: { line: string; at: Point; wide_m: number }[] = [];
  // Every end that stands at, or too close to, a line of the other fence; an end that is locked waits for the other.
  for (const id of [...ids].sort(
    (a, b) => Number(plan.lines[a]!.locked ?? 0) - Number(plan.lines[b]!.locked ?? 0),
  )) {
    const line = plan.lines[id]!;
    const others = Object.fromEntries(
      ids.filter((o) => moved.has(o) !== moved.has(id)).map((o) => [o, plan.lines[o]!]),
    );
    for (const start of [true, false]) {
      const gap = drawBack(plan, line, start, others, least);
      if (!gap || (gap.wide_m > 0 && line.locked)) return null;
      if (gap.wide_m > 0) gaps.push(gap);
    }
  }
  const lines = [...moved];
  const longest = lines.reduce((a, b) => (planLength(plan.lines[b]!) > planLength(plan.lines[a]!) ? b : a)); // prettier-ignore
  const vertices = plan.lines[longest]!.vertices;
  const added = addEnergiser(plan, pointAt(vertices, planLength(plan.lines[longest]!) / 2), 5);
  const { model, plate, rods, rodLength_m, rodDiameter_m, rodSpacing_m } = unit;
  Object.assign(plan.energisers[added]!, { model, rods, rodLength_m, rodDiameter_m, rodSpacing_m, ...(plate ? { plate } : {}) }); // prettier-ignore
  // Afresh: what is remembered of lines by identity does not see them change in the hand.
  const now = JSON.parse(JSON.stringify(plan.lines)) as Plan['lines'];
  const after = topologyOf(now, {}).groups.filter((g) => g.some((id) => own.has(id)));
  // Two fences, each whole: else a part of them would be dead.
  return after.length === 2 ? { lines, gaps, energiser: added } : null;
}

/** About half of the fence by length, hanging together, far from where the unit feeds. */
function halfOf(
  plan: Plan,
  feed: string,
  ids: readonly string[],
  met: readonly Meeting[],
): Set<string> | null {
  // Lines that do not end where they meet stay together.
  const up = new Map(ids.map((id) => [id, id]));
  const root = (id: string): string => (up.get(id) === id ? id : root(up.get(id)!));
  for (const m of met)
    if (!isEnd(plan.lines[m.a]!, m.sa) && !isEnd(plan.lines[m.b]!, m.sb))
      up.set(root(m.a), root(m.b));
  const length = new Map<string, number>();
  for (const id of ids)
    length.set(root(id), (length.get(root(id)) ?? 0) + planLength(plan.lines[id]!));
  const next = new Map<string, Set<string>>([...length.keys()].map((r) => [r, new Set()]));
  for (const m of met) {
    const [a, b] = [root(m.a), root(m.b)];
    if (a === b) continue;
    next.get(a)!.add(b);
    next.get(b)!.add(a);
  }
  const home = root(feed);
  const order = [home];
  for (let k = 0; k < order.length; k++)
    for (const n of next.get(order[k]!)!) if (!order.includes(n)) order.push(n);
  const whole = [...length.values()].reduce((a, b) => a + b, 0);
  const taken = new Set<string>();
  const queue = [order.at(-1)!];
  let sum = 0;
  while (queue.length && sum < 0.45 * whole) {
    const one = queue.shift()!;
    if (one === home || taken.has(one)) continue;
    taken.add(one);
    sum += length.get(one)!;
    queue.push(...[...next.get(one)!].sort((a, b) => order.indexOf(b) - order.indexOf(a)));
  }
  // What no longer hangs on the first unit goes along.
  const left = new Set([home]);
  for (const one of left) for (const n of next.get(one)!) if (!taken.has(n)) left.add(n);
  const out = new Set(ids.filter((id) => !left.has(root(id))));
  return out.size > 0 ? out : null;
}

/** Draws the end of a line back until it stands clear of others; null: it would be nothing any more. */
function drawBack(
  plan: Plan,
  line: Line,
  start: boolean,
  others: Plan['lines'],
  least: number,
): { line: string; at: Point; wide_m: number } | null {
  const index = legIndexOf(others);
  const clear = (a: Point, b: Point) => {
    const [w, e] = [Math.min(a.e, b.e) - least, Math.max(a.e, b.e) + least];
    const [s, n] = [Math.min(a.n, b.n) - least, Math.max(a.n, b.n) + least];
    return index.within(w, s, e, n).every(([id, leg]) => {
      const { vertices } = others[id]!;
      return segmentsApart(a, b, vertices[leg]!, vertices[leg + 1]!) >= least;
    });
  };
  const total = planLength(line);
  const at = pointAt(line.vertices, start ? 0 : total);
  for (let back = 0; back < Math.min(MOST_BACK, total / 2); back += 0.25) {
    const s = start ? back : total - back;
    const path = pathFrom(line, s, start);
    if (!near(path).every((p, i, all) => i === 0 || clear(all[i - 1]!, p))) continue;
    if (back > 0)
      keepPlaces(plan, line.id, () => {
        const gone = path.length < line.vertices.length ? line.vertices.length - path.length : 0;
        if (start) line.vertices.splice(0, gone);
        else line.vertices.splice(line.vertices.length - gone, gone);
        const end = line.vertices[start ? 0 : line.vertices.length - 1]!;
        Object.assign(end, path[0], { kind: 'end' });
      });
    return { line: line.id, at, wide_m: back };
  }
  return null;
}

/** The first metres of a path: its other end is drawn back by itself. */
function near(path: readonly Point[]): Point[] {
  const out = [path[0]!];
  let left = MOST_BACK;
  for (let i = 1; i < path.length && left > 0; i++) {
    const [a, b] = [path[i - 1]!, path[i]!];
    const d = Math.hypot(b.e - a.e, b.n - a.n);
    const share = Math.min(1, left / Math.max(d, 1e-9));
    out.push({ e: a.e + (b.e - a.e) * share, n: a.n + (b.n - a.n) * share });
    left -= d;
  }
  return out;
}

/** What is left of a line when its end is drawn back to a place: from there inwards. */
function pathFrom({ vertices }: Line, s: number, start: boolean): Point[] {
  let run = 0;
  const inside = vertices.filter((v, i) => {
    if (i > 0) run += Math.hypot(v.e - vertices[i - 1]!.e, v.n - vertices[i - 1]!.n);
    return start ? run > s + 0.01 : run < s - 0.01;
  });
  const cut = pointAt(vertices, s);
  return start ? [cut, ...inside] : [cut, ...inside.reverse()];
}
