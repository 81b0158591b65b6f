/** Posts of a line: fixed ones at ends, corners, bends, gates and pins; between them by the ground or
 * in equal bays. */
import { piecesOf } from '../base/numbers.js';
import { figure, recordOf, usual, type Catalogue } from '../plan/catalogue.js';
import { JOIN_TOLERANCE, planLength, pointAt, stations } from '../plan/geometry.js';
import type { Joint } from '../plan/meets.js';
import type { Gate, Line } from '../plan/schema.js';
import type { Post, Run, Stretch } from '../report/schema.js';
import { gAt, sAtG, zAt, type Profile } from '../terrain/profile.js';
import type { BayedRun } from '../wire/strung.js';
import { equalBays, usualBay, type HeldBay } from './bays.js';
import { kindFor, tallEnough } from './kinds.js';

/** A post that stands where it stands, whatever the bays. */
export interface Fixed {
  readonly s: number;
  readonly role: Post['role'];
  /** The wire is strained off here. */
  readonly strains: boolean;
  readonly kind: string | null;
  /** No fence between this post and the next: a gate stands there. */
  readonly opens?: boolean;
  /** Equal bays from here to the next fixed post. */
  readonly equal?: boolean;
  /** A rail, or a stay, reaches from here to the next post: none stands between. */
  readonly railed?: boolean;
}

/** The kind of post that an end wants. */
export interface EndKind {
  readonly s: number;
  readonly kind: string;
}

/** A further post of an end: what carries the other end of its rail, or the foot of its stay. */
export interface Second {
  readonly s: number;
  readonly kind: string;
  /** The post of the end that it belongs to, or the one before it in a row. */
  readonly from: number;
}

export interface Layout {
  readonly runs: readonly Run[];
  readonly stretches: readonly Stretch[];
  /** Uplift and hold are filled in later, once the tension and the soil are known. */
  readonly posts: readonly Post[];
  /** Places of the droppers, plan distance, m. */
  readonly droppers: readonly number[];
}

/** What of a line says where its posts stand. */
export type PostedLine = Pick<
  Line,
  'vertices' | 'post' | 'maxBay_m' | 'pins' | 'placed' | 'dropper'
> & {
  /** How far posts must stand out of the ground, m. */
  readonly out_m: number;
  /** Further posts of its ends. */
  readonly seconds?: readonly Second[];
  /** Kinds of the posts at its ends and bends, where nobody pinned another. */
  readonly kinds?: readonly EndKind[];
};

/** Places closer than this are one post, m. */
const SAME = 0.05;

/**
 * Lays out a line: as placed where it was placed, else by equal bays as taped over the ground.
 */
export function layOut(
  line: PostedLine,
  gates: readonly Gate[],
  profile: Profile,
  held: HeldBay,
  cat: Catalogue,
  joints: readonly Joint[] = [],
): Layout {
  const fixed = fixedPosts(line, gates, joints);
  const runs: Run[] = [];
  const stretches: Stretch[] = [];
  const posts: Post[] = [];
  let runStart = 0;
  const add = (s: number, role: Post['role'], kind: string, pinned: boolean) =>
    posts.push({
      s_m: s,
      tape_m: gAt(profile, s),
      ...pointAt(line.vertices, s),
      z_m: zAt(profile, s),
      role,
      kind,
      fixed: pinned,
      uplift_N: 0,
      holds_N: 0,
    });
  fixed.forEach((post, i) => {
    if (i === 0) runStart = post.s;
    add(post.s, post.role, post.kind ?? kindFor(post.role, line, line.out_m, cat), true);
    const next = fixed[i + 1];
    if (!next) return;
    if (!post.opens) {
      const between = placedBetween(line, post, next);
      const stretch = divide(line, profile, post, next, held, between, cat);
      stretches.push(stretch);
      if (between) for (const p of between) add(p.at_m, 'line', p.kind, false);
      else {
        const g0 = gAt(profile, post.s);
        for (let k = 1; k < stretch.bays; k++)
          add(sAtG(profile, g0 + k * stretch.bay_m), 'line', line.post, false);
      }
      if (next.strains) {
        runs.push({
          from_m: runStart,
          to_m: next.s,
          ground_m: gAt(profile, next.s) - gAt(profile, runStart),
        });
      }
    }
    if (next.strains) runStart = next.s;
  });
  return {
    runs,
    stretches,
    posts: stoutAtBreaks(line, posts, cat),
    droppers: droppersOf(line, posts, stretches, profile),
  };
}

/** How sharply the grade breaks at a post, degrees: between the chords to its neighbours. */
export function gradeBreak(a: Post, b: Post, c: Post): number {
  const slope = (p: Post, q: Post) => Math.atan2(q.z_m - p.z_m, Math.hypot(q.e - p.e, q.n - p.n));
  return (Math.abs(slope(b, c) - slope(a, b)) * 180) / Math.PI;
}

/** Whether a kind of post takes the wire where it bends. */
export const isStout = (id: string, cat: Catalogue): boolean => {
  const kind = recordOf(cat.posts, id);
  return !kind.flexible && kind.perimeter_m >= recordOf(cat.posts, usual('bendPost')).perimeter_m;
};

/** Where the grade breaks sharply, on a crest too, a stout post stands instead of an ordinary one. */
function stoutAtBreaks(line: PostedLine, posts: readonly Post[], cat: Catalogue): Post[] {
  const limit = figure(cat, 'posts.breakLimit');
  const stout = tallEnough(usual('bendPost'), line.out_m, cat);
  return posts.map((post, i) => {
    const [before, after] = [posts[i - 1], posts[i + 1]];
    // What was placed or pinned is what somebody chose.
    if (!before || !after || post.role !== 'line' || post.fixed || line.placed) return post;
    if (isStout(post.kind, cat) || gradeBreak(before, post, after) <= limit) return post;
    return { ...post, kind: stout };
  });
}

/** Droppers share each bay of the fence evenly, as taped. */
function droppersOf(
  { dropper }: PostedLine,
  posts: readonly Post[],
  stretches: readonly Stretch[],
  profile: Profile,
): number[] {
  if (!dropper) return [];
  return stretches.flatMap((st) => {
    const own = posts.filter((p) => p.s_m >= st.from_m - 1e-6 && p.s_m <= st.to_m + 1e-6);
    return own.slice(1).flatMap((b, i) => {
      const from = own[i]!.tape_m;
      const parts = piecesOf(b.tape_m - from, dropper.each_m);
      return Array.from({ length: parts - 1 }, (_, k) =>
        sAtG(profile, from + ((k + 1) / parts) * (b.tape_m - from)),
      );
    });
  });
}

/** The posts that were placed between two fixed ones; null where the bays are to be equal. */
function placedBetween(
  line: PostedLine,
  from: Fixed,
  to: Fixed,
): { at_m: number; kind: string }[] | null {
  if (from.railed) return [];
  if (!line.placed || from.equal) return null;
  return line.placed.filter((p) => p.at_m > from.s + SAME && p.at_m < to.s - SAME);
}

/** Ends, corners, bends, joints, both posts of every gate and pinned posts, in order along the line. */
export function fixedPosts(
  line: PostedLine,
  gates: readonly Gate[],
  joints: readonly Joint[] = [],
): Fixed[] {
  const at = stations(line.vertices);
  const total = planLength(line);
  const openings = gates
    .map((g) => ({
      from: Math.max(0, g.at_m - g.width_m / 2),
      to: Math.min(total, g.at_m + g.width_m / 2),
    }))
    .filter((o) => o.to > o.from)
    .sort((a, b) => a.from - b.from);
  const inGate = (s: number) => openings.some((o) => s >= o.from - SAME && s <= o.to + SAME);
  const out: Fixed[] = [];
  line.vertices.forEach((v, i) => {
    if (inGate(at[i]!)) return;
    const last = i === 0 || i === line.vertices.length - 1;
    const role = last && v.kind === 'bend' ? 'end' : v.kind;
    out.push({ s: at[i]!, role, strains: role !== 'bend', kind: null });
  });
  let reached = -Infinity;
  for (const o of openings) {
    if (o.from < reached - SAME) continue;
    // Two gates side by side hang on one post: there is no fence between them.
    const between = o.from - reached <= SAME ? out.pop() : undefined;
    reached = o.to;
    out.push({ s: between?.s ?? o.from, role: 'gate', strains: true, opens: true, kind: null });
    out.push({ s: o.to, role: 'gate', strains: true, kind: null });
  }
  // Where another line meets this one, the post carries the other's end and this one's strands run by.
  for (const { s } of joints) {
    if (inGate(s) || out.some((f) => Math.abs(f.s - s) <= JOIN_TOLERANCE)) continue;
    out.push({ s, role: 'joint', strains: false, kind: null });
  }
  for (const pin of line.pins ?? []) {
    const same = out.findIndex((f) => Math.abs(f.s - pin.at_m) <= SAME);
    if (same >= 0) {
      // A pin on a post that stands anyway only says what it is, and that equal bays start there.
      const f = out[same]!;
      out[same] = { ...f, kind: pin.kind ?? f.kind, equal: pin.equal ?? false };
    } else if (pin.at_m <= total && !inGate(pin.at_m)) {
      const { at_m: s, kind, equal = false } = pin;
      out.push({ s, role: 'line', strains: false, kind, equal });
    }
  }
  for (const { s, kind } of line.kinds ?? []) {
    const own = out.findIndex((f) => Math.abs(f.s - s) <= SAME);
    if (own >= 0) out[own] = { ...out[own]!, kind: out[own]!.kind ?? kind };
  }
  for (const { s, kind } of line.seconds ?? []) {
    const same = out.findIndex((f) => Math.abs(f.s - s) <= SAME);
    const f = out[same];
    if (!f) {
      if (s > 0 && s < total && !inGate(s)) out.push({ s, role: 'brace', strains: false, kind });
    } else if (f.role === 'line') {
      out[same] = { ...f, role: 'brace', kind: f.kind ?? kind };
    }
  }
  out.sort((a, b) => a.s - b.s);
  for (const { s, from } of line.seconds ?? []) {
    const first = out.findIndex((f) => Math.abs(f.s - Math.min(s, from)) <= SAME);
    const next = out[first + 1];
    if (next && Math.abs(next.s - Math.max(s, from)) <= SAME)
      out[first] = { ...out[first]!, railed: true };
  }
  return out;
}

/** Longest bay that stock and ground want between two places of a line, as taped. */
export function longestBay(
  line: PostedLine,
  p: Profile,
  from: number,
  to: number,
  held: HeldBay,
  cat: Catalogue,
): { maxBay_m: number; undulating: boolean } {
  // With droppers the bays are longer; what counts as undulating stays what it is without.
  const window = usualBay({ ...held, undulating: false, dropped: false }, cat);
  const undulating = undulation(p, from, to, window) > figure(cat, 'posts.undulation');
  const usual = usualBay({ ...held, undulating, dropped: line.dropper !== undefined }, cat);
  return { maxBay_m: line.maxBay_m ?? usual, undulating };
}

function divide(
  line: PostedLine,
  p: Profile,
  from: Fixed,
  to: Fixed,
  held: HeldBay,
  placed: readonly { at_m: number }[] | null,
  cat: Catalogue,
): Stretch {
  const { maxBay_m, undulating } = longestBay(line, p, from.s, to.s, held, cat);
  const ground_m = Math.max(gAt(p, to.s) - gAt(p, from.s), 0.01);
  const whole = { from_m: from.s, to_m: to.s, ground_m, maxBay_m, undulating };
  if (!placed) return { ...whole, ...pick(equalBays(ground_m, maxBay_m, 'maximum')), equal: true };
  const marks = [from.s, ...placed.map((x) => x.at_m), to.s].map((s) => gAt(p, s));
  const bay_m = Math.max(...marks.slice(1).map((g, i) => g - marks[i]!));
  return { ...whole, bays: marks.length - 1, bay_m, equal: false };
}

const pick = ({ bays, bay_m }: { bays: number; bay_m: number }) => ({ bays, bay_m });

/** The most that the ground leaves the straight within any bay-long window, m. */
export function undulation(p: Profile, from: number, to: number, bay: number): number {
  let most = 0;
  let first = 0;
  for (let a = from; a < to; a += bay / 2) {
    const b = Math.min(a + bay, to);
    const za = zAt(p, a);
    const slope = (zAt(p, b) - za) / (b - a);
    while (first < p.s.length && p.s[first]! <= a) first++;
    for (let k = first; k < p.s.length && p.s[k]! < b; k++)
      most = Math.max(most, Math.abs(p.z[k]! - za - slope * (p.s[k]! - a)));
  }
  return most;
}

/** The run that a place of a line stands in, its rank, and the tape at its start; null in a gate. */
export function runOf(
  line: { readonly runs: readonly Run[]; readonly posts: readonly Post[] },
  s: number,
): { readonly index: number; readonly tape_m: number } | null {
  // A post between two runs ends the first one.
  const index = line.runs.findIndex((r) => s >= r.from_m - 1e-6 && s <= r.to_m + 1e-6);
  if (index < 0) return null;
  const from = line.runs[index]!.from_m;
  return { index, tape_m: line.posts.find((p) => p.s_m >= from - 1e-6)!.tape_m };
}

/** The posts of each run, and the bays between them as taped. */
export function baysOf(layout: Pick<Layout, 'runs' | 'posts'>): BayedRun[] {
  return layout.runs.map((run) => {
    const own = layout.posts.filter((p) => p.s_m >= run.from_m - 1e-6 && p.s_m <= run.to_m + 1e-6);
    return { run, posts: own, bays_m: own.slice(1).map((p, i) => p.tape_m - own[i]!.tape_m) };
  });
}
