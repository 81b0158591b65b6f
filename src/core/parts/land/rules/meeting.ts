/** Fences that pass through one another, ends in the air, paddocks that came open. */
import { JOIN_TOLERANCE, nearest, planLength, pointAt, stations } from '../../../plan/geometry.js';
import type { Line, Plan } from '../../../plan/schema.js';
import { onLine, type Found, type Rule, type Scene } from '../../../findings/rule.js';
import { cornersAt } from './corners.js';
import { laneFound, lanesThrough } from './lanes.js';

/** Two lines that cross without a post that both are strained off on, or a gate for one of them. */
export const crosses: Rule = {
  id: 'crosses',
  cause: 'Fences cross',
  step: 'land',
  kind: 'mend',
  whole: true,
  source: {
    mark: 'practice',
    text: 'Where fences cross, their wires end on a post that they share',
  },
  check: (scene) => {
    const places = scene.meetings.filter((m) => m.crosses);
    const open = places.filter(
      (m) =>
        !(strainedAt(scene.plan, m.a, m.sa) && strainedAt(scene.plan, m.b, m.sb)) &&
        !gated(scene.plan, m),
    );
    const lanes = lanesThrough(open, scene);
    const inLane = new Set(lanes.flatMap((l) => l.crossings));
    const pairs = new Map<string, typeof open>();
    for (const m of open)
      if (!inLane.has(m)) pairs.set(`${m.a}-${m.b}`, [...(pairs.get(`${m.a}-${m.b}`) ?? []), m]);
    const lanesFound = lanes.map((lane) => laneFound(lane, scene));
    const crossed = [...pairs].map(([key, all]): Found => {
      const { a, b, sa, sb } = all[0]!;
      const [one, other] = [scene.plan.lines[a]!, scene.plan.lines[b]!];
      const self = a === b;
      const more = all.length > 1 ? `, and at ${all.length - 1} more` : '';
      return {
        key,
        cause: self ? 'Fence crosses itself' : 'Fences cross',
        title: self ? `${one.name} crosses itself` : `${one.name} and ${other.name} cross`,
        why: self
          ? `At ${scene.where(a, sa)} it passes through itself at ${scene.where(b, sb)}${more}: strands cannot pass through strands.`
          : `At ${scene.where(a, sa)} of ${one.name} it passes through ${other.name} at ${scene.where(b, sb)}${more}: strands cannot pass through strands.`,
        todo: self
          ? 'Draw it so that it ends on itself, or cut it there into two lines.'
          : 'Strain both off on one post there, or put a gate where one is to pass.',
        place: onLine(one, sa),
        badness: all.length,
        mends: () =>
          self || one.locked || other.locked
            ? []
            : [
                {
                  words: 'A corner post there that both are strained off on',
                  patch: [
                    ...cornersAt(
                      one,
                      all.map((m) => ({ s: m.sa, p: pointAt(one.vertices, m.sa) })),
                    ),
                    ...cornersAt(
                      other,
                      all.map((m) => ({ s: m.sb, p: pointAt(one.vertices, m.sa) })),
                    ),
                  ],
                },
              ],
      };
    });
    return [...lanesFound, ...crossed];
  },
};

const gated = (plan: Plan, m: Scene['meetings'][number]): boolean =>
  Object.values(plan.gates).some(
    (g) =>
      (g.line === m.a && Math.abs(g.at_m - m.sa) <= g.width_m / 2) ||
      (g.line === m.b && Math.abs(g.at_m - m.sb) <= g.width_m / 2),
  );

/** Whether a line is strained off at a place: an end or a corner stands there. */
function strainedAt(plan: Plan, id: string, s: number): boolean {
  const { vertices } = plan.lines[id]!;
  const at = stations(vertices);
  return vertices.some(
    (v, i) =>
      Math.abs(at[i]! - s) <= JOIN_TOLERANCE &&
      (v.kind !== 'bend' || i === 0 || i === vertices.length - 1),
  );
}

/** A fence within the property that hangs on others at one end alone. */
export const looseEnd: Rule = {
  id: 'loose-end',
  cause: 'Fence ends in the air',
  step: 'land',
  kind: 'confirm',
  whole: true,
  source: { mark: 'derived', text: 'Ends of lines that touch no other line' },
  check: (scene) => {
    const joined = (id: string, s: number) =>
      scene.meetings.some(
        (m) =>
          (m.a === id && Math.abs(m.sa - s) <= JOIN_TOLERANCE) ||
          (m.b === id && Math.abs(m.sb - s) <= JOIN_TOLERANCE),
      );
    return Object.values(scene.plan.lines).flatMap((line): Found[] => {
      const total = planLength(line);
      const free = [0, total].filter((s) => !joined(line.id, s));
      const short = scene.gaps.some((g) => g.line === line.id);
      if (line.boundary || free.length !== 1 || short) return [];
      const s = free[0]!;
      return [
        {
          key: `${line.id}-${line.vertices.at(s === 0 ? 0 : -1)!.id}`,
          title: `${line.name} ends in the air`,
          why: `Its ${s === 0 ? 'start' : 'end'} touches no other fence${reach(scene, line, s)}: stock walk round it.`,
          todo: 'Bring it to a fence, or leave it if it is meant.',
          place: onLine(line, s),
        },
      ];
    });
  },
};

/** How far the nearest other fence is, in words. */
function reach(scene: Scene, line: Line, s: number): string {
  const p = pointAt(line.vertices, s);
  let best = { off: Infinity, name: '' };
  for (const other of Object.values(scene.plan.lines)) {
    if (other.id === line.id) continue;
    const { off } = nearest(other.vertices, p);
    if (off < best.off) best = { off, name: other.name };
  }
  return Number.isFinite(best.off) ? `; ${best.name} is ${scene.say.metres(best.off)} away` : '';
}

/** A paddock that has a name and is no longer closed. */
export const paddockOpen: Rule = {
  id: 'paddock-open',
  cause: 'Paddock is not closed',
  step: 'land',
  kind: 'mend',
  whole: true,
  source: { mark: 'derived', text: 'Paddocks are the faces between the lines' },
  check: (scene) =>
    Object.values(scene.plan.paddocks ?? {})
      .filter((p) => !scene.paddocks.some((face) => face.id === p.id))
      .map((p) => ({
        key: p.id,
        title: `${p.name} is not closed`,
        why: 'No fences go all round the place where it was named; its stock walk out.',
        todo: 'Close the fence that ends in the air, or take the paddock’s name away on Land.',
        place: { e: p.e, n: p.n },
      })),
};
