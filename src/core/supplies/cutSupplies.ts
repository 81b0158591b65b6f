/** The list of supplies as the coils are cut: reels of each length, and a join where one falls. */
import { USES } from '../report/uses.js';
import { recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Supply } from '../report/schema.js';
import { priced } from './takeoff.js';
import type { WireCut } from './wireCuts.js';

/**
 * Coils and joins of the list in place of its first count. A row that was changed by hand stays as it is.
 */
export function withCuts(
  supplies: readonly Supply[],
  cuts: readonly WireCut[],
  cat: Catalogue,
): Supply[] {
  const coils = new Map<string, number>();
  const joins = new Map<string, number>();
  const wires = new Map<string, WireCut>();
  for (const cut of cuts) {
    if (cut.fault) continue;
    wires.set(`wire.${cut.wire}`, cut);
    for (const item of cut.reels) coils.set(item, 0);
    for (const { reel } of cut.cutting.coils) {
      if (reel === null) continue;
      const item = cut.reels[reel]!;
      coils.set(item, coils.get(item)! + 1);
    }
    for (const { joint } of cut.joined) {
      const part = recordOf(cat.joints, joint).price;
      if (part) joins.set(part, (joins.get(part) ?? 0) + 1);
    }
  }
  const listed = new Set(supplies.map((s) => s.id));
  const again = (s: Supply, counted: number): Supply => {
    const quantity = s.changed === undefined || s.quantity === s.counted ? counted : s.quantity;
    return { ...s, counted, quantity, cost: s.out ? 0 : quantity * s.price };
  };
  const row = (item: string, n: number): Supply => ({ ...priced(item, n, cat), lines: {} });
  const out = supplies.flatMap((s): Supply[] => {
    const cut = wires.get(s.id);
    const guessed = s.uses?.[USES.coilsJoined] ?? 0;
    if (guessed > 0 || joins.has(s.id)) {
      const now = joins.get(s.id) ?? 0;
      const uses = { ...s.uses, [USES.coilsJoined]: now };
      const counted = s.counted - guessed + now;
      joins.delete(s.id);
      return counted > 0 || s.changed !== undefined ? [again({ ...s, uses }, counted)] : [];
    }
    const own = coils.has(s.id) ? again(s, coils.get(s.id)!) : s;
    // What is used of the wire stands in its first row, other reels behind it.
    const others = (cut?.reels ?? []).filter((item) => item !== s.id && coils.get(item)! > 0 && !listed.has(item)); // prettier-ignore
    return [own, ...others.map((item) => row(item, coils.get(item)!))];
  });
  return [...out, ...[...joins].map(([item, n]) => ({ ...row(item, n), uses: { [USES.coilsJoined]: n } }))]; // prettier-ignore
}
