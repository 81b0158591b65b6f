import { readFileSync } from 'node:fs';
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeLine } from '../../src/core/edit/placeLine.js';
import { runJobs, solveRun } from '../../src/core/posts/arrange.js';
import { allowed, type PlacementInputs } from '../../src/core/posts/limits.js';
import { place } from '../../src/core/posts/placement.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { ownCatalogue } from '../../src/core/plan/ownCatalogue.js';
import { barPosts, movePost, removePin, setEqual, setPin } from '../../src/core/plan/pins.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { groundOf, type Ground } from '../../src/core/terrain/ground.js';
import { applyPatch, edit } from '../../src/formats/patch.js';
import { parsePlan } from '../../src/formats/planFile.js';
import { line, plan, report } from './scene.js';

/** Rough ground along the x axis, from a few waves. */
const rough = (heights: readonly number[]): Ground => ({
  kind: 'grid',
  east0_m: -5,
  north0_m: -5,
  cell_m: 2,
  cols: 120,
  rows: 6,
  z_m: Array.from({ length: 720 }, (_, k) => {
    const x = (k % 120) * 2;
    return heights.reduce((z, h, i) => z + h * Math.sin(x / (6 + 7 * i)), 0);
  }),
});
const WAVES = rough([0.12, 0.3, 0.5]);
const long = (part: Parameters<typeof line>[2] = {}): Plan =>
  plan([line('a', [[0, 0], [90, 0], [200, 3]], part)]); // prettier-ignore
const change = (p: Plan, recipe: (d: Plan) => void): Plan => edit(p, recipe).next;

function placed(p: Plan, ground: Ground, id = 'a') {
  const cat = ownCatalogue(catalogue, p);
  const { requirement } = report(p, ground).lines[id]!;
  const { arrangement, patch } = placeLine(p, id, ground, requirement, cat);
  const next = patch && applyPatch(p, patch);
  return { arrangement, next, after: next && report(next, ground) };
}
const judged = ['post-lifts', 'clearance', 'bays-too-long', 'post-barred'];

describe('posts placed by the ground', () => {
  it('keep every limit that the findings hold them to, and need no more posts than equal bays', () => {
    const wave = fc.double({ min: 0, max: 0.5, noNaN: true });
    fc.assert(
      fc.property(fc.array(wave, { minLength: 2, maxLength: 4 }), (heights) => {
        const ground = rough(heights);
        const { arrangement, after } = placed(long(), ground);
        for (const run of arrangement.runs) {
          if (run.best && run.uniform) {
            expect(run.best.cost).toBeLessThanOrEqual(run.uniform.cost + 1e-6);
          }
          if (!run.best) expect(run.uniform).toBeNull();
        }
        if (!after) return;
        expect(after.findings.filter((f) => judged.includes(f.rule))).toEqual([]);
      }),
      { numRuns: 25 },
    );
  });

  it('on the roughest line of the demo: at least as few posts as any equal spacing that keeps the limits', () => {
    const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
    const ground = groundOf(demo.plan, demo.grids);
    const r = report(demo.plan, ground);
    const spread = (id: string) =>
      r.lines[id]!.clearance!.high.gap_m - r.lines[id]!.clearance!.low.gap_m;
    const id = Object.keys(demo.plan.lines).reduce((a, b) => (spread(b) > spread(a) ? b : a));
    const { arrangement } = placed(demo.plan, ground, id);
    for (const run of arrangement.runs) {
      expect(run.best).not.toBeNull();
      if (run.uniform)
        expect(run.best!.intermediate_posts).toBeLessThanOrEqual(run.uniform.intermediate_posts);
    }
  });

  it('bends and pins stand where they are, barred stretches stay free, equal bays are equal', () => {
    let p = change(long(), (d) => {
      setPin(d, 'a', 31.3, { kind: 'timber-210' });
      barPosts(d, 'a', 50, 53, 'rock');
      setEqual(d, 'a', 120, 150);
    });
    const { next, after } = placed(p, WAVES);
    p = next!;
    const posts = after!.lines['a']!.posts;
    expect(posts.find((x) => Math.abs(x.s_m - 31.3) < 1e-6)).toMatchObject({
      kind: 'timber-210',
      fixed: true,
    });
    expect(posts.filter((x) => x.s_m > 50 && x.s_m < 53)).toEqual([]);
    expect(posts.some((x) => Math.abs(x.s_m - 90) < 1e-6 && x.role === 'bend')).toBe(true);
    const tape = posts
      .filter((x) => x.s_m >= 120 - 1e-6 && x.s_m <= 150 + 1e-6)
      .map((x) => x.tape_m);
    const bays = tape.slice(1).map((g, i) => g - tape[i]!);
    expect(Math.max(...bays) - Math.min(...bays)).toBeLessThan(1e-6);
  });

  it('posts once placed stay where they are when the make-up changes', () => {
    const { next } = placed(long(), WAVES);
    const after = change(next!, (d) => void (d.lines['a']!.strands[4]!.height_m = 1));
    const at = (p: Plan) => report(p, WAVES).lines['a']!.posts.map((x) => x.s_m);
    expect(at(after)).toEqual(at(next!));
  });

  it('where nothing goes, each limit that frees it alone is named with the least loosening', () => {
    // A ditch of two metres' width that no chord of allowed clearance spans.
    const ditch: Ground = {
      ...(rough([0]) as Extract<Ground, { kind: 'grid' }>),
      z_m: Array.from({ length: 720 }, (_, k) => ([50, 51].includes(k % 120) ? -1.2 : 0)),
    };
    const p = change(long({ maxBay_m: 8 }), (d) => barPosts(d, 'a', 92.9, 99.1, 'ditch'));
    const { arrangement, next } = placed(p, ditch);
    expect(next).toBeNull();
    const stuck = arrangement.runs.find((r) => r.stuck)!;
    expect(stuck.stuck!.at_m).toBeGreaterThan(80);
    expect(stuck.stuck!.at_m).toBeLessThan(105);
    const hollow = stuck.stuck!.loosen.find((l) => l.limit === 'hollow')!;
    const requirement = report(p, ditch).lines['a']!.requirement;
    const [job] = runJobs(p.lines['a']!, [], ditch, requirement, p, catalogue);
    const at = (clearance_max_m: number) => place({ ...job!.inputs, clearance_max_m }).feasible;
    expect([at(hollow.needed), at(hollow.needed - 0.01)]).toEqual([true, false]);
    expect(solveRun(job!).best).toBeNull();
  });

  it('the cheapest of all layouts with pins and barred places, by exhaustive search', () => {
    // Source: every subset of places is tried; only those that keep the limits count.
    const heights = fc.array(fc.double({ min: -0.25, max: 0.25, noNaN: true }), {
      minLength: 9,
      maxLength: 9,
    });
    fc.assert(
      fc.property(
        heights,
        fc.integer({ min: 1, max: 7 }),
        fc.integer({ min: 1, max: 7 }),
        (z, pin, bar) => {
          const p: PlacementInputs = {
            ground_s_m: z.map((_, i) => 2 * i),
            ground_z_m: z,
            strands: 5,
            tension_N: 1000,
            wire_weight_N_per_m: 0.378,
            wire_height_low_m: 0.15,
            clearance_min_m: 0.02,
            clearance_max_m: 0.45,
            max_spacing_m: 7,
            min_spacing_m: 1,
            safety_factor: 1.5,
            post_kinds: [
              { name: 'light', price: 5, pullout_capacity_N: 600 },
              { name: 'stout', price: 12, pullout_capacity_N: 4000 },
            ],
            musts: [{ at: pin }],
            barred: z.map((_, i) => i === bar && bar !== pin),
          };
          let best = Infinity;
          for (let bits = 0; bits < 128; bits++) {
            const inner = [1, 2, 3, 4, 5, 6, 7].filter((k) => bits & (1 << (k - 1)));
            if (!inner.includes(pin)) continue;
            const posts = [0, ...inner, 8];
            if (!allowed(p, posts)) continue;
            const price = posts.slice(1, -1).reduce((sum, j, m) => {
              const rise = (a: number, b: number) =>
                (z[b]! - z[a]!) / Math.hypot(2 * (b - a), z[b]! - z[a]!);
              const [i, k] = [posts[m]!, posts[m + 2]!];
              const pull = 5000 * (-rise(i, j) + rise(j, k)) - (5 * 0.378 * (Math.hypot(2 * (j - i), z[j]! - z[i]!) + Math.hypot(2 * (k - j), z[k]! - z[j]!))) / 2; // prettier-ignore
              return sum + (Math.max(0, pull) <= 400 + 1e-9 ? 5 : 12);
            }, 0);
            best = Math.min(best, price);
          }
          const found = place(p);
          if (best === Infinity) expect(found.feasible).toBe(false);
          else expect(found).toMatchObject({ feasible: true, cost: best });
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('pins', () => {
  it('a placed post that is pinned is no second post, and stays when it is let go', () => {
    const { next } = placed(long(), WAVES);
    const count = (p: Plan) => report(p, WAVES).lines['a']!.posts.length;
    const s = next!.lines['a']!.placed![3]!.at_m;
    const pinned = change(next!, (d) => setPin(d, 'a', s, {}));
    expect(count(pinned)).toBe(count(next!));
    const free = change(pinned, (d) => removePin(d, 'a', s));
    expect(free.lines['a']!.placed).toEqual(next!.lines['a']!.placed);
    const moved = change(next!, (d) => movePost(d, 'a', s, s + 0.6, null));
    expect(count(moved)).toBe(count(next!));
    expect(moved.lines['a']!.pins).toEqual([{ at_m: s + 0.6, kind: null }]);
  });
});
