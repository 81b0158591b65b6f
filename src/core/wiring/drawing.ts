/**
 * The wiring of a place, laid out by rule: strands by height, jumpers in lanes beside one another, cables below ground.
 * Lengths in drawing units, y downwards; no two wires lie on one another, and none on the room of a label
 * (tests/unit/wiring.test.ts).
 */
import { piecesOf, runOf, type Arriving, type Piece, type Place } from './place.js';

export type XY = readonly [x: number, y: number];

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** Room for words, and whether they end at its right edge: they are set towards what they name. */
export interface Label extends Box {
  readonly toRight: boolean;
}

/** A strand from its label to the insulator at the post, or through. */
export interface DrawnStrand {
  readonly end: number;
  readonly from: XY;
  readonly to: XY;
  /** Where it is taken hold of. */
  readonly grip: XY;
  readonly label: Label;
  /** Between wire and post; null: it goes through. */
  readonly insulator: Box | null;
  /** Post side of the insulator, and the post: the tail that is dead. */
  readonly tail: readonly [XY, XY] | null;
}

/** A jumper, or a cable or earth lead. */
export interface DrawnWire {
  /** Number of its tie, or of its lead. */
  readonly of: number;
  readonly is: 'tie' | 'lead';
  readonly points: readonly XY[];
  /** Where it is fixed to strands. */
  readonly dots: readonly XY[];
  /** Where it passes over another wire without touching it. */
  readonly hops: readonly XY[];
  /** Where its cut-out switch stands, clear of all else, and whether the wire is upright there; null: it has none. */
  readonly cut: { readonly at: XY; readonly upright: boolean } | null;
}

export interface Drawing {
  readonly width: number;
  readonly height: number;
  readonly ground_y: number;
  /** Each post, and whether it is the same one seen from another side. */
  readonly posts: readonly (Box & { readonly again: boolean })[];
  readonly strands: readonly DrawnStrand[];
  readonly wires: readonly DrawnWire[];
  /** Over each bundle: the line and the side that it comes from. */
  readonly heads: readonly (Label & { readonly line: string; readonly side: Arriving['side'] })[];
  /** At the end of each lead, by its number. */
  readonly leads: readonly Label[];
}

/** Room of the label of a strand, and of the words over a bundle. */
export const LABEL = { w: 96, h: 12 } as const;
const HEAD = 14;
const POST = 14;
/** Insulator with its tail. */
const INSULATOR = { w: 16, h: 8, tail: 12 } as const;
const LANE = 9;
/** Between the grip and what stands beside it. */
const GRIP = 16;
const APART = 18;
const MARGIN = 8;
/** A channel under a strand clears its label, and channels clear one another. */
const UNDER = LABEL.h / 2 + 3;
const CHANNEL = 5;
/** Strands at the same height, within what hands keep, m. */
const SAME = 0.005;
/** Height of the picture of the strands where nothing asks for more. */
const TALL = 260;
const ROW = 18;

/** Strands of one run at a place, on one side of the post. */
interface Bundle {
  readonly ends: readonly number[];
  readonly line: string;
  readonly side: Arriving['side'];
  frame: number;
  place: 'left' | 'right' | 'through';
}

export function drawingOf({ arriving, ties, leads }: Place): Drawing {
  const bundles = bundlesOf(arriving);
  const bundleOf = new Map(bundles.flatMap((b) => b.ends.map((e) => [e, b] as const)));

  // Heights that differ are levels, from the top; each has under it the channels of the ties that leave its bundle there.
  const heights = [...new Set(arriving.map((a) => a.height_m))].sort((a, b) => b - a);
  const levels: number[][] = [];
  for (const h of heights) {
    const last = levels.at(-1);
    if (last && last[0]! - h <= SAME) last.push(h);
    else levels.push([h]);
  }
  const levelOf = (end: number) => levels.findIndex((l) => l.includes(arriving[end]!.height_m));
  const channels = levels.map(() => 0);
  /** Over a switch a channel stays free: its blade stands open. */
  const channelAt = (level: number, cut = false): number => {
    const own = channels[level]! + (cut ? 1 : 0);
    channels[level] = own + 1;
    return own;
  };
  const leaves = ties.map(({ a, b, switch: cut }) =>
    bundleOf.get(a) === bundleOf.get(b) ? null : channelAt(levelOf(a), cut),
  );
  const span = Math.max(0.3, heights[0] ?? 1);
  const top = MARGIN + HEAD + 10;
  const ys: number[] = [];
  levels.forEach((l, k) => {
    const least = k === 0 ? top : ys[k - 1]! + UNDER + CHANNEL * channels[k - 1]! + UNDER;
    const scaled = top + (TALL * ((heights[0] ?? 0) - l[0]!)) / span;
    ys.push(Math.max(least, scaled));
  });
  const yOf = (end: number) => ys[levelOf(end)]!;
  const below = (ys.at(-1) ?? top) + UNDER + CHANNEL * (channels.at(-1) ?? 0);
  const lowest = heights.at(-1) ?? 0;
  const ground_y = Math.max(below + 8, top + (TALL * (heights[0] ?? 0)) / span - (lowest > 0 ? 0 : 8)); // prettier-ignore

  // Upright parts in lanes of their bundle, so that none lies on another.
  interface Upright {
    readonly bundle: Bundle;
    readonly y1: number;
    readonly y2: number;
    lane: number;
  }
  const uprights: Upright[] = [];
  const upright = (end: number, to: readonly number[]): Upright => {
    const all = [yOf(end), ...to];
    const own: Upright = {
      bundle: bundleOf.get(end)!,
      y1: Math.min(...all),
      y2: Math.max(...all),
      lane: 0,
    };
    const clash = (u: Upright) =>
      u.bundle === own.bundle && u.lane === own.lane && u.y1 < own.y2 + 3 && own.y1 < u.y2 + 3;
    while (uprights.some(clash)) own.lane++;
    uprights.push(own);
    return own;
  };
  const row_y = (k: number) => ground_y + 16 + ROW * k;
  // Ladders first, and short ones before long ones: they stand nearest to the post.
  const reach = ({ ends }: Piece) =>
    Math.abs(levelOf(ends[0]!) - levelOf(ends.at(-1)!)) + (ends.length > 2 ? -100 : 0);
  const pieces = [...piecesOf({ ties, arriving })].sort(
    (p, q) => Number(q.ladder) - Number(p.ladder) || reach(p) - reach(q),
  );
  const tieParts = new Map<number, readonly [Upright] | readonly [Upright, number, Upright]>();
  for (const { ends, ties: own } of pieces) {
    const k = own[0]!;
    const channel = leaves[k];
    if (channel === null || channel === undefined) {
      const one = upright(ends[0]!, ends.slice(1).map(yOf));
      for (const t of own) tieParts.set(t, [one]);
    } else {
      const { a, b } = ties[k]!;
      const y = yOf(a) + UNDER + CHANNEL * channel;
      tieParts.set(k, [upright(a, [y]), y, upright(b, [y])]);
    }
  }
  const leadParts = leads.map((l, k) => upright(l.on, [row_y(k)]));

  // Room from left to right: frame by frame, each a post with a bundle on one or both sides.
  const lanes = (b: Bundle) =>
    Math.max(1, ...uprights.filter((u) => u.bundle === b).map((u) => u.lane + 1));
  const across = INSULATOR.tail + INSULATOR.w;
  const posts: (Box & { again: boolean })[] = [];
  /** By bundle: where lane 0 is, which way lanes go, and where the strand begins at its label. */
  const room = new Map<Bundle, { lane_x: number; way: 1 | -1; out_x: number; post_x: number }>();
  let x = MARGIN;
  const frames = Math.max(-1, ...bundles.map((b) => b.frame)) + 1;
  for (let f = 0; f < frames; f++) {
    const own = bundles.filter((b) => b.frame === f);
    const left = own.find((b) => b.place !== 'right');
    const right = own.find((b) => b.place === 'right');
    if (left) {
      const out_x = x + LABEL.w + 4;
      const lane_x = out_x + GRIP + lanes(left) * LANE;
      const post_x = lane_x + 6 + across;
      room.set(left, { lane_x, way: -1, out_x, post_x });
      x = post_x;
    } else x += 4;
    posts.push({ x, y: top - 14, w: POST, h: ground_y - top + 14, again: f > 0 });
    x += POST;
    if (right) {
      const lane_x = x + across + 6;
      const out_x = lane_x + lanes(right) * LANE + GRIP;
      room.set(right, { lane_x, way: 1, out_x, post_x: x });
      x = out_x + 4 + LABEL.w;
    } else x += left?.place === 'through' ? 30 : 4;
    x += f < frames - 1 ? APART : 0;
  }
  const width = x + MARGIN;
  const laneX = (u: Upright) => {
    const r = room.get(u.bundle)!;
    return r.lane_x + r.way * LANE * u.lane;
  };

  /** Room for words outside of a bundle, about a height. */
  const labelAt = (b: Bundle, y: number): Label => {
    const { way, out_x } = room.get(b)!;
    return { x: way < 0 ? out_x - 4 - LABEL.w : out_x + 4, y: y - LABEL.h / 2, ...LABEL, toRight: way < 0 }; // prettier-ignore
  };

  const strands = arriving.map((_, end): DrawnStrand => {
    const b = bundleOf.get(end)!;
    const { out_x, post_x, way } = room.get(b)!;
    const y = yOf(end);
    const through = b.place === 'through';
    const inner = through ? post_x + POST + 24 : post_x + way * across;
    return {
      end,
      from: [out_x, y],
      to: [inner, y],
      grip: [out_x - way * GRIP * 0.5, y],
      label: labelAt(b, y),
      insulator: through ? null : { x: Math.min(inner, inner - way * INSULATOR.w), y: y - INSULATOR.h / 2, w: INSULATOR.w, h: INSULATOR.h }, // prettier-ignore
      tail: through ? null : [[post_x + way * INSULATOR.tail, y], [post_x, y]],
    };
  }); // prettier-ignore

  const wires: Omit<DrawnWire, 'hops' | 'cut'>[] = ties.map(({ a, b }, of) => {
    const parts = tieParts.get(of)!;
    const [xa, ya, yb] = [laneX(parts[0]), yOf(a), yOf(b)];
    if (parts.length === 1)
      return { of, is: 'tie', points: [[xa, ya], [xa, yb]], dots: [[xa, ya], [xa, yb]] }; // prettier-ignore
    const xb = laneX(parts[2]);
    return { of, is: 'tie', points: [[xa, ya], [xa, parts[1]], [xb, parts[1]], [xb, yb]], dots: [[xa, ya], [xb, yb]] }; // prettier-ignore
  });
  leads.forEach((l, k) => {
    const u = leadParts[k]!;
    const [lx, y] = [laneX(u), row_y(k)];
    wires.push({ of: k, is: 'lead', points: [[lx, yOf(l.on)], [lx, y], [room.get(u.bundle)!.out_x, y]], dots: [[lx, yOf(l.on)]] }); // prettier-ignore
  });

  return {
    width,
    height: (leads.length > 0 ? row_y(leads.length - 1) + ROW / 2 : ground_y + 12) + MARGIN,
    ground_y,
    posts,
    strands,
    wires: withCuts(withHops(wires, strands), ties),
    heads: bundles.map((b) => ({
      ...labelAt(b, 0),
      y: MARGIN,
      h: HEAD,
      line: b.line,
      side: b.side,
    })),
    leads: leadParts.map((u, k) => labelAt(u.bundle, row_y(k))),
  };
}

/** Strands by run and side; two that end share a post, one that goes through has its own picture of it. */
function bundlesOf(arriving: readonly Arriving[]): Bundle[] {
  const groups = new Map<string, number[]>();
  arriving.forEach((own, i) => {
    const key = runOf(own);
    groups.set(key, [...(groups.get(key) ?? []), i]);
  });
  const out: Bundle[] = [];
  let open: number | null = null;
  let frame = -1;
  for (const ends of groups.values()) {
    const { line, side } = arriving[ends[0]!]!;
    if (side === 'through') {
      out.push({ ends, line, side, frame: ++frame, place: 'through' });
      open = null;
    } else if (open !== null) {
      out.push({ ends, line, side, frame: open, place: 'right' });
      open = null;
    } else {
      out.push({ ends, line, side, frame: ++frame, place: 'left' });
      open = frame;
    }
  }
  // What begins alone begins at the right of its post, as one reads.
  for (const b of out)
    if (b.side === 'after' && out.filter((o) => o.frame === b.frame).length === 1)
      b.place = 'right';
  return out;
}

/** Where upright wires pass over level ones that they are not fixed to. */
function withHops(
  wires: readonly Omit<DrawnWire, 'hops' | 'cut'>[],
  strands: readonly DrawnStrand[],
): Omit<DrawnWire, 'cut'>[] {
  const level = [
    ...strands.map((s) => ({ own: -1, y: s.from[1], x1: Math.min(s.from[0], s.to[0]), x2: Math.max(s.from[0], s.to[0]) })), // prettier-ignore
    ...wires.flatMap((w, own) =>
      segments(w.points)
        .filter(([p, q]) => p[1] === q[1])
        .map(([p, q]) => ({ own, y: p[1], x1: Math.min(p[0], q[0]), x2: Math.max(p[0], q[0]) })),
    ),
  ];
  return wires.map((w, own) => ({
    ...w,
    hops: segments(w.points)
      .filter(([p, q]) => p[0] === q[0])
      .flatMap(([p, q]): XY[] =>
        level
          .filter(
            (l) =>
              l.own !== own &&
              l.x1 < p[0] &&
              l.x2 > p[0] &&
              l.y > Math.min(p[1], q[1]) + 0.5 &&
              l.y < Math.max(p[1], q[1]) - 0.5,
          )
          .map((l) => [p[0], l.y]),
      ),
  }));
}

/** Where the switches of ties stand. */
const withCuts = (wires: readonly Omit<DrawnWire, 'cut'>[], ties: Place['ties']): DrawnWire[] =>
  wires.map((w) => ({
    ...w,
    cut: w.is === 'tie' && ties[w.of]!.switch ? cutOf(w, wires) : null,
  }));

/** The middle of the longest piece of a wire that meets no other. */
function cutOf(
  { points, hops }: Omit<DrawnWire, 'cut'>,
  all: readonly Omit<DrawnWire, 'cut'>[],
): NonNullable<DrawnWire['cut']> {
  let best: { at: XY; upright: boolean; free: number } | null = null;
  for (const [p, q] of segments(points)) {
    const upright = p[0] === q[0];
    const along = upright ? 1 : 0;
    const across = upright ? 0 : 1;
    const met = upright ? hops : all.flatMap((w) => w.hops);
    const [low, high] = [Math.min(p[along], q[along]), Math.max(p[along], q[along])];
    const on = met.filter((h) => h[across] === p[across] && h[along] > low && h[along] < high);
    const stops = [low, ...on.map((h) => h[along]), high].sort((m, n) => m - n);
    for (let k = 0; k + 1 < stops.length; k++) {
      const free = stops[k + 1]! - stops[k]!;
      const mid = (stops[k]! + stops[k + 1]!) / 2;
      if (!best || free > best.free)
        best = { at: upright ? [p[0], mid] : [mid, p[1]], upright, free };
    }
  }
  return best!;
}

/** Half the length of a switch, and half its breadth. */
export const SWITCH = { along: 6, across: 4 } as const;

export const segments = (points: readonly XY[]): (readonly [XY, XY])[] =>
  points.slice(1).map((q, k) => [points[k]!, q] as const);
