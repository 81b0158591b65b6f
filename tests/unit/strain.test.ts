/** The mechanics of a strained run beside things outside the project: integration, general statics, facts of the trade. */
import { describe, expect, it } from 'vitest';
import { runCase } from '../../src/core/wire/runCase.js';
import { stateChangeExact } from '../../src/core/wire/elastic.js';
import { lateralPull, lateralPullInverse, noteOf, returnTime, tensionOfNote, wave } from '../../src/core/wire/pull.js'; // prettier-ignore
import { alike, bestSpan, leastOf, passes, pulledAlong, shapeOf, spanAt, spoolTurns, type Point3 } from '../../src/core/wire/run.js'; // prettier-ignore
import { sagFromH } from '../../src/core/wire/span.js';
import { stateChange } from '../../src/core/wire/temperature.js';
import { lockedAfter, slippedAfter, type WarmthInputs } from '../../src/core/wire/warmth.js';
import { sequence } from './farm.js';

const EA = 981_747.7;
const W = 0.377885;
const ALPHA = 1.15e-5;
const steel = { wire_weight_N_per_m: W, EA_N: EA, alpha_per_K: ALPHA };
const straight = (n: number, bay = 5): Point3[] => Array.from({ length: n + 1 }, (_, i) => [i * bay, 0, 0]); // prettier-ignore
const spool = { hand_tension_N: 50, spool_diameter_m: 0.03, wire_diameter_m: 0.0025 };
const run = (attachments_xyz_m: Point3[], at: number, more: object = {}) =>
  runCase({ attachments_xyz_m, tensioner_chainage_m: at, mu: 0.35, drag_N_per_post: 0, tension_applied_N: 1000, ...spool, ...steel, ...more }); // prettier-ignore

/** A random run over ground, with bends here and there. */
function wild(random: () => number, most = 60) {
  const n = 2 + Math.floor(random() * most);
  const points: Point3[] = [[0, 0, 0]];
  const rough = Math.floor(random() * 3) * 0.5;
  let way = 0;
  for (let k = 0; k < n; k++) {
    way += random() < 0.05 ? (random() - 0.5) * 3 : (random() - 0.5) * 0.05;
    const L = 1 + 12 * random();
    const [x, y, z] = points[k]!;
    points.push([x + L * Math.cos(way), y + L * Math.sin(way), z + (random() - 0.5) * L * rough]);
  }
  const shape = shapeOf(points);
  const supports = alike(shape, 0.5 * random(), 3 * random());
  const at = Math.floor(random() * n);
  const T = pulledAlong(shape, { supports, at, applied_N: 300 + 1700 * random(), hand_N: 50 });
  const change: WarmthInputs = {
    delta_theta_K: (random() - 0.5) * 90,
    weight_N_per_m: W,
    EA_N: EA,
    alpha_per_K: ALPHA,
    ...(random() < 0.5 ? { spring: { k_N_per_m: 20_000, at } } : {}),
  };
  return { points, shape, supports, at, T, change };
}

describe('facts of the trade', () => {
  it('a wheel tensioner in the middle of 305 m pulls 152 m each way; common practice', () => {
    const shape = shapeOf(straight(61));
    const at = spanAt(shape, shape.length_m / 2);
    const before = shape.chord_m.slice(0, at).reduce((a, b) => a + b, 0);
    expect(before).toBeCloseTo(150, 0);
    expect(Math.abs(shape.length_m - 2 * before - shape.chord_m[at]!)).toBeLessThan(1e-9);
  });
  it('one right angle at mu 0.35 passes 58 %; common practice', () => {
    const { tension_end_B_N } = run([[0, 0, 0], [10, 0, 0], [10, 10, 0]], 0); // prettier-ignore
    expect(tension_end_B_N / 1000).toBeCloseTo(0.577, 3);
  });
  it('10 K changes a tight fixed wire by 113 N; common practice', () => {
    const { tension_2_N } = stateChange({ tension_1_N: 1500, span_m: 4, delta_theta_K: -10, ...steel }); // prettier-ignore
    expect(tension_2_N - 1500).toBeCloseTo(113, 0);
  });
  it('take-up is about 1.1 mm by the metre at 1.1 kN; common practice', () => {
    const { wound_m } = run(straight(40), 0, { tension_applied_N: 1112 });
    expect(wound_m / 200).toBeGreaterThan(1.0e-3);
    expect(wound_m / 200).toBeLessThan(1.2e-3);
  });
});

describe('beside general references', () => {
  it('the catenary: length and sag by numerical integration of its slope', () => {
    const s = sagFromH({ H_N: 300, span_m: 30, rise_m: 4, wire_weight_N_per_m: W });
    // H y'' = w sqrt(1 + y'^2), from the slope at A, by Runge-Kutta.
    const n = 3000;
    const h = 30 / n;
    let [y, slope, length, mid] = [0, s.slope_A, 0, 0];
    const bend = (p: number) => (W / 300) * Math.sqrt(1 + p * p);
    for (let k = 0; k < n; k++) {
      if (k === n / 2) mid = y;
      const k1 = bend(slope);
      const k2 = bend(slope + (h / 2) * k1);
      const k3 = bend(slope + (h / 2) * k2);
      const k4 = bend(slope + h * k3);
      length += h * Math.sqrt(1 + (slope + (h / 2) * k1) ** 2);
      y += h * (slope + (h / 6) * (k1 + k2 + k3));
      slope += (h / 6) * (k1 + 2 * k2 + 2 * k3 + k4);
    }
    expect(y).toBeCloseTo(4, 6);
    expect(length).toBeCloseTo(s.length_exact_m, 6);
    expect(2 - mid).toBeCloseTo(s.sag_mid_exact_m, 6);
  });

  it('capstan friction: many small turns come to dT/ds = -mu T/R, integrated', () => {
    const [R, angle, n] = [20, 1.2, 400];
    const points: Point3[] = Array.from({ length: n + 1 }, (_, i) => [R * Math.sin((angle * i) / n), R * (1 - Math.cos((angle * i) / n)), 0]); // prettier-ignore
    const { tension_end_B_N } = run(points, 0);
    let T = 1000;
    for (let k = 0; k < 100_000; k++) T -= 0.35 * T * (angle / 100_000);
    expect(tension_end_B_N).toBeCloseTo(T, -1);
    expect(Math.abs(tension_end_B_N - T) / T).toBeLessThan(2e-3);
  });

  it('the elastic catenary: the state equation of practice is within 0.1 % on fence spans', () => {
    for (const [L, h, H, dT] of [[5, 0, 900, 30], [12, 3, 700, -40], [30, 6, 500, 25]] as const) {
      const s = stateChangeExact({ H_1_N: H, span_m: L, rise_m: h, delta_theta_K: dT, ...steel });
      expect(Math.abs(s.tension_mean_chord_2_state_equation_N / s.tension_mean_chord_2_N - 1)).toBeLessThan(1e-3); // prettier-ignore
    }
  }); // prettier-ignore

  it('a pull at mid-bay is what a bar pinned at both ends and stretched would want', () => {
    // Potential of the stretched wire, its slope taken numerically.
    const { force_exact_N } = lateralPull({ tension_N: 900, span_m: 6, deflection_m: 0.15, EA_N: EA, wire_length_m: 40 }); // prettier-ignore
    const energy = (d: number) => {
      const e = 2 * Math.hypot(3, d) - 6;
      return 900 * e + ((EA / 40) * e * e) / 2;
    };
    expect(force_exact_N).toBeCloseTo((energy(0.15 + 1e-6) - energy(0.15 - 1e-6)) / 2e-6, 3);
  });

  it('what was pulled is read back, held or sliding; a pull that no wire gives is refused', () => {
    for (const wire_length_m of [6, 40, 300]) {
      const i = { span_m: 6, EA_N: EA, wire_length_m, deflection_m: 0.06 };
      const { force_exact_N } = lateralPull({ ...i, tension_N: 800 });
      expect(lateralPullInverse({ ...i, force_N: force_exact_N }).tension_N).toBeCloseTo(800, 6);
    }
    expect(() => lateralPullInverse({ span_m: 5, EA_N: EA, wire_length_m: 5, deflection_m: 0.1, force_N: 20 })).toThrow(/held at both posts/); // prettier-ignore
  });

  it('the note of a bay and the returns of its pulse tell the same tension', () => {
    const m = 0.0385;
    expect(tensionOfNote(noteOf(950, 5, m), 5, m)).toBeCloseTo(950, 9);
    // A first mode is one return in each period.
    expect(returnTime({ mass_kg_per_m: m, returns: 7, length_m: 5, tension_N: 950 }) * noteOf(950, 5, m)).toBeCloseTo(7, 9); // prettier-ignore
    expect(wave({ mass_kg_per_m: m, returns: 5, length_m: 100, time_s: 6 }).tension_N).toBeCloseTo(m * (1000 / 6) ** 2, 9); // prettier-ignore
  });
});

describe('warmth', () => {
  it('held fast, each bay is its own span between fixed ends', () => {
    const shape = shapeOf(straight(3, 8));
    const T = Float64Array.of(900, 500, 300);
    const after = lockedAfter(shape, T, { delta_theta_K: 20, weight_N_per_m: W, EA_N: EA, alpha_per_K: ALPHA }); // prettier-ignore
    after.forEach((t, k) => {
      const alone = stateChange({ tension_1_N: T[k]!, span_m: 8, delta_theta_K: 20, ...steel });
      expect(t).toBeCloseTo(alone.tension_2_N, 6);
    });
  });

  it('sliding: every support sticks or slides to the greater pull at its limit, and no wire is lost', () => {
    const random = sequence(5);
    for (let trial = 0; trial < 250; trial++) {
      const { shape, supports, T, change } = wild(random, trial < 230 ? 60 : 400);
      const after = slippedAfter(shape, T, supports, change);
      const share = passes(shape, supports);
      const length = (k: number, t: number) => t * (shape.chord_m[k]! / EA + (change.spring?.at === k ? 1 / change.spring.k_N_per_m : 0)) - (shape.chord_m[k]! * (W * shape.across_m[k]!) ** 2) / 24 / t ** 2; // prettier-ignore
      let over = 0;
      after.forEach((t, k) => {
        over += length(k, T[k]!) - ALPHA * change.delta_theta_K * shape.chord_m[k]! - length(k, t);
        const next = after[k + 1];
        if (next === undefined) return;
        const [hi, lo] = [Math.max(t, next), Math.min(t, next)];
        const limit = hi * share[k]! - supports.drag_N[k]!;
        expect(limit - lo).toBeLessThan(1e-6 * hi);
        if (Math.abs(over) > 1e-7) {
          // Wire came over here: it was pulled by the greater, and friction was used up.
          expect(Math.abs(limit - lo)).toBeLessThan(1e-5 * hi);
          if (hi - lo > 1e-6 * hi) expect(over > 0).toBe(t >= next);
        }
      });
      expect(Math.abs(over)).toBeLessThan(1e-7);
    }
  });

  it('is what small steps of sliding, one support after another, come to in the end', () => {
    // An independent way: over and over, each support lets a little wire pass while it is pulled too hard.
    const random = sequence(11);
    for (let trial = 0; trial < 12; trial++) {
      const { shape, supports, T, change } = wild(random, 8);
      const share = passes(shape, supports);
      const n = T.length;
      const hang = Array.from({ length: n }, (_, k) => (shape.chord_m[k]! * (W * shape.across_m[k]!) ** 2) / 24); // prettier-ignore
      const give = Array.from({ length: n }, (_, k) => shape.chord_m[k]! / EA + (change.spring?.at === k ? 1 / change.spring.k_N_per_m : 0)); // prettier-ignore
      const want = Array.from(T, (t, k) => t * give[k]! - hang[k]! / t ** 2 - ALPHA * change.delta_theta_K * shape.chord_m[k]!); // prettier-ignore
      const at = (k: number): number => {
        let [low, high] = [1e-6, 1e6];
        for (let i = 0; i < 80; i++) {
          const mid = (low + high) / 2;
          if (mid * give[k]! - hang[k]! / mid ** 2 > want[k]!) high = mid;
          else low = mid;
        }
        return (low + high) / 2;
      };
      const now = Array.from({ length: n }, (_, k) => at(k));
      for (let sweep = 0; sweep < 30_000; sweep++) {
        let most = 0;
        for (let k = 0; k + 1 < n; k++) {
          const [l, r] = [now[k]!, now[k + 1]!];
          const excess = Math.max(l, r) * share[k]! - supports.drag_N[k]! - Math.min(l, r);
          if (excess <= 1e-7) continue;
          most = Math.max(most, excess);
          const moved = 0.4 * excess * Math.min(give[k]!, give[k + 1]!) * (l > r ? 1 : -1);
          want[k]! -= moved;
          want[k + 1]! += moved;
          now[k] = at(k);
          now[k + 1] = at(k + 1);
        }
        if (most < 1e-6) break;
      }
      const after = slippedAfter(shape, T, supports, change);
      // Relaxing has a history, and stops where each support first holds: the same but for a per cent of the pull.
      after.forEach((t, k) => expect(Math.abs(t - now[k]!)).toBeLessThan(0.02 * Math.max(t, 100)));
    }
  }, 60_000);

  it('never less on a colder night, never more on a hotter day, and the same run turned round', () => {
    const random = sequence(3);
    for (let trial = 0; trial < 60; trial++) {
      const { points, shape, supports, at, T, change } = wild(random, 40);
      const means = [-40, -20, 0, 20, 40].map((delta_theta_K) => {
        const after = slippedAfter(shape, T, supports, { ...change, delta_theta_K });
        return Math.max(...after);
      });
      means.slice(1).forEach((m, k) => expect(m).toBeLessThanOrEqual(means[k]! + 1e-6));
      const back = shapeOf([...points].reverse());
      const n = T.length;
      const turned = { mu: supports.mu.slice().reverse(), drag_N: supports.drag_N.slice().reverse() }; // prettier-ignore
      const { spring } = change;
      const other = slippedAfter(back, T.slice().reverse(), turned, { ...change, ...(spring ? { spring: { ...spring, at: n - 1 - at } } : {}) }); // prettier-ignore
      const here = slippedAfter(shape, T, supports, change);
      here.forEach((t, k) => expect(Math.abs(t - other[n - 1 - k]!)).toBeLessThan(1e-4 * t));
    }
  });

  it('a spring takes up of the swing what its own give is of all that gives', () => {
    // Level, no friction: k in series with EA/L.
    const shape = shapeOf(straight(20));
    const supports = alike(shape, 0, 0);
    const T = pulledAlong(shape, { supports, at: 10, applied_N: 1000, hand_N: 50 });
    const swing = (spring?: { k_N_per_m: number; at: number }) =>
      slippedAfter(shape, T, supports, { delta_theta_K: -30, weight_N_per_m: 1e-6, EA_N: EA, alpha_per_K: ALPHA, ...(spring ? { spring } : {}) })[0]! - 1000; // prettier-ignore
    const wire = 100 / EA;
    expect(swing({ k_N_per_m: 20_000, at: 10 }) / swing()).toBeCloseTo(wire / (wire + 1 / 20_000), 6); // prettier-ignore
  });
});

describe('along the run', () => {
  it('the best place leaves no less than any other', () => {
    const random = sequence(9);
    for (let trial = 0; trial < 60; trial++) {
      const { shape, supports } = wild(random, 50);
      const pull = { supports, applied_N: 1000, hand_N: 1 };
      const all = Array.from(shape.chord_m, (_, at) =>
        leastOf(pulledAlong(shape, { ...pull, at })),
      );
      expect(all[bestSpan(shape, pull)]).toBeCloseTo(Math.max(...all), 6);
      const allowed = (k: number) => k % 3 === 1;
      const some = all.filter((_, k) => allowed(k));
      if (some.length)
        expect(all[bestSpan(shape, pull, allowed)]).toBeCloseTo(Math.max(...some), 6);
    }
  });

  it('more friction never leaves more; separate runs never less than one that is wrapped', () => {
    const corner: Point3[] = [[0, 0, 0], [50, 0, 1], [100, 0, 0], [100, 60, 2], [100, 120, 0]]; // prettier-ignore
    const least = [0.1, 0.2, 0.3, 0.5].map((mu) => run(corner, 0, { mu }).tension_min_N);
    least.slice(1).forEach((t, k) => expect(t).toBeLessThan(least[k]!));
    const r = run(corner, 0, { split_at_posts: [2], compare: true });
    expect(r.split_tension_min_N).toBeGreaterThan(r.tension_min_N);
    expect(r.split_tension_min_N).toBeGreaterThan(r.middle_tension_min_N!);
  });

  it('a full layer of turns begins the next one further out', () => {
    const s = { diameter_m: 0.03, wire_m: 0.0025, perLayer: 4 };
    const first = 4 * Math.PI * 0.0325;
    expect(spoolTurns(first, s)).toBeCloseTo(4, 9);
    expect(spoolTurns(first + 2 * Math.PI * 0.0375, s)).toBeCloseTo(6, 9);
    expect(spoolTurns(first, { diameter_m: 0.03, wire_m: 0.0025 })).toBeCloseTo(4, 9);
  });

  it('refuses what is no run', () => {
    expect(() => shapeOf([[0, 0, 0]])).toThrow(/two attachments/);
    expect(() => shapeOf([[0, 0, 0], [0, 0, 0]])).toThrow(/one place/); // prettier-ignore
    expect(() => run(straight(4), 0, { split_at_posts: [3, 2] })).toThrow(/in order/);
    expect(() => run(straight(4), 0, { split_at_posts: [4] })).toThrow(/in order/);
  });
});
