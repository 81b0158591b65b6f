import fc from 'fast-check';
import { Matrix, solve } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { monotoneCubic } from '../../src/core/base/interpolate.js';
import { loadLine } from '../../src/core/power/loadLine.js';
import { solveFence, solveUnit, type Circuit } from '../../src/core/power/network.js';
import { factorise, minimumDegree, SymmetricBuilder } from '../../src/core/power/sparse.js';
import { lineConstants } from '../../src/core/pulse/lineConstants.js';

/** Random connected networks: a random tree, some loops, some leaks; conductances over 9 decades. */
const networks = fc.integer({ min: 2, max: 60 }).chain((n) =>
  fc.record({
    n: fc.constant(n),
    tree: fc.array(fc.tuple(fc.nat(), fc.double({ min: -6, max: 3, noNaN: true })), {
      minLength: n - 1,
      maxLength: n - 1,
    }),
    loops: fc.array(
      fc.tuple(
        fc.nat({ max: n - 1 }),
        fc.nat({ max: n - 1 }),
        fc.double({ min: -6, max: 3, noNaN: true }),
      ),
      { maxLength: n },
    ),
    leak: fc.double({ min: -5, max: 0, noNaN: true }),
  }),
);

function build({
  n,
  tree,
  loops,
  leak,
}: {
  n: number;
  tree: [number, number][];
  loops: [number, number, number][];
  leak: number;
}) {
  const sparse = new SymmetricBuilder(n);
  const dense = Matrix.zeros(n, n);
  const link = (a: number, b: number, g: number) => {
    if (a === b) return;
    sparse.between(a, b, g);
    dense.set(a, a, dense.get(a, a) + g);
    dense.set(b, b, dense.get(b, b) + g);
    dense.set(a, b, dense.get(a, b) - g);
    dense.set(b, a, dense.get(b, a) - g);
  };
  tree.forEach(([pick, power], k) => link(k + 1, pick % (k + 1), 10 ** power));
  for (const [a, b, power] of loops) link(a, b, 10 ** power);
  sparse.toReference(0, 10 ** leak);
  dense.set(0, 0, dense.get(0, 0) + 10 ** leak);
  return { sparse, dense };
}

describe('sparse solver', () => {
  it('agrees with a dense solver of a general library (ml-matrix) on random networks', () => {
    fc.assert(
      fc.property(networks, fc.nat(), (net, at) => {
        const { sparse, dense } = build(net);
        const b = new Float64Array(net.n);
        b[at % net.n] = 1;
        const x = factorise(sparse).solve(b);
        // The residual is judged, since an ill-conditioned dense solve is no better than ours.
        const y = solve(dense, Matrix.columnVector([...b])).to1DArray();
        const scale = Math.max(...y.map(Math.abs));
        const r = dense.mmul(Matrix.columnVector([...x])).to1DArray();
        const norm = Math.max(...dense.to1DArray().map(Math.abs)) * scale;
        r.forEach((v, i) => expect(Math.abs(v - b[i]!)).toBeLessThan(1e-12 * norm + 1e-9));
        x.forEach((v, i) => expect(Math.abs(v - y[i]!)).toBeLessThan(2e-6 * scale));
      }),
      { numRuns: 150 },
    );
  });

  it('orders every node once and says when a node hangs on nothing', () => {
    const order = minimumDegree(5, [0, 1, 2], [1, 2, 3]);
    expect([...order].sort()).toEqual([0, 1, 2, 3, 4]);
    const loose = new SymmetricBuilder(2);
    loose.toReference(0, 1);
    expect(() => factorise(loose)).toThrow('hangs on nothing');
  });
});

const single = (length_m: number, r: number, g: number): Circuit => ({
  strand_types: { w: { role: 'hot', r_ohm_per_km: r, g_s_per_km: g } },
  energiser: { location: 'A', hot_strands: ['s'], earth_strands: [], lead_ohm: 0.01 },
  r_earth_ohm: 0.02,
  sections: [{ id: 'L', from: 'A', to: 'B', length_m, strands: { s: 'w' } }],
  jumpers: [],
  shunts: [],
  breaks: [],
  probes: [],
});

describe('network', () => {
  it('gives an open leaking line the input resistance Zc coth(gamma l), published: line theory', () => {
    for (const [km, r, g] of [
      [1, 35, 6e-4],
      [5, 150, 2e-3],
      [20, 35, 1e-5],
    ] as const) {
      const gamma = Math.sqrt(r * g);
      const expected = Math.sqrt(r / g) / Math.tanh(gamma * km);
      // The lead and the earth stand in series with the line.
      expect((solveUnit(single(km * 1000, r, g)).r_in_ohm - 0.03) / expected).toBeCloseTo(1, 9);
    }
  });

  it('cut into pieces gives the same as in one: the two-port is exact', () => {
    const whole = single(4000, 150, 1e-3);
    const pieces = Array.from({ length: 16 }, (_, k) => ({
      id: `p${k}`,
      from: k === 0 ? 'A' : `n${k}`,
      to: k === 15 ? 'B' : `n${k + 1}`,
      length_m: 250,
      strands: { s: 'w' },
    }));
    const a = solveUnit(whole);
    const b = solveUnit({ ...whole, sections: pieces });
    expect(b.r_in_ohm / a.r_in_ohm).toBeCloseTo(1, 9);
    const at = (u: typeof a) => u.nodes.find((n) => n.location === 'B')!.v_v!;
    expect(at(b) / at(a)).toBeCloseTo(1, 9);
  });

  it('reports a strand that nothing feeds: 0 V when it leaks, null when nothing touches it', () => {
    const c = single(1000, 35, 1e-4);
    const dead = {
      ...c,
      strand_types: {
        ...c.strand_types,
        clean: { role: 'hot' as const, r_ohm_per_km: 35, g_s_per_km: 0 },
      },
      sections: [
        ...c.sections,
        { id: 'X', from: 'C', to: 'D', length_m: 500, strands: { s: 'w' } },
        { id: 'Y', from: 'E', to: 'F', length_m: 500, strands: { s: 'clean' } },
      ],
    };
    const nodes = solveUnit(dead).nodes;
    expect(nodes.find((n) => n.location === 'C')!.v_v).toBe(0);
    expect(nodes.find((n) => n.location === 'E')!.v_v).toBeNull();
  });

  it('gives open voltage when no current can return', () => {
    const c = single(1000, 35, 0);
    const out = solveFence({
      ...c,
      energiser: { ...c.energiser, load_line: { v_open_v: 8000, v_500_ohm_v: 5000 } },
    });
    expect(out.r_in_ohm).toBeNull();
    expect(out.i_out_a).toBe(0);
    expect(out.nodes.every((n) => n.v_v === 8000)).toBe(true);
  });
});

describe('load line', () => {
  const plate = {
    v_open_v: 9200,
    v_500_ohm_v: 6800,
    v_200_ohm_v: 4900,
    v_100_ohm_v: 3300,
    v_50_ohm_v: 2000,
  };
  it('passes through its rated points and falls all the way to a short', () => {
    const f = loadLine(plate);
    expect(f(500)).toBeCloseTo(6800, 6);
    expect(f(50)).toBeCloseTo(2000, 6);
    expect(f(Infinity)).toBe(9200);
    expect(f(0)).toBe(0);
    let last = Infinity;
    for (let r = 20000; r > 1; r /= 1.3) {
      expect(f(r)).toBeLessThan(last);
      last = f(r);
    }
  });
  it('refuses a plate whose volts rise as the load grows', () => {
    expect(() => loadLine({ v_open_v: 5000, v_500_ohm_v: 6000 })).toThrow('500 ohm');
    expect(() => loadLine({ v_open_v: 5000 })).toThrow('one load');
  });
  it('interpolates monotone data without overshoot, published: Fritsch-Carlson', () => {
    const f = monotoneCubic([0, 1, 2, 3], [0, 0, 1, 1]);
    for (let x = 0; x <= 3; x += 0.05) {
      expect(f(x)).toBeGreaterThanOrEqual(-1e-12);
      expect(f(x)).toBeLessThanOrEqual(1 + 1e-12);
    }
    expect(f(1.5)).toBeCloseTo(0.5, 9);
  });
});

describe('line constants', () => {
  // Source: reference set, kind line_constants (method of images), relative 1e-5.
  it.each([
    [[0.9], 1.45447968e-6, 7.64981506e-12],
    [[0.5, 0.9], 8.21618295e-7, 1.35421772e-11],
    [[0.3, 0.6, 0.95], 5.90603124e-7, 1.88392172e-11],
    [[0.2, 0.4, 0.65, 0.9, 1.15], 4.30497367e-7, 2.58456878e-11],
  ])('line constants of %j', (heights, l, c) => {
    const k = lineConstants({ wire_diameter_mm: 2.5, heights_m: heights });
    expect(Math.abs(k.l_external_h_per_m / l - 1)).toBeLessThan(1e-5);
    expect(Math.abs(k.c_f_per_m / c - 1)).toBeLessThan(1e-5);
  });
  it('with soil and wire added comes to about 240 ohm for five tied (reference set)', () => {
    const { l_external_h_per_m: l, c_f_per_m: c } = lineConstants({
      wire_diameter_mm: 2.5,
      heights_m: [0.2, 0.4, 0.65, 0.9, 1.15],
    });
    expect(Math.sqrt((l + 0.8e-6 + 1.3e-6 / 5) / c)).toBeCloseTo(240, -1);
  });
});
