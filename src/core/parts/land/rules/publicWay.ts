import { figure } from '../../../plan/catalogue.js';
import { planLength } from '../../../plan/geometry.js';
import { freeId } from '../../../plan/ids.js';
import { crossingsOf, stretchesNear, thingsOf } from '../../../land/things.js';
import { onLine, type Found, type Rule } from '../../../findings/rule.js';

/** A gate this near to a crossing serves it, m. */
const SERVES = 4;

/** Signs along a public way, and a way that a live line shuts. */
export const publicWay: Rule = {
  id: 'public-way',
  step: 'land',
  kind: 'confirm',
  source: {
    mark: 'published',
    text: 'IEC 60335-2-76, annexes: warning signs along public ways and at gates; from memory, confirm locally',
  },
  check: (scene) => {
    const every = figure(scene.cat, 'supplies.signEvery');
    const reach = figure(scene.cat, 'land.publicReach');
    return thingsOf(scene.plan, 'publicWay').flatMap((way) =>
      Object.values(scene.plan.lines).flatMap((line): Found[] => {
        if (!line.strands.some((s) => s.duty === 'live')) return [];
        const along = stretchesNear(line, way, reach);
        const out: Found[] = [];
        if (along.length > 0) {
          const length = along.reduce((sum, [a, b]) => sum + b - a, 0);
          const signs = Math.ceil(length / every) + along.length;
          out.push({
            key: `${line.id}-${way.id}-signs`,
            title: `Signs along ${way.name}`,
            why: `${line.name} is live and stands along it for ${scene.say.metres(length)}: ${signs} signs, one every ${scene.say.metres(every)} and one at each end, yellow, at least ${scene.say.mm(0.2)} by ${scene.say.mm(0.1)}, to be read from both sides.`,
            todo: 'They are in the supplies; check the local rule for their spacing.',
            place: onLine(line, along[0]![0], along[0]![1]),
          });
        }
        for (const x of crossingsOf(line, way)) {
          const served = Object.values(scene.plan.gates).some(
            (g) => g.line === line.id && Math.abs(g.at_m - x.s) <= g.width_m / 2 + SERVES,
          );
          if (served) continue;
          const id = freeId(scene.plan.gates, 'g');
          const width_m = Math.min(Math.max(way.width_m ?? 1.5, 1.2), 4);
          const half = width_m / 2;
          const at_m = Math.min(Math.max(x.s, half), planLength(line) - half);
          out.push({
            key: `${line.id}-${way.id}-${Math.round(x.s)}`,
            kind: 'mend',
            title: `${line.name} shuts ${way.name}`,
            why: `A live line crosses a public way at ${scene.where(line.id, x.s)} and there is no gate.`,
            todo: 'Put a gate there, insulated from the live strands, with a sign on both sides.',
            place: onLine(line, x.s),
            mend: {
              words: 'Put a gate there',
              patch: [
                {
                  op: 'add',
                  path: `/gates/${id}`,
                  value: {
                    id,
                    name: `Gate on ${way.name}`.slice(0, 80),
                    line: line.id,
                    at_m,
                    width_m,
                    cable: true,
                  },
                },
              ],
            },
          });
        }
        return out;
      }),
    );
  },
};
