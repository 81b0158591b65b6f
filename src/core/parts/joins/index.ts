/** What is tied to what, and what of the fence hangs on its energiser through it. */
import { USES } from '../../report/uses.js';
import { memoFew } from '../../base/memo.js';
import type { Continuity } from '../../joins/continuity.js';
import { circuitOf } from '../../power/circuit.js';
import { fedOf } from '../../power/fed.js';
import { strandOf } from '../../power/joined.js';
import type { Fence, Network } from '../../power/wired.js';
import type { Report } from '../../report/schema.js';
import type { Counted, Door, Items, ShownWhole, WholeGiven } from '../part.js';
import { itemsOfCrossing } from '../../wiring/crossings.js';
import { itemsAt, placesOf } from '../../wiring/place.js';
import type { PowerWhole } from '../power/index.js';
import { keys } from './keys.js';
import { placed } from './placed.js';
import { deadTailLong } from './rules/deadTailLong.js';
import { insulatorUnsuited } from './rules/insulatorUnsuited.js';
import { jumperMissing } from './rules/jumperMissing.js';
import { liveToEarth } from './rules/liveToEarth.js';
import { mixedMetal } from './rules/mixedMetal.js';
import { strandDead } from './rules/strandDead.js';
import { strandOneSided } from './rules/strandOneSided.js';
import { tapInTension } from './rules/tapInTension.js';

type Fed = Report['fed'][string];

/** What is tied, with what it takes by the line that has the place. */
export interface JoinsWhole extends ShownWhole<typeof keys> {
  readonly taken: Readonly<Record<string, Items>>;
}

export const joins = {
  id: 'joins' as const,
  keys,
  ...placed,
  // A tie to a line or strand that has gone since ties nothing: taking something away must not be refused for it.
  check({ plan, cat, say, named }: Door): void {
    const families = new Set(Object.values(cat.posts).map((p) => p.family));
    for (const [id, { insulators }] of Object.entries(plan.lines))
      for (const [spot, kind] of Object.entries(insulators ?? {})) {
        if (spot !== 'end' && spot !== 'bend' && !families.has(spot))
          say(`/lines/${id}/insulators/${spot}`, 'names no kind of post, `bend` or `end`');
        named(cat.insulators, kind, `/lines/${id}/insulators/${spot}`, 'insulator');
      }
    for (const [id, line] of Object.entries(plan.lines))
      line.joins?.forEach(({ ties }, k) =>
        ties.forEach(({ a, b }, t) => {
          const same = a.line === b.line && a.side === b.side && a.strand === b.strand;
          if (same) say(`/lines/${id}/joins/${k}/ties/${t}`, 'a strand is tied to itself');
        }),
      );
  },
  property() {
    const known = memoFew<Fed | null>(4);
    const counted = memoFew<Readonly<Record<string, Items>>>(4);
    return ({ plan, cat, whole }: WholeGiven): JoinsWhole => {
      const { wired, topology, groups } = (whole as { power: PowerWhole }).power;
      const fed: Report['fed'] = {};
      const taken: Record<string, Items> = {};
      for (const { lines: ids, energisers } of groups) {
        const on = ids.flatMap((id) => [wired[id], topology.marks[id]]);
        for (const energiser of energisers) {
          const own = known.get(energiser.id, [energiser, plan.soil, plan.sizing, cat, ...on], () =>
            fedBy({ energiser, ids, wired, topology, plan, cat }),
          );
          if (own) fed[energiser.id] = own;
        }
        const fence = { energiser: energisers[0] ?? null, ids, wired, topology, plan, cat };
        Object.assign(
          taken,
          counted.get(ids.join(), [energisers[0], plan.connectors, cat, ...on], () =>
            takenBy(fence),
          ),
        );
      }
      return { fed, taken };
    };
  },
  count: ({ line, cat }: Counted): Items =>
    (line.crossings ?? []).flatMap((c) =>
      itemsOfCrossing(line, c, cat).map(([item, n]) => [item, n, c.at_m] as const),
    ),
  countProperty: ({ whole }: WholeGiven) => (whole as { joins: JoinsWhole }).joins.taken,
  rules: [
    strandDead,
    strandOneSided,
    liveToEarth,
    jumperMissing,
    mixedMetal,
    tapInTension,
    insulatorUnsuited,
    deadTailLong,
  ],
};

/** Connectors and wire of all ties of some lines, by the line that has the place. */
function takenBy(fence: Fence): Record<string, Items> {
  const out: Record<string, Items> = {};
  for (const place of placesOf(fence)) {
    // Jumper wire comes off the offcuts: it is bought for no place.
    const own = itemsAt(place, fence.cat).map(([item, n]): Items[number] =>
      item.startsWith('wire.') ? [item, n, undefined, USES.jumpers] : [item, n, place.at_m],
    );
    out[place.line] = [...(out[place.line] ?? []), ...own];
  }
  return out;
}

/** Continuity of a network as built today, its stretches put together by run. */
function fedBy(net: Network): Fed | null {
  const found = fedOf(circuitOf(net, 'today'));
  if (!found) return null;
  const { live_m, fed_m, dead, break_cost, live_touches_earth: touches } = found;
  return {
    live_m,
    fed_m,
    touches,
    dead: byRun(net, dead).map(({ line, from_m, to_m, strands }) => ({
      line,
      from_m,
      to_m,
      strands,
    })),
    single: byRun(net, break_cost),
  };
}

/** Stretches by the run that they are of; of what one break costs, the dearest. */
function byRun(
  net: Network,
  stretches: readonly (Continuity['dead'][number] & { readonly lost_m?: number })[],
): Fed['single'] {
  const out = new Map<string, Fed['single'][number]>();
  for (const { strand: name, lost_m = 0 } of stretches) {
    const own = strandOf(name);
    if (!own) continue;
    const key = `${own.line} ${own.run}`;
    let one = out.get(key);
    if (!one) {
      const { from_m, to_m } = net.wired[own.line]!.runs[own.run]!;
      out.set(key, (one = { line: own.line, from_m, to_m, strands: [], lost_m: 0 }));
    }
    if (!one.strands.includes(own.strand)) one.strands.push(own.strand);
    one.lost_m = Math.max(one.lost_m, lost_m);
  }
  return [...out.values()];
}
