/** The other ways in which people size a unit, beside the pulse. */
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Line } from '../plan/schema.js';

export interface SizingViews {
  readonly fence_m: number;
  /** Conductors that count: live strands times length; the filaments of a rope or tape are one. */
  readonly wire_m: number;
  /** Joules of output by length of fence, and by length of wire, J. */
  readonly byFence_J: number;
  readonly byWire_J: readonly [least: number, most: number];
  /** What is left of a label's kilometres of one clean wire: by strands, then by growth. */
  readonly label: (label_m: number) => readonly [least_m: number, most_m: number];
}

/** Rules of thumb for fences of so many metres over ground. */
export function sizingViews(
  lines: readonly { readonly line: Pick<Line, 'strands'>; readonly ground_m: number }[],
  cat: Catalogue,
): SizingViews {
  const live = (l: Pick<Line, 'strands'>) =>
    l.strands.filter((s) => s.duty === 'live' && recordOf(cat.wires, s.wire).form !== 'panel')
      .length;
  const fence_m = lines.reduce((sum, l) => sum + l.ground_m, 0);
  const wire_m = lines.reduce((sum, l) => sum + l.ground_m * live(l.line), 0);
  const strands = fence_m > 0 ? Math.max(1, wire_m / fence_m) : 1;
  const growth = [figure(cat, 'sizing.growthMost'), figure(cat, 'sizing.growthLeast')] as const;
  return {
    fence_m,
    wire_m,
    byFence_J: (figure(cat, 'energiser.joulesPerKm') * fence_m) / 1000,
    byWire_J: [
      wire_m / 1000 / figure(cat, 'sizing.wireKmMost'),
      wire_m / 1000 / figure(cat, 'sizing.wireKmLeast'),
    ],
    label: (label_m) => [label_m / strands / growth[0], label_m / strands / growth[1]],
  };
}
