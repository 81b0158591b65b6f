/** Other kinds of fence for the same line, by the metre. */
import { figure, recordOf, usual, type Catalogue, type FenceKind } from '../plan/catalogue.js';
import type { Line, Plan } from '../plan/schema.js';
import type { LineReport, Report } from '../report/schema.js';
import { lineHours, postHours, strandHours } from '../supplies/hours.js';
import { ownShare, priceInUse } from '../supplies/takeoff.js';
import { upkeepOf } from './compare.js';

export interface KindRow {
  readonly kind: string;
  readonly cost_per_m: number;
  /** Hours to build it, by the metre: posts, braces, wire run out. */
  readonly hours_per_m: number;
  readonly posts_per_100m: number;
  readonly cost_per_m_year: number;
  readonly upkeep_h_per_km: number;
  readonly life_y: number;
  /** Profiles at this line that it does not hold or stop. */
  readonly fails: readonly string[];
  /** Height, m, for the deer kinds. */
  readonly height_m: number | null;
  /** Width of ground that it takes, m. */
  readonly width_m: number;
}

/** Every kind of the catalogue on this line's ground, ends shared over its length. */
export function otherKinds(report: LineReport, cat: Catalogue): KindRow[] {
  const need = report.requirement;
  const small = need?.small ?? false;
  const ends = report.runs.length / Math.max(report.ground_m, 1);
  const price = (item: string) => priceInUse(item, cat);
  const braceEnd =
    price(recordOf(cat.posts, usual('bracePost')).price) + price('end.rail') + 2 * price('end.pin');
  return Object.entries(cat.kinds).map(([id, k]) => {
    const bay = small ? k.baySmall_m : k.bayLarge_m;
    const sum = (items: Readonly<Record<string, number>>) =>
      Object.entries(items).reduce((t, [item, n]) => t + n * price(item), 0);
    const perPost = (k.post ? price(k.post) : 0) + sum(k.atPost);
    const material = sum(k.materials);
    const cost_per_m = material + (k.rows * perPost) / bay + k.braces * ends * braceEnd;
    const able = new Set([...k.holds, ...k.stops]);
    return {
      kind: id,
      cost_per_m,
      hours_per_m:
        (k.post ? (k.rows / bay) * postHours(postOf(k.post, cat), cat) : 0) +
        k.braces * ends * recordOf(cat.ends, 'h').hours +
        strandHours(
          Object.values(k.materials).reduce((a, b) => a + b, 0),
          cat,
        ),
      posts_per_100m: k.post ? (100 * k.rows) / bay : 0,
      cost_per_m_year: cost_per_m / k.life_y,
      upkeep_h_per_km: k.upkeep_h_per_km,
      life_y: k.life_y,
      fails: (need?.profiles ?? []).filter((p) => !able.has(p)),
      ...shapeOf(k.shape, cat),
    };
  });
}

/** The post that an item of the price book is. */
const postOf = (item: string, cat: Catalogue): string =>
  Object.keys(cat.posts).find((id) => cat.posts[id]!.price === item) ?? usual('post');

/** Height and depth of the deer kinds: a leaning fence of slant height S reaches S sin out, S cos up. */
function shapeOf(shape: FenceKind['shape'], cat: Catalogue): Pick<KindRow, 'height_m' | 'width_m'> {
  const lean = (figure(cat, 'deer.leanAngle') * Math.PI) / 180;
  const slant = figure(cat, 'deer.leanLength');
  switch (shape) {
    case 'upright':
      return { height_m: recordOf(cat.profiles, 'deer-out').topMin_m, width_m: 0 };
    case 'leaning':
      return { height_m: slant * Math.cos(lean), width_m: slant * Math.sin(lean) };
    case 'rows':
      return { height_m: figure(cat, 'deer.rowsHigh'), width_m: figure(cat, 'deer.rowsApart') };
    default:
      return { height_m: null, width_m: 0 };
  }
}

/** The line as it is planned, among the kinds: what it takes of the supplies, its hours, its upkeep. */
export function ownKind(line: Line, plan: Plan, report: Report, cat: Catalogue): KindRow {
  const of = report.lines[line.id]!;
  const ground_m = Math.max(of.ground_m, 1);
  const cost = report.supplies.reduce((sum, s) => sum + (ownShare(s, line.id, cat)?.cost ?? 0), 0);
  const gates = Object.values(plan.gates).filter((g) => g.line === line.id);
  const cost_per_m = cost / ground_m;
  return {
    kind: '',
    cost_per_m,
    hours_per_m: lineHours(line, of, gates, cat) / ground_m,
    posts_per_100m: (100 * of.posts.length) / ground_m,
    cost_per_m_year: cost_per_m / figure(cat, 'supplies.fenceLife'),
    upkeep_h_per_km: upkeepOf(line.strands, cat),
    life_y: figure(cat, 'supplies.fenceLife'),
    fails: [],
    height_m: null,
    width_m: 0,
  };
}
