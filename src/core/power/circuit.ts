/** From the plan to the circuit that the network solver takes. */
import { figure, type Catalogue, type SeasonId, recordOf } from '../plan/catalogue.js';
import { distance, pointAt } from '../plan/geometry.js';
import type { Energiser, Gate, Plan } from '../plan/schema.js';
import type { Mark, Topology } from '../plan/topology.js';
import { rodsOf, strandRods } from './earthing.js';
import { carries, growthOf, leakage } from './leakage.js';
import type { Circuit, Jumper, Section, Shunt, StrandType } from './network.js';
import { strandName } from './joined.js';
import { tiesOf, type ConnectorId, type TiesHere } from './ties.js';
import {
  insideOf,
  NEAR,
  type Electric,
  type Fence,
  type Network,
  type WiredLine,
} from './wired.js';

const resistanceKey = {
  planning: 'planning_ohm_per_km',
  best: 'best_ohm_per_km',
  guaranteed: 'guaranteed_ohm_per_km',
} as const;

/** Plan distances that the circuit must name on a line: gates, strained ends, long stretches. */
export function circuitMarks(w: WiredLine, maxPiece: number): number[] {
  const out: number[] = [];
  for (const run of w.runs) {
    const pieces = Math.ceil((run.to_m - run.from_m) / maxPiece);
    for (let k = 0; k <= pieces; k++) out.push(run.from_m + ((run.to_m - run.from_m) * k) / pieces);
  }
  // Between gates side by side no run ends, and the cable is to be followed all the same.
  for (const g of w.gates) out.push(g.at_m - g.width_m / 2, g.at_m + g.width_m / 2);
  return out;
}

/** Plan distances that the circuit must name on each line; where the units feed among them. */
export function placesNamed(
  wired: Readonly<Record<string, WiredLine>>,
  energisers: Readonly<Record<string, Energiser>>,
  piece: number,
) {
  const out: Record<string, number[]> = {};
  for (const w of Object.values(wired)) out[w.line.id] = circuitMarks(w, piece);
  for (const e of Object.values(energisers)) if (e.line && out[e.line]) out[e.line]!.push(e.at_m);
  return out;
}

/** The live and earth strands that reach each place in a season. */
export function presentAt(
  { ids, wired, topology }: Pick<Network, 'ids' | 'wired' | 'topology'>,
  season: SeasonId,
): Map<string, { live: string[]; earth: string[] }> {
  const present = new Map<string, { live: string[]; earth: string[] }>();
  for (const id of ids) {
    const { line, runs } = wired[id]!;
    for (const [k, run] of runs.entries()) {
      const inside = insideOf(run, topology.marks[id]!);
      // A run shorter than the tolerance of joining has no wire of its own.
      if (inside.length < 2) continue;
      for (const m of inside) {
        let here = present.get(m.location);
        if (!here) present.set(m.location, (here = { live: [], earth: [] }));
        line.strands.forEach((s, i) => {
          if (!carries(s, season) || s.duty === 'cold') return;
          const name = strandName(id, i, k);
          if (!here[s.duty].includes(name)) here[s.duty].push(name);
        });
      }
    }
  }
  return present;
}

export interface Cable {
  readonly id: string;
  readonly duty: 'live' | 'earth';
  readonly from: string;
  readonly to: string;
  readonly length_m: number;
}

/** Whether a cable of a duty lies under a gate. */
export const carried = (gate: Pick<Gate, 'cable' | 'earthCable'>, duty: Cable['duty']): boolean =>
  duty === 'live' ? gate.cable : (gate.earthCable ?? gate.cable);

/** Cables under gates, for each duty that has strands on both sides. */
export const cablesOf = (net: Fence, season: SeasonId, present = presentAt(net, season)): Cable[] =>
  (['live', 'earth'] as const).flatMap((duty) => cablesFor(duty, net, present));

function cablesFor(
  duty: Cable['duty'],
  net: Fence,
  present: ReturnType<typeof presentAt>,
): Cable[] {
  const extra = figure(net.cat, 'gate.cableExtra');
  const cables: { id: string; from: string; to: string; length_m: number }[] = [];
  for (const id of net.ids)
    for (const gate of [...net.wired[id]!.gates].sort((a, b) => a.at_m - b.at_m)) {
      const ends = carried(gate, duty) ? gateEnds(gate, net.topology.marks[id]!) : null;
      if (!ends) continue;
      const before = cables.at(-1);
      // Gates side by side: no strand reaches the post between them, the cable goes on under both.
      if (before?.to === ends[0].location && !present.has(before.to)) {
        before.to = ends[1].location;
        before.length_m += gate.width_m;
      } else {
        const [from, to] = [ends[0].location, ends[1].location];
        cables.push({ id: gate.id, from, to, length_m: gate.width_m + extra });
      }
    }
  return cables
    .filter((c) => present.get(c.from)?.[duty][0] && present.get(c.to)?.[duty][0])
    .map((c) => ({ ...c, id: `${c.id}!${duty}`, duty }));
}

/** Where earth strands are bonded to rods of their own along their runs. */
export interface StrandRod {
  readonly line: string;
  readonly s: number;
  readonly location: string;
  readonly strand: string;
}

/** What is tied where in a season, and the rods of the earth strands. */
export interface Tying {
  readonly present: ReturnType<typeof presentAt>;
  readonly ties: ReadonlyMap<string, TiesHere>;
  readonly rods: readonly StrandRod[];
}

/**
 * What is tied at every place: as set by hand, else each duty at both ends of every run, wherever lines meet and where
 * the lead-out comes in; earth strands at their rods too.
 */
export function tyingOf(net: Fence, season: SeasonId): Tying {
  const { energiser, ids, wired, topology, cat } = net;
  const present = presentAt(net, season);
  const ended = new Set<string>();
  const rods: StrandRod[] = [];
  for (const id of ids) {
    const { line, runs } = wired[id]!;
    for (const [r, run] of runs.entries()) {
      const inside = insideOf(run, topology.marks[id]!);
      if (inside.length < 2) continue;
      ended.add(inside[0]!.location).add(inside.at(-1)!.location);
      const earth = line.strands.findIndex((s) => s.duty === 'earth' && carries(s, season));
      if (earth < 0) continue;
      let last = -Infinity;
      for (const m of inside) {
        if (m.s - last < figure(cat, 'earth.strandRod')) continue;
        last = m.s;
        rods.push({ line: id, ...m, strand: strandName(id, earth, r) });
      }
    }
  }
  // Where two lines share a place, their strands are tied there too.
  for (const [location, here] of present) {
    if (new Set([...here.live, ...here.earth].map((n) => n.split('/')[0])).size > 1)
      ended.add(location);
  }
  // The lead-out ties every strand of its duty at the place that it reaches.
  const feed = energiser && feedOf(energiser, wired, topology);
  if (feed) ended.add(feed.location);
  return { present, rods, ties: tiesOf(net, present, ended, new Set(rods.map((r) => r.location))) };
}

/**
 * The circuit of one energiser, strand by strand; cable under gates that have it.
 * @param ohmOf resistance of a tie of each kind, ohm; without it that of a sound one
 */
export function circuitOf(
  net: Network,
  season: SeasonId,
  ohmOf?: (kind: ConnectorId) => number,
): Circuit {
  const { energiser, ids, wired, topology, plan, cat } = net;
  const resistance = plan.sizing.resistance;
  const rod = strandRods(plan, season, cat);
  const jumper = figure(cat, 'network.jumper');
  const types: Record<string, StrandType> = {
    cable: {
      role: 'hot',
      r_ohm_per_km: figure(cat, 'network.gateCable'),
      g_s_per_km: figure(cat, 'network.cableLeakage'),
    },
  };
  const sections: Section[] = [];
  const { present, ties, rods } = tyingOf(net, season);

  for (const id of ids) {
    const { line, runs } = wired[id]!;
    const marks = topology.marks[id]!;
    strandTypes(line, season, cat, resistance, types);
    for (const [r, run] of runs.entries()) {
      const strands = strandsOf(line, r, season);
      const inside = insideOf(run, marks);
      if (inside.length < 2) continue;
      for (let k = 0; k + 1 < inside.length; k++) {
        const [a, b] = [inside[k]!, inside[k + 1]!];
        sections.push({
          id: `${id}#${sections.length}`,
          from: a.location,
          to: b.location,
          length_m: ((b.s - a.s) * run.ground_m) / Math.max(run.to_m - run.from_m, 1e-6),
          strands,
        });
      }
    }
  }
  const shunts = rods.map(({ line, s, location, strand }): Shunt => ({
    location,
    strand,
    to: 'soil',
    r_ohm: rod(wired[line]!.line, s),
  }));
  const jumpers: Jumper[] = [];
  for (const [location, { ties: own }] of ties)
    for (const { a, b, kind } of own)
      jumpers.push({ location, strand_a: a, strand_b: b, r_ohm: ohmOf?.(kind) ?? jumper });
  for (const c of cablesOf(net, season, present)) {
    const { id: name, from, to, length_m } = c;
    sections.push({ id: name, from, to, length_m, strands: { [name]: 'cable' } });
    for (const location of [from, to]) {
      const strand_a = present.get(location)![c.duty][0]!;
      jumpers.push({ location, strand_a, strand_b: name, r_ohm: jumper });
    }
  }

  const feed = feedOf(energiser, wired, topology);
  const leadOut = (duty: 'live' | 'earth') => {
    const first = feed && present.get(feed.location)?.[duty][0];
    if (!feed || !first) return [];
    const name = `${energiser.id}!${duty}`;
    sections.push({
      id: name,
      from: energiser.id,
      to: feed.location,
      length_m: feed.lead_m,
      strands: { [name]: 'cable' },
    });
    jumpers.push({ location: feed.location, strand_a: first, strand_b: name, r_ohm: jumper });
    return [name];
  };
  return {
    strand_types: types,
    sections,
    jumpers,
    energiser: {
      location: energiser.id,
      hot_strands: leadOut('live'),
      earth_strands: leadOut('earth'),
      lead_ohm: figure(cat, 'energiser.leadResistance'),
    },
    r_earth_ohm: rodsOf(net, season),
    shunts,
    breaks: [],
    probes: [],
  };
}

function strandTypes(
  line: Electric,
  season: SeasonId,
  cat: Catalogue,
  resistance: Plan['sizing']['resistance'],
  types: Record<string, StrandType>,
): void {
  const growth = growthOf(line, cat);
  line.strands.forEach((s, i) => {
    if (!carries(s, season)) return;
    const wire = recordOf(cat.wires, s.wire);
    types[strandName(line.id, i, 0)] = {
      role: s.duty === 'live' ? 'hot' : 'earth',
      r_ohm_per_km: wire[resistanceKey[resistance]],
      g_s_per_km:
        s.duty === 'live'
          ? leakage(s.height_m, season, growth, cat)
          : figure(cat, 'network.earthStrandLeakage'),
    };
  });
}

/** The strands of a run by their names, and the type of each. */
function strandsOf(line: Electric, run: number, season: SeasonId): Record<string, string> {
  return Object.fromEntries(
    line.strands.flatMap((s, i) =>
      carries(s, season) ? [[strandName(line.id, i, run), strandName(line.id, i, 0)]] : [],
    ),
  );
}

/** The marks on both sides of a gate; null when one side has no fence. */
export function gateEnds(gate: Gate, marks: readonly Mark[]): [Mark, Mark] | null {
  const close = (s: number) => marks.find((m) => Math.abs(m.s - s) <= NEAR);
  const a = close(gate.at_m - gate.width_m / 2);
  const b = close(gate.at_m + gate.width_m / 2);
  return a && b && a !== b ? [a, b] : null;
}

/** The gates whose post stands at a place of their line. */
export const gatesAt = (gates: readonly Gate[], at_m: number): Gate[] =>
  gates.filter((g) => Math.abs(Math.abs(g.at_m - at_m) - g.width_m / 2) <= NEAR);

/** Where an energiser feeds its line, and the length of its lead-out; null when it feeds none. */
export function feedOf(
  energiser: Energiser,
  wired: Readonly<Record<string, WiredLine>>,
  topology: Topology,
): { location: string; line: string; s: number; lead_m: number } | null {
  const w = energiser.line === null ? undefined : wired[energiser.line];
  if (!w) return null;
  const marks = topology.marks[w.line.id]!;
  const mark = marks.reduce((best, m) =>
    Math.abs(m.s - energiser.at_m) < Math.abs(best.s - energiser.at_m) ? m : best,
  );
  const lead = distance(energiser, pointAt(w.line.vertices, mark.s));
  return { location: mark.location, line: w.line.id, s: mark.s, lead_m: Math.max(1, lead) };
}
