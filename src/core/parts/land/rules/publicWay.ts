import { figure } from '../../../plan/catalogue.js';
import { planLength } from '../../../plan/geometry.js';
import { freeId } from '../../../plan/ids.js';
import type { Gate, Line, Plan, Thing } from '../../../plan/schema.js';
import { signsAlong } from '../../../land/signs.js';
import { crossingsOf, stretchesNear, thingsOf } from '../../../land/things.js';
import { listed, onLine, type Found, type Rule, type Scene } from '../../../findings/rule.js';

/** A gate this near to a crossing serves it, m. */
const SERVES = 4;

/** Signs along a public way, and a way that a live line shuts. */
export const publicWay: Rule = {
  id: 'public-way',
  cause: 'Public way at a fence',
  step: 'land',
  kind: 'confirm',
  // A gate that it puts in is named among all gates.
  whole: true,
  source: {
    mark: 'published',
    text: 'IEC 60335-2-76, annexes: warning signs along public ways and at gates; from memory, confirm locally',
  },
  check: (scene) =>
    thingsOf(scene.plan, 'publicWay').flatMap((way) =>
      Object.values(scene.plan.lines)
        .filter((line) => line.strands.some((s) => s.duty === 'live'))
        .flatMap((line) => [...signs(scene, line, way), ...shut(scene, line, way)]),
    ),
};

function signs(scene: Scene, line: Line, way: Thing): Found[] {
  const every = figure(scene.cat, 'supplies.signEvery');
  const along = stretchesNear(line, way, figure(scene.cat, 'land.publicReach'));
  if (along.length === 0) return [];
  const length = along.reduce((sum, [a, b]) => sum + b - a, 0);
  const count = along.reduce((sum, [a, b]) => sum + signsAlong(b - a, scene.cat), 0);
  return [
    {
      key: `${line.id}-${way.id}-signs`,
      cause: 'Signs along a public way',
      title: `Signs along ${way.name}`,
      why: `${line.name} is live and stands along it for ${scene.say.metres(length)}: ${count} signs, one every ${scene.say.metres(every)} and one at each end, yellow, at least ${scene.say.mm(0.2)} by ${scene.say.mm(0.1)}, to be read from both sides.`,
      todo: 'They are in the supplies; check the local rule for their spacing.',
      place: onLine(line, along[0]![0], along[0]![1]),
      badness: count,
    },
  ];
}

function shut(scene: Scene, line: Line, way: Thing): Found[] {
  const gates = Object.values(scene.plan.gates).filter((g) => g.line === line.id);
  const open = crossingsOf(line, way).filter(
    (x) => !gates.some((g) => Math.abs(g.at_m - x.s) <= g.width_m / 2 + SERVES),
  );
  if (open.length === 0) return [];
  const many = open.length > 1;
  return [
    {
      key: `${line.id}-${way.id}`,
      kind: 'mend',
      cause: 'Fence shuts a public way',
      title: `${line.name} shuts ${way.name}`,
      why: `A live line crosses a public way at ${listed(open.map((x) => scene.where(line.id, x.s)))} and there is no gate.`,
      todo: `Put a gate there, insulated from the live strands, with a sign on both sides.`,
      place: onLine(line, open[0]!.s),
      badness: open.length,
      mends: () => [
        {
          words: many ? 'Put gates there' : 'Put a gate there',
          patch: gatesAt(
            scene.plan,
            line,
            way,
            open.map((x) => x.s),
          ),
        },
      ],
    },
  ];
}

function gatesAt(plan: Plan, line: Line, way: Thing, places: readonly number[]) {
  const taken: Record<string, unknown> = { ...plan.gates };
  const width_m = Math.min(Math.max(way.width_m ?? 1.5, 1.2), 4);
  return places.map((s) => {
    const id = freeId(taken, 'g');
    const value: Gate = {
      id,
      name: `Gate on ${way.name}`.slice(0, 80),
      line: line.id,
      at_m: Math.min(Math.max(s, width_m / 2), planLength(line) - width_m / 2),
      width_m,
      cable: true,
    };
    taken[id] = value;
    return { op: 'add' as const, path: `/gates/${id}`, value };
  });
}
