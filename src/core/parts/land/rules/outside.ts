import { inside } from '../../../land/faces.js';
import { offThing, thingsOf } from '../../../land/things.js';
import { pointAt, stations } from '../../../plan/geometry.js';
import { crossing } from '../../../plan/legIndex.js';
import type { Line, Thing } from '../../../plan/schema.js';
import { onLine, type Found, type Rule } from '../../../findings/rule.js';

/** A boundary fence stands on the boundary: this far over counts as on it, m. */
const ON_BOUNDARY = 0.5;

/** A line outside the property's own rim. */
export const outside: Rule = {
  id: 'outside',
  step: 'land',
  kind: 'stop',
  source: { mark: 'derived', text: 'The rim of the property as it was drawn' },
  check: (scene) => {
    const rims = thingsOf(scene.plan, 'property').filter((t) => t.points.length >= 3);
    if (rims.length === 0) return [];
    return Object.values(scene.plan.lines).flatMap((line): Found[] => {
      const s = firstOutside(line, rims);
      if (s === null) return [];
      const p = pointAt(line.vertices, s);
      return [
        {
          key: line.id,
          title: `${line.name} leaves the property`,
          why: `At ${scene.say.metres(s)} it stands ${scene.say.metres(Math.min(...rims.map((t) => offThing(t, p))))} outside the rim that was drawn.`,
          todo: 'Bring it back, or agree it with the neighbour and draw the rim as it is.',
          place: onLine(line, s),
        },
      ];
    });
  },
};

/** The first place of a line outside all rims: legs are cut where they cross a rim. */
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
      const f = (parts[k]! + parts[k + 1]!) / 2;
      const p = { e: a.e + f * (b.e - a.e), n: a.n + f * (b.n - a.n) };
      if (!rims.some((t) => inside(t.points, p) || offThing(t, p) <= ON_BOUNDARY))
        return at[i]! + f * (at[i + 1]! - at[i]!);
    }
  }
  return null;
}
