import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { divideFace } from '../../src/core/land/divide.js';
import { areaOf, facesOf, type Face } from '../../src/core/land/faces.js';
import { paddocksOf } from '../../src/core/land/paddocks.js';
import { crossingsOf, offThing, soilAt, stretchesNear } from '../../src/core/land/things.js';
import { figure } from '../../src/core/plan/catalogue.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { setPaddock } from '../../src/core/edit/landEdits.js';
import { planLength, pointAt } from '../../src/core/plan/geometry.js';
import type { Line, Plan, Point } from '../../src/core/plan/schema.js';
import { edit } from '../../src/formats/patch.js';
import { energiser, line, plan, report } from './scene.js';
import { thing, things } from './wrong-land.js';

const table = (...lines: Line[]): Plan['lines'] => Object.fromEntries(lines.map((l) => [l.id, l]));
const faces = (...lines: Line[]) => facesOf(table(...lines), 1, 5);
const areas = (list: readonly Face[]) => list.map((f) => f.area_m2).sort((a, b) => a - b);

describe('faces', () => {
  it('a ring, crossed in the middle, gives its two parts with their sides', () => {
    const ring = line('r', [[0, 0], [100, 0], [100, 50], [0, 50], [0, 0]]); // prettier-ignore
    const cross = line('c', [[40, -10], [40, 60]]); // prettier-ignore
    const { faces: found } = faces(ring, cross);
    expect(areas(found)).toEqual([expect.closeTo(2000, 6), expect.closeTo(3000, 6)]);
    const west = found.find((f) => f.area_m2 < 2500)!;
    expect(west.perimeter_m).toBeCloseTo(180, 6);
    expect(west.edges.find((e) => e.line === 'c')).toMatchObject({
      side: 'left',
      from_m: 10,
      to_m: 60,
    });
    expect(found.find((f) => f.area_m2 > 2500)!.edges.find((e) => e.line === 'c')!.side).toBe(
      'right',
    );
  });

  it('a ring that stands free inside is a hole in its host', () => {
    const outer = line('o', [[0, 0], [100, 0], [100, 100], [0, 100], [0, 0]]); // prettier-ignore
    const inner = line('i', [[40, 40], [60, 40], [60, 60], [40, 60], [40, 40]]); // prettier-ignore
    expect(areas(faces(outer, inner).faces)).toEqual([
      expect.closeTo(400, 6),
      expect.closeTo(9600, 6),
    ]);
  });

  it('a gap of less than a metre still closes a paddock, is shown, and is closed by its mend', () => {
    const open = line('o', [[0, 0], [100, 0], [100, 100], [0, 100], [0, 0.8]]); // prettier-ignore
    const { faces: found, gaps } = faces(open);
    expect(areas(found)).toHaveLength(1);
    expect(gaps.length).toBeGreaterThan(0);
    expect(gaps[0]!.width_m).toBeCloseTo(0.8, 6);
    const wide = line('o', [[0, 0], [100, 0], [100, 100], [0, 100], [0, 3]]); // prettier-ignore
    expect(faces(wide).faces).toHaveLength(0);
    expect(faces(wide).gaps).not.toHaveLength(0);
  });

  it('a lane of two lines that touch nothing is no paddock', () => {
    const pair = [line('a', [[0, 0], [100, 0]]), line('b', [[0, 6], [100, 6]])]; // prettier-ignore
    expect(faces(...pair).faces).toEqual([]);
  });

  it('any grid of lines: as many faces as Euler says, and their areas fill the whole', () => {
    // Source: Euler's formula for plane graphs, F = E - V + 1 + C, the outer face left out.
    // Two metres apart or more: a patch of 1 m2 or less is no face, which the next test says.
    const cuts = fc.uniqueArray(fc.integer({ min: 5, max: 95 }), {
      maxLength: 5,
      comparator: (a, b) => Math.abs(a - b) < 2,
    });
    fc.assert(
      fc.property(cuts, cuts, fc.double({ min: -0.2, max: 0.2, noNaN: true }), (xs, ys, wobble) => {
        const rim = line('r', [[0, 0], [100, 0], [100, 100], [0, 100], [0, 0]]); // prettier-ignore
        const down = xs.map((x) => line(`x${x}`, [[x, 0], [x, 100]])); // prettier-ignore
        // Ends that miss or overrun by less than the tolerance still meet.
        const along = ys.map((y) => line(`y${y}`, [[wobble, y], [100 + wobble, y]])); // prettier-ignore
        const { faces: found } = faces(rim, ...down, ...along);
        expect(found).toHaveLength((xs.length + 1) * (ys.length + 1));
        expect(found.reduce((sum, f) => sum + f.area_m2, 0)).toBeCloseTo(10_000, -1);
      }),
      { numRuns: 40 },
    );
  });

  it('a patch of less than a square metre where lines cross in pairs is no face', () => {
    const rim = line('r', [[0, 0], [100, 0], [100, 100], [0, 100], [0, 0]]); // prettier-ignore
    const pair = [
      line('a', [[50, 0], [50, 100]]), line('b', [[50.9, 0], [50.9, 100]]),
      line('c', [[0, 30], [100, 30]]), line('d', [[0, 30.9], [100, 30.9]]),
    ]; // prettier-ignore
    const { faces: found } = faces(rim, ...pair);
    expect(found).toHaveLength(8);
    expect(found.reduce((sum, f) => sum + f.area_m2, 0)).toBeCloseTo(10_000 - 0.81, 6);
  });

  it('the demo: lines fill the rim that they draw', () => {
    const square: Point[] = [{ e: 0, n: 0 }, { e: 4, n: 0 }, { e: 4, n: 3 }]; // prettier-ignore
    // Source: half the product of the legs of a right triangle.
    expect(areaOf(square)).toBe(6);
  });
});

describe('a dividing fence', () => {
  const polygon = fc
    .array(fc.double({ min: 20, max: 120, noNaN: true }), { minLength: 3, maxLength: 9 })
    .map((radii) =>
      radii.map((r, i): Point => {
        const a = (2 * Math.PI * i) / radii.length;
        return { e: 500 + r * Math.cos(a), n: 300 + r * Math.sin(a) };
      }),
    );
  it('gives the area that was asked for, in any direction, through any star-shaped paddock', () => {
    fc.assert(
      fc.property(
        polygon,
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        (rim, bearing, share) => {
          const area_m2 = areaOf(rim);
          const face: Face = { rim, holes: [], area_m2, perimeter_m: 0, edges: [] };
          const cut = divideFace(face, bearing, share * area_m2);
          expect(cut.left_m2).toBeCloseTo(share * area_m2, 3);
          expect(cut.left_m2 + cut.right_m2).toBeCloseTo(area_m2, 6);
          expect(cut.fences.length).toBeGreaterThan(0);
        },
      ),
    );
  });
  it('of a square by halves runs through its middle; around a hole it is two fences', () => {
    const rim: Point[] = [{ e: 0, n: 0 }, { e: 10, n: 0 }, { e: 10, n: 10 }, { e: 0, n: 10 }]; // prettier-ignore
    const plain = divideFace({ rim, holes: [], area_m2: 100, perimeter_m: 40, edges: [] }, 0, 50);
    expect(plain.fences[0]!.map((p) => p.e)).toEqual([expect.closeTo(5, 6), expect.closeTo(5, 6)]);
    const hole: Point[] = [{ e: 4, n: 4 }, { e: 4, n: 6 }, { e: 6, n: 6 }, { e: 6, n: 4 }]; // prettier-ignore
    const hollow = { rim, holes: [hole], area_m2: 96, perimeter_m: 48, edges: [] };
    expect(divideFace(hollow, 0, 48).fences).toHaveLength(2);
  });
});

describe('things on the land', () => {
  it('stretches near a thing agree with looking every 20 cm', () => {
    const place = fc.record({ e: fc.double({ min: -20, max: 120, noNaN: true }), n: fc.double({ min: -30, max: 30, noNaN: true }) }); // prettier-ignore
    const l = line('l', [[0, 0], [60, 10], [100, -5]]); // prettier-ignore
    const total = planLength(l);
    fc.assert(
      fc.property(
        fc.array(place, { minLength: 2, maxLength: 4 }),
        fc.double({ min: 0.5, max: 15, noNaN: true }),
        (points, reach) => {
          const way = thing('burn', points.map((p) => [p.e, p.n])); // prettier-ignore
          const found = stretchesNear(l, way, reach);
          const wrong: number[] = [];
          for (let s = 0; s < total; s += 0.2) {
            const off = offThing(way, pointAt(l.vertices, s));
            const on = found.some(([a, b]) => s >= a && s <= b);
            // The step of a quarter of a metre is all that may be missed.
            if (Math.abs(off - reach) > 0.26 && on !== off <= reach) wrong.push(s);
          }
          expect(wrong).toEqual([]);
        },
      ),
      { numRuns: 30 },
    );
  });

  it('a crossing has its place and angle', () => {
    const l = line('l', [[0, 0], [100, 0]]); // prettier-ignore
    expect(
      crossingsOf(
        l,
        thing('publicWay', [
          [30, -10],
          [40, 10],
        ]),
      ),
    ).toEqual([
      // prettier-ignore
      { s: expect.closeTo(35, 9), angle_deg: expect.closeTo((Math.atan2(20, 10) * 180) / Math.PI, 9) },
    ]);
  });

  it('soil under a post and under the rods is that of the patch they stand in', () => {
    const p = plan(
      [
        line('a', [
          [0, 0],
          [300, 0],
        ]),
      ],
      {
        // prettier-ignore
        energisers: { unit: energiser('a', 0) },
        ...things(thing('soil', [[-10, -10], [100, -10], [100, 10], [-10, 10]], { soil: 'sand' })), // prettier-ignore
      },
    );
    expect([soilAt(p, { e: 50, n: 0 }), soilAt(p, { e: 150, n: 0 })]).toEqual(['sand', 'clay']);
    const r = report(p);
    const holds = (s: number) => r.lines['a']!.posts.find((x) => Math.abs(x.s_m - s) < 4 && x.role === 'line')!.holds_N; // prettier-ignore
    expect(holds(50)).toBeLessThan(holds(200) / 2);
    const clay = report({ ...p, things: {} });
    expect(r.energisers['unit']!.earth.r_dry_ohm).toBeGreaterThan(
      3 * clay.energisers['unit']!.earth.r_dry_ohm,
    );
  });

  it('overhead limits follow the voltage class', () => {
    // Source: IEC 60335-2-76 annexes, from memory: 3 m to 1 kV, 4 m to 33 kV, 8 m above.
    const near = (kV: number, height: number) => {
      const over = thing('overhead', [[150, -50], [150, 50]], { volts_kV: kV, height_m: height }); // prettier-ignore
      const p = plan([line('a', [[0, 0], [300, 0]])], things(over)); // prettier-ignore
      return report(p).findings.some((f) => f.rule === 'overhead' && f.kind === 'stop');
    };
    // The top strand stands at 0.9 m.
    expect([near(0.4, 3.8), near(0.4, 4)]).toEqual([true, false]);
    expect([near(11, 4.8), near(11, 5)]).toEqual([true, false]);
    expect([near(132, 8.8), near(132, 9)]).toEqual([true, false]);
  });
});

describe('paddocks', () => {
  const ring = line('r', [[0, 0], [100, 0], [100, 100], [0, 100], [0, 0]]); // prettier-ignore
  const at = (lines: Plan['lines'], p: Plan) =>
    paddocksOf(lines, p.gates, p.things, p.paddocks, figure(catalogue, 'land.gapBridge'), 5)
      .paddocks;

  it('a face that is named keeps its name when its lines move', () => {
    const p = plan([ring]);
    const [face] = at(p.lines, p);
    const named = edit(
      p,
      (d) => void setPaddock(d, face!, { name: 'Croft', stock: { sheep: 4 } }),
    ).next;
    const moved = edit(named, (d) => void (d.lines['r']!.vertices[1]!.e = 140)).next;
    expect(at(moved.lines, moved)[0]).toMatchObject({ name: 'Croft', stock: { sheep: 4 } });
  });

  it('a trough in a fence serves both sides', () => {
    const cross = line('c', [[50, 0], [50, 100]]); // prettier-ignore
    const p = plan([ring, cross], things(thing('water', [[50.5, 40]])));
    expect(at(p.lines, p).map((x) => x.water)).toEqual([['water'], ['water']]);
  });
});
