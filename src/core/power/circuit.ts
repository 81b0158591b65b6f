/** From the plan to the circuit that the network solver takes. */
import { figure, type Catalogue, type SeasonId, recordOf } from '../plan/catalogue.js';
import { distance, pointAt } from '../plan/geometry.js';
import type { Energiser, Gate, Line, Plan, Strand } from '../plan/schema.js';
import type { Mark, Topology } from '../plan/topology.js';
import type { Run } from '../report/schema.js';
import type { Circuit, Jumper, Section, Shunt, StrandType } from './network.js';

/** A line with what the circuit needs to know of it. */
export interface WiredLine {
  readonly line: Line;
  readonly gates: readonly Gate[];
  readonly runs: readonly Run[];
}

/** Name of the i-th strand of a line in the circuit. */
export const strandName = (line: string, index: number): string => `${line}/${index}`;

const resistanceKey = {
  planning: 'planning_ohm_per_km',
  best: 'best_ohm_per_km',
  guaranteed: 'guaranteed_ohm_per_km',
} as const;

/** A strand whose cut-out is open in the season of long grass carries nothing then. */
export const carries = (s: Strand, season: SeasonId): boolean =>
  s.duty !== 'cold' && !(s.switched && season === 'wet');

/** Resistance of one rod at a place of a line, ohm. */
export type RodAt = (line: Line, s: number) => number;

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

/** Leakage of each live strand, S/km: shared by height, the mean over the strands kept. */
export function shareLeakage(strands: readonly Strand[], mean: number, scale_m: number): number[] {
  const weight = strands.map((s) => (s.duty === 'live' ? Math.exp(-s.height_m / scale_m) : 0));
  const total = weight.reduce((a, b) => a + b, 0);
  const live = strands.filter((s) => s.duty === 'live').length;
  return weight.map((w) => (total === 0 ? 0 : (mean * live * w) / total));
}

/**
 * The circuit of one energiser: its lines, strands tied at both ends of every run and wherever
 * lines meet, cable under gates that have it.
 * @param ids the lines that hang together with the energiser's own
 * @param rod what a rod of an earth strand has, by place
 */
export function circuitOf(
  energiser: Energiser,
  ids: readonly string[],
  wired: Readonly<Record<string, WiredLine>>,
  topology: Topology,
  season: SeasonId,
  resistance: Plan['sizing']['resistance'],
  r_earth_ohm: number,
  rod: RodAt,
  cat: Catalogue,
): Circuit {
  const mean = cat.seasons[season]!.leakage_S_per_km;
  const jumper = figure(cat, 'network.jumper');
  const types: Record<string, StrandType> = {
    cable: {
      role: 'hot',
      r_ohm_per_km: figure(cat, 'network.gateCable'),
      g_s_per_km: figure(cat, 'network.cableLeakage'),
    },
  };
  const sections: Section[] = [];
  const present = new Map<string, { live: string[]; earth: string[] }>();
  const meet = (location: string) => {
    let here = present.get(location);
    if (!here) present.set(location, (here = { live: [], earth: [] }));
    return here;
  };
  const tied = new Set<string>();
  const shunts: Shunt[] = [];
  const cables: { id: string; from: string; to: string; length_m: number }[] = [];

  for (const id of ids) {
    const { line, gates, runs } = wired[id]!;
    const marks = topology.marks[id]!;
    const strands = strandTypes(line, mean, season, cat, resistance, types);
    const duties = line.strands;
    for (const run of runs) {
      const inside = marks.filter((m) => m.s >= run.from_m - 0.31 && m.s <= run.to_m + 0.31);
      // A run shorter than the tolerance of joining has no wire of its own.
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
      for (const m of inside) {
        const here = meet(m.location);
        duties.forEach((s, i) => {
          if (!carries(s, season)) return;
          const name = strandName(id, i);
          const list = s.duty === 'live' ? here.live : s.duty === 'earth' ? here.earth : null;
          if (list && !list.includes(name)) list.push(name);
        });
      }
      tied.add(inside[0]!.location).add(inside.at(-1)!.location);
      const earth = duties.findIndex((s) => s.duty === 'earth');
      if (earth < 0) continue;
      // The earth strands are bonded to rods of their own along the run.
      let last = -Infinity;
      for (const m of inside) {
        if (m.s - last < figure(cat, 'earth.strandRod')) continue;
        last = m.s;
        const { location } = m;
        tied.add(location);
        const strand = strandName(id, earth);
        shunts.push({ location, strand, to: 'soil', r_ohm: rod(line, m.s) });
      }
    }
    for (const gate of [...gates].sort((a, b) => a.at_m - b.at_m)) {
      if (!gate.cable) continue;
      const ends = gateEnds(gate, marks);
      const before = cables.at(-1);
      // Gates side by side: no strand reaches the post between them, the cable goes on under both.
      if (ends && before?.to === ends[0].location && !present.has(before.to)) {
        before.to = ends[1].location;
        before.length_m += gate.width_m;
      } else if (ends)
        cables.push({
          id: gate.id,
          from: ends[0].location,
          to: ends[1].location,
          length_m: gate.width_m + figure(cat, 'gate.cableExtra'),
        });
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
  const joinCable = (
    id: string,
    duty: 'live' | 'earth',
    from: string,
    to: string,
    length_m: number,
  ) => {
    const name = `${id}!${duty}`;
    const [a, b] = [present.get(from)?.[duty][0], present.get(to)?.[duty][0]];
    if (!a || !b) return;
    sections.push({ id: name, from, to, length_m, strands: { [name]: 'cable' } });
    jumpers.push({ location: from, strand_a: a, strand_b: name, r_ohm: jumper });
    jumpers.push({ location: to, strand_a: b, strand_b: name, r_ohm: jumper });
  };
  for (const location of tied) {
    chain(location, present.get(location)!.live);
    chain(location, present.get(location)!.earth);
  }
  for (const c of cables) {
    joinCable(c.id, 'live', c.from, c.to, c.length_m);
    joinCable(c.id, 'earth', c.from, c.to, c.length_m);
  }

  const feed = feedOf(energiser, wired, topology);
  const leadOut = (duty: 'live' | 'earth') => {
    const first = feed && present.get(feed.location)?.[duty][0];
    if (!feed || !first) return [];
    // The cable ties every strand of its duty at the place that it reaches.
    if (!tied.has(feed.location)) chain(feed.location, present.get(feed.location)![duty]);
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
    r_earth_ohm,
    shunts,
    breaks: [],
    probes: [],
  };
}

function strandTypes(
  line: Line,
  mean: number,
  season: SeasonId,
  cat: Catalogue,
  resistance: Plan['sizing']['resistance'],
  types: Record<string, StrandType>,
): Record<string, string> {
  const leakage = shareLeakage(line.strands, mean, figure(cat, 'network.leakHeight'));
  const out: Record<string, string> = {};
  line.strands.forEach((s, i) => {
    if (!carries(s, season)) return;
    const wire = recordOf(cat.wires, s.wire);
    const name = strandName(line.id, i);
    types[name] = {
      role: s.duty === 'live' ? 'hot' : 'earth',
      r_ohm_per_km: wire[resistanceKey[resistance]],
      g_s_per_km: s.duty === 'live' ? leakage[i]! : figure(cat, 'network.earthStrandLeakage'),
    };
    out[name] = name;
  });
  return out;
}

/** The marks on both sides of a gate; null when one side has no fence. */
export function gateEnds(gate: Gate, marks: readonly Mark[]): [Mark, Mark] | null {
  const close = (s: number) => marks.find((m) => Math.abs(m.s - s) <= 0.31);
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
