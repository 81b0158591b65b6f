import { inside } from '../../land/faces.js';
import { offThing, thingsOf } from '../../land/things.js';
import { planLength, pointAt } from '../../plan/geometry.js';
import { onLine, type Found, type Rule } from '../rule.js';

/** A boundary fence stands on the boundary: this far over counts as on it, m. */
const ON_BOUNDARY = 0.5;

/** A line outside the property's own rim. */
export const outside: Rule = {
  id: 'outside',
  kind: 'stop',
  source: { mark: 'derived', text: 'The rim of the property as it was drawn' },
  check: (scene) => {
    const rims = thingsOf(scene.plan, 'property').filter((t) => t.points.length >= 3);
    if (rims.length === 0) return [];
    return Object.values(scene.plan.lines).flatMap((line): Found[] => {
      const total = planLength(line);
      const pieces = Math.max(1, Math.ceil(total));
      for (let k = 0; k <= pieces; k++) {
        const s = (k / pieces) * total;
        const p = pointAt(line.vertices, s);
        if (rims.some((t) => inside(t.points, p) || offThing(t, p) <= ON_BOUNDARY)) continue;
        const off = Math.min(...rims.map((t) => offThing(t, p)));
        return [
          {
            key: line.id,
            title: `${line.name} leaves the property`,
            why: `At ${scene.say.metres(s)} it stands ${scene.say.metres(off)} or more outside the rim that was drawn.`,
            todo: 'Bring it back, or agree it with the neighbour and draw the rim as it is.',
            place: onLine(line, s),
          },
        ];
      }
      return [];
    });
  },
};
