/** Kinds of posts: how far they stand out of the ground, and which one serves. */
import { figure, recordOf, usual, type Catalogue, type PostKind } from '../plan/catalogue.js';
import type { Line, Strand } from '../plan/schema.js';
import type { Post } from '../report/schema.js';

/** Height above the ground of a post set as usual, m. */
export const standsOut = (kind: PostKind): number => kind.length_m - kind.embedment_m;

/** How far a post must stand out under strands of this make-up, m; 0 without strands. */
export function outFor(strands: readonly Pick<Strand, 'height_m'>[], cat: Catalogue): number {
  const top = strands.at(-1)?.height_m;
  return top === undefined ? 0 : top + figure(cat, 'posts.aboveTop');
}

/** A hair for lengths that are met exactly. */
const HAIR = 1e-6;
export const longEnough = (id: string, out_m: number, cat: Catalogue): boolean =>
  standsOut(recordOf(cat.posts, id)) >= out_m - HAIR;

/**
 * The kind itself where it stands out far enough, else the shortest of its family that does, else the
 * shortest of its use; the kind itself when none does.
 */
export function tallEnough(id: string, out_m: number, cat: Catalogue): string {
  if (longEnough(id, out_m, cat)) return id;
  const own = recordOf(cat.posts, id);
  const able = Object.entries(cat.posts)
    .filter(([k, p]) => p.use === own.use && !p.flexible && longEnough(k, out_m, cat))
    .sort(
      ([, a], [, b]) =>
        Number(b.family === own.family) - Number(a.family === own.family) ||
        a.length_m - b.length_m,
    );
  return able[0]?.[0] ?? id;
}

/** The kind of post that a role gets when nobody has said. @param out_m how far it must stand out */
export function kindFor(
  role: Post['role'],
  line: Pick<Line, 'post'>,
  out_m: number,
  cat: Catalogue,
): string {
  if (role === 'line') return line.post;
  const use = role === 'bend' ? 'bendPost' : role === 'brace' ? 'bracePost' : 'endPost';
  return tallEnough(usual(use), out_m, cat);
}
