/** The ends of a line: what stands at each place where its wire is strained off or turned sharply. */
import { soilAt } from '../land/things.js';
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import { deflections, pointAt, stations } from '../plan/geometry.js';
import type { Joint } from '../plan/meets.js';
import type { Assembly, EndPlace, Gate, Line, Plan } from '../plan/schema.js';
import { kindFor, outFor } from '../posts/kinds.js';
import { fixedPosts, type EndKind, type Fixed, type Second } from '../posts/layout.js';
import type { EndReport } from '../report/schema.js';
import { gAt, sAtG, zAt, type Profile } from '../terrain/profile.js';
import { isPanel } from '../wire/bottom.js';
import { schoolTension, strungAt } from '../wire/strung.js';
import { tensionAt } from '../wire/strain.js';
import type { Built } from './assembly.js';
import { handAt } from './hand.js';
import { judge } from './judge.js';
import { propose, railLength, usualBuilt, type Proposed, type Wanted } from './propose.js';
import { settingFor } from './setting.js';
import { pullOf, type Pulled } from './statics.js';

/** What of plan and land says how the ends of a line are made. */
export interface EndsGiven {
  readonly line: Pick<Line, 'vertices' | 'post' | 'maxBay_m' | 'pins' | 'strands' | 'school' | 'ends'>; // prettier-ignore
  readonly gates: readonly Gate[];
  readonly joints: readonly Joint[];
  readonly profile: Profile;
  readonly land: Pick<Plan, 'soil' | 'things' | 'climate' | 'frost_m' | 'noDriver'>;
  readonly cat: Catalogue;
}

export interface EndsAlong {
  readonly ends: EndReport[];
  /** Brace posts, and posts at the feet of stays: posts of the run. */
  readonly seconds: readonly Second[];
  /** What its end posts and bends want; of two sides the longer. */
  readonly kinds: readonly EndKind[];
}

/** Places closer than this are one, m. */
const SAME = 0.05;
/** Between two braces a bay is left, m: else their rails would meet. */
const BETWEEN = 0.5;
/** A run up to this long is one rail, m. */
const ONE_RAIL = 3;
/** No rail is longer than this, m. */
const ROOMY = 12;
/** A turn up to this many degrees leaves a rail straight. */
const STRAIGHT = 3;

/** How deep the ground of a property freezes, m: as typed, or by its coldest night. */
export const frostOf = (land: Pick<Plan, 'climate' | 'frost_m'>, cat: Catalogue): number =>
  land.frost_m ?? Math.max(0, (-5 - land.climate.cold_C) * figure(cat, 'ends.frostPerK'));

/** Each strand's height and its pull on the coldest night; short bays pull hardest, so the shortest are taken. */
export function strandPulls(
  line: Pick<Line, 'strands' | 'school'>,
  climate: Plan['climate'],
  cat: Catalogue,
): Pulled {
  const bay = figure(cat, 'posts.minBay');
  return {
    // A net pulls with all its wires: at half its height.
    strand_heights_m: line.strands.map((s) => (isPanel(s, cat) ? s.height_m / 2 : s.height_m)),
    strand_tensions_N: line.strands.map((s) =>
      tensionAt(strungAt(line, s.wire, cat), bay, s.wire, climate.cold_C, cat),
    ),
  };
}

/** Height of a rail: between the two top strands, no lower than two thirds of the fence. */
export function railHeightOf(heights: readonly number[]): number {
  const [top = 0, next = top] = [...heights].sort((a, b) => b - a);
  return Math.max((top + next) / 2, (2 * top) / 3, LOWEST_RAIL);
}

/** Under very low strands the rail stays clear of the brace wire's foot, m. */
const LOWEST_RAIL = 0.45;

/** Both posts of every end, told apart from the run that they hold. */
export function endsAlong(given: EndsGiven): EndsAlong {
  const { line, gates, joints, profile, land, cat } = given;
  if (line.strands.length === 0) return { ends: [], seconds: [], kinds: [] };
  const out_m = outFor(line.strands, cat);
  const fixed = fixedPosts({ ...line, out_m }, gates, joints);
  const at = stations(line.vertices);
  const turns = deflections(line.vertices);
  const bent = at.filter((_, k) => turns[k]! > STRAIGHT);
  const pulled = strandPulls(line, land.climate, cat);
  const heights = line.strands.map((s) => s.height_m);
  const limit = figure(cat, 'posts.bendLimit');
  const frost_m = frostOf(land, cat);
  const strung_N = schoolTension(line, cat);
  const topStrand_m = Math.max(...heights);
  const ends: EndReport[] = [];
  const seconds: Second[] = [];

  /** The run from a post, on its one side: how long it is, and how far a rail may reach. */
  const runFrom = (i: number, way: 1 | -1) => {
    let k = i + way;
    while (fixed[k] && !fixed[k]!.strains) k += way;
    const to = fixed[k] ?? fixed[i]!;
    const run_m = Math.abs(gAt(profile, to.s) - gAt(profile, fixed[i]!.s));
    const bend = bent.filter((s) => way * (s - fixed[i]!.s) > SAME).reduce((d, s) => Math.min(d, Math.abs(s - fixed[i]!.s)), Infinity); // prettier-ignore
    return { run_m, room_m: Math.min(bend, run_m) };
  };
  const common = (f: Fixed) => {
    const place = handAt(line, f.s);
    const soilId = soilAt(land, pointAt(line.vertices, f.s));
    const usual = place?.post ?? f.kind ?? kindFor(f.role, { post: line.post }, out_m, cat);
    const steel = recordOf(cat.posts, usual).conducts;
    const soil = recordOf(cat.soils, soilId);
    const setting = place?.setting ?? settingFor({ soil, steel, noDriver: !!land.noDriver }).setting; // prettier-ignore
    const hinged = gates.some((g) => hangsAt(g, f.s));
    return { place, soilId, soil, usual, setting, hinged };
  };
  const railHeight_m = railHeightOf(heights);

  fixed.forEach((f, i) => {
    const turn = at.findIndex((s) => Math.abs(s - f.s) <= SAME);
    const turn_deg = turns[turn] ?? 0;
    const sides = sidesOf(fixed, i, turn_deg > limit);
    if (sides.length === 0) return;
    const { place, soilId, soil, usual, setting, hinged } = common(f);
    for (const side of sides) {
      const way = side === 'before' ? -1 : 1;
      const bend = side === 'bend';
      const { run_m, room_m } = bend ? { run_m: 0, room_m: Infinity } : runFrom(i, way);
      const most = 2 * Math.sin((turn_deg * Math.PI) / 360);
      const own: Pulled = bend
        ? { ...pulled, strand_tensions_N: pulled.strand_tensions_N.map((t) => t * most) }
        : pulled;
      const two = railLength(figure(cat, 'ends.railHeights'), { topStrand_m, room_m: Infinity }, cat); // prettier-ignore
      const shared = !bend && run_m < 2 * two + BETWEEN;
      const rail = shared ? (run_m <= ONE_RAIL ? run_m : run_m / 2) : Infinity;
      // A post between the two ends is the brace post of both.
      const over = Math.max(0.5, shared ? rail : Math.min(two, room_m));
      const grade = bend ? 0 : Math.round((50 * riseOver(profile, f.s, way, over)) / over) / 50;
      const wanted: Wanted = {
        side,
        pulled: own,
        soil,
        setting,
        post: usual,
        out_m,
        topStrand_m,
        railHeight_m,
        grade,
        frost_m,
        strung_N,
        long: run_m > figure(cat, 'ends.longRun'),
        // Beyond any rail it is all one: many ends are alike then.
        room_m: shared ? rail : room_m > ROOMY ? Infinity : Math.max(0.5, room_m),
        gate: f.role === 'gate',
        behind: f.role !== 'gate',
      };
      const made = chosen(wanted, place, place?.[side], shared, cat, soilId);
      // Where one rail spans the whole run, each end post is the other’s brace post.
      const built = shared && run_m <= ONE_RAIL ? { ...made.built, second: null } : made.built;
      const { pull_total_N: pull_N, overturning_moment_Nm: moment_Nm } = pullOf(own);
      ends.push({
        ...{ at_m: f.s, side, role: f.role, hand: place?.[side] !== undefined, soil: soilId },
        ...{ pull_N, moment_Nm, grade, shared, setting, hinged, turn_deg },
        ...measuresOf(built),
        reason: made.reason,
        against: made.against,
        strands: own.strand_heights_m.map((h, k) => [h, own.strand_tensions_N[k]!]),
        wood: place?.wood ?? 'treated',
        checks: [...made.judged.checks],
      });
      if (!bend) seconds.push(...secondsOf(f.s, way, built, profile));
    }
  });
  return { ends, seconds, kinds: longestOf(ends, cat) };
}

/** Which runs a post holds, or that it holds a sharp bend. */
function sidesOf(fixed: readonly Fixed[], i: number, sharp: boolean): EndReport['side'][] {
  const f = fixed[i]!;
  if (!f.strains) return f.role === 'bend' && sharp ? ['bend'] : [];
  const before = i > 0 && !fixed[i - 1]!.opens;
  const after = i < fixed.length - 1 && !f.opens;
  return [...(before ? (['before'] as const) : []), ...(after ? (['after'] as const) : [])];
}

/** What the report says of an assembly. */
const measuresOf = ({ shared: _shared, ...measures }: Built): Omit<Built, 'shared'> => measures;

/** The post at each place: of two sides that want different ones the longer. */
function longestOf(ends: readonly EndReport[], cat: Catalogue): EndKind[] {
  const length = (id: string) => recordOf(cat.posts, id).length_m;
  const kinds = new Map<number, string>();
  for (const { at_m, post } of ends) {
    const other = kinds.get(at_m);
    if (other === undefined || length(post) > length(other)) kinds.set(at_m, post);
  }
  return [...kinds].map(([s, kind]) => ({ s, kind }));
}

/** What the plan says, or what is proposed where it says nothing. */
function chosen(
  w: Wanted,
  place: EndPlace | undefined,
  own: Assembly | undefined,
  shared: boolean,
  cat: Catalogue,
  soilId: string,
): Proposed {
  const depth = place?.depth_m;
  const stand = { soil: w.soil, setting: recordOf(cat.settings, w.setting) };
  const rejudged = (built: Built, from: Proposed): Proposed => ({ ...from, built, judged: judge(built, w.pulled, stand, cat) }); // prettier-ignore
  if (own || shared) {
    const kind = own?.kind ?? 'h';
    const built = usualBuilt(kind, w, cat, {
      ...(own?.rail_m === undefined || shared ? {} : { rail_m: own.rail_m }),
      ...(shared ? { rail_m: w.room_m, shared } : {}),
      ...(own?.foot ? { foot: own.foot } : {}),
      ...(own?.wire ? { wire: own.wire } : shared ? { wire: 'both' as const } : {}),
      ...(depth === undefined ? {} : { depth_m: depth }),
      ...(place?.post ? { post: place.post } : {}),
    });
    return rejudged(built, { built, judged: null as never, reason: own ? 'hand' : 'short', against: null }); // prettier-ignore
  }
  const found = proposed(w, soilId, cat);
  if (depth === undefined && !place?.post) return found;
  const built = { ...found.built, ...(depth === undefined ? {} : { depth_m: depth }), ...(place?.post ? { post: place.post } : {}) }; // prettier-ignore
  return rejudged(built, found);
}

/** A proposal is remembered by all that it rests on: many ends are alike. */
function proposed(w: Wanted, soilId: string, cat: Catalogue): Proposed {
  let own = known.get(cat);
  if (!own) known.set(cat, (own = new Map()));
  const key = JSON.stringify({ ...w, soil: soilId });
  let found = own.get(key);
  if (!found) {
    if (own.size >= 2000) own.clear();
    own.set(key, (found = propose(w, cat)));
  }
  return found;
}
const known = new WeakMap<Catalogue, Map<string, Proposed>>();

/** The rise of the ground from a post along its run over a rail, m. */
const riseOver = (profile: Profile, s: number, way: 1 | -1, rail_m: number): number => {
  const to = sAtG(profile, gAt(profile, s) + way * rail_m);
  return zAt(profile, to) - zAt(profile, s);
};

/** Where the further posts of an assembly stand. */
function secondsOf(s: number, way: 1 | -1, b: Built, profile: Profile): Second[] {
  if (!b.second) return [];
  const stand = (k: number) => sAtG(profile, gAt(profile, s) + way * k * b.rail_m);
  const at = (k: number): Second => ({
    s: stand(k),
    kind: b.second!,
    from: k === 1 ? s : stand(k - 1),
  });
  return b.kind === 'double-h' ? [at(1), at(2)] : [at(1)];
}

/** Whether a gate hangs on the post at a place. */
export const hangsAt = (gate: Gate, s: number): boolean => {
  const [from, to] = [gate.at_m - gate.width_m / 2, gate.at_m + gate.width_m / 2];
  const start = Math.abs(s - from) <= SAME && (gate.leaves === 2 || gate.hinge !== 'end');
  return start || (Math.abs(s - to) <= SAME && (gate.leaves === 2 || gate.hinge === 'end'));
};
