/** Coils of several lengths, coils begun, short pieces: what must hold of any cutting, and small ones by all ways. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { evaluate } from '../../src/core/evaluate.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Grid, Plan } from '../../src/core/plan/schema.js';
import { cutWires } from '../../src/core/supplies/wireCuts.js';
import { groundOf } from '../../src/core/terrain/ground.js';
import { often } from '../often.js';
import { cutCoils } from '../../src/core/supplies/coils.js';
import {
  cutMixed,
  type MixedCutting,
  type MixedInputs,
} from '../../src/core/supplies/mixedCoils.js';

function chance(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 1_103_515_245 + 12_345) % 2_147_483_648) / 2_147_483_648;
}
const REELS = [
  { length_m: 1500, price: 139 },
  { length_m: 1000, price: 99 },
  { length_m: 500, price: 56 },
];

function job(seed: number): MixedInputs {
  const random = chance(seed);
  const n = 1 + Math.floor(random() * 25);
  const runs_m = Array.from({ length: n }, () => Math.round((15 + random() * (random() < 0.2 ? 2600 : 700)) * 10) / 10); // prettier-ignore
  const bay = 3 + random() * 8;
  return {
    runs_m,
    // Joins in the middle half of each bay, 5 m clear of the ends.
    places_m: runs_m.map((run) => {
      const out: [number, number][] = [];
      for (let a = 0; a + bay <= run; a += bay) {
        const [from, to] = [Math.max(a + bay / 4, 5), Math.min(a + (3 * bay) / 4, run - 5)];
        if (to > from) out.push([from, to]);
      }
      return out;
    }),
    shorts_m: Array.from({ length: Math.floor(random() * 40) }, () => Math.round((0.4 + random() * 14) * 10) / 10), // prettier-ignore
    reels: REELS.slice(Math.floor(random() * 3)),
    parts_m: Array.from({ length: Math.floor(random() * 4) }, () => Math.round(random() * 900 + 5)),
    join_price: random() < 0.2 ? 0 : random() * 12,
    min_piece_m: 20,
  };
}

/** What must be true of a cutting, whatever was asked. */
function holds(i: MixedInputs, c: MixedCutting): void {
  const cut = i.runs_m.map(() => 0);
  const pieces = i.runs_m.map(() => 0);
  const shorts = i.shorts_m.map(() => 0);
  for (const coil of c.coils) {
    const taken = coil.pieces.reduce((sum, p) => sum + p.length_m, 0) + coil.shorts.reduce((sum, s) => sum + Math.ceil(i.shorts_m[s]! * 10 - 1e-6) / 10, 0); // prettier-ignore
    expect(taken).toBeLessThanOrEqual(coil.length_m + 1e-6);
    expect(coil.left_m).toBeCloseTo(coil.length_m - taken, 6);
    if (coil.reel !== null) expect(coil.length_m).toBe(i.reels[coil.reel]!.length_m);
    for (const p of coil.pieces) {
      cut[p.run]! += p.length_m;
      pieces[p.run]!++;
      if (pieces[p.run]! > 1 || p.length_m < i.runs_m[p.run]! - 0.2) expect(p.length_m).toBeGreaterThanOrEqual(Math.min(i.min_piece_m, 250) - 1e-6); // prettier-ignore
      // Where it ends before its run does, a join may be.
      if (cut[p.run]! < i.runs_m[p.run]! - 0.5) {
        const at = cut[p.run]!;
        expect(i.places_m![p.run]!.some(([a, b]) => at >= a - 1e-6 && at <= b + 1e-6)).toBe(true);
      }
    }
    for (const s of coil.shorts) shorts[s]!++;
  }
  cut.forEach((m, run) => expect(m).toBeCloseTo(i.runs_m[run]!, 6));
  expect(shorts.every((n) => n === 1)).toBe(true);
  expect(c.joins).toBe(pieces.reduce((sum, n) => sum + n - 1, 0));
  const bought = c.coils.reduce((sum, coil) => sum + (coil.reel === null ? 0 : i.reels[coil.reel]!.price), 0); // prettier-ignore
  expect(c.cost).toBeCloseTo(bought + c.joins * i.join_price, 6);
  expect(c.cost).toBeGreaterThanOrEqual(c.lower_bound - 1e-9);
  // No coil that was begun is cut twice.
  const parts = [...i.parts_m];
  for (const coil of c.coils.filter((x) => x.reel === null)) {
    const at = parts.indexOf(coil.length_m);
    expect(at).toBeGreaterThanOrEqual(0);
    parts.splice(at, 1);
  }
}

describe('coils of several lengths', () => {
  it('jobs by lot: pieces add up to runs, no coil is overdrawn, joins fall where they may, never under the bound', () => {
    const over: number[] = [];
    for (let seed = 1; seed <= often(100, 1000); seed++) {
      const i = job(seed);
      const c = cutMixed(i, 40);
      holds(i, c);
      if (c.lower_bound > 0) over.push(c.cost / c.lower_bound - 1);
    }
    over.sort((a, b) => a - b);
    // The bound is near: half of them reach it within 1 %.
    expect(over[over.length >> 1]).toBeLessThan(0.01);
  });

  it('small jobs without joins cost what the cheapest of all ways costs (every set on its cheapest reel)', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const random = chance(900 + seed);
      const runs_m = Array.from({ length: 2 + Math.floor(random() * 6) }, () => Math.round(40 + random() * 900)); // prettier-ignore
      const i: MixedInputs = { runs_m, shorts_m: [], reels: REELS, parts_m: [], join_price: 1e6, min_piece_m: 20 }; // prettier-ignore
      const n = runs_m.length;
      const best = new Float64Array(1 << n).fill(Infinity);
      best[0] = 0;
      for (let set = 1; set < 1 << n; set++) {
        for (let group = set; group > 0; group = (group - 1) & set) {
          const sum = runs_m.reduce((s, r, k) => (group & (1 << k) ? s + r : s), 0);
          const reel = Math.min(...REELS.filter((r) => r.length_m >= sum).map((r) => r.price));
          best[set] = Math.min(best[set]!, best[set ^ group]! + reel);
        }
      }
      const c = cutMixed(i);
      holds({ ...i, places_m: runs_m.map((r) => [[0, r]]) }, c);
      expect(c.cost).toBeCloseTo(best[(1 << n) - 1]!, 6);
    }
  });

  it('with one reel and nothing else it costs what the plain cutting costs', () => {
    for (let seed = 1; seed <= often(6, 60); seed++) {
      const random = chance(40 + seed);
      const runs_m = Array.from({ length: 5 + Math.floor(random() * 12) }, () => Math.round(60 + random() * 900)); // prettier-ignore
      const plain = cutCoils({ run_lengths_m: runs_m, coil_length_m: 1500, coil_price: 139, join_price: 4, min_piece_m: 20 }); // prettier-ignore
      const c = cutMixed({ runs_m, shorts_m: [], reels: [REELS[0]!], parts_m: [], join_price: 4, min_piece_m: 20 }); // prettier-ignore
      expect(c.cost).toBeLessThanOrEqual(plain.cost + 1e-9);
      expect(c.lower_bound).toBeLessThanOrEqual(plain.cost + 1e-9);
    }
  });

  it('what lies in the shed is used before anything is bought', () => {
    const c = cutMixed({ runs_m: [300, 200], shorts_m: [], reels: [REELS[0]!], parts_m: [520], join_price: 4, min_piece_m: 20 }); // prettier-ignore
    expect(c).toMatchObject({ cost: 0, joins: 0 });
    expect(c.coils.map((x) => x.reel)).toEqual([null]);
    // Two that were begun and a run between: a join is cheaper than a coil.
    const two = cutMixed({ runs_m: [500], shorts_m: [], reels: [REELS[0]!], parts_m: [300, 260], join_price: 4, min_piece_m: 20 }); // prettier-ignore
    expect(two).toMatchObject({ cost: 4, joins: 1 });
    const dear = cutMixed({ runs_m: [500], shorts_m: [], reels: [REELS[0]!], parts_m: [300, 260], join_price: 400, min_piece_m: 20 }); // prettier-ignore
    expect(dear).toMatchObject({ cost: 139, joins: 0 });
  });

  it('short pieces make a coil of their own only where nothing else has room', () => {
    const with100 = (shorts_m: number[]) => cutMixed({ runs_m: [1450], shorts_m, reels: REELS, parts_m: [], join_price: 4, min_piece_m: 20 }); // prettier-ignore
    expect(with100([20, 20]).cost).toBe(139);
    // 1450 + 60: three of 500 are as long but dearer than one more of 500 beside the 1500.
    expect(with100([20, 20, 20]).cost).toBe(139 + 56);
  });

  it('a run longer than any coil is joined where a join may fall, and refused is only what cannot be', () => {
    const c = cutMixed({ runs_m: [3200], places_m: [[[100, 1400], [1600, 3000]]], shorts_m: [], reels: REELS, parts_m: [], join_price: 4, min_piece_m: 20 }); // prettier-ignore
    expect(c.joins).toBeGreaterThanOrEqual(2);
    expect(() => cutMixed({ runs_m: [-1], shorts_m: [], reels: REELS, parts_m: [], join_price: 4, min_piece_m: 20 })).toThrow('above 0'); // prettier-ignore
    expect(() => cutMixed({ runs_m: [1], shorts_m: [], reels: [], parts_m: [], join_price: 4, min_piece_m: 20 })).toThrow('reels'); // prettier-ignore
    expect(() => cutMixed({ runs_m: [1], shorts_m: [1600], reels: REELS, parts_m: [], join_price: 4, min_piece_m: 20 })).toThrow('shorts_m'); // prettier-ignore
    expect(() => cutMixed({ runs_m: [1], shorts_m: [], reels: REELS, parts_m: [], join_price: NaN, min_piece_m: 20 })).toThrow('join'); // prettier-ignore
    expect(cutMixed({ runs_m: [], shorts_m: [], reels: REELS, parts_m: [], join_price: 1, min_piece_m: 20 })).toMatchObject({ cost: 0, coils: [] }); // prettier-ignore
  });
});

describe('coils of the demo', () => {
  const demo = JSON.parse(readFileSync('demo/hollin-scar.plan.json', 'utf8')) as Plan & { grids?: Record<string, Grid> }; // prettier-ignore
  const { grids = {}, ...plan } = demo;
  const own = { ...plan, grids } as Plan;
  const r = evaluate(own, groundOf(own, grids), catalogue, { mends: 0 });

  it('every strand of every run is cut once, at its length; no join within 5 m of an end or tensioner, nor beside a post', () => {
    // Short coils alone: many joins.
    const cat = structuredClone(catalogue);
    cat.wires['ht25']!.coil_m = 240;
    for (const item of ['reel.ht25.500', 'reel.ht25.1000']) delete cat.prices[item];
    const cut = cutWires(own, r, cat).find((c) => c.wire === 'ht25')!;
    expect(cut.fault).toBeUndefined();
    const strands = Object.values(own.lines).reduce((sum, l) => sum + r.lines[l.id]!.runs.length * l.strands.filter((s) => s.wire === 'ht25' && !s.kept).length, 0); // prettier-ignore
    expect(cut.runs).toHaveLength(strands);
    expect(cut.joined).toHaveLength(cut.cutting.joins);
    expect(cut.joined.length).toBeGreaterThan(60);
    for (const j of cut.joined) {
      const of = r.lines[j.line]!;
      const run = of.runs[j.run]!;
      const posts = of.posts.filter((p) => p.s_m >= run.from_m - 0.01 && p.s_m <= run.to_m + 0.01);
      const tapes = posts.map((p) => p.tape_m - posts[0]!.tape_m);
      expect(j.along_m).toBeGreaterThanOrEqual(5 - 0.06);
      expect(j.along_m).toBeLessThanOrEqual(run.ground_m - 5 + 0.06);
      const k = tapes.findIndex((t) => t > j.along_m);
      const bay = tapes[k]! - tapes[k - 1]!;
      expect(Math.min(j.along_m - tapes[k - 1]!, tapes[k]! - j.along_m)).toBeGreaterThan(bay / 4 - 0.06); // prettier-ignore
      const at = of.strain.find((s) => s.run === j.run && s.wire === 'ht25')!.at_m;
      const p = posts.findIndex((x) => x.s_m >= at);
      const share = (at - posts[p - 1]!.s_m) / (posts[p]!.s_m - posts[p - 1]!.s_m);
      const taped = tapes[p - 1]! + share * (tapes[p]! - tapes[p - 1]!);
      if (own.lines[j.line]!.tensioner) expect(Math.abs(j.along_m - taped)).toBeGreaterThan(4.9);
    }
  });

  it('as it is sold the bound is reached: no cutting costs less, and everything short comes off what is left', () => {
    const cut = cutWires(own, r, catalogue).find((c) => c.wire === 'ht25')!;
    expect(cut.cutting.cost).toBeCloseTo(cut.cutting.lower_bound, 6);
    const shorts = cut.cutting.coils.flatMap((c) => c.shorts);
    expect(new Set(shorts).size).toBe(cut.shorts.length);
    // Brace wires as many metres as they were counted.
    const braces = cut.shorts.filter((s) => s.use === 'brace wires').reduce((sum, s) => sum + s.length_m, 0); // prettier-ignore
    expect(braces).toBeCloseTo(r.supplies.find((s) => s.id === 'wire.ht25')!.uses!['brace wires']!, 3); // prettier-ignore
  });
});
