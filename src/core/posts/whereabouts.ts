/** Where on a line something is, as a person with a tape finds it: from the post where its run begins. */
import { say, type Units } from '../base/units.js';
import type { Gate } from '../plan/schema.js';
import type { Post, Run } from '../report/schema.js';
import { gAt, sAtG, type Profile } from '../terrain/profile.js';

/** What of a line's report tells its places. */
export interface Posted {
  readonly runs: readonly Run[];
  readonly posts: readonly Post[];
}

/** A post from which one tapes: the start of a run. */
export interface TapeStart {
  readonly s_m: number;
  /** Its number along the line, from 1. */
  readonly post: number;
  /** The gate that ends there; null at the line's start and at corners. */
  readonly gate: string | null;
}

/** Places closer than this are one, m. */
const SAME = 0.05;

/** The starts of all runs of a line, in order. */
export function tapeStarts({ runs, posts }: Posted, gates: readonly Gate[]): TapeStart[] {
  return runs.map((run) => ({
    s_m: run.from_m,
    post: posts.findIndex((p) => p.s_m >= run.from_m - 1e-6) + 1,
    gate: gates.find((g) => Math.abs(g.at_m + g.width_m / 2 - run.from_m) <= SAME)?.name ?? null,
  }));
}

/** Rank of the run that a place is taped in: that which holds it, or in a gate the one before. */
export const runAt = ({ runs }: Posted, s: number): number =>
  // A post between two runs ends the first one.
  Math.max(
    0,
    runs.findIndex((r, i) => s <= r.to_m + 1e-6 || s < (runs[i + 1]?.from_m ?? Infinity)),
  );

/** Distance over the ground from the start of its run, m. */
export const tapeAt = (line: Posted, profile: Profile, s: number): number =>
  gAt(profile, s) - gAt(profile, line.runs[runAt(line, s)]?.from_m ?? 0);

/** The place along the line, plan distance, that lies so far over the ground from a place before it, m. */
export const placeAtTape = (profile: Profile, from_m: number, tape_m: number): number =>
  sAtG(profile, gAt(profile, from_m) + tape_m);

/** From where one tapes, in words. */
export const startWords = ({ post, gate }: TapeStart): string =>
  gate ? `after ${gate}` : post === 1 ? 'from the start' : `after the corner at post ${post}`;

/** A place of a line in words: "118.4 m (post 23)", "4.1 m after Burn gate (past post 40)". */
export function whereWords(
  line: Posted,
  gates: readonly Gate[],
  profile: Profile,
  s: number,
  units: Units,
): string {
  const { runs, posts } = line;
  const within = gates.find((g) => Math.abs(g.at_m - s) < g.width_m / 2 - SAME);
  if (within) return `${within.name}`;
  const run = runAt(line, s);
  const start = tapeStarts(line, gates)[run];
  const tape = say(start ? tapeAt(line, profile, s) : gAt(profile, s), 'along', units);
  const from = start && start.post > 1 ? ` ${startWords(start)}` : '';
  const last = posts.findLastIndex((p) => p.s_m <= s + SAME);
  if (!runs.length || last < 0) return tape + from;
  const at = Math.abs(posts[last]!.s_m - s) <= SAME;
  return `${tape}${from} (${at ? '' : 'past '}post ${last + 1})`;
}
