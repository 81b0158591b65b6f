import { inside } from '../../../land/faces.js';
import { offThing, thingsOf } from '../../../land/things.js';
import { pointAt, stations } from '../../../plan/geometry.js';
import { crossing } from '../../../plan/legIndex.js';
import type { Line, Point, Thing } from '../../../plan/schema.js';
import { onLine, type Found, type Rule } from '../../../findings/rule.js';

/** A boundary fence stands on the boundary: this far over counts as on it, m. */
const ON_BOUNDARY = 0.5;

/** A line outside the property's own rim. */
export const outside: Rule = {
  id: 'outside',
  cause: 'Line leaves the property',
  step: 'land',
  kind: 'stop',
  source: { mark: 'derived', text: 'The edge of the property as it was drawn' },
  check: (scene) => {
    const rims = thingsOf(scene.plan, 'property').filter((t) => t.points.length >= 3);
    if (rims.length === 0) return [];
    return Object.values(scene.plan.lines).flatMap((line): Found[] => {
      const s = firstOutside(line, rims);
      if (s === null) return [];
      return [
        {
          key: line.id,
          title: `${line.name} leaves the property`,
          why: `At ${scene.where(line.id, s)} it stands ${scene.say.metres(offAll(rims, pointAt(line.vertices, s)))} outside the edge that was drawn.`,
          todo: 'Bring it back, or agree it with the neighbour and draw the edge as it is.',
          place: onLine(line, s),
          badness: offAll(rims, pointAt(line.vertices, s)),
        },
      ];
    });
  },
};

/**
 * A place of a line outside all rims, the furthest out of the piece that leaves them first: legs are cut
 * where they cross a rim, and each piece is asked at its ends and in its middle.
 */
function firstOutside(line: Line, rims: readonly Thing[]): number | null {
  const at = stations(line.vertices);
  for (let i = 0; i + 1 < line.vertices.length; i++) {
    const [a, b] = [line.vertices[i]!, line.vertices[i + 1]!];
    const cuts = rims.flatMap((t) =>
      t.points.flatMap((c, j) => {
        const x = crossing(a, b, c, t.points[(j + 1) % t.points.length]!);
        return x ? [x[0]] : [];
      }),
    );
    const parts = [0, ...cuts, 1].sort((x, y) => x - y);
    for (let k = 0; k + 1 < parts.length; k++) {
      const [from, to] = [parts[k]!, parts[k + 1]!];
      const [out] = [from, (from + to) / 2, to]
        .map((f) => ({
          f,
          off: offAll(rims, { e: a.e + f * (b.e - a.e), n: a.n + f * (b.n - a.n) }),
        }))
        .sort((x, y) => y.off - x.off);
      if (out!.off > ON_BOUNDARY) return at[i]! + out!.f * (at[i + 1]! - at[i]!);
    }
  }
  return null;
}

/** How far a place lies outside all rims, m; 0 within one of them. */
const offAll = (rims: readonly Thing[], p: Point): number =>
  Math.min(...rims.map((t) => (inside(t.points, p) ? 0 : offThing(t, p))));
