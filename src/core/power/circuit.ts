/** From the plan to the circuit that the network solver takes. */
import { figure, type Catalogue, type SeasonId, recordOf } from '../plan/catalogue.js';
import { distance, pointAt } from '../plan/geometry.js';
import type { Energiser, Gate, Plan } from '../plan/schema.js';
import type { Mark, Topology } from '../plan/topology.js';
import { rodsOf, strandRods } from './earthing.js';
import { carries, growthOf, leakage } from './leakage.js';
import type { Circuit, Jumper, Section, Shunt, StrandType } from './network.js';
import { handTies, strandName } from './joined.js';
import { insideOf, NEAR, type Electric, type Network, type WiredLine } from './wired.js';

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

/** Strands that carry at each place, by duty. */
type Present = Map<string, { live: string[]; earth: string[] }>;

/** The live and earth strands that reach each place in a season. */
export function presentAt({ ids, wired, topology }: Network, season: SeasonId): Present {
  const present: Present = new Map();
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

/** Cables under gates, for each duty that has strands on both sides. */
export function cablesOf(
  net: Network,
  season: SeasonId,
  present = presentAt(net, season),
): Cable[] {
  const extra = figure(net.cat, 'gate.cableExtra');
  const cables: { id: string; from: string; to: string; length_m: number }[] = [];
  for (const id of net.ids)
    for (const gate of [...net.wired[id]!.gates].sort((a, b) => a.at_m - b.at_m)) {
      const ends = gate.cable ? gateEnds(gate, net.topology.marks[id]!) : null;
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
  return cables.flatMap((c) =>
    (['live', 'earth'] as const)
      .filter((duty) => present.get(c.from)?.[duty][0] && present.get(c.to)?.[duty][0])
      .map((duty) => ({ ...c, id: `${c.id}!${duty}`, duty })),
  );
}

/**
 * The circuit of one energiser, strand by strand: strands tied at both ends of every run and wherever lines meet, but
 * where their ties were set by hand; cable under gates that have it.
 */
export function circuitOf(net: Network, season: SeasonId): Circuit {
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
  const present = presentAt(net, season);
  const tied = new Set<string>();
  const shunts: Shunt[] = [];

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
      tied.add(inside[0]!.location).add(inside.at(-1)!.location);
      const earth = line.strands.findIndex((s) => s.duty === 'earth' && carries(s, season));
      if (earth < 0) continue;
      // The earth strands are bonded to rods of their own along the run.
      let last = -Infinity;
      for (const m of inside) {
        if (m.s - last < figure(cat, 'earth.strandRod')) continue;
        last = m.s;
        const { location } = m;
        tied.add(location);
        const strand = strandName(id, earth, r);
        shunts.push({ location, strand, to: 'soil', r_ohm: rod(line, m.s) });
      }
    }
  }
  // Where two lines share a place, their strands are tied there too.
  for (const [location, here] of present) {
    if (new Set([...here.live, ...here.earth].map((n) => n.split('/')[0])).size > 1)
      tied.add(location);
  }

  const jumpers: Jumper[] = [];
  const chain = (location: string, names: readonly string[]) => {
    for (let k = 0; k + 1 < names.length; k++) {
      jumpers.push({ location, strand_a: names[k]!, strand_b: names[k + 1]!, r_ohm: jumper });
    }
  };
  const hand = handTies(net);
  for (const [location, ties] of hand) {
    const here = present.get(location);
    const there = new Set(here && [...here.live, ...here.earth]);
    for (const [strand_a, strand_b] of ties)
      if (there.has(strand_a) && there.has(strand_b))
        jumpers.push({ location, strand_a, strand_b, r_ohm: jumper });
  }
  for (const location of tied) {
    if (hand.has(location)) continue;
    chain(location, present.get(location)!.live);
    chain(location, present.get(location)!.earth);
  }
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
    // The cable ties every strand of its duty at the place that it reaches.
    if (!tied.has(feed.location) && !hand.has(feed.location))
      chain(feed.location, present.get(feed.location)![duty]);
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
