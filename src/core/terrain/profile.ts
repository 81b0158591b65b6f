/** The ground along a line: its height and taped distance wherever the slope changes. */
import type { Level, Point } from '../plan/schema.js';
import { stations } from '../plan/geometry.js';
import { breaksOf, heightAt, type Ground } from './ground.js';

/** Ground along a line. Plan distance s, height z and distance over ground g, all in metres. */
export interface Profile {
  readonly s: readonly number[];
  readonly z: readonly number[];
  readonly g: readonly number[];
  /** Plan stretches where the ground is not known; their heights are bridged straight. */
  readonly unknown: readonly (readonly [number, number])[];
}

/**
 * The ground along a polyline: sampled at every vertex, wherever the line passes from one triangle of the
 * ground into the next, and at the marks of a levelled line, so that all between two samples is straight.
 * Heights that are not known are bridged between the nearest known ones (0 when none is). Where the line
 * was levelled by hand, its own heights stand instead of the ground's, straight between marks.
 */
export function profileOf(
  vertices: readonly Point[],
  ground: Ground,
  levels: readonly Level[] = [],
): Profile {
  const s: number[] = [];
  const raw: number[] = [];
  const at = stations(vertices);
  const put = (station: number, p: Point) => {
    if (s.length > 0 && station - s[s.length - 1]! < 1e-6) return;
    s.push(station);
    raw.push(levelAt(levels, station) ?? heightAt(ground, p));
  };
  let mark = 0;
  for (let i = 0; i + 1 < vertices.length; i++) {
    const [a, b] = [vertices[i]!, vertices[i + 1]!];
    const length = at[i + 1]! - at[i]!;
    const shares = breaksOf(ground, a, b);
    const within: number[] = [];
    for (; mark < levels.length && levels[mark]!.at_m < at[i + 1]!; mark++)
      within.push((levels[mark]!.at_m - at[i]!) / length);
    const all = within.length ? [...shares, ...within].sort((x, y) => x - y) : shares;
    put(at[i]!, a);
    for (const t of all)
      put(at[i]! + t * length, { e: a.e + t * (b.e - a.e), n: a.n + t * (b.n - a.n) });
  }
  const last = at.length - 1;
  // A vertex stands exactly where it stands, whatever was sampled a hair before it.
  if (s.length > 1 && at[last]! - s.at(-1)! < 1e-6) {
    s.pop();
    raw.pop();
  }
  put(at[last]!, vertices[last]!);
  const { z, unknown } = bridge(s, raw);
  const g = [0];
  for (let i = 1; i < s.length; i++) {
    const [ds, dz] = [s[i]! - s[i - 1]!, z[i]! - z[i - 1]!];
    g.push(g[i - 1]! + Math.sqrt(ds * ds + dz * dz));
  }
  return { s, z, g, unknown };
}

/** Height between two marks of a hand-levelled line; null outside them. */
function levelAt(levels: readonly Level[], s: number): number | null {
  if (levels.length < 2 || s < levels[0]!.at_m - 1e-6 || s > levels.at(-1)!.at_m + 1e-6)
    return null;
  let k = 1;
  while (k < levels.length - 1 && levels[k]!.at_m < s) k++;
  const [a, b] = [levels[k - 1]!, levels[k]!];
  const span = b.at_m - a.at_m;
  const t = span === 0 ? 0 : Math.min(1, Math.max(0, (s - a.at_m) / span));
  return a.z_m + t * (b.z_m - a.z_m);
}

function bridge(s: readonly number[], raw: readonly number[]) {
  const z = raw.slice();
  const unknown: [number, number][] = [];
  for (let i = 0; i < z.length; i++) {
    if (!Number.isNaN(z[i]!)) continue;
    let j = i;
    while (j < z.length && Number.isNaN(z[j]!)) j++;
    const before = i > 0 ? z[i - 1]! : z[j];
    const after = z[j] ?? before;
    const from = Math.max(0, i - 1);
    const to = Math.min(z.length - 1, j);
    const width = s[to]! - s[from]! || 1;
    for (let k = i; k < j; k++) {
      const t = (s[k]! - s[from]!) / width;
      z[k] = before === undefined || after === undefined ? 0 : before + t * (after - before);
    }
    unknown.push([s[from]!, s[to]!]);
    i = j;
  }
  return { z, unknown };
}

/** Linear read of one column of a profile against another, both rising; held at the ends. */
export function readAt(xs: readonly number[], ys: readonly number[], x: number): number {
  let low = 0;
  let high = xs.length - 1;
  if (x <= xs[0]!) return ys[0]!;
  if (x >= xs[high]!) return ys[high]!;
  while (high - low > 1) {
    const mid = (low + high) >> 1;
    if (xs[mid]! <= x) low = mid;
    else high = mid;
  }
  const width = xs[high]! - xs[low]!;
  return width === 0 ? ys[low]! : ys[low]! + ((ys[high]! - ys[low]!) * (x - xs[low]!)) / width;
}

/** Height of a profile at plan distance s. */
export const zAt = (p: Profile, s: number): number => readAt(p.s, p.z, s);
/** Distance over ground at plan distance s. */
export const gAt = (p: Profile, s: number): number => readAt(p.s, p.g, s);
/** Plan distance at distance over ground g. */
export const sAtG = (p: Profile, g: number): number => readAt(p.g, p.s, g);
