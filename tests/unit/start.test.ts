/** The start: what files count in, walks and places put into a plan, shapes to begin with, lines straightened. */
import proj4 from 'proj4';
import { describe, expect, it } from 'vitest';
import { bringIn, kindOfName, kindsFor } from '../../src/core/edit/bring.js';
import { newPlan, sized, type Answers } from '../../src/core/edit/firstPlan.js';
import { closes, sideWords, turnsLeft } from '../../src/core/land/ring.js';
import { straighten } from '../../src/core/edit/straighten.js';
import { TEMPLATES } from '../../src/core/edit/templates.js';
import { nearest, planLength, pointAt } from '../../src/core/plan/geometry.js';
import { readGround } from '../../src/formats/ground.js';
import { originAt, projection } from '../../src/formats/projection.js';
import { guessReference, zoneAt, zoneWords, type Box } from '../../src/formats/reference.js';
import { readWalked } from '../../src/formats/walked.js';
import { made, truth } from '../browser/wholeJob.js';
import { answersOf, FRESH, measuredIn } from '../../src/views/start/answers.js';
import { NOTHING, offGround } from '../../src/views/start/files.js';
import { line, plan, report } from './scene.js';

const P = (e: number, n: number) => ({ e, n });

describe('what a file of heights counts in', () => {
  // A place in the south-west of a continent, and a box of two kilometres about it in several projections.
  const at: [number, number] = [18.46, -33.93];
  const about = (name: string): Box => {
    const [x, y] = proj4('EPSG:4326', projection(name), at) as [number, number];
    return [x - 1000, y - 1000, x + 1000, y + 1000];
  };
  it('is the zone that the property lies in, or the zone beside it', () => {
    expect(guessReference(about('utm 34s'), originAt(at))).toMatchObject({ reference: { projection: 'utm 34s' }, sure: true }); // prettier-ignore
    expect(guessReference(about('utm 33s'), originAt(at))).toMatchObject({ reference: { projection: 'utm 33s' }, sure: true }); // prettier-ignore
  });
  it('is a national grid where the property lies on that', () => {
    const leeds: [number, number] = [-1.55, 53.8];
    const [x, y] = proj4('EPSG:4326', projection('epsg 27700'), leeds) as [number, number];
    expect(guessReference([x, y, x + 500, y + 500], originAt(leeds)).reference).toEqual({ projection: 'epsg 27700' }); // prettier-ignore
  });
  it('is degrees where they fit, and never by numbers that cannot be degrees', () => {
    expect(guessReference([18.45, -33.94, 18.47, -33.92], originAt(at))).toMatchObject({ reference: 'geographic', sure: true }); // prettier-ignore
    expect(guessReference([18.45, -33.94, 18.47, -33.92], null).reference).toBe('geographic');
    expect(guessReference([0, 0, 2000, 1500], null)).toMatchObject({ reference: 'local', sure: true }); // prettier-ignore
    // The same numbers under a property elsewhere are no degrees of it.
    expect(guessReference([0, 0, 2, 1.5], originAt(at)).reference).toBe('local');
  });
  it('is not known without a walk: then it is asked, and far metres stay near their own corner', () => {
    expect(guessReference(about('utm 34s'), null)).toMatchObject({
      reference: 'local',
      sure: false,
    });
    const { grid, origin } = readGround('asc', made().asc, 'guess', null);
    expect([grid.east0_m, grid.north0_m]).toEqual([0, 0]);
    expect(origin.x).toBe(261_950);
  });
  it('off the property is said as unsure', () => {
    const far = about('utm 34s').map((v) => v + 90_000) as unknown as Box;
    expect(guessReference(far, originAt(at))).toMatchObject({ sure: false, reference: { projection: 'utm 34s' } }); // prettier-ignore
  });
  it('names zones as people do', () => {
    expect(zoneAt(at)).toBe('utm 34s');
    expect(zoneAt([179.99, 1])).toBe('utm 60n');
    expect(zoneAt([-180, 1])).toBe('utm 1n');
    expect(zoneWords('utm 34s')).toBe('UTM zone 34 south');
    expect(() => projection('34 south')).toThrow(/for that zone of UTM write "utm 34s"/);
    expect(() => projection('Zone 30N')).toThrow(/"utm 30n"/);
    expect(() => projection('nowhere')).toThrow(/write it as/);
  });
});

describe('a walk', () => {
  const gpx = made().gpx;
  it('in degrees tells its zone, and gives the ground its place', () => {
    const walk = readWalked('gpx', gpx, null);
    expect(walk.as.words).toBe('degrees, in UTM zone 34 south');
    const { grid, as } = readGround('asc', made().asc, 'guess', walk.origin);
    expect(as).toMatchObject({ reference: { projection: 'utm 34s' }, sure: true });
    expect(offGround(grid, walk.lines)).toBe(0);
    // The seen fault: the same grid taken for plain metres lies far off.
    const wrong = readGround('asc', made().asc, 'local', walk.origin);
    expect(offGround(wrong.grid, walk.lines)).toBeGreaterThan(1e6);
  });
  it('in metres of the ground follows the ground', () => {
    const home = { proj: projection('utm 34s'), x: 262_000, y: 6_243_000 };
    const walk = readWalked('csv', 'e,n\n262010,6243020\n262110,6243020', home);
    expect(walk.lines[0]!.points).toEqual([P(10, 20), P(110, 20)]);
    expect(readWalked('csv', 'e,n\n10,20\n110,20', home).lines[0]!.points[0]).toEqual(P(10, 20));
    expect(readWalked('csv', 'e,n\n262010,6243020\n262110,6243020', null).as.sure).toBe(false);
    expect(readWalked('csv', 'e,n\n262010,6243020\n262110,6243020', null, { projection: 'utm 34s' }).origin.proj).toContain('zone=34'); // prettier-ignore
  });
  it('that is a plan is sent to the first page', () => {
    expect(() => readWalked('geojson', '{"format":"anabatic-plan"}', null)).toThrow(/first page/);
  });
  it('is refused on a property that it cannot lie on', () => {
    expect(() => readWalked('gpx', gpx, originAt([0, 0]))).toThrow(/no place on the globe/);
    expect(() => readWalked('gpx', gpx, originAt([9, 50]))).toThrow(/km from this property/);
  });
  it('becomes the ring behind its noise, with its gate and its trough', () => {
    const walk = readWalked('gpx', gpx, null);
    const p = plan([]);
    const measured = measuredIn({ ...NOTHING, walked: walk });
    const places = walk.places.map((w) => ({ ...w, kind: kindOfName(w.name) }));
    const { lines, left } = bringIn(p, walk.lines, places, measured);
    expect(left).toEqual(['Stile']);
    const ring = p.lines[lines[0]!]!;
    expect(ring.vertices).toHaveLength(7);
    expect(closes(ring.vertices)).toBe(true);
    const r = report(p);
    expect(Math.abs(r.paddocks[0]!.area_m2 / truth().area_m2 - 1)).toBeLessThan(0.005);
    expect(Object.values(p.gates)).toMatchObject([{ name: 'Road gate', line: ring.id }]);
    expect(Object.values(p.things!)).toMatchObject([{ name: 'Trough', kind: 'water' }]);
  });
  it('across another ends on it, in whatever order they come', () => {
    const square = { name: 'Ring', points: [P(0, 0), P(400, 0), P(400, 300), P(0, 300), P(0, 0)] };
    const cross = { name: 'Cross', points: [P(201, 2.5), P(199, 150), P(200, 297)] };
    for (const walks of [
      [square, cross],
      [cross, square],
    ]) {
      const p = plan([]);
      const { lines } = bringIn(p, walks, [], 2);
      const ids = walks[0] === cross ? [...lines].reverse() : lines;
      expect(ids.map((id) => p.lines[id]!.name)).toEqual(['Ring', 'Cross']);
      const [ring, own] = ids.map((id) => p.lines[id]!.vertices);
      for (const end of [own![0]!, own!.at(-1)!])
        expect(nearest(ring!, end).off).toBeLessThan(1e-6);
      expect(report(p).paddocks).toHaveLength(2);
    }
  });
  it('says by its names what was marked, or nothing', () => {
    expect(['Top gate', 'trough 3', 'Fencer', 'Big tree', 'Stile', 'Delegate'].map(kindOfName)).toEqual(['gate', 'water', 'energiser', 'tree', null, null]); // prettier-ignore
    expect(kindsFor([P(0, 0)])).toContain('gate');
    expect(kindsFor([P(0, 0)])).not.toContain('burn');
    expect(kindsFor([P(0, 0), P(1, 0)])).toEqual(['overhead', 'publicWay', 'burn', 'oldFence']);
    expect(kindsFor([P(0, 0), P(1, 0), P(1, 1)])).toEqual(['property', 'building', 'overhead', 'publicWay', 'burn', 'oldFence', 'obstacle', 'soil']); // prettier-ignore
  });
});

describe('the first plan', () => {
  const ring = [P(0, 0), P(0, 200), P(300, 200), P(300, 0), P(0, 0)];
  const answers = (part: Partial<Answers>): Answers => ({ ...answersOf({ ...FRESH, right: ['horses'] }, NOTHING, []), ...part }); // prettier-ignore
  it.each([['clockwise', ring], ['anticlockwise', [...ring].reverse()]])('has the first stock within a ring walked %s', (_, points) => {
    const p = newPlan(answers({ lines: [{ name: 'Ring', points }] }));
    const l = Object.values(p.lines)[0]!;
    const [inside, outside] = turnsLeft(points) ? [l.left, l.right] : [l.right, l.left];
    expect([inside, outside]).toEqual([['cattle-calves'], ['horses']]);
  }); // prettier-ignore
  it('takes an energiser that was marked instead of one of its own', () => {
    const marked = { name: 'Shed fencer', kind: 'energiser' as const, points: [P(-20, 50)] };
    const p = newPlan(answers({ lines: [{ name: 'Ring', points: ring }], places: [marked] }));
    expect(Object.values(p.energisers).map((e) => e.name)).toEqual(['Shed fencer']);
  });
});

describe('the sides of a line', () => {
  const square = [P(0, 0), P(9, 0), P(9, 9), P(0, 9), P(0, 0)];
  it('that closes are its inside and its outside, whichever way round it runs', () => {
    const words = (points: readonly { e: number; n: number }[]) => {
      const l = line('a', points.map(({ e, n }) => [e, n])); // prettier-ignore
      return (['left', 'right'] as const).map((side) => sideWords(l, side));
    };
    expect(words(square)).toEqual(['inside', 'outside']);
    expect(words([...square].reverse())).toEqual(['outside', 'inside']);
    expect(words(square.slice(0, 4))).toEqual(['to the left, walking it', 'to the right, walking it']); // prettier-ignore
  });
});

describe.each(Object.entries(TEMPLATES))('the shape %s', (id, t) => {
  it.each([['metric', 1], ['small', 0.4], ['large', 3]])('%s has the area asked for, gates that stand, and nothing wrong in it', (_, times) => {
    const f = { ...FRESH, lineKind: 'shape' as const, shape: id, area_m2: t.area_m2 * times };
    const p = sized(newPlan(answersOf(f, NOTHING, [])), report);
    const r = report(p);
    const whole = r.paddocks.reduce((m, q) => m + q.area_m2, 0);
    expect(whole / f.area_m2).toBeCloseTo(1, 6);
    expect(Object.keys(p.gates)).toHaveLength(t.make(f.area_m2).places.length);
    expect(r.findings.filter((q) => q.kind !== 'confirm').map((q) => q.why)).toEqual([]);
  }); // prettier-ignore
});

describe('straightening', () => {
  const noisy = Array.from({ length: 60 }, (_, i): [number, number] => [i * 5, i % 2 ? 0.4 : -0.4]);
  it('keeps the runs, the gates where they stood, and what ends on the line', () => {
    const p = plan([line('a', noisy), line('b', [[150, -0.4], [150, 90]])], { gates: { g: { id: 'g', name: 'G', line: 'a', at_m: 100, width_m: 4, cable: true } } }); // prettier-ignore
    const stood = pointAt(p.lines['a']!.vertices, 100);
    straighten(p, 'a', 2);
    const a = p.lines['a']!;
    expect(a.vertices).toHaveLength(2);
    const now = pointAt(a.vertices, p.gates['g']!.at_m);
    expect(Math.hypot(now.e - stood.e, now.n - stood.n)).toBeLessThan(1.5);
    expect(nearest(a.vertices, p.lines['b']!.vertices[0]!).off).toBeLessThan(1e-6);
    expect(new Set(a.vertices.map((v) => v.id)).size).toBe(2);
  });
  it('leaves ends on what they met, a locked line alone, and a straight one as it is', () => {
    const p = plan([line('a', noisy), line('post', [[0, -50], [0, 50]]), line('c', noisy, { locked: true })]); // prettier-ignore
    straighten(p, 'a', 2);
    expect(nearest(p.lines['post']!.vertices, p.lines['a']!.vertices[0]!).off).toBeLessThan(0.3);
    straighten(p, 'c', 2);
    expect(p.lines['c']!.vertices).toHaveLength(60);
    const before = planLength(p.lines['post']!);
    straighten(p, 'post', 2);
    expect(planLength(p.lines['post']!)).toBeCloseTo(before, 9);
  });
});
