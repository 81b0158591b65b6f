import { figure } from '../../../plan/catalogue.js';
import { pointAt } from '../../../plan/geometry.js';
import type { Line, Thing } from '../../../plan/schema.js';
import { crossingsOf, offThing, stretchesNear, thingsOf } from '../../../land/things.js';
import { onLine, type Found, type Rule, type LineScene } from '../../../findings/rule.js';

/** Least distance in air by voltage class, m. */
const airLimit = (t: Thing, scene: LineScene): number => {
  const kV = t.volts_kV ?? Infinity;
  const key = kV <= 1 ? 'land.air1kV' : kV <= 33 ? 'land.air33kV' : 'land.airAbove';
  return figure(scene.cat, key);
};

/** A fence too near to an overhead line, or crossing it at a flat angle. */
export const overhead: Rule = {
  id: 'overhead',
  cause: 'Near an overhead line',
  step: 'land',
  kind: 'stop',
  source: {
    mark: 'published',
    text: 'IEC 60335-2-76, annexes on fences near overhead lines; figures from memory, confirm locally',
  },
  check: (scene) => {
    const square = figure(scene.cat, 'land.overheadSquare');
    return thingsOf(scene.plan, 'overhead').flatMap((t) =>
      Object.values(scene.plan.lines).flatMap((line): Found[] => {
        const out: Found[] = [];
        const near = nearestInAir(line, t, airLimit(t, scene));
        if (near)
          out.push({
            key: `${line.id}-${t.id}`,
            title: `${line.name} too near to ${t.name}`,
            why: `${t.height_m === undefined ? 'Its height is not given, so only the distance aside counts: ' : ''}at ${scene.where(line.id, near.s)} there are ${scene.say.metres(near.air)} of air between the fence and the line${t.volts_kV === undefined ? ' of unknown voltage' : ''}; at least ${scene.say.metres(airLimit(t, scene))} are wanted.`,
            todo: 'Move the fence, or cross elsewhere. Ask the owner of the line before any work near it.',
            place: onLine(line, near.s),
            badness: airLimit(t, scene) - near.air,
          });
        for (const x of crossingsOf(line, t)) {
          if (x.angle_deg >= square) continue;
          out.push({
            key: `${line.id}-${t.id}-flat`,
            kind: 'mend',
            cause: 'Crosses an overhead line at a flat angle',
            title: `${line.name} crosses ${t.name} at a flat angle`,
            why: `It crosses at ${Math.round(x.angle_deg)} degrees and so runs below the line for long; a crossing is made at about a right angle.`,
            todo: 'Turn the fence so that it crosses squarely.',
            place: onLine(line, x.s),
          });
          break;
        }
        return out;
      }),
    );
  },
};

/** The least distance in air where it is under the limit; null elsewhere. */
function nearestInAir(line: Line, t: Thing, limit: number): { s: number; air: number } | null {
  const top = line.strands.at(-1)?.height_m ?? 0;
  const up = t.height_m === undefined ? 0 : Math.max(0, t.height_m - top);
  let best: { s: number; air: number } | null = null;
  for (const [from, to] of stretchesNear(line, t, limit)) {
    const pieces = Math.max(1, Math.ceil((to - from) / 0.5));
    for (let k = 0; k <= pieces; k++) {
      const s = from + (k / pieces) * (to - from);
      const air = Math.hypot(offThing(t, pointAt(line.vertices, s)), up);
      if (air < limit - 1e-9 && (!best || air < best.air)) best = { s, air };
    }
  }
  return best;
}
