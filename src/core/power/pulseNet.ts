/** From the plan to the pulse's network: stretches of tied live strands, cables and the lead-out. */
import type { SeasonId } from '../plan/catalogue.js';
import type { Load, PulseLine } from '../pulse/simulate.js';
import { cablesOf, feedOf } from './circuit.js';
import { joinedOf } from './fed.js';
import type { Joined } from './joined.js';
import { carries } from './leakage.js';
import { cableConstants, constantsOf, type Constants } from './tied.js';
import { insideOf, NEAR, type Electric, type Network } from './wired.js';

/** A place of a line, by plan distance, m. */
export interface Place {
  readonly line: string;
  readonly at_m: number;
}

/** What is thought to be there beside, or instead of, what the plan says. */
export interface Beside {
  /** Factor on what grows, of all lines or by line. */
  readonly growth?: number | Readonly<Record<string, number>>;
  /** What bridges from the live strands to soil there: an animal, growth, a branch. */
  readonly loads?: readonly (Place & { readonly r_ohm: number })[];
  /** Every strand parted there. */
  readonly breaks?: readonly Place[];
  /** The unit feeds there, over so long a lead-out, m. */
  readonly feed?: Place & { readonly lead_m: number };
  /** More fence, like a line that there is: from a place to another, or to a far end of its own. */
  readonly links?: readonly {
    readonly from: Place;
    readonly to: Place | null;
    readonly length_m: number;
    readonly like: string;
  }[];
  /** Factors on inductance and resistance of every line. */
  readonly scale?: { readonly l: number; readonly r: number };
}

export interface PulseNet {
  /** The unit's terminal. */
  readonly at: string;
  /** What is fed. */
  readonly lines: readonly PulseLine[];
  /** Where each of them lies on its line; null: cable. */
  readonly pieces: readonly (Piece | null)[];
  /** Index in `lines` of each of `Beside.links`; null where its place is not fed. */
  readonly links: readonly (number | null)[];
  /** What bridges to soil, in the order of `Beside.loads`; null where its place is not fed. */
  readonly loads: readonly (Load | null)[];
  /** Stretches with live strands that nothing feeds. */
  readonly unfed: readonly Piece[];
  /** All that is fed, m of fence and cable. */
  readonly length_m: number;
}

export interface Piece {
  readonly line: string;
  readonly from_m: number;
  readonly to_m: number;
}

interface Node {
  readonly s: number;
  readonly before: string;
  readonly after: string;
  /** Ends a stretch, though the fence goes on. */
  own: boolean;
}

/** A run with its named places, in order. */
interface Wire {
  readonly line: string;
  /** Metres over ground for each of plan. */
  readonly ground: number;
  /** Strands that nothing feeds. */
  readonly dead: readonly number[];
  readonly nodes: Node[];
}

/** The pulse's network of an energiser in a season; null while it feeds no live strand. */
export function pulseNet(net: Network, season: SeasonId, beside: Beside = {}): PulseNet | null {
  const { energiser, wired, topology, cat } = net;
  const own = beside.feed ? null : feedOf(energiser, wired, topology);
  if (!own && !beside.feed) return null;
  const joined = joinedOf(net, season);
  const wires = wiresOf(net, season, joined);
  const placed = (p: Place): string | null => nameAt(wires, p);
  const feed = own
    ? { at: own.location, lead_m: own.lead_m }
    : { at: placed(beside.feed!), lead_m: beside.feed!.lead_m };
  if (feed.at === null) return null;
  for (const p of beside.breaks ?? []) breakAt(wires, p);
  const loads = (beside.loads ?? []).map((l): Load | null => {
    const node = placed(l);
    return node === null ? null : { node, r_ohm: l.r_ohm };
  });
  const links = (beside.links ?? []).map((l, k) => {
    const [from, to] = [placed(l.from), l.to ? placed(l.to) : `link${k}`];
    return from === null || to === null ? null : { ...l, from, to };
  });
  const cables = cablesOf(net, season).filter((c) => c.duty === 'live');
  const ways = waysAt(wires, [feed.at, ...cables.flatMap((c) => [c.from, c.to])]);

  const lines: PulseLine[] = [];
  const pieces: (Piece | null)[] = [];
  const { l, r } = beside.scale ?? { l: 1, r: 1 };
  const put = (from: string, to: string, length_m: number, of: Constants, piece: Piece | null) => {
    if (!(length_m > 0)) return;
    lines.push({ from, to, length_m, ...of, l_h_per_m: l * of.l_h_per_m, r_ohm_per_m: r * of.r_ohm_per_m }); // prettier-ignore
    pieces.push(piece);
  };
  const constants = new Map<string, Constants>();
  const like = (line: string, dead: readonly number[] = []): Constants => {
    const key = [line, ...dead].join();
    let of = constants.get(key);
    if (!of) {
      of = constantsOf(without(wired[line]!.line, dead), season, growthBeside(beside, line), cat);
      constants.set(key, of);
    }
    return of;
  };
  for (const { line, ground, dead, nodes } of wires) {
    let start = nodes[0]!;
    nodes.slice(1).forEach((node, k) => {
      const last = k === nodes.length - 2;
      // What merely goes on through a place is one stretch: as many cells as its length asks for, no more.
      if (!last && !node.own && ways.get(node.before) === 2) return;
      const piece = { line, from_m: start.s, to_m: node.s };
      put(start.after, node.before, (node.s - start.s) * ground, like(line, dead), piece);
      start = node;
    });
  }
  const cable = cableConstants(cat);
  for (const c of cables) put(c.from, c.to, c.length_m, cable, null);
  const linkLines = links.map((k) => {
    if (!k || !(k.length_m > 0)) return null;
    put(k.from, k.to, k.length_m, like(k.like), null);
    return lines.at(-1)!;
  });
  put(energiser.id, feed.at, feed.lead_m, cable, null);
  const fed = fedPart(energiser.id, lines, pieces, loads);
  return (
    fed && {
      ...fed,
      links: linkLines.map((l) => (l && fed.lines.includes(l) ? fed.lines.indexOf(l) : null)),
    }
  );
}

/**
 * The network with other growth, inductance and resistance, as factors: leakage is that of a bare fence and so much more for
 * what grows. What hangs where stays, so that it is built once for many pulses.
 * @param bare the same network with growth 0 @param grown with growth 1
 */
export const grownTo = (
  bare: PulseNet,
  grown: PulseNet,
  { growth, l, r }: { readonly growth: number; readonly l: number; readonly r: number },
): PulseNet => ({
  ...grown,
  lines: grown.lines.map((of, k) => ({
    ...of,
    l_h_per_m: l * of.l_h_per_m,
    r_ohm_per_m: r * of.r_ohm_per_m,
    g_s_per_m: bare.lines[k]!.g_s_per_m + growth * (of.g_s_per_m - bare.lines[k]!.g_s_per_m),
  })),
});

/** Every run with live strands in a season, and its places by their names in the circuit. */
function wiresOf(
  { ids, wired, topology }: Network,
  season: SeasonId,
  joined: Joined | null,
): Wire[] {
  return ids.flatMap((id) => {
    const { line, runs } = wired[id]!;
    if (!line.strands.some((s) => s.duty === 'live' && carries(s, season))) return [];
    return runs.flatMap((run, r): Wire[] => {
      const nodes = insideOf(run, topology.marks[id]!).map((m) => {
        const name = joined?.nodeAt(m.location, id, r) ?? m.location;
        return { s: m.s, before: name, after: name, own: false };
      });
      const ground = run.ground_m / Math.max(run.to_m - run.from_m, 1e-6);
      return nodes.length < 2 ? [] : [{ line: id, ground, dead: joined?.dead(id, r) ?? [], nodes }];
    });
  });
}

/** A line whose dead strands carry nothing; where all are dead nothing reaches it, whatever it is made of. */
function without(line: Electric, dead: readonly number[]): Electric {
  const strands = line.strands.map((s, i) => (dead.includes(i) ? { ...s, duty: 'cold' as const } : s)); // prettier-ignore
  return dead.length > 0 && strands.some((s) => s.duty === 'live') ? { ...line, strands } : line;
}

const wireAt = (wires: readonly Wire[], p: Place): Wire | undefined =>
  wires.find((w) => w.line === p.line && p.at_m >= w.nodes[0]!.s - NEAR && p.at_m <= w.nodes.at(-1)!.s + NEAR); // prettier-ignore

/** Node of a place: one that is there, or a new one; null where no live strand is. */
function nameAt(wires: readonly Wire[], p: Place): string | null {
  const wire = wireAt(wires, p);
  if (!wire) return null;
  const there = wire.nodes.find((n) => Math.abs(n.s - p.at_m) <= NEAR);
  if (!there) return insert(wire, p, false);
  // What is named must not be passed over as a mere place on the way.
  there.own = true;
  return there.before;
}

/** Parts every strand of a place; one with a name is parted beside it, towards the middle of its run. */
function breakAt(wires: readonly Wire[], { line, at_m }: Place): void {
  const wire = wireAt(wires, { line, at_m });
  if (!wire) return;
  const [first, last] = [wire.nodes[0]!.s, wire.nodes.at(-1)!.s];
  const way = at_m < (first + last) / 2 ? 1 : -1;
  let s = at_m;
  while (wire.nodes.some((n) => Math.abs(n.s - s) <= NEAR)) s += way * 2 * NEAR;
  if (s > first && s < last) insert(wire, { line, at_m: s }, true);
}

function insert({ line, nodes }: Wire, p: Place, broken: boolean): string {
  const name = `${line}@${p.at_m.toFixed(2)}`;
  const k = nodes.findIndex((n) => n.s >= p.at_m);
  const node = { s: p.at_m, before: name, after: broken ? `${name}+` : name, own: true };
  nodes.splice(k < 0 ? nodes.length : k, 0, node);
  return name;
}

/** How many wires and cables come to each place. */
function waysAt(wires: readonly Wire[], more: readonly string[]): Map<string, number> {
  const ways = new Map<string, number>();
  const meet = (name: string, n: number) => ways.set(name, (ways.get(name) ?? 0) + n);
  for (const { nodes } of wires)
    nodes.forEach((n, k) => meet(n.before, k > 0 && k < nodes.length - 1 ? 2 : 1));
  for (const name of more) meet(name, 1);
  return ways;
}

const growthBeside = ({ growth }: Beside, line: string): number =>
  typeof growth === 'object' ? (growth[line] ?? 1) : (growth ?? 1);

/** What hangs together with the unit, and what does not. */
function fedPart(
  at: string,
  lines: readonly PulseLine[],
  pieces: readonly (Piece | null)[],
  loads: readonly (Load | null)[],
): Omit<PulseNet, 'links'> | null {
  const next = new Map<string, number[]>();
  lines.forEach((l, k) => {
    for (const end of [l.from, l.to]) {
      const list = next.get(end);
      if (list) list.push(k);
      else next.set(end, [k]);
    }
  });
  const reached = new Set([at]);
  // A set is walked to its end, and what is put in on the way is its end.
  for (const place of reached)
    for (const l of next.get(place) ?? []) reached.add(lines[l]!.from).add(lines[l]!.to);
  const fed = lines.map((l) => reached.has(l.from));
  // The lead-out alone is no fence.
  if (!pieces.some((p, k) => p && fed[k])) return null;
  const own = lines.filter((_, k) => fed[k]);
  return {
    at,
    lines: own,
    pieces: pieces.filter((_, k) => fed[k]),
    loads: loads.map((l) => (l && reached.has(l.node) ? l : null)),
    unfed: pieces.flatMap((p, k) => (p && !fed[k] ? [p] : [])),
    length_m: own.reduce((sum, l) => sum + l.length_m, 0),
  };
}
