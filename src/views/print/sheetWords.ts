/** Where the symbols and words of a printed sheet stand: on paper, in millimetres, none on another. */
import { alongLegs, place, round, type Spot, type Wanting } from '../../core/drawing/place.js';
import { say } from '../../core/base/units.js';
import { pointAt, stations } from '../../core/plan/geometry.js';
import type { Plan, Point } from '../../core/plan/schema.js';
import type { Report } from '../../core/report/schema.js';
import type { Drawn } from '../../ui/drawn.js';
import { ENERGISER, GATE, GATE_BARE, spotOf } from '../../ui/symbols.js';

/** What is written on the map beside names. */
export interface Asked {
  readonly lengths: boolean;
  readonly strands: boolean;
  readonly posts: boolean;
  readonly corners: boolean;
}

export interface SheetWord extends Spot {
  readonly text: string;
  /** Height of the letters, mm. */
  readonly size: number;
  readonly look: 'plain' | 'soft' | 'italic' | 'figure';
}
export interface SheetSymbol extends Spot {
  readonly drawn: Drawn;
}

/** Symbols are drawn at this share of their pixels, mm. */
const MM = 0.19;
/** Mean width of a letter over its height, for a narrow text face. */
const LETTER = 0.5;

const sized = (text: string, size: number) => {
  const rows = text.split('\n');
  return {
    w: Math.max(...rows.map((r) => r.length)) * size * LETTER + size * 0.3,
    h: rows.length * size * 1.15,
  };
};

interface Sheet {
  readonly plan: Plan;
  readonly report: Report;
  readonly asked: Asked;
  /** Where a place falls on the paper, mm. */
  at(p: Point): { x: number; y: number };
  /** The map's frame on the paper, mm. */
  readonly frame: {
    readonly x: number;
    readonly y: number;
    readonly w: number;
    readonly h: number;
  };
}

export function sheetWords(sheet: Sheet): { symbols: SheetSymbol[]; words: SheetWord[] } {
  const { frame } = sheet;
  const inFrame = (s: Spot) =>
    s.x - s.w / 2 > frame.x && s.x + s.w / 2 < frame.x + frame.w && s.y - s.h / 2 > frame.y && s.y + s.h / 2 < frame.y + frame.h; // prettier-ignore
  const kept = <S extends Spot>(all: Iterable<Wanting<S>>): Wanting<S>[] =>
    [...all].map(({ id, spots }) => ({ id, spots: [...spots].filter(inFrame) }));
  const symbols = [...place(kept(symbolsOf(sheet))).values()];
  const words = [...place(kept(wordsOf(sheet)), symbols).values()];
  return { symbols, words };
}

function* symbolsOf({ plan, at }: Sheet): Generator<Wanting<SheetSymbol>> {
  const stand = (id: string, p: Point, drawn: Drawn) => ({
    id,
    spots: [1, 0.65].map((k) => ({ ...at(p), w: drawn.w * MM * k, h: drawn.h * MM * k, drawn })),
  });
  for (const e of Object.values(plan.energisers)) yield stand(`e ${e.id}`, e, ENERGISER);
  for (const g of Object.values(plan.gates)) {
    const line = plan.lines[g.line];
    if (line) yield stand(`g ${g.id}`, pointAt(line.vertices, g.at_m), g.cable ? GATE : GATE_BARE);
  }
  for (const t of Object.values(plan.things ?? {}))
    if (t.points.length === 1) yield stand(`t ${t.id}`, t.points[0]!, spotOf(t.kind));
}

function* wordsOf({ plan, report, asked, at }: Sheet): Generator<Wanting<SheetWord>> {
  const beside = (
    id: string,
    p: Point,
    text: string,
    size: number,
    look: SheetWord['look'],
    gap: number,
  ): Wanting<SheetWord> => ({
    // prettier-ignore
    id,
    spots: [...round(at(p), sized(text, size), [gap, gap + 1.6])].map((s) => ({ ...s, text, size, look })), // prettier-ignore
  });
  const along = (
    id: string,
    path: readonly Point[],
    text: string,
    size: number,
    look: SheetWord['look'],
  ): Wanting<SheetWord> => {
    // prettier-ignore
    const box = sized(text, size);
    const points = path.map(at);
    const own = [...alongLegs(points, box, box.h / 2 + 0.7)];
    const middle = points[Math.floor(points.length / 2)]!;
    return {
      id,
      spots: [...own, ...round(middle, box, [1, 2.5])].map((s) => ({ ...s, text, size, look })),
    };
  };
  for (const l of Object.values(plan.lines)) {
    const told = [
      l.name,
      asked.lengths ? say(report.lines[l.id]?.ground_m ?? NaN, 'length', plan.units) : '',
      asked.strands ? `${l.strands.length} strands` : '',
    ].filter(Boolean);
    yield along(`l ${l.id}`, l.vertices, told.join(', '), 2.5, 'plain');
  }
  for (const e of Object.values(plan.energisers)) yield beside(`e ${e.id}`, e, e.name, 2.4, 'plain', 2.8); // prettier-ignore
  for (const p of report.paddocks)
    yield {
      id: `p ${p.e},${p.n}`,
      spots: [`${p.name}\n${say(p.area_m2, 'area', plan.units)}`, p.name].flatMap((text) =>
        [0, 3, -3, 6, -6].flatMap(
          (dy) =>
          [0, 8, -8].map((dx) => ({ ...sized(text, 2.6), x: at(p).x + dx, y: at(p).y + dy, text, size: 2.6, look: 'soft' as const })), // prettier-ignore
        ),
      ),
    };
  for (const g of Object.values(plan.gates)) {
    const line = plan.lines[g.line];
    if (line) yield beside(`g ${g.id}`, pointAt(line.vertices, g.at_m), g.name, 2.1, 'plain', 1.7);
  }
  for (const t of Object.values(plan.things ?? {})) {
    if (t.kind === 'property' || t.name === '') continue;
    yield t.points.length === 1
      ? beside(`t ${t.id}`, t.points[0]!, t.name, 2.2, 'italic', 2.1)
      : along(`t ${t.id}`, t.points, t.name, 2.2, 'italic');
  }
  if (asked.corners)
    for (const l of Object.values(plan.lines))
      for (const [i, v] of l.vertices.entries()) yield beside(`c ${l.id} ${i}`, v, String(i + 1), 1.9, 'figure', 0.8); // prettier-ignore
  if (asked.posts)
    for (const l of Object.values(report.lines)) {
      // Every tenth post, where one counts from.
      const own = plan.lines[l.id]!;
      const total = stations(own.vertices).at(-1)!;
      for (const [i, post] of l.posts.entries())
        if (i > 0 && (i + 1) % 10 === 0 && post.s_m < total)
          yield beside(`n ${l.id} ${i}`, post, String(i + 1), 1.7, 'figure', 0.6);
    }
}
