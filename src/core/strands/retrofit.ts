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

/**
 * Two neighbouring barbed strands spread, so that a live one goes between them and another above: the upper
 * barbed one becomes the earth of the pair, bonded and never live [practice; handbook of the trade]. Further
 * live strands come where a gap is still too wide; those on the old strands stand off on brackets.
 * @param strands what stands; live ones of an earlier answer are worked out anew
 */
export function withPair(
  strands: readonly Strand[],
  need: Requirement,
  cat: Catalogue,
): readonly Strand[] | { readonly refused: string } {
  const kept = strands.filter((s) => s.kept).map((s) => ({ ...s, duty: 'cold' as Strand['duty'] }));
  if (need.noBarbed && kept.some((s) => isBarbed(s, cat)))
    return { refused: 'Barbed wire is taken down where horses run; no pair mends it.' };
  const off = need.offBarbed_m;
  const [band] = noseBands(need, cat);
  /** The live strand of a pair: where the nose meets it, clear of the ground by the strand below it. */
  const liveIn = (pair: Pair) => {
    const middle = (pair.low.height_m + pair.high.height_m) / 2;
    const met = band ? Math.min(Math.max(middle, band[0]), band[1]) : middle;
    return round(Math.max(met, need.lowestMin_m + off));
  };
  /** How far a pair is moved, and how far it would reach above what the old posts carry. */
  const cost = (pair: Pair) => {
    const moved = Math.abs(liveIn(pair) - (pair.low.height_m + pair.high.height_m) / 2);
    return moved + 10 * Math.max(0, liveIn(pair) + 2 * off - kept.at(-1)!.height_m);
  };
  const pair = kept
    .flatMap((low, i): Pair[] => {
      const high = kept[i + 1];
      return high && isBarbed(low, cat) && isBarbed(high, cat) ? [{ low, high }] : [];
    })
    .sort((x, y) => cost(x) - cost(y))[0];
  if (!pair) return { refused: 'Two barbed strands one above the other are wanted for a pair.' };
  const at = liveIn(pair);
  const [low_m, high_m, top_m] = [at - off, at + off, at + 2 * off].map(round) as [number, number, number]; // prettier-ignore
  const moved = kept.flatMap((s): Strand[] => {
    if (s === pair.low) return [{ ...s, height_m: low_m }];
    if (s === pair.high) return [{ ...s, height_m: high_m, duty: 'earth' }];
    // What stood in the way of the pair goes above it or comes down.
    if (s.height_m > pair.low.height_m) return [{ ...s, height_m: Math.max(s.height_m, round(top_m + off)) }]; // prettier-ignore
    return s.height_m <= low_m - need.gapMin_m ? [s] : [];
  });
  const live = [at, top_m].map((height_m): Strand => ({ height_m, duty: 'live', wire: usual('wire'), insulated: true })); // prettier-ignore
  const standing = [...moved, ...live].sort((a, b) => a.height_m - b.height_m);
  const found = search(
    { ...need, topDuty: null },
    'live',
    0,
    standing.map((s) => ({
      height_m: s.height_m,
      panel: isPanel(s, cat),
      duty: s.duty === 'live' ? 'live' : 'cold',
    })),
  );
  if (!found) return { refused: 'No pair makes this old fence hold: build anew, or take live offsets.' }; // prettier-ignore
  const offset_m = figure(cat, 'strands.offset');
  const added = found.heights_m
    .filter((_, i) => !found.standing[i])
    .map((height_m): Strand => ({ height_m, duty: 'live', wire: usual('wire'), insulated: true, offset_m })); // prettier-ignore
  return [...standing, ...added].sort((a, b) => a.height_m - b.height_m);
}

interface Pair {
  readonly low: Strand;
  readonly high: Strand;
}
const round = (m: number): number => Math.round(m * 100) / 100;

/** Fewest heights, so that each kind of animal meets one between its nose's limits, m. */
const noseHeights = (kept: readonly Strand[], need: Requirement, cat: Catalogue): number[] =>
  noseBands(need, cat).map(([from, to]) => clearest(kept, from, to));

/** Between which heights a strand meets each kind of animal's nose, the lowest first, m. */
function noseBands(need: Requirement, cat: Catalogue): [number, number][] {
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
  return shared;
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
