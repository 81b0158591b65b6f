/** An old fence kept and made to hold with live offsets: barbed wire itself never carries volts. */
import { figure, recordOf, usual, type Catalogue } from '../plan/catalogue.js';
import type { Strand } from '../plan/schema.js';
import type { Requirement } from '../report/schema.js';
import { isBarbed, isPanel } from '../wire/bottom.js';
import { search } from './search.js';

/** The strands of an old fence as it stands, cold and bare, to be put right by hand. */
export const oldFence = (id: string, cat: Catalogue): Strand[] =>
  recordOf(cat.oldFences, id).strands.map(([wire, height_m]) => ({
    height_m: height_m as number,
    duty: 'cold',
    wire: wire as string,
    insulated: false,
    kept: true,
  }));

/**
 * The fewest live offsets that make an old fence hold: one where each kind of animal meets it with
 * nose and chest, and more where a gap is too wide.
 * @param strands what stands; offsets of an earlier answer are worked out anew
 */
export function withOffsets(
  strands: readonly Strand[],
  need: Requirement,
  cat: Catalogue,
): readonly Strand[] | { readonly refused: string } {
  const kept = strands.filter((s) => s.kept);
  if (kept.length === 0) return { refused: 'No strand here is kept from an old fence.' };
  if (need.noBarbed && kept.some((s) => isBarbed(s, cat)))
    return { refused: 'Barbed wire is taken down where horses run; offsets do not mend it.' };
  const nose = noseHeights(kept, need, cat);
  const standing = [
    ...kept.map((s) => ({ height_m: s.height_m, panel: isPanel(s, cat), duty: 'cold' as const })),
    ...nose.map((height_m) => ({ height_m, panel: false, duty: 'live' as const })),
  ];
  const found = search({ ...need, topDuty: null }, 'live', 0, standing);
  if (!found)
    return { refused: 'No offsets make this old fence hold: build anew, or move its strands.' };
  const offset_m = figure(cat, 'strands.offset');
  const live = (height_m: number): Strand => ({
    height_m,
    duty: 'live',
    wire: usual('wire'),
    insulated: true,
    offset_m,
  });
  const added = found.heights_m.filter((_, i) => !found.standing[i]);
  return [...kept, ...[...nose, ...added].map(live)].sort((a, b) => a.height_m - b.height_m);
}

/** Fewest heights, so that each kind of animal meets one between its nose's limits, m. */
function noseHeights(kept: readonly Strand[], need: Requirement, cat: Catalogue): number[] {
  const low = figure(cat, 'strands.noseLow');
  const high = figure(cat, 'strands.noseHigh');
  const bands = need.needs
    .map((n) => recordOf(cat.animals, recordOf(cat.profiles, n.profile).animal).shoulder_m)
    .map((shoulder): [number, number] => [low * shoulder, high * shoulder])
    .sort((a, b) => a[1] - b[1]);
  // Bands that share a height are met by one strand: taken from the lowest upper limit on.
  const shared: [number, number][] = [];
  for (const [from, to] of bands) {
    const last = shared.at(-1);
    if (last && from <= last[1]) last[0] = Math.max(last[0], from);
    else shared.push([from, to]);
  }
  return shared.map(([from, to]) => clearest(kept, from, to));
}

/** The height between two, in steps of 10 mm, that is furthest from every strand that is kept, m. */
function clearest(kept: readonly Strand[], from: number, to: number): number {
  const middle = (from + to) / 2;
  const room = (h: number) =>
    Math.min(0.15, ...kept.map((s) => Math.abs(s.height_m - h))) - 0.01 * Math.abs(h - middle);
  let best = Math.ceil(from * 100 - 1e-6) / 100;
  for (let h = best; h <= to + 1e-9; h += 0.01) if (room(h) > room(best)) best = h;
  return Math.round(best * 100) / 100;
}
