/** What a place may read by the plan: the fence as it may be, with more and less leakage and resistance. */
import { MAY_BE } from '../faults/hunt.js';
import { voltsAlong } from '../faults/property.js';
import type { SeasonId } from '../plan/catalogue.js';
import { voltsOf } from '../power/volts.js';
import type { Network } from '../power/wired.js';
import type { TestPoint } from './points.js';

/** V. */
export interface Band {
  readonly low_V: number;
  readonly high_V: number;
}

/** By key of point; points of other units and kinds have none. */
export function bandsOf(net: Network, season: SeasonId, points: readonly TestPoint[]): Record<string, Band> {
  const all = MAY_BE.flatMap(([growth, r]) => voltsOf(net, season, { growth, scale: { l: 1, r } }) ?? []);
  if (all.length === 0) return {};
  return Object.fromEntries(
    points.flatMap((p) => {
      if (p.kind !== 'volts' || p.unit !== net.energiser.id) return [];
      const read = all.flatMap((v) => (p.line === null ? v.out_V : (voltsAlong(v, { line: p.line, at_m: p.at_m! }) ?? [])));
      return read.length ? [[p.key, { low_V: Math.min(...read), high_V: Math.max(...read) }]] : [];
    }),
  );
} // prettier-ignore
