import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromField, say, toField } from '../../src/core/base/units.js';
import { figureAt } from '../../src/core/plan/catalogue.js';
import { CatalogueSchema } from '../../src/core/plan/catalogueSchema.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { ownCatalogue } from '../../src/core/plan/ownCatalogue.js';
import { checkPlan } from '../../src/core/check.js';
import * as edits from '../../src/core/edit/edits.js';
import {
  bearing,
  deflections,
  fromBearing,
  nearest,
  planLength,
  pointAt,
} from '../../src/core/plan/geometry.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { simplify } from '../../src/core/plan/simplify.js';
import { snap } from '../../src/core/plan/snap.js';
import { topologyOf } from '../../src/core/plan/topology.js';
import { readTyped } from '../../src/core/plan/typed.js';
import { fits } from '../../src/formats/validate.js';
import { energiser, line, plan } from './scene.js';

const at = (e: number, n: number) => ({ e, n });

describe('geometry', () => {
  it('leg by distance and bearing, and back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 5000, noNaN: true }),
        fc.double({ min: 0, max: 359.9, noNaN: true }),
        (d, b) => {
          const p = fromBearing(at(10, -20), d, b);
          expect(Math.hypot(p.e - 10, p.n + 20)).toBeCloseTo(d, 6);
          expect(Math.abs(((bearing(at(10, -20), p) - b + 540) % 360) - 180)).toBeLessThan(1e-6);
        },
      ),
    );
    expect(bearing(at(0, 0), at(1, 0))).toBe(90);
  });
  it('a square turns by 90 degrees at each corner', () => {
    expect(deflections([at(0, 0), at(9, 0), at(9, 9), at(0, 9)])).toEqual([0, 90, 90, 0]);
  });
  it('the nearest place lies where pointAt puts its distance', () => {
    const points = [at(0, 0), at(100, 0), at(100, 50)];
    const hit = nearest(points, at(103, 20));
    expect(hit).toMatchObject({ s: 120, off: 3, leg: 1 });
    expect(pointAt(points, hit.s)).toEqual(at(100, 20));
  });
});

describe('typed legs', () => {
  it('reads legs, steps and places, in metres or feet', () => {
    const p = readTyped('85 @ 90', at(1, 2), 1) as { e: number; n: number };
    expect([p.e, p.n]).toEqual([86, expect.closeTo(2, 9)]);
    expect(readTyped('@ 12, -4', at(1, 2), 1)).toEqual(at(13, -2));
    expect(readTyped('100, 200', null, 0.3048)).toEqual(at(30.48, 60.96));
  });
  it.each(['85 @', 'abc', '85 @ 400', '-5 @ 10', '@1', ''])(
    'says what is wrong with %j',
    (text) => {
      expect(typeof readTyped(text, at(0, 0), 1)).toBe('string');
    },
  );
  it('wants a place before a leg', () => {
    expect(readTyped('85 @ 112', null, 1)).toContain('place');
  });
});

describe('units', () => {
  it('what is shown can be typed back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.02, max: 3.5, noNaN: true }),
        fc.constantFrom('metric' as const, 'imperial' as const),
        (h, units) => {
          expect(
            Math.abs(fromField(toField(h, 'height', units), 'height', units) - h),
          ).toBeLessThan(0.003);
        },
      ),
    );
  });
  it('says them in the chosen units', () => {
    expect(say(0.35, 'height', 'metric')).toBe('350\u00a0mm');
    expect(say(0.3048, 'length', 'imperial')).toBe('1\u00a0ft');
    expect(say(-12, 'temperature', 'imperial')).toBe('10\u00a0°F');
    expect(say(1000, 'force', 'imperial')).toBe('225\u00a0lbf');
    expect(fromField('1,5', 'length', 'metric')).toBe(1.5);
    expect(fromField('12 m', 'length', 'metric')).toBeNaN();
  });
});

describe('catalogue', () => {
  it('fits its schema: every record has mark, unit and reason', () => {
    expect(fits(CatalogueSchema, catalogue)).toBe(true);
  });
  it('a property puts its own figure in place of one, and leaves the rest', () => {
    const own = ownCatalogue(catalogue, {
      overrides: { 'soils.clay.dry_ohm_m': { value: 77 }, 'no.such.path': { value: 1 } },
    });
    expect(own.soils['clay']!.dry_ohm_m).toBe(77);
    expect(catalogue.soils['clay']!.dry_ohm_m).not.toBe(77);
    expect(own.soils['sand']).toBe(catalogue.soils['sand']);
    expect(figureAt(catalogue, 'prices.post.steel-180.price')).toBeGreaterThan(0);
  });
});

describe('check', () => {
  const bad = (change: (p: Plan) => void) => {
    const p = structuredClone(
      plan(
        [
          line('a', [
            [0, 0],
            [100, 0],
          ]),
        ],
        { energisers: { unit: energiser('a', 0) } },
      ),
    );
    change(p);
    return checkPlan(p, catalogue, new Set()).map((f) => f.place);
  };
  it('passes a sound plan and names the place of each fault', () => {
    expect(bad(() => undefined)).toEqual([]);
    expect(bad((p) => void (p.energisers['unit']!.line = 'nowhere'))).toEqual([
      '/energisers/unit/line',
    ]);
    expect(bad((p) => void (p.energisers['unit']!.line = 'constructor'))).toEqual([
      '/energisers/unit/line',
    ]);
    expect(bad((p) => void (p.lines['a']!.strands[1]!.height_m = 0.15))).toEqual([
      '/lines/a/strands/1/height_m',
    ]);
    expect(bad((p) => void (p.lines['a']!.left = ['unicorns']))).toEqual(['/lines/a/left/0']);
    expect(bad((p) => void (p.lines['a']!.vertices[1]!.e = 0))).toEqual(['/lines/a/vertices/1']);
    expect(bad((p) => void (p.climate.today_C = 60))).toEqual(['/climate']);
    expect(bad((p) => void (p.newLines.model = 'none'))).toEqual(['/newLines/model']);
    expect(bad((p) => void (p.ground = { kind: 'grid', id: 'gone' }))).toEqual(['/ground/id']);
    expect(bad((p) => void (p.overrides['soils.clay.dry_ohm_m'] = { value: 0 }))).toHaveLength(1);
  });
});

describe('edits', () => {
  const start = () =>
    structuredClone(
      plan(
        [
          line('a', [
            [0, 0],
            [100, 0],
            [200, 0],
          ]),
        ],
        {
          gates: { g: { id: 'g', name: 'G', line: 'a', at_m: 150, width_m: 4, cable: true } },
          energisers: { unit: energiser('a', 50) },
        },
      ),
    );
  it('a vertex put in keeps gates and energisers on their ground', () => {
    const p = start();
    edits.insertVertex(p, 'a', 0, at(50, 0));
    expect(p.gates['g']!.at_m).toBeCloseTo(150, 9);
    edits.moveVertex(p, 'a', 3, at(300, 0));
    // Half way along its leg it was, half way it stays.
    expect(p.gates['g']!.at_m).toBeCloseTo(200, 9);
    expect(p.energisers['unit']!.at_m).toBeCloseTo(50, 9);
  });
  it('drawn on from its start, a line shifts what stands on it', () => {
    const p = start();
    edits.extendLine(p, 'a', at(-30, 0), true);
    expect(planLength(p.lines['a']!)).toBeCloseTo(230, 9);
    expect(p.gates['g']!.at_m).toBeCloseTo(180, 9);
    expect(p.lines['a']!.vertices.map((v) => v.kind)).toEqual(['end', 'bend', 'bend', 'end']);
  });
  it('a line taken away takes its gates, and lets its energiser go', () => {
    const p = start();
    edits.removeLine(p, 'a');
    expect(p.gates).toEqual({});
    expect(p.energisers['unit']!.line).toBeNull();
  });
  it('the last vertices take the line with them, ends stay ends', () => {
    const p = start();
    edits.removeVertex(p, 'a', 2);
    expect(p.lines['a']!.vertices.map((v) => v.kind)).toEqual(['end', 'end']);
    edits.removeVertex(p, 'a', 0);
    expect(p.lines).toEqual({});
  });
  it('ids stay free and a gate stays on its line', () => {
    const p = start();
    const id = edits.addLine(p, [at(0, 50), at(10, 50)]);
    const other = edits.addLine(p, [at(0, 60), at(10, 60)]);
    expect(id).not.toBe(other);
    const gate = edits.addGate(p, id, 0, 4);
    expect(p.gates[gate]!.at_m).toBe(2);
  });
  it('an energiser feeds the nearest line in reach, and none beyond', () => {
    const p = start();
    const near = edits.addEnergiser(p, at(120, 10), 50);
    expect(p.energisers[near]).toMatchObject({ line: 'a', at_m: 120 });
    edits.moveEnergiser(p, near, at(120, 500), 50);
    expect(p.energisers[near]!.line).toBeNull();
  });
});

describe('snapping and simplifying', () => {
  const lines = plan([
    line('a', [
      [0, 0],
      [100, 0],
    ]),
    line('b', [
      [50, 20],
      [50, 90],
    ]),
  ]).lines;
  it('catches on a vertex before a line, and on nothing out of reach', () => {
    expect(snap(lines, at(1, 1), 5)).toMatchObject({ to: 'vertex', line: 'a', vertex: 0 });
    expect(snap(lines, at(40, 3), 5)).toMatchObject({ to: 'line', point: { e: 40, n: 0 } });
    expect(snap(lines, at(40, 30), 5).to).toBe('free');
    expect(snap(lines, at(100, 1), 5, { line: 'a', vertex: 1 }).to).toBe('free');
  });
  it('a noisy walk comes down to its runs and keeps within the tolerance', () => {
    const walk = Array.from({ length: 200 }, (_, i) =>
      at(i, (i < 100 ? 0 : (i - 100) * 0.8) + 0.4 * Math.sin(i * 2.1)),
    );
    const kept = simplify(walk, 1);
    expect(kept.length).toBeLessThan(6);
    for (const p of walk) expect(nearest(kept, p).off).toBeLessThanOrEqual(1 + 1e-9);
  });
});

describe('topology', () => {
  it('joins an end that lies on another line, and a ring to itself; leaves others apart', () => {
    const t = topologyOf(
      plan([
        line('a', [
          [0, 0],
          [100, 0],
        ]),
        line('b', [
          [40, 0.1],
          [40, 80],
        ]),
        line('c', [
          [0, 300],
          [50, 300],
          [50, 350],
          [0, 300],
        ]),
      ]).lines,
      {},
    );
    const joint = t.marks['a']!.find((m) => Math.abs(m.s - 40) < 0.01)!;
    expect(t.marks['b']![0]!.location).toBe(joint.location);
    expect(t.groups.map((g) => g.join('+')).sort()).toEqual(['a+b', 'c']);
    expect(t.marks['c']![0]!.location).toBe(t.marks['c']!.at(-1)!.location);
  });
});
