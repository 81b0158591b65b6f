/** What the strands of a line must do: the strictest figure of every profile that it faces. */
import { figure, recordOf, usual, type Catalogue, type Profile } from '../plan/catalogue.js';
import type { Demand, Line } from '../plan/schema.js';
import type { About, DemandRow, Need, Requirement } from '../report/schema.js';
import { pushAside } from '../wire/pull.js';
import { wireOf } from '../wire/wires.js';

/** What of a line says who must be held. */
export type Facing = Pick<Line, 'left' | 'right' | 'keepOut' | 'boundary'> &
  Partial<Pick<Line, 'stepOver' | 'snow' | 'dim' | 'demands'>>;

/** The profiles that a line must satisfy: stock on both sides, what is kept out, the boundary. */
export function profilesOf(line: Facing, cat: Catalogue): string[] {
  const ids = new Set([...line.left, ...line.right, ...line.keepOut]);
  const cattle = [...ids].some((id) => id.startsWith('cattle'));
  if (line.boundary && cattle) ids.add('cattle-boundary');
  return [...ids].filter((id) => cat.profiles[id]);
}

/** The widest gap that a need allows from `low` to `high`: its middle says which zone it is in. */
export function gapLimit(
  p: Pick<Need, 'gapZone_m' | 'gapMax_m' | 'upperGapMax_m'>,
  low: number,
  high: number,
): number {
  return (low + high) / 2 < p.gapZone_m ? p.gapMax_m : p.upperGapMax_m;
}

/**
 * How far the usual push opens a gap, m, in the fence that practice says just holds: this profile's
 * longest bay, at its tension on a hot day, in a run of the same length. That opening is the limit for
 * every other fence [derived from common practice; docs/model.md, Strands].
 */
export function openingThatHolds(
  p: Pick<Profile, 'holdBay_m' | 'holdTension_N'>,
  cat: Catalogue,
  run_m = figure(cat, 'strands.pushRun'),
): number {
  const { EA_N } = wireOf(usual('wire'), cat);
  return 2 * pushAside(figure(cat, 'wire.pushForce'), p.holdTension_N, p.holdBay_m, EA_N, run_m);
}

/** A requirement on a line whose longest run is known: what a push may open there. */
export function withRun(need: Requirement, run_m: number, cat: Catalogue): Requirement {
  const opening = need.rows.find((r) => r.about === 'opening')!;
  if (opening.note !== null) return need;
  const needs = need.needs.map((n) => ({
    ...n,
    opening_m: openingThatHolds(recordOf(cat.profiles, n.profile), cat, run_m),
  }));
  const value = Math.min(...needs.map((n) => n.opening_m));
  const rows = need.rows.map((r) => (r === opening ? { ...r, value, usual: value } : r));
  return { ...need, needs, rows };
}

const FIELDS = {
  lowest: 'lowestMax_m',
  gap: 'gapMax_m',
  upperGap: 'upperGapMax_m',
  top: 'topMin_m',
  count: 'minStrands',
  live: 'minLive',
  aim: 'aim_V',
} as const;
/** Figures of which the greatest is the strictest. */
const GREATEST: readonly About[] = ['top', 'count', 'live', 'aim'];

/**
 * The strictest figures of all that a line faces, with its own figures put in; null when it faces
 * nothing.
 */
export function requirementOf(line: Facing, cat: Catalogue): Requirement | null {
  const ids = profilesOf(line, cat);
  if (ids.length === 0) return null;
  const own = line.demands ?? {};
  const value = (about: Demand, usual: number) => own[about]?.value ?? usual;
  const wants = (about: Demand) => value(about, 1) > 0;
  const profiles = ids.map((id) => [id, recordOf(cat.profiles, id)] as const);
  const needs = profiles.map(([profile, p]): Need => ({
    profile,
    lowestMax_m: value('lowest', p.lowestMax_m),
    gapMax_m: value('gap', p.gapMax_m),
    gapZone_m: p.gapZone_m,
    upperGapMax_m: value('upperGap', p.upperGapMax_m),
    topMin_m: value('top', p.topMin_m),
    minStrands: Math.ceil(value('count', p.minStrands)),
    minLive: Math.max(1, Math.ceil(value('live', p.minLive))),
    lowestLive: p.lowestLive && wants('lowestLive'),
    reach_m: p.reach_m,
    aim_V: value('aim', p.aim_V),
    opening_m: value('opening', openingThatHolds(p, cat)),
  }));

  const rows: DemandRow[] = [];
  const strictest = (about: keyof typeof FIELDS): string => {
    const field = FIELDS[about];
    const sign = GREATEST.includes(about) ? -1 : 1;
    const [id, p] = profiles.reduce((a, b) => (sign * b[1][field] < sign * a[1][field] ? b : a));
    rows.push(row(about, id, `profiles.${id}.${field}`, p[field], own));
    return id;
  };
  const flag = (about: About, id: string | undefined, path: string) => {
    if (id !== undefined) rows.push(row(about, id || null, path, 1, own));
  };
  const lowest = strictest('lowest');
  const clear = figure(cat, 'strands.lowestMin');
  rows.push(row('clear', null, 'defaults.strands.lowestMin.value', clear, own));
  const gap = strictest('gap');
  strictest('upperGap');
  const top = strictest('top');
  if (profiles.some(([, p]) => p.minStrands > 1) || own.count) strictest('count');
  if (profiles.some(([, p]) => p.minLive > 1) || own.live) strictest('live');
  const leans = profiles.find(([, p]) => p.topLive)?.[0];
  const lowestLive = profiles.find(([, p]) => p.lowestLive)?.[0];
  const horses = profiles.find(([, p]) => p.seenTop)?.[0];
  const noBarbed = profiles.find(([, p]) => p.noBarbed)?.[0];
  flag('lowestLive', lowestLive, `profiles.${lowestLive}.lowestLive`);
  if (line.stepOver) flag('stepOver', '', 'defaults.strands.stepOver.value');
  else flag('topLive', leans, `profiles.${leans}.topLive`);
  const seen = horses ?? (line.snow || line.dim ? '' : undefined);
  flag('seen', seen, 'defaults.strands.seenTop.value');
  flag('noBarbed', noBarbed, `profiles.${noBarbed}.noBarbed`);
  const offBarbed = figure(cat, 'posts.gap.barbed');
  rows.push(row('offBarbed', null, 'defaults.posts.gap.barbed.value', offBarbed, own));
  const tightest = needs.reduce((a, b) => (b.opening_m < a.opening_m ? b : a));
  const opens = openingThatHolds(recordOf(cat.profiles, tightest.profile), cat);
  rows.push(row('opening', tightest.profile, `profiles.${tightest.profile}.holdBay_m`, opens, own));
  const aim = strictest('aim');
  const pressing = profiles.reduce((a, b) => (b[1].holdBay_m < a[1].holdBay_m ? b : a));

  return {
    profiles: ids,
    needs,
    lowestMax_m: Math.min(...needs.map((n) => n.lowestMax_m)),
    lowestMin_m: value('clear', clear),
    gapMin_m: figure(cat, 'strands.gapMin'),
    topMin_m: Math.max(...needs.map((n) => n.topMin_m)),
    minStrands: Math.max(...needs.map((n) => n.minStrands)),
    minLive: Math.max(...needs.map((n) => n.minLive)),
    topDuty: line.stepOver ? 'cold' : leans && wants('topLive') ? 'live' : null,
    seenTop: seen !== undefined && wants('seen'),
    aim_V: Math.max(...needs.map((n) => n.aim_V)),
    small: profiles.some(([, p]) => p.size === 'small'),
    noBarbed: noBarbed !== undefined && wants('noBarbed'),
    offBarbed_m: value('offBarbed', offBarbed),
    holdBay_m: pressing[1].holdBay_m,
    decidedBy: { lowest, gap, top, aim, bay: pressing[0] },
    rows,
  };
}

function row(
  about: About,
  profile: string | null,
  path: string,
  usual: number,
  own: NonNullable<Line['demands']>,
): DemandRow {
  const mine = own[about as Demand];
  return { about, profile, path, value: mine?.value ?? usual, note: mine?.note ?? null, usual };
}
