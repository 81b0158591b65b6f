/** Where somebody stands on a line by a receiver, and how far it is to its posts. Plan distances in m, tape over the ground. */
import { readAt } from '../terrain/profile.js';
import { distance, nearestOnLeg } from '../plan/geometry.js';
import type { Point } from '../plan/schema.js';
import type { Post } from '../report/schema.js';

/** A place that a receiver gave, with the radius that it gives for it, m. */
export interface Fix {
  readonly at: Point;
  readonly within_m: number;
}

/** Where that is on a line. */
export interface Stood {
  /** Along the line in plan, and by the tape over the ground from its start. */
  readonly s_m: number;
  readonly tape_m: number;
  /** Off the line: to the right of who walks towards its end positive. */
  readonly off_m: number;
  readonly within_m: number;
  /** It may be on this line: not further off than the receiver can tell and a few steps more. */
  readonly on: boolean;
}

/** So far beside a fence one still walks along it, m: an arm, a vehicle. Common practice. */
const BESIDE_M = 6;
/** A receiver this good may set a stake: as far as a post may stand from its mark, m. Common practice. */
export const STAKE_WITHIN_M = 0.15;

/**
 * Where a fix is on a line. Where the line comes near itself (a ring at its start, a sharp corner) the place is the one that
 * can be reached from where one stood before.
 * @param before plan distance a moment ago; null: nobody knows
 */
export function standAt(
  line: { readonly vertices: readonly Point[] },
  posts: readonly Pick<Post, 's_m' | 'tape_m'>[],
  { at, within_m }: Fix,
  before: number | null = null,
): Stood {
  const legs: { s: number; off: number; side: number }[] = [];
  let start = 0;
  for (let i = 0; i + 1 < line.vertices.length; i++) {
    const [a, b] = [line.vertices[i]!, line.vertices[i + 1]!];
    const { along, off } = nearestOnLeg(a, b, at);
    const right = (at.e - a.e) * (b.n - a.n) - (at.n - a.n) * (b.e - a.e);
    legs.push({ s: start + along, off, side: right < 0 ? -1 : 1 });
    start += distance(a, b);
  }
  const least = Math.min(...legs.map((l) => l.off));
  // What the receiver cannot tell apart, the way that was walked does.
  const likely = before === null ? legs.filter((l) => l.off === least) : legs.filter((l) => l.off <= least + within_m);
  const best = likely.reduce((x, y) => (Math.abs(y.s - (before ?? y.s)) < Math.abs(x.s - (before ?? x.s)) ? y : x));
  return {
    s_m: best.s,
    tape_m: tapeAt(posts, best.s),
    off_m: best.side * best.off,
    within_m,
    on: best.off <= within_m + BESIDE_M,
  };
} // prettier-ignore

/** Tape at a plan distance: between two posts as the ground lies from one to the other. */
function tapeAt(posts: readonly Pick<Post, 's_m' | 'tape_m'>[], s: number): number {
  if (posts.length === 0) return s;
  return readAt(posts.map((p) => p.s_m), posts.map((p) => p.tape_m), s); // prettier-ignore
}

/** Rank of the first post that is still ahead by the tape; null: none is. */
export function nextPost(posts: readonly Pick<Post, 'tape_m'>[], stood: Stood): number | null {
  const k = posts.findIndex((p) => p.tape_m > stood.tape_m);
  return k < 0 ? null : k;
}

/** How it goes on to a post. */
export interface Way {
  /** By the tape; behind one negative, m. */
  readonly on_m: number;
  /** As near as the receiver can tell. */
  readonly here: boolean;
  /** The receiver is good enough to set the stake by; else it finds the place, and the tape sets the post. */
  readonly stake: boolean;
}

export function wayTo(post: Pick<Post, 'tape_m'>, stood: Stood): Way {
  const on_m = post.tape_m - stood.tape_m;
  const stake = stood.within_m <= STAKE_WITHIN_M;
  // Half of what it gives: at the whole of it one would call each of two posts the place.
  const near = stake ? STAKE_WITHIN_M : Math.max(0.5, stood.within_m / 2);
  return { on_m, here: Math.hypot(on_m, stood.off_m) <= near, stake };
}

/** Seconds between two ticks: the nearer, the quicker; 0.12 s at the place, 1.5 s from 25 m. */
export const tickEvery = (off_m: number): number =>
  0.12 + (1.38 * Math.min(25, Math.abs(off_m))) / 25;

/** The line that a fix is nearest to, and how far off; null where there is none. */
export function nearestLine(
  lines: Readonly<Record<string, { readonly vertices: readonly Point[] }>>,
  fix: Fix,
): { readonly id: string; readonly off_m: number } | null {
  let best: { id: string; off_m: number } | null = null;
  for (const [id, line] of Object.entries(lines)) {
    if (line.vertices.length < 2) continue;
    const off_m = Math.abs(standAt(line, [], fix).off_m);
    if (!best || off_m < best.off_m) best = { id, off_m };
  }
  return best;
}
