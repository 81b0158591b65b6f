/** Lanes that pass through other fences: both their sides strained off there, and a gate across. */
import { bearing, pointAt, stations } from '../../../plan/geometry.js';
import { freeId } from '../../../plan/ids.js';
import type { Line } from '../../../plan/schema.js';
import { onLine, type Found, type Scene } from '../../../findings/rule.js';
import { cornersAt } from './corners.js';

type Meeting = Scene['meetings'][number];

/** A fence that both sides of a lane pass through. */
export interface LaneThrough {
  readonly fence: Line;
  readonly sides: readonly [Line, Line];
  /** Where along the fence, and along each side, m. */
  readonly at: readonly [number, number];
  readonly along: readonly [number, number];
  readonly crossings: readonly Meeting[];
}

/** Fences further apart than this are no lane, m. */
const LANE_WIDE = 15;
const LANE_NARROW = 2;
/** Sides of a lane run nearly alike. */
const ALIKE_deg = 20;

/** Pairs of crossings of one fence that two fences side by side make. */
export function lanesThrough(open: readonly Meeting[], scene: Scene): LaneThrough[] {
  const taken = new Set<Meeting>();
  return Object.values(scene.plan.lines).flatMap((fence) => {
    const across = open
      .filter((m) => m.a !== m.b && (m.a === fence.id || m.b === fence.id))
      .map((m) => {
        const own = m.a === fence.id;
        return { m, s: own ? m.sa : m.sb, side: scene.plan.lines[own ? m.b : m.a]!, on: own ? m.sb : m.sa }; // prettier-ignore
      })
      .sort((x, y) => x.s - y.s);
    return across.flatMap((x, i): LaneThrough[] => {
      const y = across[i + 1];
      if (!y || y.side === x.side || taken.has(x.m) || taken.has(y.m)) return [];
      const wide = y.s - x.s;
      const turn = Math.abs(headingAt(x.side, x.on) - headingAt(y.side, y.on)) % 180;
      if (wide < LANE_NARROW || wide > LANE_WIDE || Math.min(turn, 180 - turn) > ALIKE_deg)
        return [];
      taken.add(x.m).add(y.m);
      return [{ fence, sides: [x.side, y.side], at: [x.s, y.s], along: [x.on, y.on], crossings: [x.m, y.m] }]; // prettier-ignore
    });
  });
}

/** Which way a line runs at a place, degrees. */
function headingAt({ vertices }: Line, s: number): number {
  const at = stations(vertices);
  const leg = Math.max(
    0,
    Math.min(
      vertices.length - 2,
      at.findLastIndex((x) => x <= s),
    ),
  );
  return bearing(vertices[leg]!, vertices[leg + 1]!);
}

/** Most of a lane that one gate closes, m; and what it leaves beside it. */
const GATE_WIDE = 3.6;

export function laneFound({ fence, sides, at, along }: LaneThrough, scene: Scene): Found {
  const [one, other] = sides;
  const locked = [fence, one, other].some((l) => l.locked);
  const p = at.map((s) => pointAt(fence.vertices, s));
  const width_m = Math.min(GATE_WIDE, at[1] - at[0]);
  const id = freeId(scene.plan.gates, 'g');
  const gate = {
    id,
    name: `Lane gate ${Object.keys(scene.plan.gates).length + 1}`,
    line: fence.id,
    // Hung on the lane's own corner post.
    at_m: at[0] + width_m / 2,
    width_m,
    cable: true,
  };
  return {
    key: `${fence.id}-lane-${[one.id, other.id].sort().join('-')}`,
    title: `A lane passes through ${fence.name}`,
    why: `${one.name} and ${other.name} pass through it at ${scene.where(fence.id, at[0])} and ${scene.where(fence.id, at[1])}: strands cannot pass through strands, and across the lane it shuts the way.`,
    todo: 'Strain all three off on posts that they share, and put a gate across the lane.',
    place: onLine(fence, at[0], at[1]),
    badness: 2,
    mends: () =>
      locked
        ? []
        : [
            {
              words: 'Corner posts there, and a gate across the lane',
              patch: [
                ...cornersAt(
                  fence,
                  at.map((s, i) => ({ s, p: p[i]! })),
                ),
                ...cornersAt(one, [{ s: along[0], p: p[0]! }]),
                ...cornersAt(other, [{ s: along[1], p: p[1]! }]),
                { op: 'add', path: `/gates/${id}`, value: gate },
              ],
            },
          ],
  };
}
