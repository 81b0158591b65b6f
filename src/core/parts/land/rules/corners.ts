/** Corner posts put where lines meet, as the steps of a mend. */
import { JOIN_TOLERANCE, stations } from '../../../plan/geometry.js';
import { freeId } from '../../../plan/ids.js';
import type { Line, PatchStep, Point } from '../../../plan/schema.js';

/**
 * Corners at places of a line, from its end to its start, so that none shifts the rank of the next; places
 * that are one get one.
 */
export function cornersAt(line: Line, places: readonly { s: number; p: Point }[]): PatchStep[] {
  const ordered = [...places].sort((x, y) => y.s - x.s);
  return ordered
    .filter(({ s }, i) => i === 0 || ordered[i - 1]!.s - s > JOIN_TOLERANCE)
    .flatMap(({ s, p }) => cornerAt(line, s, p));
}

/** Makes the vertex at a place a corner, or puts one in. */
function cornerAt(line: Line, s: number, p: Point): PatchStep[] {
  const at = stations(line.vertices);
  const near = at.findIndex((x) => Math.abs(x - s) <= JOIN_TOLERANCE);
  const path = `/lines/${line.id}/vertices`;
  if (near >= 0) {
    if (near === 0 || near === at.length - 1 || line.vertices[near]!.kind === 'corner') return [];
    return [{ op: 'replace', path: `${path}/${near}/kind`, value: 'corner' }];
  }
  const taken = Object.fromEntries(line.vertices.map((v) => [v.id, true]));
  const leg = at.findLastIndex((x) => x < s);
  const value = { id: freeId(taken, `x${Math.round(s)}v`), e: p.e, n: p.n, kind: 'corner' };
  return [{ op: 'add', path: `${path}/${leg + 1}`, value }];
}
