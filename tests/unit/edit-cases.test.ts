/** Single edits with the whole of what they leave behind, worked out by hand. */
import { describe, expect, it } from 'vitest';
import * as edits from '../../src/core/edit/edits.js';
import * as land from '../../src/core/edit/landEdits.js';
import {
  joinLines,
  moveLines,
  offsetLine,
  offsetPoints,
  splitLine,
} from '../../src/core/edit/reshape.js';
import type { Line, Plan } from '../../src/core/plan/schema.js';
import { energiser, line, plan } from './scene.js';

const at = (e: number, n: number) => ({ e, n });
const way = (l: Line) => l.vertices.map((v) => [v.e, v.n]);
const kinds = (l: Line) => l.vertices.map((v) => v.kind);
/** A plan of one's own, to be written into. */
const own = (lines: Line[], part: Partial<Plan> = {}) => structuredClone(plan(lines, part));
const gate = (on: string, at_m: number, id = 'g') => ({ id, name: id, line: on, at_m, width_m: 4, cable: true }); // prettier-ignore

describe('vertices', () => {
  it('put on at either end, an end that is one no more takes the kind of its turn', () => {
    const p = own([line('a', [[0, 0], [100, 0]])]); // prettier-ignore
    edits.extendLine(p, 'a', at(100, 60));
    edits.extendLine(p, 'a', at(0, 40), true);
    expect(way(p.lines['a']!)).toEqual([[0, 40], [0, 0], [100, 0], [100, 60]]); // prettier-ignore
    expect(kinds(p.lines['a']!)).toEqual(['end', 'corner', 'corner', 'end']);
    edits.extendLine(p, 'a', at(102, 160));
    expect(kinds(p.lines['a']!)).toEqual(['end', 'corner', 'corner', 'bend', 'end']);
    expect(new Set(p.lines['a']!.vertices.map((v) => v.id)).size).toBe(5);
  });

  it('are not put nor moved onto a neighbour, and may come within 10 mm of none', () => {
    const p = own([line('a', [[0, 0], [100, 0], [200, 0]])]); // prettier-ignore
    const before = structuredClone(p);
    edits.extendLine(p, 'a', at(200.009, 0));
    edits.extendLine(p, 'a', at(0, 0.009), true);
    edits.insertVertex(p, 'a', 0, at(99.995, 0));
    edits.insertVertex(p, 'a', 1, at(100.005, 0));
    edits.moveVertex(p, 'a', 1, at(200, 0.005));
    edits.moveVertex(p, 'a', 1, at(0.005, 0));
    expect(p).toEqual(before);
    edits.insertVertex(p, 'a', 0, at(99.98, 0));
    expect(p.lines['a']!.vertices).toHaveLength(4);
  });

  it('taken out between two that lie in one place, one of the two goes too; of three the line goes', () => {
    const there: [number, number][] = [[0, 0], [50, 0], [80, 30], [50, 0.001], [0, 60]]; // prettier-ignore
    const p = own([line('a', there)]);
    edits.removeVertex(p, 'a', 2);
    expect(way(p.lines['a']!)).toEqual([[0, 0], [50, 0], [0, 60]]); // prettier-ignore
    const back = own([line('a', [[0, 0], [50, 0], [0, 0.001]])], { gates: { g: gate('a', 20) } }); // prettier-ignore
    edits.removeVertex(back, 'a', 1);
    expect([back.lines, back.gates]).toEqual([{}, {}]);
  });

  it('a locked line keeps every vertex', () => {
    const p = own([line('a', [[0, 0], [100, 0], [200, 0]], { locked: true })]); // prettier-ignore
    const before = structuredClone(p);
    edits.extendLine(p, 'a', at(300, 0));
    edits.insertVertex(p, 'a', 0, at(50, 5));
    edits.moveVertex(p, 'a', 1, at(100, 50));
    edits.removeVertex(p, 'a', 1);
    edits.removeLine(p, 'a');
    expect(p).toEqual(before);
  });
});

describe('what is put on a line', () => {
  it('a gate keeps both its posts on the line, and a short line is all gate', () => {
    const p = own([line('a', [[0, 0], [100, 0]]), line('b', [[0, 9], [3, 9]])]); // prettier-ignore
    expect(p.gates[edits.addGate(p, 'a', 99.5, 4)]).toMatchObject({ at_m: 98, width_m: 4, name: 'Gate 1', cable: true }); // prettier-ignore
    expect(p.gates[edits.addGate(p, 'a', 40, 4)]).toMatchObject({ at_m: 40, name: 'Gate 2' });
    expect(p.gates[edits.addGate(p, 'b', 0, 4)]).toMatchObject({ at_m: 1.5 });
  });

  it('an energiser feeds the nearest of several lines, and just within reach', () => {
    const p = own([line('a', [[0, 0], [100, 0]]), line('b', [[0, 30], [100, 30]])]); // prettier-ignore
    const id = edits.addEnergiser(p, at(20, 16), 14);
    expect(p.energisers[id]).toMatchObject({ line: 'b', at_m: 20, rods: 3, rodSpacing_m: 3, name: 'Energiser 1', model: 'm2' }); // prettier-ignore
    edits.moveEnergiser(p, id, at(30, 14), 14);
    expect(p.energisers[id]).toMatchObject({ line: 'a', at_m: 30, e: 30, n: 14 });
    edits.moveEnergiser(p, id, at(30, 15), 14);
    expect(p.energisers[id]!.line).toBeNull();
  });

  it('a line starts as the property says, with strands of its own', () => {
    const p = own([], { newLines: { left: ['sheep'], right: ['horses'], keepOut: ['fox'], boundary: true } }); // prettier-ignore
    const id = edits.addLine(p, [at(0, 0), at(10, 0)], '  Home  ');
    expect(p.lines[id]).toMatchObject({ name: 'Home', left: ['sheep'], right: ['horses'], keepOut: ['fox'], boundary: true, post: 'steel-210', maxBay_m: null, school: 'moderate', tensioner: true }); // prettier-ignore
    // Fox and sheep on a boundary with horses: the proposed make-up, and posts that are long enough for it.
    expect(p.lines[id]!.strands.map((s) => s.height_m)).toEqual([0.13, 0.25, 0.38, 0.51, 0.69, 0.89, 1.1, 1.35].map((h) => expect.closeTo(h, 1))); // prettier-ignore
    expect(p.lines[edits.addLine(p, [at(0, 5), at(10, 5)])]!.name).toBe('Line 2');
  });
});

describe('joined and cut', () => {
  const full = (id: string, points: [number, number][]) =>
    line(id, points, {
      pins: [{ at_m: 20, kind: null }],
      placed: [{ at_m: 30, kind: 'steel-180' }],
      noPosts: [{ from_m: 40, to_m: 45, why: 'rock' }],
      levels: [{ at_m: 0, z_m: 1 }, { at_m: 50, z_m: 5 }], // prettier-ignore
    });

  it('what stands on the second is counted from the start of the first, over the leg between them', () => {
    const p = own(
      [
        full('a', [
          [0, 0],
          [100, 0],
        ]),
        full('b', [
          [110, 0],
          [110, 50],
        ]),
      ],
      {
        // prettier-ignore
        gates: { g: gate('b', 25) },
        energisers: { unit: energiser('b', 50) },
      },
    );
    expect(joinLines(p, 'a', 'b')).toBe(true);
    const a = p.lines['a']!;
    expect(way(a)).toEqual([[0, 0], [100, 0], [110, 0], [110, 50]]); // prettier-ignore
    expect(kinds(a)).toEqual(['end', 'bend', 'corner', 'end']);
    expect([p.gates['g'], p.energisers['unit']]).toMatchObject([{ line: 'a', at_m: 135 }, { line: 'a', at_m: 160 }]); // prettier-ignore
    expect(a.pins!.map((x) => x.at_m)).toEqual([20, 130]);
    expect(a.placed!.map((x) => x.at_m)).toEqual([30, 140]);
    expect(a.noPosts!.map((x) => [x.from_m, x.to_m])).toEqual([[40, 45], [150, 155]]); // prettier-ignore
    expect(Object.keys(p.lines)).toEqual(['a']);
    expect(joinLines(p, 'a', 'a')).toBe(false);
    expect(joinLines(p, 'a', 'gone')).toBe(false);
  });

  it('where two ends touch there is one vertex, of the kind of its turn', () => {
    const p = own([line('a', [[0, 0], [100, 0]]), line('b', [[100, 0], [200, 5]])]); // prettier-ignore
    joinLines(p, 'a', 'b');
    expect(way(p.lines['a']!)).toEqual([[0, 0], [100, 0], [200, 5]]); // prettier-ignore
    expect(kinds(p.lines['a']!)).toEqual(['end', 'bend', 'end']);
    const square = own([line('a', [[0, 0], [100, 0]]), line('b', [[100, 0], [100, 50]])]); // prettier-ignore
    joinLines(square, 'a', 'b');
    expect(kinds(square.lines['a']!)).toEqual(['end', 'corner', 'end']);
  });

  it('cut, each part keeps what stands on it and both end where the cut was', () => {
    const p = own([full('a', [[0, 0], [42, 0], [90, 0]])], { gates: { g: gate('a', 80) } }); // prettier-ignore
    const other = splitLine(p, 'a', 42)!;
    const [a, b] = [p.lines['a']!, p.lines[other]!];
    expect([way(a), way(b)]).toEqual([[[0, 0], [42, 0]], [[42, 0], [90, 0]]]); // prettier-ignore
    expect([kinds(a), kinds(b)]).toEqual([['end', 'end'], ['end', 'end']]); // prettier-ignore
    expect(b.name).toBe('a 2');
    expect(p.gates['g']).toMatchObject({ line: other, at_m: 38 });
    expect([a.noPosts, b.noPosts]).toMatchObject([[{ from_m: 40, to_m: 42 }], [{ from_m: 0, to_m: 3 }]]); // prettier-ignore
    expect([a.pins!.length, b.pins!.length, a.placed!.length, b.placed!.length]).toEqual([1, 0, 1, 0]); // prettier-ignore
  });
});

describe('joints', () => {
  it('a line that meets another goes along wherever it meets it; a locked one, and one beside, stay', () => {
    const p = own([
      line('host', [[0, 0], [100, 0], [100, 100]]), // prettier-ignore
      line('south', [[25, 0], [25, -50]]), // prettier-ignore
      line('east', [[100, 40], [160, 40]]), // prettier-ignore
      line('corner', [[100, 100], [50, 150]]), // prettier-ignore
      line('start', [[-40, 0], [0, 0]]), // prettier-ignore
      line('locked', [[50, 0], [50, -50]], { locked: true }), // prettier-ignore
      line('beside', [[60, 2], [60, 50]]), // prettier-ignore
    ]);
    moveLines(p, ['host'], at(10, 5));
    expect(way(p.lines['south']!)).toEqual([[35, 5], [25, -50]]); // prettier-ignore
    expect(way(p.lines['east']!)).toEqual([[110, 45], [160, 40]]); // prettier-ignore
    expect(way(p.lines['corner']!)).toEqual([[110, 105], [50, 150]]); // prettier-ignore
    expect(way(p.lines['start']!)).toEqual([[-40, 0], [10, 5]]); // prettier-ignore
    expect(way(p.lines['locked']!)).toEqual([[50, 0], [50, -50]]); // prettier-ignore
    expect(way(p.lines['beside']!)).toEqual([[60, 2], [60, 50]]); // prettier-ignore
  });

  it('keeps its share of the leg when a vertex of the host moves', () => {
    const p = own([line('host', [[0, 0], [100, 0]]), line('on', [[25, 0], [25, 50]])]); // prettier-ignore
    edits.moveVertex(p, 'host', 1, at(200, 40));
    expect(way(p.lines['on']!)[0]).toEqual([50, 10]);
  });
});

describe('set off', () => {
  it('a corner of 90 degrees is mitred, a line back on itself is held', () => {
    const square = offsetPoints([at(0, 0), at(100, 0), at(100, 100)], 5);
    expect(square.map((p) => [p.e, p.n].map((x) => Math.round(x * 1e6) / 1e6))).toEqual([[0, 5], [95, 5], [95, 100]]); // prettier-ignore
    const back = offsetPoints([at(0, 0), at(100, 0), at(0, 0.1)], 5);
    for (const p of back) expect(Math.hypot(p.e, p.n)).toBeLessThan(160);
  });

  it('the copy takes posts, bays and school, and says beside what it stands', () => {
    const p = own([line('a', [[0, 0], [100, 0]], { post: 'timber-180', maxBay_m: 4, school: 'firm', tensioner: false })]); // prettier-ignore
    const id = offsetLine(p, 'a', -6);
    expect(p.lines[id]).toMatchObject({ name: 'a beside', post: 'timber-180', maxBay_m: 4, school: 'firm', tensioner: false }); // prettier-ignore
    expect(way(p.lines[id]!).map(([, n]) => Math.round(n! * 1e6) / 1e6)).toEqual([-6, -6]);
  });
});

describe('things and paddocks', () => {
  it('are named by kind and number, and start with what is usual for their kind', () => {
    const p = own([]);
    const first = land.addThing(p, 'tree', at(1, 2));
    const second = land.addThing(p, 'tree', at(3, 4), { width_m: 9 });
    const rock = land.addThing(p, 'obstacle', at(0, 0));
    const soil = land.addThing(p, 'soil', at(0, 0));
    expect(p.things![first]).toMatchObject({ name: 'Tree 1', width_m: 6, points: [at(1, 2)] });
    expect(p.things![second]).toMatchObject({ name: 'Tree 2', width_m: 9 });
    expect(p.things![rock]!.name).toBe('Obstacle 1');
    expect(p.things![soil]!.soil).toBe('clay');
    expect(p.things![land.addThing(p, 'building', at(0, 0))]).toMatchObject({ earthed: true });
    expect(p.things![land.addThing(p, 'oldFence', at(0, 0))]).toMatchObject({ barbed: true });
    expect(p.things![land.addThing(p, 'burn', at(0, 0))]).toMatchObject({ width_m: 2 });
    land.extendThing(p, first, at(5, 6));
    land.moveThingPoint(p, first, 0, at(7, 8));
    land.moveThingPoint(p, first, 9, at(0, 0));
    land.moveThing(p, first, at(1, -1));
    land.moveThing(p, 'gone', at(1, 1));
    expect(p.things![first]!.points).toEqual([at(8, 7), at(6, 5)]);
  });

  it('a face without a name gets one when it is changed; one with a name keeps it', () => {
    const p = own([]);
    const id = land.setPaddock(p, { id: null, e: 5, n: 6, name: 'Paddock 1' }, { stock: { sheep: 3 } }); // prettier-ignore
    expect(p.paddocks![id]).toEqual({ id, name: 'Paddock 1', e: 5, n: 6, stock: { sheep: 3 }, use: 'grazing' }); // prettier-ignore
    expect(land.setPaddock(p, { id, e: 0, n: 0, name: 'Other' }, { name: 'Croft' })).toBe(id);
    expect(p.paddocks![id]).toMatchObject({ name: 'Croft', e: 5, stock: { sheep: 3 } });
  });
});
