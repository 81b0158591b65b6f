/** Fences that pass through one another, ends in the air, paddocks that came open. */
import {
  bearing,
  JOIN_TOLERANCE,
  nearest,
  planLength,
  pointAt,
  stations,
} from '../../../plan/geometry.js';
import { freeId } from '../../../plan/ids.js';
import type { Line, PatchStep, Plan, Point } from '../../../plan/schema.js';
import { onLine, type Found, type Rule, type Scene } from '../../../findings/rule.js';

/** Two lines that cross without a post that both are strained off on, or a gate for one of them. */
export const crosses: Rule = {
  id: 'crosses',
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

type Meeting = Scene['meetings'][number];

/** A fence that both sides of a lane pass through. */
interface LaneThrough {
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
function lanesThrough(open: readonly Meeting[], scene: Scene): LaneThrough[] {
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

function laneFound({ fence, sides, at, along }: LaneThrough, scene: Scene): Found {
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

/**
 * Corners at places of a line, from its end to its start, so that none shifts the rank of the next; places
 * that are one get one.
 */
function cornersAt(line: Line, places: readonly { s: number; p: Point }[]): PatchStep[] {
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

/** A fence within the property that hangs on others at one end alone. */
export const looseEnd: Rule = {
  id: 'loose-end',
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
