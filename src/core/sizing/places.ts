/** Where to put the unit: every place that offers itself, by the volts at the worst point. */
import { atOnce, type Steps } from '../base/steps.js';
import { offThing, thingsOf } from '../land/things.js';
import { distance, nearest, planLength, pointAt } from '../plan/geometry.js';
import type { Plan, Point } from '../plan/schema.js';
import type { Network } from '../power/wired.js';
import { COARSE } from '../power/deciding.js';
import { decidingSeason, scoreWith, type Score } from './worst.js';

export interface FeedPlace {
  readonly kind: 'now' | 'mains' | 'water' | 'gate' | 'end' | 'pressed';
  readonly name: string;
  readonly at: Point;
  readonly line: string;
  readonly at_m: number;
  readonly lead_m: number;
  readonly score: Score;
  /** To the nearest supply, m; null: there is none on the plan. */
  readonly mains_m: number | null;
  /** To the nearest earth of something else, m. */
  readonly earth_m: number | null;
}

/** Lead-outs longer than this are not proposed, m. */
const FAR = 150;

/**
 * Places ranked by what they give, the present one among them.
 * @param pressed a place of one's own
 * @param coarse their order alone is wanted, not the last few in 100
 */
export const feedPlaces = (...asked: Parameters<typeof feedPlacesInSteps>): FeedPlace[] =>
  atOnce(feedPlacesInSteps(...asked));

/** The same in steps, one for each that is tried. */
export function* feedPlacesInSteps(
  net: Network,
  plan: Pick<Plan, 'things' | 'gates' | 'energisers' | 'lines'>,
  {
    pressed = null,
    coarse = false,
  }: { readonly pressed?: Point | null; readonly coarse?: boolean } = {},
): Steps<FeedPlace[]> {
  const { energiser, ids, wired } = net;
  const season = decidingSeason(net)?.season;
  if (!season) return [];
  const mains = thingsOf(plan, 'mains').map((t) => t.points[0]!);
  const earthed = thingsOf(plan, 'building', 'mains').filter(
    (t) => t.kind === 'mains' || t.earthed,
  );
  const units = Object.values(plan.energisers).filter((e) => e.id !== energiser.id);
  const least = (all: readonly number[]): number | null => (all.length ? Math.min(...all) : null);
  const seen: Point[] = [];
  const score = (kind: FeedPlace['kind'], name: string, at: Point): FeedPlace[] => {
    // What stands beside another candidate says nothing new.
    if (kind !== 'now' && kind !== 'pressed' && seen.some((p) => distance(p, at) < 15)) return [];
    const on = ids
      .filter((id) => wired[id]!.line.strands.some((s) => s.duty === 'live'))
      .map((id) => ({ id, ...nearest(wired[id]!.line.vertices, at) }))
      .reduce<{ id: string; s: number; off: number } | null>(
        (best, n) => (!best || n.off < best.off ? n : best),
        null,
      );
    if (!on || (on.off > FAR && kind !== 'now' && kind !== 'pressed')) return [];
    const lead_m = Math.max(1, on.off);
    const got = scoreWith(net, season, {
      feed: { line: on.id, at_m: on.s, lead_m },
      coarse: coarse ? COARSE : 1,
    });
    if (!got) return [];
    seen.push(at);
    return [{ kind, name, at, line: on.id, at_m: on.s, lead_m, score: got, mains_m: least(mains.map((p) => distance(p, at))), earth_m: least([...earthed.map((t) => offThing(t, at)), ...units.map((u) => distance(u, at))]) }]; // prettier-ignore
  };
  const point = ({ e, n }: Point): Point => ({ e, n });
  const tried: [kind: FeedPlace['kind'], name: string, at: Point][] = [
    ['now', 'where it stands', point(energiser)],
  ];
  if (pressed) tried.push(['pressed', 'the place pressed', point(pressed)]);
  for (const t of thingsOf(plan, 'mains')) tried.push(['mains', t.name, point(t.points[0]!)]);
  for (const g of Object.values(plan.gates))
    if (ids.includes(g.line))
      tried.push(['gate', g.name, point(pointAt(wired[g.line]!.line.vertices, g.at_m))]);
  for (const t of thingsOf(plan, 'water')) tried.push(['water', t.name, point(t.points[0]!)]);
  for (const id of ids) {
    const { line } = wired[id]!;
    const at = (s: number) => point(pointAt(line.vertices, s));
    const { name } = plan.lines[id]!;
    tried.push(['end', `start of ${name}`, at(0)], ['end', `end of ${name}`, at(planLength(line))]);
  }
  const out: FeedPlace[] = [];
  for (const [k, asked] of tried.entries()) {
    out.push(...score(...asked));
    yield (k + 1) / tried.length;
  }
  return out.sort((a, b) => b.score.share - a.score.share);
}
