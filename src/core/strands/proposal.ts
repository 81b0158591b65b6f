/** A make-up from its requirement: fewest strands, lowest as high as allowed, gaps evened out. */
import { round } from '../base/numbers.js';
import type { Catalogue, Profile } from '../plan/catalogue.js';
import type { Proposal, Requirement } from '../report/schema.js';
import type { Strand } from '../plan/schema.js';
import { makeUp } from './makeUp.js';
import { gapLimit, profilesOf, requirementOf } from './requirement.js';

const STEP_MM = 10;

/**
 * Exact search over heights in 10 mm steps: fewest strands that keep every gap, then the most even
 * share of each allowed gap. Dynamic programming over (height, strands used).
 */
export function propose(req: Requirement, cat: Catalogue): Proposal {
  const profiles = req.profiles.map((id) => cat.profiles[id]!);
  const first = Math.round((req.lowestMax_m * 1000) / STEP_MM);
  const top = Math.max(first, Math.round((req.topMin_m * 1000) / STEP_MM));
  const path = shortest(first, top, Math.max(1, req.minStrands), (a, b) => allowed(profiles, a, b));
  const heights_m = path.map((k) => round((k * STEP_MM) / 1000, 3));
  const { decidedBy } = req;
  const reasons: Proposal['reasons'] = [
    { about: 'lowest', profile: decidedBy.lowest, value: req.lowestMax_m },
    { about: 'gap', profile: decidedBy.gap, value: cat.profiles[decidedBy.gap]!.gapMax_m },
    { about: 'top', profile: decidedBy.top, value: heights_m.at(-1)! },
  ];
  const strict = req.profiles.find((id) => cat.profiles[id]!.minStrands === req.minStrands);
  if (heights_m.length === req.minStrands && req.minStrands > 1 && strict) {
    reasons.push({ about: 'count', profile: strict, value: req.minStrands });
  }
  return { heights_m, reasons };
}

/** Least limit over the profiles that still care at this height; Infinity when none does. */
function allowed(profiles: readonly Profile[], a: number, b: number): number {
  let least = Infinity;
  for (const p of profiles) if (a < p.topMin_m) least = Math.min(least, gapLimit(p, a, b));
  return least;
}

/** Fewest stops (at least `min`) from first to top; among those the most even use of each limit. */
function shortest(
  first: number,
  top: number,
  min: number,
  limit: (a: number, b: number) => number,
): number[] {
  type Cell = { cost: number; from: number };
  let layer = new Map<number, Cell>([[first, { cost: 0, from: -1 }]]);
  const layers = [layer];
  const room = top - first + 1;
  for (let used = 1; !(layer.has(top) && used >= Math.min(min, room)); used++) {
    const next = new Map<number, Cell>();
    for (const [a, cell] of layer) {
      for (let b = a + 1; b <= top; b++) {
        const gap = (b - a) * STEP_MM * 1e-3;
        const most = limit((a * STEP_MM) / 1000, (b * STEP_MM) / 1000);
        if (gap > most + 1e-9) continue;
        const cost = cell.cost + (gap / Math.min(most, 10)) ** 2;
        const old = next.get(b);
        if (!old || cost < old.cost - 1e-12) next.set(b, { cost, from: a });
      }
    }
    if (next.size === 0) break;
    layers.push((layer = next));
  }
  const path: number[] = [];
  let at = layer.has(top) ? top : Math.max(...layer.keys());
  for (let k = layers.length - 1; k >= 0; k--) {
    path.unshift(at);
    at = layers[k]!.get(at)!.from;
  }
  return path;
}

/** The make-up that a new line starts with; one usual strand while no stock is named. */
export function startingMakeUp(facing: Parameters<typeof profilesOf>[0], cat: Catalogue): Strand[] {
  const need = requirementOf(profilesOf(facing, cat), cat);
  return makeUp(need ? propose(need, cat).heights_m : [0.9], [], cat);
}
