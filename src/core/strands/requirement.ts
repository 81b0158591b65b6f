/** What the strands of a line must do: the strictest figure of every profile that it faces. */
import type { Catalogue, Profile } from '../plan/catalogue.js';
import type { Line } from '../plan/schema.js';
import type { Requirement } from '../report/schema.js';

/** The profiles that a line must satisfy: stock on both sides, what is kept out, the boundary. */
export function profilesOf(
  line: Pick<Line, 'left' | 'right' | 'keepOut' | 'boundary'>,
  cat: Catalogue,
): string[] {
  const ids = new Set([...line.left, ...line.right, ...line.keepOut]);
  const cattle = [...ids].some((id) => id.startsWith('cattle'));
  if (line.boundary && cattle) ids.add('cattle-boundary');
  return [...ids].filter((id) => cat.profiles[id]);
}

/** The widest gap that a profile allows from `low` to `high`: its middle says which zone it is in. */
export function gapLimit(p: Profile, low: number, high: number): number {
  return (low + high) / 2 < p.gapZone_m ? p.gapMax_m : p.upperGapMax_m;
}

/** Strictest figures of the named profiles; null when no stock is named. */
export function requirementOf(ids: readonly string[], cat: Catalogue): Requirement | null {
  const all = ids.map((id) => [id, cat.profiles[id]!] as const);
  if (all.length === 0) return null;
  const pick = (better: (a: Profile, b: Profile) => boolean) =>
    all.reduce((best, one) => (better(one[1], best[1]) ? one : best))[0];
  const lowest = pick((a, b) => a.lowestMax_m < b.lowestMax_m);
  const gap = pick((a, b) => a.gapMax_m < b.gapMax_m);
  const top = pick((a, b) => a.topMin_m > b.topMin_m);
  const aim = pick((a, b) => a.aim_V > b.aim_V);
  return {
    profiles: [...ids],
    lowestMax_m: cat.profiles[lowest]!.lowestMax_m,
    topMin_m: cat.profiles[top]!.topMin_m,
    minStrands: Math.max(...all.map(([, p]) => p.minStrands)),
    aim_V: cat.profiles[aim]!.aim_V,
    small: all.some(([, p]) => p.size === 'small'),
    noBarbed: all.some(([, p]) => p.noBarbed),
    decidedBy: { lowest, gap, top, aim },
  };
}

/** One gap that is wider than some profile allows. */
export interface GapBreach {
  readonly lower_m: number;
  readonly upper_m: number;
  readonly limit_m: number;
  readonly profile: string;
}

/** Every gap between neighbouring heights that is wider than a profile allows. */
export function gapBreaches(
  heights: readonly number[],
  ids: readonly string[],
  cat: Catalogue,
  spread_m = 0,
): GapBreach[] {
  const sorted = [...heights].sort((a, b) => a - b);
  const out: GapBreach[] = [];
  for (let i = 0; i + 1 < sorted.length; i++) {
    const [lower, upper] = [sorted[i]!, sorted[i + 1]!];
    let worst: GapBreach | null = null;
    for (const id of ids) {
      const p = cat.profiles[id]!;
      // Above what this profile needs, a wider gap is nothing to it.
      if (lower >= p.topMin_m - 1e-9) continue;
      const limit = gapLimit(p, lower, upper);
      if (upper - lower + spread_m <= limit + 1e-6) continue;
      if (!worst || limit < worst.limit_m) {
        worst = { lower_m: lower, upper_m: upper, limit_m: limit, profile: id };
      }
    }
    if (worst) out.push(worst);
  }
  return out;
}
