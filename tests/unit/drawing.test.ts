/** Words and symbols of the map: none on another, at any zoom, on the screen and on paper. */
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { alongLegs, overlap, place, round, type Spot } from '../../src/core/drawing/place.js';
import { createEvaluator } from '../../src/core/evaluate.js';
import { PARTS } from '../../src/core/parts/index.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { contourInterval, contourLines, heightRange } from '../../src/core/terrain/relief.js';
import { letteringOf, SIZES, type Window } from '../../src/views/land/lettering.js';
import type { Shown } from '../../src/views/land/shown.js';
import { boxOf, sheetsOf } from '../../src/views/print/sheets.js';
import { sheetWords } from '../../src/views/print/sheetWords.js';
import { parsePlan } from '../../src/formats/planFile.js';
import { groundOf } from '../../src/core/terrain/ground.js';

const box = (x: number, y: number, w: number, h: number, turn = 0): Spot => ({ x, y, w, h, turn });
const clashes = (all: readonly Spot[]): number =>
  all.reduce((n, a, i) => n + all.slice(i + 1).filter((b) => overlap(a, b)).length, 0);

/** Whether a corner of a box lies off the sheet. */
const sticksOut = ({ x, y, w, h, turn = 0 }: Spot, [wide, high]: readonly [number, number]) =>
  [-1, 1].some((i) =>
    [-1, 1].some((j) => {
      const px = x + (i * w * Math.cos(turn) - j * h * Math.sin(turn)) / 2;
      const py = y + (i * w * Math.sin(turn) + j * h * Math.cos(turn)) / 2;
      return px < -1e-6 || py < -1e-6 || px > wide + 1e-6 || py > high + 1e-6;
    }),
  );

describe('boxes', () => {
  it('lie on one another or beside, turned ones too', () => {
    expect(overlap(box(0, 0, 10, 4), box(9, 0, 10, 4))).toBe(true);
    expect(overlap(box(0, 0, 10, 4), box(10, 0, 10, 4))).toBe(false);
    // Their upright frames meet, they themselves do not: a bar at 45 degrees passes the corner.
    expect(overlap(box(0, 0, 20, 2, Math.PI / 4), box(6, -6, 4, 4))).toBe(false);
    expect(overlap(box(0, 0, 20, 2, Math.PI / 4), box(6, 6, 4, 4))).toBe(true);
  });

  it('agree with a fine grid of points inside both', () => {
    const num = (lo: number, hi: number) => fc.double({ min: lo, max: hi, noNaN: true });
    const any = fc.record({ x: num(-10, 10), y: num(-10, 10), w: num(1, 12), h: num(1, 12), turn: num(-3, 3) }); // prettier-ignore
    const within = (s: Spot, x: number, y: number, rim: number) => {
      const [c, n] = [Math.cos(-s.turn!), Math.sin(-s.turn!)];
      const [dx, dy] = [x - s.x, y - s.y];
      return Math.abs(dx * c - dy * n) < s.w / 2 - rim && Math.abs(dx * n + dy * c) < s.h / 2 - rim;
    };
    fc.assert(
      fc.property(any, any, (a, b) => {
        let shared = false;
        for (let x = -17; x <= 17; x += 0.25)
          for (let y = -17; y <= 17; y += 0.25)
            shared ||= within(a, x, y, 0.01) && within(b, x, y, 0.01);
        if (shared) expect(overlap(a, b)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
});

describe('placing', () => {
  it('gives the first free spot, leaves out what has none, and keeps off what is blocked', () => {
    const made = place(
      [
        { id: 'a', spots: [box(0, 0, 4, 4)] },
        { id: 'b', spots: [box(1, 0, 4, 4), box(10, 0, 4, 4)] },
        { id: 'c', spots: [box(9, 0, 4, 4)] },
      ],
      [box(-20, 0, 2, 2)],
    );
    expect([...made.keys()]).toEqual(['a', 'b']);
    expect(made.get('b')!.x).toBe(10);
  });

  it('words along a path stand beside a straight leg, never upside down, never longer than it', () => {
    const spots = [...alongLegs([{ x: 100, y: 0 }, { x: 0, y: 0 }, { x: 0, y: 8 }], { w: 30, h: 10 }, 9)]; // prettier-ignore
    expect(spots.length).toBeGreaterThan(0);
    for (const s of spots) {
      expect(Math.abs(s.turn)).toBeLessThanOrEqual(Math.PI / 2);
      expect(s.x - 15).toBeGreaterThanOrEqual(-1e-9);
      expect(s.x + 15).toBeLessThanOrEqual(100 + 1e-9);
    }
    expect([
      ...alongLegs(
        [
          { x: 0, y: 0 },
          { x: 20, y: 0 },
        ],
        { w: 30, h: 10 },
        9,
      ),
    ]).toEqual([]);
    expect([...round({ x: 0, y: 0 }, { w: 10, h: 4 }, [3])].every((s) => !overlap(s, box(0, 0, 5, 5)))).toBe(true); // prettier-ignore
  });
});

describe('the map of the demo', () => {
  const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
  const { plan } = demo;
  const ground = groundOf(plan, demo.grids);
  const grid = Object.values(demo.grids)[0]!;
  const report = createEvaluator(PARTS)(plan, ground, catalogue, { mends: 0 });
  const interval = contourInterval(...heightRange(grid));
  const figures = contourLines(grid, interval)
    .filter((c) => Math.round(c.z_m / interval) % 5 === 0)
    .map((c) => ({ text: `${c.z_m} m`, paths: c.lines }));
  const measure = (text: string, face: keyof typeof SIZES) => text.length * SIZES[face] * 0.56;
  const extent = boxOf(
    Object.values(plan.lines).flatMap((l) => l.vertices),
    40,
  );
  const [wide, high] = [extent.east - extent.west, extent.north - extent.south];
  const shown = (part: Partial<Shown> = {}): Shown => ({ plan, report, line: null, vertex: null, also: [], thing: null, finding: null, cursor: null, ...part }); // prettier-ignore

  /** The property whole at `zoom` 1, its middle nearer from there on. */
  const windowOf = (zoom: number, [w, h]: readonly [number, number] = [660, 490]): Window => {
    const resolution = Math.max(wide / w, high / h) / zoom;
    return {
      west: (extent.west + extent.east) / 2 - (w / 2) * resolution,
      north: (extent.south + extent.north) / 2 + (h / 2) * resolution,
      width: w,
      height: h,
      resolution,
    };
  };

  it.each([0.1, 0.3, 0.6, 1, 1.4, 2, 3, 5, 9, 20])(
    'no word or symbol lies on another at zoom %d',
    (zoom) => {
      for (const line of [null, 'burn', 'mid-w'])
        for (const size of [
          [660, 490],
          [390, 600],
        ] as const) {
          const { symbols, words } = letteringOf({ shown: shown({ line, vertex: line ? 1 : null }), painted: null, window: windowOf(zoom, size), measure, figures }); // prettier-ignore
          expect(clashes([...symbols, ...words])).toBe(0);
          expect(words.filter((w) => sticksOut(w, size))).toEqual([]);
        }
    },
  );

  it('at the first view every energiser, gate and line is there, and most names', () => {
    const { symbols, words } = letteringOf({ shown: shown(), painted: null, window: windowOf(1), measure, figures }); // prettier-ignore
    const texts = words.map((w) => w.text);
    const lines = Object.values(plan.lines).filter((l) => texts.includes(l.name)).length;
    expect(lines / Object.keys(plan.lines).length).toBeGreaterThan(0.6);
    const drawn = symbols.filter((s) => 'drawn' in s.what).length;
    const there = Object.keys(plan.gates).length + Object.keys(plan.energisers).length;
    expect(drawn).toBeGreaterThanOrEqual(there);
  });

  it('what lies together is one mark with its count; a chosen one stands alone', () => {
    const of = (finding: string | null) =>
      letteringOf({ shown: shown({ finding }), painted: null, window: windowOf(0.4), measure, figures }).symbols.flatMap((s) => ('finding' in s.what ? [s.what] : [])); // prettier-ignore
    expect(Math.max(...of(null).map((m) => m.count))).toBeGreaterThan(2);
    const chosen = report.findings.find((f) => f.place.e !== undefined)!;
    expect(of(chosen.id).filter((m) => m.chosen)).toEqual([expect.objectContaining({ count: 1, finding: chosen.kind })]); // prettier-ignore
  });

  it('on paper none lies on another either, at any scale, with all that can be written on it', () => {
    for (const scale of [1000, 2500, 5000, 10000]) {
      for (const sheet of sheetsOf(extent, 'A4 landscape', scale).slice(0, 6)) {
        const mm = 1000 / scale;
        const { symbols, words } = sheetWords({
          plan: plan as Plan,
          report,
          asked: { lengths: true, strands: true, posts: scale <= 2500, corners: true },
          at: (p) => ({
            x: 10 + (p.e - sheet.box.west) * mm,
            y: 10 + (sheet.box.north - p.n) * mm,
          }),
          frame: { x: 10, y: 10, w: 277, h: 164 },
        });
        expect(clashes([...symbols, ...words])).toBe(0);
        expect(words.length).toBeGreaterThan(0);
      }
    }
  });
});
