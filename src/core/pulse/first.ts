/** Volts of a fence at once, before its pulse has been simulated: a first figure within about a quarter. */
import { peakInto } from './plate.js';
import type { PulseLine } from './simulate.js';
import type { PulseSource } from './source.js';

/**
 * Closed form of the reference set: the lesser of the unit's volts into what leaks, and of what its capacitance
 * leaves when it is shared with the wires' or the front meets, doubled at a far end.
 * @param at the node that the unit feeds
 */
export function first(
  lines: readonly PulseLine[],
  source: PulseSource,
  at: string,
  earth_ohm: number,
): number {
  const sum = (of: (l: PulseLine) => number) => lines.reduce((s, l) => s + of(l) * l.length_m, 0);
  const [c, g, whole] = [sum((l) => l.c_f_per_m), sum((l) => l.g_s_per_m), sum(() => 1)];
  if (whole === 0) return source.n_v0_v;
  // The lead-out is no arm of its own: what leaves its far end is.
  const lead = lines.find((l) => l.from === at || l.to === at);
  const hub = lead ? (lead.from === at ? lead.to : lead.from) : at;
  const arms = lines.filter((l) => l !== lead && (l.from === hub || l.to === hub));
  const z = (l: PulseLine) => Math.sqrt(l.l_h_per_m / l.c_f_per_m);
  const all = arms.length ? arms : lines;
  const z0 = 1 / all.reduce((s, l) => s + 1 / z(l), 0);
  const r = sum((l) => l.r_ohm_per_m) / whole;
  const far = whole / all.length;
  const steady = peakInto(source, 1 / g + earth_ohm).peak_V;
  const shared = (source.n_v0_v * source.c_eq_f) / (source.c_eq_f + c);
  const z1 = z(all[0]!);
  const front =
    2 * peakInto(source, z0).peak_V * Math.exp(-(r / (2 * z1) + ((g / whole) * z1) / 2) * far);
  return Math.min(source.n_v0_v, steady, Math.max(shared, front));
}
