/**
 * The fence as an electrical network, resistive peak model (docs/model.md, Power).
 * Nodes are (location, strand); remote soil is the reference; every stretch of strand is an exact
 * leaking line. One solve with 1 A gives the input resistance, and the load line scales the rest.
 */
import { factorise, SymmetricBuilder } from './sparse.js';
import { loadLine, type LoadLinePlate } from './loadLine.js';

export interface StrandType {
  readonly role: 'hot' | 'earth';
  readonly r_ohm_per_km: number;
  readonly g_s_per_km: number;
}
export interface Section {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly length_m: number;
  readonly strands: Readonly<Record<string, string>>;
}
export interface Jumper {
  readonly location: string;
  readonly strand_a: string;
  readonly strand_b: string;
  readonly r_ohm: number;
}
export interface Shunt {
  readonly section?: string;
  readonly x_m?: number;
  readonly location?: string;
  readonly strand: string;
  readonly to: string;
  readonly r_ohm: number;
}
export interface InSection {
  readonly section: string;
  readonly x_m: number;
  readonly strand: string;
}
/** The circuit alone: all that the input resistance depends on. */
export interface Circuit {
  readonly strand_types: Readonly<Record<string, StrandType>>;
  readonly energiser: {
    readonly location: string;
    readonly hot_strands: readonly string[];
    readonly earth_strands: readonly string[];
    readonly lead_ohm: number;
  };
  readonly r_earth_ohm: number;
  readonly sections: readonly Section[];
  readonly jumpers: readonly Jumper[];
  readonly shunts: readonly Shunt[];
  readonly breaks: readonly InSection[];
  readonly probes: readonly InSection[];
}
export type FenceResistiveInputs = Circuit & {
  readonly energiser: Circuit['energiser'] & { readonly load_line: LoadLinePlate };
};

export interface NodeVolts {
  readonly location: string;
  readonly strand: string;
  /** Null: nothing connects it to anything. */
  readonly v_v: number | null;
}

/** Answer for 1 A; multiply volts and amps by the energiser's real current. */
export interface Unit {
  /** Infinity when no current can return. */
  readonly r_in_ohm: number;
  readonly v_hot: number;
  readonly v_earth: number;
  readonly nodes: readonly NodeVolts[];
  readonly currents: readonly { section: string; strand: string; i_from: number; i_to: number }[];
}

/** Exact two-port of a leaking line: series conductance, and shunt conductance at each end. */
export function linePiece(r_per_m: number, g_per_m: number, length: number): [number, number] {
  const x = length * Math.sqrt(r_per_m * g_per_m);
  // Series below 1e-3: the plain quotients lose digits there, and g may be 0.
  const sinhc = x < 1e-3 ? 1 + (x * x) / 6 : Math.sinh(x) / x;
  const tanhc = x < 1e-3 ? 1 - (x * x) / 12 : Math.tanh(x / 2) / (x / 2);
  return [1 / (r_per_m * length * sinhc), ((g_per_m * length) / 2) * tanhc];
}

interface Piece {
  readonly section: string;
  readonly strand: string;
  readonly a: number;
  readonly b: number;
  readonly series: number;
  readonly shunt: number;
}

/** Names nodes and numbers them in order of first mention. */
class Nodes {
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

/**
 * Solves the circuit for 1 A driven from the earth terminal to the hot terminal.
 * @throws RangeError naming the part, when the inputs name something that is not there
 */
export function solveUnit(c: Circuit): Unit {
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
  const solved = new Int32Array(size).fill(-1);
  for (let k = 0; k < size; k++) {
    const group = groups.of[k]!;
    if (returns && (group === live || group === groups.of[earth])) {
      solved[k] = member.length;
      member.push(k);
    }
  }
  const volts = new Float64Array(size);
  if (returns) {
    const x = solveMembers(member, solved, pieces, links, hot, earth);
    member.forEach((k, m) => (volts[k] = x[m]!));
  } else {
    for (let k = 0; k < size; k++) volts[k] = groups.of[k] === live ? 1 : 0;
  }
  const alone = (k: number) =>
    groups.of[k] !== live && groups.of[k] !== groups.of[earth] && !groups.soil.has(groups.of[k]!);
  return {
    r_in_ohm: returns ? volts[hot]! - volts[earth]! : Infinity,
    v_hot: volts[hot]!,
    v_earth: volts[earth]!,
    nodes: nodes.list.map((n, k) => ({ ...n, v_v: alone(k) ? null : volts[k]! })),
    currents: returns ? currentsOf(pieces, volts) : [],
  };
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

type Link = [a: number, b: number, conductance: number];

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

function solveMembers(
  member: readonly number[],
  solved: Int32Array,
  pieces: readonly Piece[],
  links: readonly Link[],
  hot: number,
  earth: number,
): Float64Array {
  const matrix = new SymmetricBuilder(member.length);
  for (const p of pieces) {
    const a = solved[p.a]!;
    const b = solved[p.b]!;
    if (a < 0) continue;
    matrix.between(a, b, p.series);
    matrix.toReference(a, p.shunt);
    matrix.toReference(b, p.shunt);
  }
  for (const [a, b, g] of links) {
    if (solved[a]! < 0) continue;
    if (b < 0) matrix.toReference(solved[a]!, g);
    else matrix.between(solved[a]!, solved[b]!, g);
  }
  const rhs = new Float64Array(member.length);
  rhs[solved[hot]!] = 1;
  rhs[solved[earth]!] = -1;
  return factorise(matrix).solve(rhs);
}

function currentsOf(pieces: readonly Piece[], volts: Float64Array) {
  const out: { section: string; strand: string; i_from: number; i_to: number }[] = [];
  pieces.forEach((p) => {
    const through = p.series * (volts[p.a]! - volts[p.b]!);
    const i_from = through + p.shunt * volts[p.a]!;
    const i_to = through - p.shunt * volts[p.b]!;
    const last = out.at(-1);
    // Pieces of one strand follow one another: its far end is the last piece's.
    if (last && last.section === p.section && last.strand === p.strand) last.i_to = i_to;
    else out.push({ section: p.section, strand: p.strand, i_from, i_to });
  });
  return out;
}

/** The whole answer for one energiser with its load line (kind `fence_resistive`). */
export function solveFence(i: FenceResistiveInputs) {
  const unit = solveUnit(i);
  const v_out = loadLine(i.energiser.load_line)(unit.r_in_ohm);
  const open = unit.r_in_ohm === Infinity;
  // Without a return path `unit` holds shares of the open voltage instead of volts for one amp.
  const k = open ? v_out : v_out / unit.r_in_ohm;
  return {
    r_in_ohm: open ? null : unit.r_in_ohm,
    v_out_v: v_out,
    i_out_a: open ? 0 : k,
    v_hot_terminal_v: unit.v_hot * k,
    v_earth_terminal_v: unit.v_earth * k,
    i_earth_rods_a: (unit.v_earth * k) / i.r_earth_ohm,
    nodes: unit.nodes.map((n) => ({ ...n, v_v: n.v_v === null ? null : n.v_v * k })),
    strand_currents: unit.currents.map((s) => ({
      section: s.section,
      strand: s.strand,
      i_from_a: s.i_from * k,
      i_to_a: s.i_to * k,
    })),
  };
}
