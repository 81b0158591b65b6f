/** How far the fence may still grow before the worst point falls to its aim. */
import { bisect } from '../base/numbers.js';
import type { Network } from '../power/wired.js';
import { decidingSeason } from './worst.js';

/** Longest growth that is thought of, m. */
const FAR = 40_000;

/**
 * Metres of fence like the worst line, at its worst place, that take its volts to the aim; 0: it is there already.
 * Null: nothing is fed, or it keeps the aim however long.
 */
export function roomToGrow(
  net: Network,
): { readonly like: string; readonly length_m: number } | null {
  const now = decidingSeason(net);
  if (!now) return null;
  const { line, at_m } = now.worst;
  const share = (length_m: number): number =>
    decidingSeason(net, { links: [{ from: { line, at_m }, to: null, length_m, like: line }] })
      ?.share ?? 0;
  if (now.share <= 1) return { like: line, length_m: 0 };
  if (share(FAR) > 1) return null;
  return { like: line, length_m: bisect((m) => share(m) - 1, 1, FAR, 0.02) };
}
