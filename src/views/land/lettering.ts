/**
 * Which symbols and words stand on the map at a zoom, and where: none lies on another. Pure, in pixels of the
 * view, so that it can be tested without a map.
 */
import { memoLast } from '../../core/base/memo.js';
import {
  alongLegs,
  place,
  round,
  withMore,
  type Spot,
  type Wanting,
} from '../../core/drawing/place.js';
import { clipped, inView, onCurve, type Pixel, type Size } from '../../core/drawing/paths.js';
import { say } from '../../core/base/units.js';
import { SHAPE_OF } from '../../core/land/things.js';
import { pointAt } from '../../core/plan/geometry.js';
import type { Point, Thing, Vertex } from '../../core/plan/schema.js';
import { isOpen } from '../../core/report/open.js';
import type { Finding } from '../../core/report/schema.js';
import { RANK } from '../../core/findings/index.js';
import type { Drawn } from '../../ui/drawn.js';
import { ENERGISER, GATE, GATE_BARE, spotOf } from '../../ui/symbols.js';
import type { Painted, Shown } from './shown.js';

/** What of the ground is in view; its size in pixels. */
export interface Window extends Size {
  readonly west: number;
  readonly north: number;
  /** Metres a pixel. */
  readonly resolution: number;
}

export type Face = 'name' | 'strong' | 'soft' | 'thing' | 'figure';

/** Size of the letters of each face, px. */
export const SIZES: Readonly<Record<Face, number>> = {
  name: 12,
  strong: 12.5,
  soft: 12,
  thing: 11.5,
  figure: 10.5,
};

export interface Words extends Spot {
  readonly text: string;
  readonly face: Face;
}
export interface Symbol extends Spot {
  readonly what:
    | { readonly drawn: Drawn; readonly scale: number; readonly chosen: boolean }
    | { readonly finding: Finding['kind']; readonly count: number; readonly chosen: boolean }
    | { readonly vertex: Vertex['kind']; readonly chosen: boolean }
    | { readonly pin: 'strong' | 'plain' }
    | { readonly middle: true };
}
export interface Lettering {
  readonly symbols: readonly Symbol[];
  readonly words: readonly Words[];
}

/** Width of a text in a face, px. */
export type Measure = (text: string, face: Face) => number;

/** A contour that is to be figured. */
export interface Figured {
  readonly text: string;
  readonly paths: readonly (readonly Point[])[];
}

interface Asked {
  readonly shown: Shown;
  readonly painted: Painted | null;
  readonly window: Window;
  readonly measure: Measure;
  readonly figures: readonly Figured[];
}

/**
 * Places all symbols, then all words round them.
 * @param words left where they stand; without: placed anew, which takes four times as long as the symbols
 */
export function letteringOf(asked: Asked, words?: Lettering['words']): Lettering {
  const blocked = [...place(symbolsOf(asked)).values()];
  if (words) return { symbols: blocked, words };
  const { width: w, height: h } = asked.window;
  const placed = place(wordsOf(asked), blocked, { w, h });
  return { symbols: blocked, words: [...placed.values()] };
}

const pixel =
  ({ west, north, resolution }: Window) =>
  (p: Point) => ({ x: (p.e - west) / resolution, y: (north - p.n) / resolution });

/** Symbols may stand a little smaller where there is little room. */
const SMALLER = [1, 0.66];

function* symbolsOf(asked: Asked): Generator<Wanting<Symbol>> {
  const { shown, painted, window } = asked;
  const { plan, thing } = shown;
  const at = pixel(window);
  const stand = (id: string, p: Point, drawn: Drawn, chosen: boolean): Wanting<Symbol> => ({
    id,
    spots: (chosen ? [1.2, ...SMALLER] : SMALLER).map((scale) => ({
      ...at(p),
      w: drawn.w * scale,
      h: drawn.h * scale,
      what: { drawn, scale, chosen },
    })),
  });
  for (const [i, pin] of (painted?.pins ?? []).entries())
    yield {
      id: `pin ${i}`,
      spots: [{ ...at(pin.at), w: 18, h: 18, what: { pin: pin.strong ? 'strong' : 'plain' } }],
    };
  for (const e of Object.values(plan.energisers))
    yield stand(`energiser ${e.id}`, e, ENERGISER, thing?.id === e.id);
  const line = !painted && shown.line ? plan.lines[shown.line] : undefined;
  if (line)
    for (const [i, v] of line.vertices.entries()) {
      const chosen = i === shown.vertex;
      const side = chosen ? 17 : v.kind === 'bend' ? 12 : 11;
      yield { id: `vertex ${i}`, spots: [{ ...at(v), w: side, h: side, what: { vertex: v.kind, chosen } }] }; // prettier-ignore
    }
  for (const g of Object.values(plan.gates)) {
    const own = plan.lines[g.line];
    if (own)
      yield stand(`gate ${g.id}`, pointAt(own.vertices, g.at_m), g.cable ? GATE : GATE_BARE, thing?.id === g.id); // prettier-ignore
  }
  if (painted?.land !== false)
    for (const t of Object.values(plan.things ?? {}))
      if (t.points.length === 1)
        yield stand(`thing ${t.id}`, t.points[0]!, spotOf(t.kind), thing?.id === t.id);
  if (painted) return;
  for (const c of clustersOf(shown, window)) {
    const w = 15 + (c.count > 1 ? 8 * String(c.count).length : 0);
    const k = c.chosen ? 1.5 : 1;
    yield {
      id: `finding ${c.id}`,
      spots: withMore(round(c, { w: w * k, h: 15 * k }, [7, 18, 30]), {
        what: { finding: c.kind, count: c.count, chosen: c.chosen },
      }),
    };
  }
  if (line)
    for (const [i, v] of line.vertices.slice(1).entries()) {
      const u = line.vertices[i]!;
      const middle = at({ e: (u.e + v.e) / 2, n: (u.n + v.n) / 2 });
      yield { id: `middle ${i}`, spots: [{ ...middle, w: 7, h: 7, what: { middle: true } }] };
    }
}

interface Cluster {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly kind: Finding['kind'];
  readonly count: number;
  readonly chosen: boolean;
}

/** Findings closer together than this are one mark with their count, px. */
const CLOSE = 24;

/** Findings by place: one mark for those that lie together, of the gravest kind. */
function clustersOf({ report, finding }: Shown, window: Window): Cluster[] {
  const at = pixel(window);
  const out: { -readonly [K in keyof Cluster]: Cluster[K] }[] = [];
  const open = (report?.findings ?? [])
    .filter((f) => f.place.e !== undefined && f.place.n !== undefined && isOpen(f))
    .sort(
      (a, b) => Number(b.id === finding) - Number(a.id === finding) || RANK[a.kind] - RANK[b.kind],
    );
  for (const f of open) {
    const p = at({ e: f.place.e!, n: f.place.n! });
    if (!inView(p, window, 40)) continue;
    const chosen = f.id === finding;
    const near = out.find((c) => !c.chosen && Math.hypot(c.x - p.x, c.y - p.y) < CLOSE);
    if (near && !chosen) near.count++;
    else out.push({ id: f.id, ...p, kind: f.kind, count: 1, chosen });
  }
  return out;
}

function* wordsOf(asked: Asked): Generator<Wanting<Words>> {
  const { shown, painted, window, measure } = asked;
  const { plan, report } = shown;
  const at = pixel(window);
  const sized = (text: string, face: Face) => {
    const rows = text.split('\n');
    return {
      w: Math.max(...rows.map((r) => measure(r, face))) + 4,
      h: rows.length * SIZES[face] * 1.2,
    };
  };
  const beside = (id: string, p: Point, text: string, face: Face, gap: number): Wanting<Words> => ({
    id,
    spots: inView(at(p), window)
      ? withMore(round(at(p), sized(text, face), [gap, gap + 9]), { text, face })
      : [],
  });
  const along = (id: string, path: readonly Point[], text: string, face: Face): Wanting<Words> => {
    return { id, spots: withMore(spotsAlong(clipped(path.map(at), window), sized(text, face)), { text, face }) }; // prettier-ignore
  };
  for (const [i, pin] of (painted?.pins ?? []).entries())
    yield beside(`pin ${i}`, pin.at, pin.words, 'strong', 11);
  const lines = Object.values(plan.lines).sort(
    (a, b) => Number(b.id === shown.line) - Number(a.id === shown.line),
  );
  for (const l of lines)
    yield along(`line ${l.id}`, l.vertices, painted ? (painted.words[l.id] ?? l.name) : l.name, l.id === shown.line ? 'strong' : 'name'); // prettier-ignore
  for (const e of Object.values(plan.energisers))
    yield beside(`energiser ${e.id}`, e, e.name, 'name', 14);
  if (painted?.land === false) return;
  for (const p of report?.paddocks ?? []) {
    const head = Object.values(p.stock).reduce((a, b) => a + b, 0);
    const rows = [
      p.id === null ? '' : p.name,
      say(p.area_m2, 'area', plan.units),
      head > 0 ? `${head} head` : p.id === null || p.use === 'grazing' ? '' : p.use,
    ].filter(Boolean);
    const c = at(p);
    if (!inView(c, window)) continue;
    // Only what fits well inside it: the whole of it, or its name alone.
    const room = Math.sqrt(p.area_m2) / window.resolution;
    const texts = [rows.join('\n'), rows[0] ?? ''].filter((t) => sized(t, 'soft').w < room);
    yield {
      id: `paddock ${p.e},${p.n}`,
      spots: texts.flatMap((text) =>
        [0, -16, 16, -32, 32].flatMap(
          (dy) =>
          [0, -30, 30].map((dx) => ({ ...sized(text, 'soft'), x: c.x + dx, y: c.y + dy, text, face: 'soft' as const })), // prettier-ignore
        ),
      ),
    };
  }
  if (painted) return;
  for (const g of Object.values(plan.gates)) {
    const own = plan.lines[g.line];
    if (own) yield beside(`gate ${g.id}`, pointAt(own.vertices, g.at_m), g.name, 'name', 9);
  }
  for (const t of Object.values(plan.things ?? {}))
    if (named(t)) {
      if (t.points.length === 1) yield beside(`thing ${t.id}`, t.points[0]!, t.name, 'thing', 11);
      else if (SHAPE_OF[t.kind] === 'area') {
        const n = t.points.length;
        const middle = t.points.reduce((m, p) => ({ e: m.e + p.e / n, n: m.n + p.n / n }), { e: 0, n: 0 }); // prettier-ignore
        yield beside(`thing ${t.id}`, middle, t.name, 'thing', 0);
      } else yield along(`thing ${t.id}`, t.points, t.name, 'thing');
    }
  yield* figuresFor(asked.figures, window, measure);
}

/** Figures of the contours in view; asked for at every frame of a drag, while they stay the same. */
const figuresFor = memoLast(
  (figures: readonly Figured[], window: Window, measure: Measure): Wanting<Words>[] =>
    figures.flatMap((f, i) =>
      f.paths.map((path, k) => {
        const size = { w: measure(f.text, 'figure') + 4, h: SIZES.figure * 1.2 };
        const spots = onCurve(path.map(pixel(window)), size, window);
        return {
          id: `contour ${i} ${k}`,
          spots: [...withMore(spots, { text: f.text, face: 'figure' as const })],
        };
      }),
    ),
);

/** Beside the straight legs of what is in view; where none is long enough, round its middle. */
function* spotsAlong(
  parts: readonly (readonly Pixel[])[],
  size: { readonly w: number; readonly h: number },
): Generator<Spot> {
  let none = true;
  for (const part of parts)
    for (const spot of alongLegs(part, size, size.h / 2 + 4)) {
      none = false;
      yield spot;
    }
  const middle = parts[0]?.[Math.floor(parts[0].length / 2)];
  if (none && middle) yield* round(middle, size, [8, 16]);
}

const named = (t: Thing): boolean => t.kind !== 'property' && t.name !== '';
