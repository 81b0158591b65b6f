/** What stays the same by identity, so that a change works out only what it touched. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { memoOn, steady } from '../../src/core/base/memo.js';
import { createEvaluator, evaluate } from '../../src/core/evaluate.js';
import { createPipeline } from '../../src/core/pipeline.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { moveVertex } from '../../src/core/edit/edits.js';
import { snap } from '../../src/core/plan/snap.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { groundOf } from '../../src/core/terrain/ground.js';
import { slopeOf } from '../../src/core/terrain/relief.js';
import { edit } from '../../src/formats/patch.js';
import { parsePlan } from '../../src/formats/planFile.js';
import { ALL } from '../often.js';
import { energiser, FLAT, line, plan } from './scene.js';

const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
const ground = groundOf(demo.plan, demo.grids);
/** Mends follow by the same memory; `tracked.test.ts` tries them on a smaller plan. */
const quick = { mends: ALL ? Infinity : 0 };

describe('memory of the pipeline', () => {
  it('a table made anew keeps the rows that say the same', () => {
    const keep = steady<number[]>((a, b) => a.join() === b.join());
    const first = keep({ a: [1, 2], b: [3] });
    const second = keep({ a: [1, 2], b: [4], c: [5] });
    expect(second['a']).toBe(first['a']);
    expect(second['b']).toEqual([4]);
    expect(keep({ a: [1, 2] })['a']).toBe(first['a']);
  });

  it('an answer is kept for as long as all that it rests on is the same', () => {
    const memory = memoOn<number>();
    const [x, y] = [{}, {}];
    let made = 0;
    const get = (...on: unknown[]) => memory.get('k', on, () => ++made);
    expect([get(x, y), get(x, y), get(y, x), get(y)]).toEqual([1, 1, 2, 3]);
    memory.keep(new Set());
    expect(get(y)).toBe(4);
  });

  it('on a line with a gate: lines that do not meet it keep their reports, and all is as from nothing', () => {
    const known = createEvaluator();
    const before = known(demo.plan, ground, catalogue, quick);
    const move = (d: Plan) => moveVertex(d, 'mid-e', 1, { e: 702, n: 356 });
    const { next } = edit(demo.plan, move);
    const after = known(next, ground, catalogue, quick);
    expect(after).toEqual(evaluate(next, ground, catalogue, quick));
    const same = Object.keys(after.lines).filter((id) => after.lines[id] === before.lines[id]);
    expect(same.length).toBeGreaterThanOrEqual(Object.keys(after.lines).length - 5);
  });

  it('in the hand the volts stay as they were, the ground does not; at rest all is as from nothing', () => {
    const known = createEvaluator();
    const before = known(demo.plan, ground, catalogue, quick);
    const { next } = edit(demo.plan, (d) => moveVertex(d, 'mid-e', 1, { e: 702, n: 356 }));
    const held = known(next, ground, catalogue, { ...quick, hurry: true });
    const rest = known(next, ground, catalogue, quick);
    expect(held.energisers).toEqual(before.energisers);
    expect(rest.energisers).not.toEqual(before.energisers);
    expect(held.lines).toEqual(rest.lines);
    // What is found and bought waits too; when the volts alone are behind it does not.
    expect([held.findings, held.supplies]).toEqual([before.findings, before.supplies]);
    const soon = known(next, ground, catalogue, { ...quick, hurry: 'volts' });
    expect(soon.supplies).toEqual(rest.supplies);
    expect(rest).toEqual(evaluate(next, ground, catalogue, quick));
    // Another line is another network: nothing of before can stand for it.
    const { next: fewer } = edit(next, (d) => void delete d.lines['hay']);
    expect(known(fewer, ground, catalogue, { ...quick, hurry: true }).energisers).toEqual(
      evaluate(fewer, ground, catalogue, quick).energisers,
    );
  });

  it('parts that nobody looks at say what they said, and at rest what is so', () => {
    const known = createEvaluator();
    const before = known(demo.plan, ground, catalogue, quick).lines['mid-e']!;
    const { next } = edit(demo.plan, (d) => moveVertex(d, 'mid-e', 1, { e: 702, n: 356 }));
    const held = known(next, ground, catalogue, { ...quick, hurry: true, left: ['wire'] }).lines['mid-e']!; // prettier-ignore
    expect(held.strain).toBe(before.strain);
    expect(held.posts).not.toBe(before.posts);
    expect(known(next, ground, catalogue, quick)).toEqual(evaluate(next, ground, catalogue, quick));
  });

  it('networks are the same whether their volts are asked or not', () => {
    const [plain, whole] = (['networks', false] as const).map((hurry) => createPipeline()(demo.plan, ground, catalogue, { hurry }).whole.power); // prettier-ignore
    for (const key of ['wired', 'topology', 'groups', 'shared'] as const)
      expect(plain![key]).toEqual(whole![key]);
  });

  it('a network keeps its figures while another is changed', () => {
    const p = plan(
      [line('a', [[0, 0], [300, 0]]), line('b', [[0, 90], [300, 90]])], // prettier-ignore
      {
        energisers: {
          unit: energiser('a', 0),
          two: energiser('b', 0, { id: 'two', e: 0, n: 120 }),
        },
      },
    );
    const known = createEvaluator();
    const before = known(p, FLAT, catalogue);
    const { next } = edit(p, (d) => moveVertex(d, 'b', 1, { e: 320, n: 90 }));
    const after = known(next, FLAT, catalogue);
    expect(after.energisers['unit']).toBe(before.energisers['unit']);
    expect(after.energisers['two']).not.toBe(before.energisers['two']);
  });
});

describe('the hand on the map', () => {
  it('catches on a rim only where no line is near', () => {
    const lines = { a: line('a', [[0, 0], [100, 0]]) }; // prettier-ignore
    const rim = [[{ e: 0, n: 20 }, { e: 100, n: 20 }]]; // prettier-ignore
    expect(snap(lines, { e: 50, n: 19 }, 3, undefined, rim)).toMatchObject({
      to: 'land',
      point: { e: 50, n: 20 },
    });
    expect(snap(lines, { e: 50, n: 1 }, 3, undefined, rim).to).toBe('line');
    expect(snap(lines, { e: 99, n: 19 }, 3, undefined, rim).point).toEqual({ e: 100, n: 20 });
    expect(snap(lines, { e: 50, n: 10 }, 3, undefined, rim).to).toBe('free');
  });

  it('the slope of a plane is its grade everywhere, rims too', () => {
    const [cols, rows] = [6, 5];
    const z_m = Array.from({ length: 30 }, (_, k) => 3 * (k % cols) + 4 * Math.floor(k / cols));
    const slope = slopeOf({ east0_m: 0, north0_m: 0, cell_m: 10, cols, rows, z_m });
    // Source: gradient of a plane, sqrt(0.3² + 0.4²).
    for (const s of slope) expect(s).toBeCloseTo(0.5, 6);
  });
});
