/** Everything that the choice of a make-up rests on, for one line: worked out when it is looked at. */
import { memoOn } from './base/memo.js';
import { compareOrders, type Comparison, type Remembered } from './compare/compare.js';
import { otherKinds, type KindRow } from './compare/kinds.js';
import { tradeOf, type Trade } from './compare/trade.js';
import { PARTS } from './parts/index.js';
import type { Hurry } from './parts/part.js';
import { countOf, NONE, type Worked } from './pipeline.js';
import type { Plan } from './plan/schema.js';
import { baysOf } from './posts/layout.js';
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
  /** What each row last saw of the network: good enough while something is in the hand. */
  const seen = new Map<string, Remembered['seen']>();
  /**
   * Null when the plan has no such line.
   * @param hurry what is felt may be that of before, for a moment; all else is of now
   */
  return (
    id: string,
    plan: Plan,
    ground: Ground,
    worked: Worked,
    hurry: Hurry = false,
  ): Choices | null => {
    const line = plan.lines[id];
    const of = worked.of[id];
    if (!line || !of) return null;
    const { cat } = worked;
    const { wired, topology, groups } = worked.whole.power;
    const group = groups.find((g) => g.lines.includes(id));
    const energiser = group?.energisers[0];
    const fed = energiser ? { energiser, ids: group!.lines, wired, topology, plan, cat } : null;
    const bays = baysOf(of.posts.layout);
    const report = worked.lines[id]!;
    const gates = worked.gates[id] ?? NONE;
    const others = (fed?.ids ?? []).flatMap((l) => [l === id ? null : wired[l], topology.marks[l]]);
    const shape = JSON.stringify({ ...line, strands: null, name: null });
    const { sizing, soil, things, climate } = plan;
    const on = [cat, ground, sizing, soil, things, climate, energiser, gates, shape, ...others];
    return {
      line: id,
      comparison: compareOrders(
        {
          line,
          report,
          count: (other) => countOf(PARTS, other, NONE, of, cat),
          fed,
          plan,
          remember: (order, strands, make) => {
            const key = `${id} ${order}`;
            const before = hurry ? seen.get(key) : undefined;
            if (before) return make(before);
            const row = rows.get(key, [...on, JSON.stringify(strands)], () => make());
            seen.set(key, row.seen);
            return row;
          },
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
