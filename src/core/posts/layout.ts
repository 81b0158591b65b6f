/** Posts of a line: fixed ones at ends, corners, bends and gates, equal bays between them. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import { planLength, pointAt, stations } from '../plan/geometry.js';
import type { Gate, Line } from '../plan/schema.js';
import type { Post, Run, Stretch } from '../report/schema.js';
import { gAt, sAtG, zAt, type Profile } from '../terrain/profile.js';
import { equalBays } from './bays.js';

interface Fixed {
  readonly s: number;
  readonly role: Post['role'];
  /** The wire is strained off here. */
  readonly strains: boolean;
  /** No fence between this post and the next: a gate stands there. */
  readonly opens?: boolean;
}

export interface Layout {
  readonly runs: readonly Run[];
  readonly stretches: readonly Stretch[];
  /** Uplift is filled in later, once the tension is known. */
  readonly posts: readonly Post[];
}

/**
 * Lays out a line by equal bays as taped over the ground.
 * @param small small stock or predators face the line: closer posts
 */
export function layOut(
  line: Line,
  gates: readonly Gate[],
  profile: Profile,
  small: boolean,
  cat: Catalogue,
): Layout {
  const fixed = fixedPosts(line, gates);
  const runs: Run[] = [];
  const stretches: Stretch[] = [];
  const posts: Post[] = [];
  let runStart = 0;
  const add = (s: number, role: Post['role'], kind: string) =>
    posts.push({
      s_m: s,
      tape_m: gAt(profile, s),
      ...pointAt(line.vertices, s),
      z_m: zAt(profile, s),
      role,
      kind,
      uplift_N: 0,
    });
  fixed.forEach((post, i) => {
    if (i === 0) runStart = post.s;
    add(post.s, post.role, kindFor(post.role, line));
    const next = fixed[i + 1];
    if (!next) return;
    if (!post.opens) {
      const stretch = divide(line, profile, post.s, next.s, small, cat);
      stretches.push(stretch);
      const g0 = gAt(profile, post.s);
      for (let k = 1; k < stretch.bays; k++) {
        add(sAtG(profile, g0 + k * stretch.bay_m), 'line', line.post);
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
  return { runs, stretches, posts };
}

function kindFor(role: Post['role'], line: Line): string {
  if (role === 'line') return line.post;
  return role === 'bend' ? 'timber-210' : 'end-240';
}

/** Ends, corners, bends and both posts of every gate, in order along the line. */
function fixedPosts(line: Line, gates: readonly Gate[]): Fixed[] {
  const at = stations(line.vertices);
  const total = planLength(line);
  const openings = gates
    .map((g) => ({
      from: Math.max(0, g.at_m - g.width_m / 2),
      to: Math.min(total, g.at_m + g.width_m / 2),
    }))
    .filter((o) => o.to > o.from)
    .sort((a, b) => a.from - b.from);
  const inGate = (s: number) => openings.some((o) => s >= o.from - 0.05 && s <= o.to + 0.05);
  const out: Fixed[] = [];
  line.vertices.forEach((v, i) => {
    if (inGate(at[i]!)) return;
    const last = i === 0 || i === line.vertices.length - 1;
    const role = last && v.kind === 'bend' ? 'end' : v.kind;
    out.push({ s: at[i]!, role, strains: role !== 'bend' });
  });
  let reached = -Infinity;
  for (const o of openings) {
    if (o.from < reached) continue;
    reached = o.to;
    out.push({ s: o.from, role: 'gate', strains: true, opens: true });
    out.push({ s: o.to, role: 'gate', strains: true });
  }
  return out.sort((a, b) => a.s - b.s);
}

function divide(
  line: Line,
  p: Profile,
  from: number,
  to: number,
  small: boolean,
  cat: Catalogue,
): Stretch {
  const even = figure(cat, small ? 'posts.evenSmall' : 'posts.evenLarge');
  const undulating = undulation(p, from, to, even) > figure(cat, 'posts.undulation');
  const usual = undulating ? figure(cat, small ? 'posts.unevenSmall' : 'posts.unevenLarge') : even;
  const maxBay_m = line.maxBay_m ?? usual;
  const ground_m = Math.max(gAt(p, to) - gAt(p, from), 0.01);
  const { bays, bay_m } = equalBays(ground_m, maxBay_m, 'maximum');
  return { from_m: from, to_m: to, ground_m, bays, bay_m, maxBay_m, undulating };
}

/** The most that the ground leaves the straight within any bay-long window, m. */
export function undulation(p: Profile, from: number, to: number, bay: number): number {
  let most = 0;
  for (let a = from; a < to; a += bay / 2) {
    const b = Math.min(a + bay, to);
    const za = zAt(p, a);
    const zb = zAt(p, b);
    for (const t of [0.25, 0.5, 0.75]) {
      const off = zAt(p, a + t * (b - a)) - (za + t * (zb - za));
      most = Math.max(most, Math.abs(off));
    }
  }
  return most;
}
