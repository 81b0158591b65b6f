/** What is looked at before a fence counts as built, place by place in the order in which one walks. */
import { say } from '../base/units.js';
import { fittings } from '../ends/takes.js';
import type { Line } from '../plan/schema.js';
import type { Made } from './made.js';
import { placesOf, type WorkPlace } from './places.js';

export const CHECKS = {
  depth: 'Post depth and lean',
  brace: 'Brace wire: direction and tension',
  rail: 'Rail height, level',
  knots: 'Knots cannot slide, no kink, tails broken clean',
  endInsulators: 'Insulators whole, in one neat row',
  jumpers: 'Jumpers immovable, one metal',
  gate: 'Gate swings, latches, lifts off no hinge',
  cable: 'Gate cable deep enough, ends sealed or turned down',
  posts: 'Line posts: depth, in line',
  insulators: 'Insulators whole and aligned, no wire on steel',
  wire: 'No kink, no twist, no crossed strands',
  clearance: 'Clearance of the lowest strand',
  tension: 'Tension of each strand',
  metal: 'No mixed metals',
  signs: 'Signs up, to be read from both sides',
  offcuts: 'Offcuts counted back into the bucket',
  rods: 'Rods driven to their depth, clamps tight',
  lead: 'Lead-out in conduit, insulated, off the ground',
} as const;
export type CheckId = keyof typeof CHECKS;

export interface Check {
  /** Names it for good: `brace:burn.v2`. */
  readonly key: string;
  readonly check: CheckId;
  /** What the plan wants to be seen, in words. */
  readonly want: string;
  readonly line: string | null;
  readonly at_m: number;
  /** Where, in words. */
  readonly where: string;
}

/** What was seen at a check. */
export interface Seen {
  readonly id: string;
  readonly check: string;
  readonly result: 'pass' | 'fail' | 'note';
  readonly note: string;
}

/** All checks of a plan, line after line, each from its start to its end; units last. */
export function checksOf(made: Made): Check[] {
  const { plan } = made;
  const lines = Object.values(plan.lines).flatMap((l) => lineChecks(l, made));
  const units = Object.values(plan.energisers).flatMap((e): Check[] => {
    const at = { line: null, at_m: 0, where: e.name };
    const long = say(e.rodLength_m, 'length', plan.units);
    return [
      { ...at, key: `rods:${e.id}`, check: 'rods', want: `${e.rods} rods of ${long}, ${say(e.rodSpacing_m, 'length', plan.units)} apart` }, // prettier-ignore
      { ...at, key: `lead:${e.id}`, check: 'lead', want: 'double-insulated, never under the eaves with the mains' }, // prettier-ignore
    ];
  });
  return [...lines, ...units];
}

function lineChecks(line: Line, made: Made): Check[] {
  const { plan } = made;
  const report = made.lines[line.id]!;
  const strung = line.strands.some((s) => !s.kept);
  if (!strung && line.standing) return [];
  const items = new Set((made.counted[line.id] ?? []).map(([item]) => item));
  const places = placesOf(line, made);
  const out = places.flatMap((p) => placeChecks(p, line, made));
  const total = report.runs.at(-1)?.to_m ?? 0;
  const whole = (check: CheckId, want: string): Check => ({ key: `${check}:${line.id}`, check, want, line: line.id, at_m: total / 2, where: 'along the line' }); // prettier-ignore
  if (!line.standing) out.push(whole('posts', `${report.posts.length} posts, by the set-out list`));
  if (strung) {
    const low = Math.min(...line.strands.map((s) => s.height_m));
    out.push(
      whole('insulators', 'whole, on the side where the wire pulls; no live wire on steel or soil'),
      whole('wire', 'walked from end to end'),
      whole('clearance', `lowest strand ${say(low, 'height', plan.units)} over the ground, more in no hollow`), // prettier-ignore
      whole('tension', 'by the stringing table for the day, each strand'),
      whole('metal', 'no copper on zinc'),
    );
  }
  if (items.has('sign')) out.push(whole('signs', 'on the public side and at gates'));
  out.push({ ...whole('offcuts', 'as many as were cut'), at_m: total });
  return out.sort((a, b) => a.at_m - b.at_m);
}

function placeChecks(p: WorkPlace, line: Line, { plan, cat }: Made): Check[] {
  const key = `${line.id}.${p.key}`;
  const at = { line: line.id, at_m: p.from_m, where: p.words };
  const e = p.ends[0]!;
  const braced = p.ends.find((x) => fittings(x, cat).length > 0);
  const out: Check[] = [];
  const put = (check: CheckId, want: string) => out.push({ ...at, key: `${check}:${key}`, check, want }); // prettier-ignore
  if (p.posts.length > 0) put('depth', `${say(e.depth_m, 'length', plan.units)} in the ground, leaning a little against the pull`); // prettier-ignore
  if (braced) {
    if (braced.kind === 'h' || braced.kind === 'double-h')
      put('rail', `${say(braced.railHeight_m, 'length', plan.units)} up, level`);
    put('brace', WAYS[braced.wire]);
  }
  if (line.strands.some((s) => !s.kept)) {
    put('knots', 'each tie pulled up to its post or insulator');
    if (line.strands.some((s) => s.insulated)) put('endInsulators', 'none cracked through');
    put('jumpers', 'tried by hand; none under tension');
  }
  if (p.gate) {
    put('gate', 'top pin turned down; stock cannot work the latch');
    if (p.gate.cable) put('cable', 'in its conduit under the gate');
  }
  return out;
}
const WAYS = {
  end: 'from the foot of the end post to the top of the brace post, no turn slack',
  brace:
    'from the foot of the brace post to the top of the end post, as the plan has it; the other way holds more',
  both: 'both diagonals, no turn slack',
} as const;

/** The newest of what was seen at each check. */
export function newest(seen: readonly Seen[]): ReadonlyMap<string, Seen> {
  return new Map(seen.map((s) => [s.check, s]));
}
