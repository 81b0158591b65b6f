/** Where a fault lies by what was read, and where to go and read next. */
import { foundBy, nextFrom, placesOf, type Found } from '../faults/hunt.js';
import { NAISMITH, onFoot } from '../faults/onFoot.js';
import { entropy } from '../faults/posterior.js';
import { placeOf, touchedAt, type Searched } from '../faults/searched.js';
import { metresFrom, type OnSection } from '../faults/walk.js';
import { pointAt } from '../plan/geometry.js';
import type { Place } from '../power/pulseNet.js';
import { heightAt, type Ground } from '../terrain/ground.js';
import type { Asked, OfADay, Said } from './said.js';
import { onLine, type LineStretch } from './verdict.js';

/** A place to go to, and what it takes and tells. */
export interface NextPlace extends Place {
  /** On foot and to read. */
  readonly minutes: number;
  /** How much less uncertain the place is then expected to be, as a share of what it is now. */
  readonly tells: number;
}
export interface Search extends Said {
  /** By cell: together 1, but for what lies in cables. */
  readonly chances: readonly LineStretch[];
  /** From where the fault is nearest on the average, and the chance that it is within `near_m` of it. */
  readonly best: (Place & { readonly near: number; readonly near_m: number }) | null;
}

/** Where it lies, were it a fault of one place, before anything was read [assumed]. */
const PRIOR = { p_leak: 0.7, p_joint: 0.1, p_broken: 0.2 };
/** So near one sees and hears it, m; a minute on foot and at the wire. */
export const NEAR_M = 100;
export const PACE = { metres_per_minute: NAISMITH.metres_per_minute, reading_min: 5 };
/** Places no further than this from one that was read are not offered, m. */
const READ_M = 40;
/** So many places are offered. */
const OFFERED = 3;

/** Ways on foot over a fence's ground from a place; null: from the unit. */
function footOn(fence: Searched, ground: Ground | null, here: Place | null) {
  const { net, sections } = fence;
  const start = (here && touchedAt(fence, here)) ?? { section: sections.at(-1)!.id, x_m: 0 };
  const spot = (on: OnSection) => {
    const place = placeOf(fence, on);
    return place ? pointAt(net.wired[place.line]!.line.vertices, place.at_m) : { e: net.energiser.e, n: net.energiser.n };
  };
  const metres = onFoot(Object.values(net.wired).map((l) => l.line.vertices), (p) => (ground ? heightAt(ground, p) : NaN));
  return { start, from: spot(start), spot, metres };
} // prettier-ignore

/** Minutes on foot from one place of a fence to another. */
export function minutesOn(fence: Searched, ground: Ground | null, from: Place | null, to: Place): number {
  const foot = footOn(fence, ground, from);
  const on = touchedAt(fence, to);
  return on ? foot.metres(foot.from, foot.spot(on), metresFrom(fence.sections, foot.start)(on)) / PACE.metres_per_minute : Infinity;
} // prettier-ignore

/** What the place is known to be by a day's readings; asked for twice of the same day. */
const known = new WeakMap<OfADay, Found>();
function foundIn(day: OfADay): Found {
  let found = known.get(day);
  if (!found) {
    const { fences, sections, noise } = day.fence;
    known.set(day, (found = foundBy(fences, sections, day.readings, { noise, prior: PRIOR, near_m: NEAR_M })));
  }
  return found;
} // prettier-ignore

/** Where it lies. */
export function searchOf(day: OfADay): Search {
  const { fence, said } = day;
  const { cells } = fence.fences[0]!;
  const found = foundIn(day);
  const chances = cells.flatMap(({ section, x_m, length_m }, k) =>
    onLine(fence, { section, from_m: x_m - length_m / 2, to_m: x_m + length_m / 2, p: found.posterior.cells[k]! }) ?? []);
  const best = placeOf(fence, cells[found.best]!);
  return { ...said, chances, best: best && { ...best, near: found.near, near_m: NEAR_M } };
} // prettier-ignore

/**
 * Where to go and read next, the best for each minute first.
 * @param ground null: not known, and taken as flat
 * @param here where one stands; null: at the unit
 */
export function nextOf(day: OfADay, asked: Pick<Asked, 'open' | 'readings'>, ground: Ground | null, here: Place | null): NextPlace[] {
  const { fence } = day;
  const { fences, sections, noise } = fence;
  const { open = [] } = asked;
  const sameOpen = (of: readonly Place[] = []) => JSON.stringify(of) === JSON.stringify(open);
  const { posterior } = foundIn(day);
  const { start, from, metres, spot } = footOn(fence, ground, here);
  const along = metresFrom(sections, start);
  // What was read stays read: the same place once more repeats what the model is off there.
  const places = placesOf(fences[0]!, sections).filter((p) => {
    const at = placeOf(fence, p);
    return at !== null && fence.feeds(open, at) && !asked.readings.some((r) => sameOpen(r.open) && r.line === at.line && r.at_m !== null && Math.abs(r.at_m - at.at_m) < READ_M);
  });
  const told = nextFrom(fences, sections, posterior, start, { noise, pace: PACE, open, places, metres: (to) => metres(from, spot(to), along(to)) });
  const unsure = entropy(posterior.cells);
  const next: NextPlace[] = [];
  for (const { stop, gain } of told) {
    const at = placeOf(fence, stop.at);
    // Neighbours of one that is offered tell the same.
    if (!at || next.some((n) => n.line === at.line && Math.abs(n.at_m - at.at_m) < NEAR_M)) continue;
    next.push({ ...at, minutes: stop.minutes, tells: unsure > 0 ? Math.min(1, gain / unsure) : 0 });
    if (next.length === OFFERED) break;
  }
  return next;
} // prettier-ignore
