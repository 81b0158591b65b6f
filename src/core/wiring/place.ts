/** The places of a network where strands end, meet or are tied: what arrives there and what is tied to what. */
import { recordOf, type Catalogue, type SeasonId } from '../plan/catalogue.js';
import type { Strand } from '../plan/schema.js';
import { cablesOf, circuitOf, feedOf, gateEnds, tyingOf } from '../power/circuit.js';
import { fedOf } from '../power/fed.js';
import { strandName, strandOf } from '../power/joined.js';
import type { ConnectorId, JoinAt } from '../power/ties.js';
import { insideOf, NEAR, type Fence as FencedLines, type Network } from '../power/wired.js';

export type Side = 'before' | 'after' | 'through';

/** A strand at a place: one that ends there, or goes through. */
export interface Arriving {
  /** Its name in the circuit. */
  readonly name: string;
  readonly line: string;
  readonly side: Side;
  /** Its place among the strands of the line. */
  readonly strand: number;
  readonly duty: Strand['duty'];
  readonly height_m: number;
  readonly wire: string;
}

/** Of live strands: fed from both ends, from one end only, from none. */
export type Fed = 'twice' | 'once' | 'dead';

export type PlaceKind = 'unit' | 'gate' | 'branch' | 'corner' | 'start' | 'stop' | 'rod';

/** What leads away from a place: under a gate, to the unit, to a rod, to a lightning diverter. */
export interface Lead {
  readonly to: 'gate' | 'unit' | 'rod' | 'diverter';
  readonly duty: 'live' | 'earth';
  /** Which of the arriving strands it is fixed to. */
  readonly on: number;
  readonly length_m: number;
}

/** Two of the arriving, by their numbers. */
export interface PlaceTie {
  readonly a: number;
  readonly b: number;
  readonly kind: ConnectorId;
  /** A cut-out switch stands in it. */
  readonly switch?: true;
}

export interface Place {
  readonly location: string;
  /** One of the lines that have it, and where along it, m. */
  readonly line: string;
  readonly at_m: number;
  readonly kind: PlaceKind;
  readonly arriving: readonly Arriving[];
  /** By numbers of the arriving. */
  readonly ties: readonly PlaceTie[];
  /** Where the plan says what is tied here; null: as proposed. */
  readonly join: JoinAt | null;
  readonly leads: readonly Lead[];
}

/**
 * Places of a network, along its lines in their order.
 * @param season in which a strand that is switched off then is not tied; by default the fence as built
 */
export function placesOf(net: FencedLines, season: SeasonId = 'today'): Place[] {
  const { ids, wired, topology, energiser } = net;
  const { present, ties, rods } = tyingOf(net, season);
  const feed = energiser && feedOf(energiser, wired, topology);
  const cables = cablesOf(net, season, present);
  const gateAt = new Set(
    ids.flatMap((id) =>
      wired[id]!.gates.flatMap(
        (g) => gateEnds(g, topology.marks[id]!)?.map((m) => m.location) ?? [],
      ),
    ),
  );
  const arriving = new Map<string, Arriving[]>();
  const at = new Map<string, { line: string; at_m: number }>();
  const ended = new Set<string>();
  for (const id of ids) {
    const { line, runs } = wired[id]!;
    for (const [k, run] of runs.entries()) {
      const inside = insideOf(run, topology.marks[id]!);
      if (inside.length < 2) continue;
      for (const { location, s } of inside) {
        if (!at.has(location)) at.set(location, { line: id, at_m: s });
        const side = Math.abs(run.to_m - s) <= NEAR ? 'before' : Math.abs(run.from_m - s) <= NEAR ? 'after' : 'through'; // prettier-ignore
        if (side !== 'through') ended.add(location);
        const here = arriving.get(location) ?? [];
        arriving.set(location, here);
        line.strands.forEach(
          ({ duty, height_m, wire }, strand) =>
          here.push({ name: strandName(id, strand, k), line: id, side, strand, duty, height_m, wire }), // prettier-ignore
        );
      }
    }
  }
  const out: Place[] = [];
  for (const [location, here] of arriving) {
    const own = ties.get(location);
    const lines = new Set(here.map((a) => a.line));
    if (!own && !ended.has(location) && lines.size < 2) continue;
    const number = new Map(here.map((a, i) => [a.name, i]));
    const first = (duty: 'live' | 'earth') => number.get(present.get(location)?.[duty][0] ?? '');
    const leads: Lead[] = [];
    const lead = (to: Lead['to'], duty: Lead['duty'], on: number | undefined, length_m: number) =>
      on !== undefined && leads.push({ to, duty, on, length_m });
    for (const c of cables)
      if (c.from === location || c.to === location) lead('gate', c.duty, first(c.duty), c.length_m);
    if (feed?.location === location) {
      for (const duty of ['live', 'earth'] as const) lead('unit', duty, first(duty), feed.lead_m);
      if (energiser!.diverter) lead('diverter', 'live', first('live'), 0);
    }
    for (const r of rods)
      if (r.location === location) lead('rod', 'earth', number.get(r.strand), 0);
    const kind: PlaceKind =
      feed?.location === location ? 'unit'
      : gateAt.has(location) ? 'gate'
      : lines.size > 1 ? 'branch'
      : !ended.has(location) ? 'rod'
      : here.some((a) => a.side === 'before') && here.some((a) => a.side === 'after') ? 'corner'
      : here.some((a) => a.side === 'after') ? 'start'
      : 'stop'; // prettier-ignore
    out.push({
      location,
      ...at.get(location)!,
      kind,
      arriving: here,
      ties: (own?.ties ?? []).map((t) => ({ ...t, a: number.get(t.a)!, b: number.get(t.b)! })),
      join: own?.join ?? null,
      leads,
    });
  }
  const order = new Map(ids.map((id, i) => [id, i]));
  return out.sort((p, q) => order.get(p.line)! - order.get(q.line)! || p.at_m - q.at_m);
}

/** How each live strand of each run is fed, by its name in the circuit; null: the unit feeds none. */
export function fedStrands(net: Network, season: SeasonId = 'today'): Map<string, Fed> | null {
  const circuit = circuitOf(net, season);
  const found = fedOf(circuit);
  if (!found) return null;
  const out = new Map<string, Fed>();
  for (const { strands } of circuit.sections)
    for (const [name, type] of Object.entries(strands))
      if (strandOf(name) && circuit.strand_types[type]!.role === 'hot') out.set(name, 'twice');
  for (const { strand } of found.one_sided) if (out.has(strand)) out.set(strand, 'once');
  for (const { strand } of found.dead) if (out.has(strand)) out.set(strand, 'dead');
  return out;
}

/** The run and the side of it that a strand comes from: strands that have the same are one bundle. */
export const runOf = ({ line, side, name }: Pick<Arriving, 'line' | 'side' | 'name'>): string =>
  `${line} ${side} ${strandOf(name)!.run}`;

/** One piece of jumper wire: strands of one run tied one to the next in order of height, or two across. */
export interface Piece {
  readonly kind: ConnectorId;
  /** Numbers of the arriving that it is fixed to, a connector at each. */
  readonly ends: readonly number[];
  /** Numbers of the ties that it makes. */
  readonly ties: readonly number[];
  /** Between strands of one run on one side of the post. */
  readonly ladder: boolean;
  /** A cut-out switch stands in it. */
  readonly switch: boolean;
}

/** The ties of a place as they are made. */
export function piecesOf({ ties, arriving }: Pick<Place, 'ties' | 'arriving'>): Piece[] {
  const run = (end: number) => runOf(arriving[end]!);
  const up = (a: number, b: number) => Math.sign(arriving[b]!.height_m - arriving[a]!.height_m);
  const out: { kind: ConnectorId; ends: number[]; ties: number[]; ladder: boolean; switch: boolean }[] = []; // prettier-ignore
  ties.forEach(({ a, b, kind, switch: cut = false }, k) => {
    const ladder = run(a) === run(b);
    // A switch breaks the wire: its two ends are fixed on their own.
    const on =
      ladder && !cut
        ? out.find(
            (p) =>
              p.ladder &&
              !p.switch &&
              p.kind === kind &&
              p.ends.at(-1) === a &&
              up(a, b) !== 0 &&
              up(p.ends.at(-2)!, a) === up(a, b),
          )
        : undefined;
    if (on) {
      on.ends.push(b);
      on.ties.push(k);
    } else out.push({ kind, ends: [a, b], ties: [k], ladder, switch: cut });
  });
  return out;
}

/** What the ties of a place take: a connector where each piece is fixed to a strand, and wire to tie with, m. */
export function takenAt(place: Pick<Place, 'ties' | 'arriving'>): {
  readonly connectors: Readonly<Record<ConnectorId, number>>;
  readonly jumper_m: number;
  readonly switches: number;
} {
  const connectors = { hand: 0, clamp: 0, tap: 0 };
  let [jumper_m, switches] = [0, 0];
  for (const { kind, ends, ladder, switch: cut } of piecesOf(place)) {
    if (cut) switches++;
    connectors[kind] += ends.length;
    jumper_m += (ends.length - 1) * (TIED + (ladder ? 0 : ROUND_POST));
    for (let k = 1; k < ends.length; k++)
      jumper_m += Math.abs(place.arriving[ends[k]!]!.height_m - place.arriving[ends[k - 1]!]!.height_m); // prettier-ignore
  }
  return { connectors, jumper_m, switches };
}

/** Items of the price book that the ties of a place take. */
export function itemsAt(
  place: Pick<Place, 'ties' | 'arriving'>,
  cat: Catalogue,
): [item: string, quantity: number][] {
  const { connectors, jumper_m, switches } = takenAt(place);
  const wire = place.arriving[place.ties[0]?.a ?? -1]?.wire;
  return [
    ...Object.entries(connectors).flatMap(([kind, n]): [string, number][] => {
      const { price } = recordOf(cat.connectors, kind);
      return price === null ? [] : [[price, n]];
    }),
    ...(wire === undefined ? [] : [[`wire.${wire}`, jumper_m] as [string, number]]),
    ['switch.cutout', switches],
  ];
}

/** Wire of a jumper that is taken by its own two ends, and by the way round a post with its insulators, m. */
const TIED = 0.15;
const ROUND_POST = 0.5;
