/**
 * Draws a card: space curves with their true thickness, over and under by depth with a light halo, and solids in slices
 * between them. One list of paths from the farthest to the nearest.
 */
import { across, add, cross, dot, unit, type Vec } from './curve.js';
import type { Block, HandCard, Rod, Solid, Stuff, View } from './card.js';

export interface Drawn {
  /** SVG path. */
  readonly d: string;
  readonly kind:
    'halo' | 'edge' | 'wire' | 'moving' | 'tube' | 'arrow' | `face-${Stuff}` | `side-${Stuff}`;
  /** Width of the stroke, mm; 0: filled. */
  readonly width: number;
}

interface Piece {
  readonly depth: number;
  readonly paths: readonly Drawn[];
}

interface Eye {
  readonly right: Vec;
  readonly up: Vec;
  readonly toward: Vec;
}

const eyeOf = ({ round, up }: View): Eye => {
  const [a, e] = [(round * Math.PI) / 180, (up * Math.PI) / 180];
  // From the front (round 0) one looks along +y; x is to the right.
  const toward: Vec = [Math.sin(a) * Math.cos(e), -Math.cos(a) * Math.cos(e), Math.sin(e)];
  const right: Vec = [Math.cos(a), Math.sin(a), 0];
  return { right, up: cross(toward, right), toward };
};

const at = (eye: Eye, p: Vec): readonly [number, number] => [dot(p, eye.right), -dot(p, eye.up)];
const num = (x: number) => (Math.round(x * 100) / 100).toString();
const path = (eye: Eye, points: readonly Vec[], shut = false): string =>
  points.map((p, k) => `${k ? 'L' : 'M'}${at(eye, p).map(num).join(' ')}`).join('') + (shut ? 'Z' : ''); // prettier-ignore

/** Halo on either side, as a share of the thickness. */
const HALO = 0.42;
/** Line round a wire, as a share of its thickness. */
const EDGE = 0.16;

export interface StepDrawing {
  readonly paths: readonly Drawn[];
  /** Of an SVG: what is looked at, mm. */
  readonly box: readonly [x: number, y: number, w: number, h: number];
}

/**
 * A step of a card as paths, the farthest first; what a wire has gone since the step before stands out.
 * @param k which step
 * @param turn degrees more from the side
 */
export function drawStep(card: HandCard, k: number, turn = 0): StepDrawing {
  const step = card.steps[k]!;
  const base = step.view ?? card.view;
  const eye = eyeOf({ round: base.round + turn, up: base.up });
  const pieces: Piece[] = [];
  for (const [name, wire] of Object.entries(card.wires)) {
    const to = goneTo(card, k, name);
    const fresh = step.moves === name ? (k > 0 ? goneTo(card, k - 1, name) : 0) : Infinity;
    if (to > 0) pieces.push(...wirePieces(wire, to, fresh, eye));
  }
  for (const [name, solid] of Object.entries(card.solids))
    if (!step.solids || step.solids.includes(name)) pieces.push(...solidPieces(solid, eye));
  pieces.sort((a, b) => a.depth - b.depth);
  const look = step.look ?? card.look;
  const [x, y] = at(eye, look.at);
  const arrows = (step.arrows ?? []).map((a): Drawn => ({
    d: arrow(eye, a, look.reach),
    kind: 'arrow',
    width: look.reach / 38,
  }));
  return {
    paths: [...pieces.flatMap((p) => p.paths), ...arrows],
    box: [x - look.reach, y - look.reach * 0.7, 2 * look.reach, 1.4 * look.reach],
  };
}

const goneTo = (card: HandCard, k: number, wire: string): number =>
  card.steps[k]!.upTo?.[wire] ?? card.wires[wire]!.curve.length;

/** A wire in short pieces, so that each can be over or under what it crosses. */
function wirePieces(
  { curve, thick: bare, sheath }: HandCard['wires'][string],
  to: number,
  fresh: number,
  eye: Eye,
): Piece[] {
  const out: Piece[] = [];
  const last = curve.s.findLastIndex((s) => s <= to + 1e-6);
  const each = Math.max(1, Math.round(bare / ((curve.s[1] ?? 1) * 1.5)));
  for (let k = 0; k < last; k += each) {
    const end = Math.min(last, k + each);
    const points = curve.points.slice(k, end + 1);
    // A little longer on both sides, over the halo of what comes before: no joint shows.
    const longer = curve.points.slice(Math.max(0, k - 1), Math.min(last, end + 1) + 1);
    const s = curve.s[k]!;
    const within = sheath && s >= sheath.from && s <= sheath.to;
    const thick = within ? sheath.thick : bare;
    const kind = within ? 'tube' : s >= fresh - 1e-6 ? 'moving' : 'wire';
    out.push({
      depth: dot(points[points.length >> 1]!, eye.toward),
      paths: [
        // A tube hides what is behind it by itself.
        ...(within
          ? []
          : [{ d: path(eye, points), kind: 'halo' as const, width: thick * (1 + 2 * HALO) }]),
        { d: path(eye, longer), kind: 'edge', width: thick },
        { d: path(eye, longer), kind, width: thick * (1 - 2 * EDGE) },
      ],
    });
  }
  return out;
}

const isRod = (s: Solid): s is Rod => 'radius' in s;

function solidPieces(solid: Solid, eye: Eye): Piece[] {
  return isRod(solid) ? rodPieces(solid, eye) : blockPieces(solid, eye);
}

/** A rod in slices along it, its two ends with their circles. */
function rodPieces({ from, to, radius, of, hollow }: Rod, eye: Eye): Piece[] {
  const axis = unit(add(to, from, -1));
  const long = Math.hypot(...add(to, from, -1));
  const [u, v] = across(axis);
  const ring = (c: Vec): Vec[] =>
    Array.from({ length: 40 }, (_, k) => add(add(c, u, radius * Math.cos((k * Math.PI) / 20)), v, radius * Math.sin((k * Math.PI) / 20))); // prettier-ignore
  // What is seen of it lies between two lines square to eye and axis.
  const side = cross(eye.toward, axis);
  const wide = Math.hypot(...side);
  const slices = Math.max(1, Math.min(24, Math.round(long / Math.max(radius * 0.8, 2))));
  const out: Piece[] = [];
  const edge = Math.min(1.2, radius * 0.12);
  for (let k = 0; k < slices && wide > 0.05; k++) {
    const a = add(from, axis, (long * k) / slices);
    const b = add(from, axis, (long * (k + 1)) / slices);
    const s = unit(side);
    const [a1, a2, b1, b2] = [add(a, s, radius), add(a, s, -radius), add(b, s, radius), add(b, s, -radius)]; // prettier-ignore
    out.push({
      depth: dot(add(a, add(b, a, -1), 0.5), eye.toward) + (hollow ? radius : 0),
      paths: [
        { d: path(eye, ring(a), true), kind: `face-${of}`, width: 0 },
        { d: path(eye, ring(b), true), kind: `face-${of}`, width: 0 },
        { d: path(eye, [a1, b1, b2, a2], true), kind: `face-${of}`, width: 0 },
        // A little into its neighbours: no gap shows between slices.
        { d: path(eye, [add(a1, axis, -edge), add(b1, axis, edge)]) + path(eye, [add(a2, axis, -edge), add(b2, axis, edge)]), kind: `side-${of}`, width: edge }, // prettier-ignore
      ],
    });
  }
  for (const [end, out1] of [
    [from, -1],
    [to, 1],
  ] as const)
    // prettier-ignore
    if (out1 * dot(axis, eye.toward) > 0.02)
      out.push({
        depth: dot(end, eye.toward) + 0.01 - (hollow ? 2 * radius : 0),
        paths: [
          { d: path(eye, ring(end), true), kind: `face-${of}`, width: 0 },
          { d: path(eye, ring(end), true), kind: `side-${of}`, width: edge },
        ],
      });
  return out;
}

const FACES = [[0, 3, 2, 1], [4, 5, 6, 7], [0, 1, 5, 4], [1, 2, 6, 5], [2, 3, 7, 6], [3, 0, 4, 7]] as const; // prettier-ignore

function blockPieces({ corners, of }: Block, eye: Eye): Piece[] {
  return FACES.flatMap((face): Piece[] => {
    const p = face.map((k) => corners[k]!);
    const normal = cross(add(p[1]!, p[0]!, -1), add(p[2]!, p[0]!, -1));
    if (dot(normal, eye.toward) <= 0) return [];
    const middle = p.reduce((sum, q) => add(sum, q, 0.25), [0, 0, 0] as Vec);
    const size = Math.sqrt(Math.hypot(...normal));
    return [
      {
        depth: dot(middle, eye.toward),
        paths: [
          { d: path(eye, p, true), kind: `face-${of}`, width: 0 },
          { d: path(eye, p, true), kind: `side-${of}`, width: Math.min(1.2, size * 0.03) },
        ],
      },
    ];
  });
}

/** A line with a head at its end. */
function arrow(eye: Eye, points: readonly Vec[], reach: number): string {
  const flat = points.map((p) => at(eye, p));
  const [x, y] = flat.at(-1)!;
  const [px, py] = flat.at(-2)!;
  const w = Math.atan2(y - py, x - px);
  const l = reach / 9;
  const wing = (turn: number) => `M${num(x)} ${num(y)}L${num(x - l * Math.cos(w + turn))} ${num(y - l * Math.sin(w + turn))}`; // prettier-ignore
  return flat.map((p, k) => `${k ? 'L' : 'M'}${p.map(num).join(' ')}`).join('') + wing(0.5) + wing(-0.5); // prettier-ignore
}
