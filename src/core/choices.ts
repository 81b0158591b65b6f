/** Everything that the choice of a make-up rests on, for one line: worked out when it is looked at. */
import { memoOn } from './base/memo.js';
import { compareOrders, type Comparison, type Remembered } from './compare/compare.js';
import { otherKinds, type KindRow } from './compare/kinds.js';
import { tradeOf, type Trade } from './compare/trade.js';
import { baysOf } from './lineStage.js';
import type { Plan } from './plan/schema.js';
import { NONE, type Stages } from './stages.js';
import { oldFencesCrossed } from './supplies/takeoff.js';
import type { Ground } from './terrain/ground.js';
import { strainOf } from './wire/strain.js';

export interface Choices {
  readonly line: string;
  readonly comparison: Comparison | null;
  readonly trade: Trade | null;
  readonly kinds: readonly KindRow[];
}

/**
 * Makes the comparison, with a memory of its rows: while a strand of the line is dragged only the row
 * of what stands is worked out anew.
 */
export function createChoices() {
  const rows = memoOn<Remembered>();
  /** Null when the plan has no such line. */
  return (id: string, plan: Plan, ground: Ground, stages: Stages): Choices | null => {
    const line = plan.lines[id];
    const staged = stages.staged[id];
    if (!line || !staged) return null;
    const { cat, wired, topology } = stages;
    const group = stages.groups.find((g) => g.lines.includes(id));
    const energiser = group?.energisers[0];
    const fed = energiser ? { energiser, lines: group!.lines, wired, topology, plan } : null;
    const bays = baysOf(staged.layout);
    const { report, layout } = staged;
    const gates = stages.gates[id] ?? NONE;
    const others = (fed?.lines ?? []).flatMap((l) => [
      l === id ? null : wired[l],
      topology.marks[l],
    ]);
    const shape = JSON.stringify({ ...line, strands: null, name: null });
    const { sizing, soil, things, climate } = plan;
    const on = [cat, ground, sizing, soil, things, climate, energiser, gates, shape, ...others];
    return {
      line: id,
      comparison: compareOrders(
        {
          line,
          report,
          layout,
          crossings: oldFencesCrossed(line, plan.things),
          fed,
          plan,
          remember: (order, strands, make) =>
            rows.get(`${id} ${order}`, [...on, JSON.stringify(strands)], make),
          strainWith: (strands) =>
            strainOf({ ...line, strands: [...strands] }, bays, plan.climate, cat),
        },
        cat,
      ),
      trade: tradeOf(line, report, cat),
      kinds: otherKinds(report, cat),
    };
  };
}
