/** One energiser on its fence: volts by season, its earth, and which unit of the catalogue meets the aim. */
import {
  figure,
  SEASONS,
  type Catalogue,
  type EnergiserModel,
  type SeasonId,
  recordOf,
} from '../plan/catalogue.js';
import { soilAt } from '../land/things.js';
import type { Energiser, Line, Plan } from '../plan/schema.js';
import type { Topology } from '../plan/topology.js';
import type { EnergiserReport, SeasonPower } from '../report/schema.js';
import { carries, circuitOf, feedOf, strandName, type WiredLine } from './circuit.js';
import { earthing, earthResistance, strandRods } from './earthing.js';
import { modelLoadLine, type LoadLine } from './loadLine.js';
import { solveUnit, type Circuit, type Unit } from './network.js';
import { surge } from './surge.js';

/** A line with the aim that its stock asks for. */
export interface AimedLine extends WiredLine {
  readonly aim_V: number;
}

interface Solved {
  readonly season: SeasonId;
  readonly unit: Unit;
  readonly r_earth: number;
  /** Lowest live volts for one ampere along each line, where anything live is fed. */
  readonly along: Readonly<Record<string, { s_m: number[]; unit_V: number[] }>>;
  /** The point with the least volts against its aim. */
  readonly worst: { line: string; at_m: number; unit_V: number; aim_V: number } | null;
}

export interface PowerResult {
  readonly report: EnergiserReport;
  /** Lines and distances where live strands carry nothing. */
  readonly dead: readonly { line: string; from_m: number; to_m: number }[];
}

/** Evaluates one energiser over the lines that hang together with its own. */
export function powerOf(
  energiser: Energiser,
  ids: readonly string[],
  wired: Readonly<Record<string, AimedLine>>,
  topology: Topology,
  plan: Pick<Plan, 'sizing' | 'soil' | 'things'>,
  cat: Catalogue,
): PowerResult {
  const soil = recordOf(cat.soils, soilAt(plan, energiser));
  let circuit: Circuit | null = null;
  const solved = SEASONS.map((season): Solved => {
    const r_earth = earthResistance(energiser, soil, cat.seasons[season]!.soil, cat);
    circuit = circuitOf(
      energiser,
      ids,
      wired,
      topology,
      season,
      plan.sizing.resistance,
      r_earth,
      strandRods(plan, season, cat),
      cat,
    );
    const unit = circuit.energiser.hot_strands.length ? solveUnit(circuit) : OPEN;
    const along = alongLines(unit, ids, wired, topology, season);
    return { season, unit, r_earth, along, worst: worstPoint(along, wired) };
  });
  const cap = surgeCap(energiser, wired, topology, circuit!, cat);
  const model = recordOf(cat.energisers, energiser.model);
  const line = modelLoadLine(model);
  const live = ids
    .flatMap((id) => wired[id]!.line.strands.map((s) => ({ s, w: wired[id]! })))
    .filter(({ s }) => s.duty === 'live');
  const fence_m = ids.reduce((t, id) => t + fenceLength(wired[id]!), 0);
  const seasons: Record<string, SeasonPower> = {};
  for (const one of solved) seasons[one.season] = seasonPower(one, line, cap);
  return {
    report: {
      id: energiser.id,
      lines: [...ids],
      fence_m,
      wire_m: live.reduce((t, { w }) => t + fenceLength(w), 0),
      seasons,
      earth: earthing(energiser, soil, line, tiedResistance(energiser, wired, plan, cat), cat),
      ...sizing(solved, cap, plan.sizing.reserve, model.supply, cat),
      joulesByLength: (figure(cat, 'energiser.joulesPerKm') * fence_m) / 1000,
    },
    dead: deadStretches(
      solved.find((s) => s.season === 'today')!,
      ids,
      wired,
      topology,
    ),
  };
}

const OPEN: Unit = { r_in_ohm: Infinity, v_hot: 1, v_earth: 0, nodes: [], currents: [] };

const fenceLength = (w: WiredLine): number => w.runs.reduce((t, r) => t + r.ground_m, 0);

/** Resistance per metre of the live strands in parallel beside the energiser. */
function tiedResistance(
  e: Energiser,
  wired: Readonly<Record<string, WiredLine>>,
  plan: Pick<Plan, 'sizing'>,
  cat: Catalogue,
): number {
  const strands = (e.line ? wired[e.line]?.line.strands : undefined)?.filter(
    (s) => s.duty === 'live',
  );
  if (!strands?.length) return 0;
  const key = `${plan.sizing.resistance}_ohm_per_km` as const;
  const siemens = strands.reduce((t, s) => t + 1000 / recordOf(cat.wires, s.wire)[key], 0);
  return 1 / siemens;
}

function alongLines(
  unit: Unit,
  ids: readonly string[],
  wired: Readonly<Record<string, AimedLine>>,
  topology: Topology,
  season: SeasonId,
) {
  const at = new Map<string, Map<string, number>>();
  for (const n of unit.nodes) {
    if (n.v_v === null) continue;
    let here = at.get(n.location);
    if (!here) at.set(n.location, (here = new Map()));
    here.set(n.strand, n.v_v);
  }
  const out: Record<string, { s_m: number[]; unit_V: number[] }> = {};
  for (const id of ids) {
    const live = liveNames(wired[id]!.line, season);
    if (live.length === 0) continue;
    const s_m: number[] = [];
    const unit_V: number[] = [];
    for (const mark of topology.marks[id]!) {
      const here = at.get(mark.location);
      const volts = live.map((name) => here?.get(name) ?? 0);
      s_m.push(mark.s);
      unit_V.push(Math.max(0, Math.min(...volts)));
    }
    out[id] = { s_m, unit_V };
  }
  return out;
}

const liveNames = (line: Line, season: SeasonId): string[] =>
  line.strands.flatMap((s, i) =>
    s.duty === 'live' && carries(s, season) ? [strandName(line.id, i)] : [],
  );

function worstPoint(along: Solved['along'], wired: Readonly<Record<string, AimedLine>>) {
  let worst: Solved['worst'] = null;
  for (const [line, { s_m, unit_V }] of Object.entries(along)) {
    const aim_V = wired[line]!.aim_V;
    unit_V.forEach((v, k) => {
      // Dead places are a finding of their own; here they would only hide the live ones.
      if (v <= 0) return;
      if (!worst || v / aim_V < worst.unit_V / worst.aim_V)
        worst = { line, at_m: s_m[k]!, unit_V: v, aim_V };
    });
  }
  return worst as Solved['worst'];
}

/** Volts that the front of the pulse meets, or null where the fence is too short for it to matter. */
export function surgeCap(
  e: Energiser,
  wired: Readonly<Record<string, WiredLine>>,
  topology: Topology,
  circuit: Circuit,
  cat: Catalogue,
): number | null {
  const feed = feedOf(e, wired, topology);
  if (!feed) return null;
  const soil = figure(cat, 'network.surgeSoil') * 1e-6;
  const internal = figure(cat, 'network.surgeInternal') * 1e-6;
  const known = new Map<string, ReturnType<typeof surge>>();
  const ofLine = (line: Line) => {
    const live = line.strands.filter((s) => s.duty === 'live');
    if (live.length === 0) return null;
    const wire = recordOf(cat.wires, live[0]!.wire);
    // What hangs closer than its own thickness counts as one: a rope beside a wire.
    const thick = (1.01 * wire.diameter_mm) / 1000;
    const heights = live.reduce<number[]>(
      (kept, { height_m }) => (height_m - (kept.at(-1) ?? 0) > thick ? [...kept, height_m] : kept),
      [],
    );
    // Most lines of a property share a few make-ups.
    const key = `${heights.join()} ${live[0]!.wire}`;
    let one = known.get(key);
    if (!one) known.set(key, (one = surge(heights, wire.diameter_mm / 1000, soil, internal)));
    return one;
  };
  const own = ofLine(wired[feed.line]!.line);
  if (!own) return null;
  const longest = furthest(circuit);
  if ((longest / own.speed_m_per_s) * 1e6 <= figure(cat, 'network.surgeTime')) return null;
  let admittance = 0;
  for (const [id, marks] of Object.entries(topology.marks)) {
    const k = marks.findIndex((m) => m.location === feed.location);
    const one = k < 0 || !wired[id] ? null : ofLine(wired[id]!.line);
    if (!one) continue;
    const ways = (k > 0 ? 1 : 0) + (k < marks.length - 1 ? 1 : 0);
    admittance += ways / one.z_ohm;
  }
  return admittance > 0 ? 1 / admittance : null;
}

/** Longest way from the energiser along the wires, m. */
function furthest(c: Circuit): number {
  const next = new Map<string, [string, number][]>();
  const link = (a: string, b: string, d: number) => next.set(a, [...(next.get(a) ?? []), [b, d]]);
  for (const s of c.sections) {
    link(s.from, s.to, s.length_m);
    link(s.to, s.from, s.length_m);
  }
  const best = new Map<string, number>([[c.energiser.location, 0]]);
  const queue = [c.energiser.location];
  // Label-correcting: farms are small and nearly trees, so each place is seen a few times at most.
  for (let k = 0; k < queue.length; k++) {
    const from = queue[k]!;
    for (const [to, d] of next.get(from) ?? []) {
      const far = best.get(from)! + d;
      if (far < (best.get(to) ?? Infinity) - 1e-9) {
        best.set(to, far);
        queue.push(to);
      }
    }
  }
  return Math.max(...best.values());
}

function sourceVolts(line: LoadLine, unit: Unit, cap: number | null) {
  const steady = line(unit.r_in_ohm);
  const front = cap === null ? Infinity : line(cap);
  return { v: Math.min(steady, front), capped: front < steady };
}

/** Volts for each unit of the solution: per ampere, or per share of open circuit without a return. */
const scale = (unit: Unit, v: number): number =>
  unit.r_in_ohm === Infinity ? v : v / unit.r_in_ohm;

function seasonPower(one: Solved, line: LoadLine, cap: number | null): SeasonPower {
  const { v, capped } = sourceVolts(line, one.unit, cap);
  const k = scale(one.unit, v);
  const open = one.unit.r_in_ohm === Infinity;
  return {
    r_in_ohm: open ? null : one.unit.r_in_ohm,
    v_out_V: v,
    i_out_A: open ? 0 : k,
    capped,
    r_earth_ohm: one.r_earth,
    v_earth_V: Math.abs(one.unit.v_earth * k),
    worst: one.worst && {
      line: one.worst.line,
      at_m: one.worst.at_m,
      v_V: one.worst.unit_V * k,
      aim_V: one.worst.aim_V,
    },
    lines: Object.fromEntries(
      Object.entries(one.along).map(([id, a]) => [
        id,
        { s_m: a.s_m, v_V: a.unit_V.map((u) => u * k) },
      ]),
    ),
  };
}

/** Every unit on this fence, and the smallest of the same supply that meets the aim. */
function sizing(
  solved: readonly Solved[],
  cap: number | null,
  reserve: number,
  supply: EnergiserModel['supply'],
  cat: Catalogue,
) {
  const candidates = Object.entries(cat.energisers)
    .map(([model, m]) => {
      const line = modelLoadLine(m);
      let least = { margin: Infinity, season: 'today' as string, worst_V: 0 };
      for (const one of solved) {
        if (!one.worst) continue;
        const worst_V = one.worst.unit_V * scale(one.unit, sourceVolts(line, one.unit, cap).v);
        const margin = worst_V / one.worst.aim_V;
        if (margin < least.margin) least = { margin, season: one.season, worst_V };
      }
      const margin = least.margin === Infinity ? 0 : least.margin;
      return { model, output_J: m.output_J, ...least, margin, meets: margin >= 1 + reserve };
    })
    .sort((a, b) => a.output_J - b.output_J || a.model.localeCompare(b.model));
  const limit = figure(cat, 'energiser.limit');
  const smallest = candidates.find(({ model, output_J, meets }) => {
    const m = cat.energisers[model]!;
    return meets && m.offered && m.supply === supply && output_J <= limit;
  });
  return { candidates, smallest: smallest?.model ?? null };
}

function deadStretches(
  one: Solved,
  ids: readonly string[],
  wired: Readonly<Record<string, WiredLine>>,
  topology: Topology,
) {
  const out: { line: string; from_m: number; to_m: number }[] = [];
  for (const id of ids) {
    const along = one.along[id];
    if (!along) continue;
    for (const run of wired[id]!.runs) {
      const own = topology.marks[id]!.map((m, k) => ({ s: m.s, v: along.unit_V[k]! })).filter(
        (m) => m.s >= run.from_m - 0.31 && m.s <= run.to_m + 0.31,
      );
      // A run is fed or it is not: its strands are tied at both ends.
      if (own.length && own.every((m) => m.v <= 0))
        out.push({ line: id, from_m: run.from_m, to_m: run.to_m });
    }
  }
  return out;
}
