/** Gates on lines: the ground under their swing, their cable, what they take. */
import { bearing, fromBearing, planLength, pointAt } from '../../plan/geometry.js';
import { carried } from '../../power/circuit.js';
import { figure } from '../../plan/catalogue.js';
import type { Gate, Line } from '../../plan/schema.js';
import { heightAt, type Ground } from '../../terrain/ground.js';
import { ownKeys } from '../door.js';
import { lineStage, type Counted, type Door, type Items, type Shown } from '../part.js';
import { keys } from './keys.js';
import { placed } from './placed.js';
import { gateCableShallow, gateNoEarthCable } from './rules/gateCable.js';
import { gateNoCable } from './rules/gateNoCable.js';
import { gateSwing } from './rules/gateSwing.js';

export type GatesPiece = Shown<typeof keys>;

export const gates = {
  id: 'gates' as const,
  keys,
  ...placed,
  check(door: Door): void {
    const { plan, say } = door;
    ownKeys(door, 'gates', plan.gates);
    for (const [key, gate] of Object.entries(plan.gates)) {
      const line = Object.hasOwn(plan.lines, gate.line) ? plan.lines[gate.line] : undefined;
      if (!line) say(`/gates/${key}/line`, `no line is called "${gate.line}"`);
      else if (gate.at_m > planLength(line) + 1)
        say(`/gates/${key}/at_m`, 'lies beyond the end of its line');
    }
  },
  line: lineStage({
    needs: ({ line: { vertices }, gates, ground }) => ({ vertices, gates, ground }),
    work: ({ vertices, gates, ground }): GatesPiece => ({
      swings: Object.fromEntries(gates.map((g) => [g.id, swings(vertices, g, ground)])),
    }),
  }),
  count({ line, gates, cat }: Counted): Items {
    return gates.flatMap((gate): Items => {
      const cables = (['live', 'earth'] as const).filter(
        (duty) => carried(gate, duty) && line.strands.some((s) => s.duty === duty),
      ).length;
      return [
        ...hung(gate).map(([item, n]) => [item, n, gate.at_m] as const),
        ['gate.mesh', gate.mesh ? (gate.leaves ?? 1) : 0, gate.at_m],
        ['gate.live', gate.live ? (gate.leaves ?? 1) : 0, gate.at_m],
        ['cable', cables * (gate.width_m + figure(cat, 'gate.cableExtra')), gate.at_m],
        ['conduit', cables && gate.conduit !== false ? gate.width_m + 1 : 0, gate.at_m],
        ['clamp.jumper', 2 * cables, gate.at_m],
      ];
    });
  },
  rules: [gateSwing, gateNoCable, gateNoEarthCable, gateCableShallow],
};

/** Leaves with what they hang on and are held shut by; a panel in place of a gate is tied to its posts. */
function hung({ later, leaves = 1 }: Gate): [item: string, quantity: number][] {
  if (later) return [['gate.panel', 1]];
  return [
    ['gate', leaves],
    ['gate.hinge', 2 * leaves],
    ['gate.latch', 1],
    // One of two leaves is held to the ground.
    ['gate.bolt', leaves - 1],
  ];
}

/** How much the ground rises under a gate's leaves as they open to either side, m. */
function swings(
  vertices: Line['vertices'],
  gate: Gate,
  ground: Ground,
): GatesPiece['swings'][string] {
  if (ground.kind === 'flat') return { left: 0, right: 0 };
  const half = gate.width_m / 2;
  const leaf = gate.leaves === 2 ? half : gate.width_m;
  const a = pointAt(vertices, gate.at_m - half);
  const b = pointAt(vertices, gate.at_m + half);
  const closed = bearing(a, b);
  const leaves = [
    { hinge: a, start: closed, turn: 1 },
    { hinge: b, start: closed + 180, turn: -1 },
  ].filter((_, k) => gate.leaves === 2 || k === (gate.hinge === 'end' ? 1 : 0));
  const rise = (side: 1 | -1) => {
    let most = 0;
    for (const { hinge, start, turn } of leaves) {
      for (let deg = 15; deg <= 90; deg += 15) {
        const tip = fromBearing(hinge, leaf, start + side * turn * deg);
        const up = heightAt(ground, tip) - heightAt(ground, hinge);
        if (!Number.isNaN(up)) most = Math.max(most, up);
      }
    }
    return most;
  };
  return { left: rise(-1), right: rise(1) };
}
