/** From a circuit to its nodes, pieces of wire and links, and the matrix of those that carry current. */
import type { Circuit, Section } from './circuitTypes.js';
import { factorise, SymmetricBuilder, type Factor } from './sparse.js';

/** Exact two-port of a leaking line: series conductance, and shunt conductance at each end. */
export function linePiece(r_per_m: number, g_per_m: number, length: number): [number, number] {
  const x = length * Math.sqrt(r_per_m * g_per_m);
  // Series below 1e-3: the plain quotients lose digits there, and g may be 0.
  const sinhc = x < 1e-3 ? 1 + (x * x) / 6 : Math.sinh(x) / x;
  const tanhc = x < 1e-3 ? 1 - (x * x) / 12 : Math.tanh(x / 2) / (x / 2);
  return [1 / (r_per_m * length * sinhc), ((g_per_m * length) / 2) * tanhc];
}

export interface Piece {
  readonly section: string;
  readonly strand: string;
  readonly a: number;
  readonly b: number;
  readonly series: number;
  readonly shunt: number;
}

/** Names nodes and numbers them in order of first mention. */
export class Nodes {
  readonly list: { location: string; strand: string }[] = [];
  private readonly byName = new Map<string, Map<string, number>>();
  at(location: string, strand: string): number {
    let strands = this.byName.get(location);
    if (!strands) this.byName.set(location, (strands = new Map()));
    let k = strands.get(strand);
    if (k === undefined) {
      strands.set(strand, (k = this.list.length));
      this.list.push({ location, strand });
    }
    return k;
  }
  find(location: string, strand: string): number | undefined {
    return this.byName.get(location)?.get(strand);
  }
}

/** A circuit made ready to be solved. */
export interface Assembly {
  readonly nodes: Nodes;
  readonly pieces: readonly Piece[];
  readonly links: readonly Link[];
  readonly hot: number;
  readonly earth: number;
  readonly size: number;
  readonly groups: ReturnType<typeof connected>;
  /** Current can come back to the energiser. */
  readonly returns: boolean;
  /** Row of each node in the matrix; -1: carries nothing. */
  readonly row: Int32Array;
  readonly member: readonly number[];
}

/**
 * Names and links every part.
 * @throws RangeError naming the part, when the inputs name something that is not there
 */
export function assemble(c: Circuit): Assembly {
  const nodes = new Nodes();
  const inside = marksBySection(c);
  const pieces: Piece[] = [];
  for (const s of c.sections) addPieces(c, s, inside.get(s.id) ?? NO_MARKS, nodes, pieces);
  const links = [...jumperLinks(c, nodes), ...shuntLinks(c, nodes)];
  const hot = nodes.list.length;
  const earth = hot + 1;
  const lead = 1 / c.energiser.lead_ohm;
  for (const strand of c.energiser.hot_strands) links.push([hot, feed(c, nodes, strand), lead]);
  for (const strand of c.energiser.earth_strands) links.push([earth, feed(c, nodes, strand), lead]);
  links.push([earth, -1, 1 / c.r_earth_ohm]);

  const size = earth + 1;
  const groups = connected(size, pieces, links);
  const live = groups.of[hot]!;
  const returns = live === groups.of[earth] || groups.soil.has(live);
  const member: number[] = [];
  const row = new Int32Array(size).fill(-1);
  for (let k = 0; k < size; k++) {
    const group = groups.of[k]!;
    // What only leaks to the soil stands at 0 V: it is kept for whoever bridges to it.
    if (groups.soil.has(group) || (returns && (group === live || group === groups.of[earth]))) {
      row[k] = member.length;
      member.push(k);
    }
  }
  return { nodes, pieces, links, hot, earth, size, groups, returns, row, member };
}

function feed(c: Circuit, nodes: Nodes, strand: string): number {
  const k = nodes.find(c.energiser.location, strand);
  if (k === undefined) {
    throw new RangeError(
      `energiser: no strand "${strand}" reaches location "${c.energiser.location}"`,
    );
  }
  return k;
}

interface MarkInside {
  readonly x_m: number;
  readonly strands: readonly string[];
  readonly breaks: boolean;
}
const NO_MARKS: readonly MarkInside[] = [];

/** Shunts, breaks and probes by the section that they lie in. */
function marksBySection(c: Circuit): Map<string, MarkInside[]> {
  const out = new Map<string, MarkInside[]>();
  const add = (
    section: string | undefined,
    x_m: number | undefined,
    mark: Omit<MarkInside, 'x_m'>,
  ) => {
    if (section === undefined || x_m === undefined) return;
    const list = out.get(section);
    if (list) list.push({ x_m, ...mark });
    else out.set(section, [{ x_m, ...mark }]);
  };
  for (const s of c.shunts) add(s.section, s.x_m, { strands: [s.strand, s.to], breaks: false });
  for (const p of c.probes) add(p.section, p.x_m, { strands: [p.strand], breaks: false });
  for (const b of c.breaks) add(b.section, b.x_m, { strands: [b.strand], breaks: true });
  return out;
}

/** Strands of a section, cut where something stands inside them. */
function addPieces(
  c: Circuit,
  s: Section,
  marks: readonly MarkInside[],
  nodes: Nodes,
  pieces: Piece[],
): void {
  for (const strand of Object.keys(s.strands)) {
    const type = c.strand_types[s.strands[strand]!];
    if (!type) throw new RangeError(`section "${s.id}": no strand type "${s.strands[strand]}"`);
    const r = type.r_ohm_per_km / 1000;
    const g = type.g_s_per_km / 1000;
    const own = marks.length === 0 ? NO_MARKS : marks.filter((m) => m.strands.includes(strand));
    let at = 0;
    let from = nodes.at(s.from, strand);
    for (const x of [...new Set(own.map((m) => m.x_m))].sort((p, q) => p - q)) {
      if (!(x > 0 && x < s.length_m)) {
        throw new RangeError(
          `section "${s.id}": x_m must lie inside it, between 0 and ${s.length_m}; name a location for its ends`,
        );
      }
      const near = nodes.at(`${s.id}@${x}`, strand);
      const [series, shunt] = linePiece(r, g, x - at);
      pieces.push({ section: s.id, strand, a: from, b: near, series, shunt });
      const broken = own.some((m) => m.breaks && m.x_m === x);
      from = broken ? nodes.at(`${s.id}@${x}+`, strand) : near;
      at = x;
    }
    const [series, shunt] = linePiece(r, g, s.length_m - at);
    pieces.push({ section: s.id, strand, a: from, b: nodes.at(s.to, strand), series, shunt });
  }
}

export type Link = [a: number, b: number, conductance: number];

function jumperLinks(c: Circuit, nodes: Nodes): Link[] {
  return c.jumpers.map((j) => {
    const a = nodes.find(j.location, j.strand_a);
    const b = nodes.find(j.location, j.strand_b);
    if (a === undefined || b === undefined) {
      const missing = a === undefined ? j.strand_a : j.strand_b;
      throw new RangeError(`jumper at "${j.location}": no strand "${missing}" there`);
    }
    return [a, b, 1 / j.r_ohm];
  });
}

function shuntLinks(c: Circuit, nodes: Nodes): Link[] {
  return c.shunts.map((s) => {
    const place = s.location ?? `${s.section}@${s.x_m}`;
    const a = nodes.find(place, s.strand);
    const b = s.to === 'soil' ? -1 : nodes.find(place, s.to);
    if (a === undefined || b === undefined) {
      throw new RangeError(
        `shunt at "${place}": no strand "${a === undefined ? s.strand : s.to}" there`,
      );
    }
    return [a, b, 1 / s.r_ohm];
  });
}

/** Connected groups of nodes by union-find, and which of them touch soil. */
function connected(size: number, pieces: readonly Piece[], links: readonly Link[]) {
  const parent = Int32Array.from({ length: size }, (_, k) => k);
  const root = (k: number): number => {
    while (parent[k] !== k) k = parent[k] = parent[parent[k]!]!;
    return k;
  };
  for (const p of pieces) parent[root(p.a)] = root(p.b);
  for (const [a, b] of links) if (b >= 0) parent[root(a)] = root(b);
  const of = Array.from({ length: size }, (_, k) => root(k));
  const soil = new Set<number>();
  for (const p of pieces) if (p.shunt > 0) soil.add(of[p.a]!);
  for (const [a, b] of links) if (b < 0) soil.add(of[a]!);
  return { of, soil };
}

/** Factor of the conductance matrix over the nodes that carry current. */
export function factorOf({ member, row, pieces, links }: Assembly): Factor {
  const matrix = new SymmetricBuilder(member.length);
  for (const p of pieces) {
    const a = row[p.a]!;
    const b = row[p.b]!;
    if (a < 0) continue;
    matrix.between(a, b, p.series);
    matrix.toReference(a, p.shunt);
    matrix.toReference(b, p.shunt);
  }
  for (const [a, b, g] of links) {
    if (row[a]! < 0) continue;
    if (b < 0) matrix.toReference(row[a]!, g);
    else matrix.between(row[a]!, row[b]!, g);
  }
  return factorise(matrix);
}

/** Volts of every node for 1 A driven from node `from` to node `to`; -1 is the soil. */
export function drive(a: Assembly, factor: Factor, from: number, to: number): Float64Array {
  const rhs = new Float64Array(a.member.length);
  if (to >= 0) rhs[a.row[to]!] = 1;
  if (from >= 0) rhs[a.row[from]!] = -1;
  const x = factor.solve(rhs);
  const volts = new Float64Array(a.size);
  a.member.forEach((k, m) => (volts[k] = x[m]!));
  return volts;
}
