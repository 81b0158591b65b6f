/** Space curves of wire, mm: put together from straights, arcs and windings, then sampled evenly. */

export type Vec = readonly [x: number, y: number, z: number];

export const add = (a: Vec, b: Vec, k = 1): Vec => [a[0] + k * b[0], a[1] + k * b[1], a[2] + k * b[2]]; // prettier-ignore
export const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vec, b: Vec): Vec => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const length = (a: Vec): number => Math.hypot(...a);
export const apart = (a: Vec, b: Vec): number => length(add(a, b, -1));
export const unit = (a: Vec): Vec => {
  const l = length(a) || 1;
  return [a[0] / l, a[1] / l, a[2] / l];
};
export const mix = (a: Vec, b: Vec, k: number): Vec => add(a, add(b, a, -1), k);

/** A curve as it was sampled: points, and how far along each lies, mm. */
export interface Curve {
  readonly points: readonly Vec[];
  readonly s: readonly number[];
  readonly length: number;
}

/** Two directions square to one another and to a third. */
export function across(axis: Vec, up: Vec = [0, 0, 1]): readonly [u: Vec, v: Vec] {
  const a = unit(axis);
  const near = Math.abs(dot(a, up)) > 0.95 ? ([0, 1, 0] as const) : up;
  const u = unit(add(near, a, -dot(near, a)));
  return [u, cross(a, u)];
}

/** Part of a circle round a place, from one angle to another, rad; u and v span its plane. */
export function arc(centre: Vec, u: Vec, v: Vec, radius: number, from: number, to: number): Vec[] {
  const n = Math.max(3, Math.ceil((Math.abs(to - from) * 16) / Math.PI));
  return Array.from({ length: n + 1 }, (_, k) => {
    const w = from + ((to - from) * k) / n;
    return add(add(centre, u, radius * Math.cos(w)), v, radius * Math.sin(w));
  });
}

/**
 * Close turns round a straight axis.
 * @param turns how many; below 0 the other way round
 * @param phase where the first begins, rad, counted from u of `across`
 */
export function winding(from: Vec, to: Vec, radius: number, turns: number, phase = 0): Vec[] {
  const [u, v] = across(add(to, from, -1));
  const n = Math.max(8, Math.ceil(Math.abs(turns) * 28));
  return Array.from({ length: n + 1 }, (_, k) => {
    const w = phase + (2 * Math.PI * turns * k) / n;
    const c = mix(from, to, k / n);
    return add(add(c, u, radius * Math.cos(w)), v, radius * Math.sin(w));
  });
}

/** A smooth curve through points, sampled evenly [published: centripetal Catmull-Rom spline, 1974 and 2011]. */
export function spline(through: readonly Vec[], step = 1): Curve {
  const p = through.filter((q, k) => k === 0 || apart(q, through[k - 1]!) > 0.2);
  if (p.length < 2) throw new RangeError('spline: at least two points that are apart');
  const fine: Vec[] = [p[0]!];
  for (let i = 0; i + 1 < p.length; i++) {
    const [a, b, c, d] = [p[i - 1] ?? add(p[i]!, add(p[i + 1]!, p[i]!, -1), -1), p[i]!, p[i + 1]!, p[i + 2] ?? add(p[i + 1]!, add(p[i + 1]!, p[i]!, -1))]; // prettier-ignore
    const t1 = Math.sqrt(apart(a, b));
    const t2 = t1 + Math.sqrt(apart(b, c));
    const t3 = t2 + Math.sqrt(apart(c, d));
    const n = Math.max(1, Math.ceil(apart(b, c) / (step * 0.5)));
    for (let k = 1; k <= n; k++) {
      const t = t1 + ((t2 - t1) * k) / n;
      const A1 = mix(a, b, t / t1);
      const A2 = mix(b, c, (t - t1) / (t2 - t1));
      const A3 = mix(c, d, (t - t2) / (t3 - t2));
      const B1 = mix(A1, A2, t / t2);
      const B2 = mix(A2, A3, (t - t1) / (t3 - t1));
      fine.push(mix(B1, B2, (t - t1) / (t2 - t1)));
    }
  }
  return evenly(fine, step);
}

function evenly(fine: readonly Vec[], step: number): Curve {
  const points: Vec[] = [fine[0]!];
  const s = [0];
  let at = 0;
  let next = step;
  for (let k = 1; k < fine.length; k++) {
    const l = apart(fine[k]!, fine[k - 1]!);
    while (l > 0 && next <= at + l) {
      points.push(mix(fine[k - 1]!, fine[k]!, (next - at) / l));
      s.push(next);
      next += step;
    }
    at += l;
  }
  if (at - s.at(-1)! > 1e-6) {
    points.push(fine.at(-1)!);
    s.push(at);
  }
  return { points, s, length: at };
}

/** The nearest that a curve comes to itself, places along it that lie closer than `skip` left out, mm. */
export function selfGap({ points, s }: Curve, skip: number): number {
  let least = Infinity;
  for (let i = 0; i < points.length; i++)
    for (let k = i + 1; k < points.length; k++)
      if (s[k]! - s[i]! > skip) least = Math.min(least, apart(points[i]!, points[k]!));
  return least;
}

/** The nearest that two curves come to one another, mm. */
export function gapBetween(a: Curve, b: Curve): number {
  let least = Infinity;
  for (const p of a.points) for (const q of b.points) least = Math.min(least, apart(p, q));
  return least;
}

/** The nearest that a curve comes to the middle line of a rod, mm; beyond its ends, to the ends. */
export function gapToRod({ points }: Curve, from: Vec, to: Vec): number {
  const d = add(to, from, -1);
  const l2 = dot(d, d);
  return Math.min(
    ...points.map((p) => apart(p, mix(from, to, Math.min(1, Math.max(0, dot(add(p, from, -1), d) / l2))))), // prettier-ignore
  );
}

/** How often a curve goes round a line between two places along it, the sense left out. */
export function turnsAbout(c: Curve, from: Vec, to: Vec, s0 = 0, s1 = c.length): number {
  const [u, v] = across(add(to, from, -1));
  let angle = 0;
  let last: number | null = null;
  c.points.forEach((p, k) => {
    if (c.s[k]! < s0 || c.s[k]! > s1) return;
    const q = add(p, from, -1);
    const w = Math.atan2(dot(q, v), dot(q, u));
    if (last !== null) {
      let d = w - last;
      if (d > Math.PI) d -= 2 * Math.PI;
      if (d < -Math.PI) d += 2 * Math.PI;
      angle += d;
    }
    last = w;
  });
  return Math.abs(angle) / (2 * Math.PI);
}
