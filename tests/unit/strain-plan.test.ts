/** Strain as a user meets it: settings that hold, tables, checks in the field, own wires and break tests, the rules. */
import { describe, expect, it } from 'vitest';
import { bothWays } from '../../src/core/bothWays.js';
import { reverseLine } from '../../src/core/edit/reshape.js';
import { checkPlan } from '../../src/core/check.js';
import { figure } from '../../src/core/plan/catalogue.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { ownCatalogue } from '../../src/core/plan/ownCatalogue.js';
import { brokenJoint, brokenOf, strengthOf } from '../../src/core/plan/ownFigures.js';
import type { Line, Plan } from '../../src/core/plan/schema.js';
import { byNote, byPull, bySpring, byTaps, returnOf } from '../../src/core/wire/checks.js';
import { dueOn } from '../../src/core/wire/creep.js';
import { driftOf, type Checked } from '../../src/core/wire/drift.js';
import { tighteningSteps } from '../../src/core/wire/order.js';
import { pitchOf } from '../../src/core/wire/pitch.js';
import { lateralPull, noteOf } from '../../src/core/wire/pull.js';
import { leftBySlip, springLength, springSolid, stringingTable, temperatures } from '../../src/core/wire/stringing.js'; // prettier-ignore
import { coldNight, hotDay } from '../../src/core/wire/strain.js';
import { reduced, setAt, setTo, strungIn, tensionsAt } from '../../src/core/wire/strung.js';
import { emptyOf, pushMost, windowOf } from '../../src/core/wire/window.js';
import { weakestJoint, wireOf } from '../../src/core/wire/wires.js';
import { sequence } from './farm.js';
import { flatRun, runOver } from './runs.js';
import { FLAT, line, plan, report, strands } from './scene.js';

const five = new Array<number>(20).fill(5);
const a = (part: Partial<Line> = {}) => line('a', [[0, 0], [100, 0]], part); // prettier-ignore
const climate = { cold_C: -15, today_C: 12, hot_C: 35 };
const found = (p: Plan, rule: string) => report(p).findings.filter((f) => f.rule === rule);
const tools = { bay_m: 5, moved_m: 0.1, slides_m: null, returns: 10, over_m: 100, slip_m: 0.01 };

describe('the window of settings', () => {
  const asked = (part: Partial<Line> = {}, bays = five, push_m: number | null = null) => ({ line: a(part), bayed: flatRun(bays), wire: 'ht25', climate, push_m }); // prettier-ignore

  it('holds at both its ends and no further', () => {
    for (const bays of [five, new Array<number>(12).fill(12), [5, 18, 5, 5]]) {
      const w = windowOf(asked({}, bays), catalogue);
      const s = strungIn(a(), flatRun(bays), 'ht25', catalogue);
      const limit = figure(catalogue, 'wire.sagLimit');
      const hot = (set: number) => hotDay(a(), setTo(s, set, catalogue), climate, 100, catalogue).sagHot_m; // prettier-ignore
      const cold = (set: number) => coldNight(setTo(s, set, catalogue), climate);
      expect(cold(w.high_N - 1)).toBeLessThan(w.limit_N);
      expect(cold(w.high_N + 1)).toBeGreaterThan(w.limit_N);
      if (w.low_N > 31) {
        expect(hot(w.low_N + 1)).toBeLessThan(limit);
        expect(hot(w.low_N - 1)).toBeGreaterThan(limit);
      }
      expect(w.stop_N).toBeGreaterThan(w.high_N);
    }
  });

  it('is widened by a spring, by better joints, by shorter bays; narrowed by a harder climate', () => {
    const width = (part: Partial<Line> = {}, bays = five, push: number | null = 0.12) => {
      const w = windowOf(asked(part, bays, push), catalogue);
      return w.high_N - w.low_N;
    };
    expect(width({ springs: true })).toBeGreaterThan(width() + 20);
    expect(width({ tie: 'sleeves4', join: 'sleeves4' })).toBeGreaterThan(width() + 100);
    expect(width({}, new Array<number>(40).fill(2.5))).toBeGreaterThan(width());
    const hard = windowOf({ ...asked({}, five, 0.12), climate: { cold_C: -30, today_C: 12, hot_C: 45 } }, catalogue); // prettier-ignore
    expect(hard.high_N - hard.low_N).toBeLessThan(width());
  });

  it('is empty just where no setting passes', () => {
    for (const bays of [
      [5, 5],
      [30, 30],
      [60, 60],
    ]) {
      for (const wire of ['ht25', 'mt20']) {
        const ask = { ...asked({ strands: strands([0.5], { wire }) }, bays), wire };
        const w = windowOf(ask, catalogue);
        expect(emptyOf(ask, catalogue)?.low_N ?? null).toBe(w.low_N > w.high_N ? w.low_N : null);
      }
    }
  });

  it('says whether sag or push decides the least', () => {
    expect(windowOf(asked({}, five, 0.05), catalogue).lowBy).toBe('push');
    expect(windowOf(asked({}, new Array<number>(5).fill(20), 5), catalogue).lowBy).toBe('sag');
  });

  it('a push is allowed what the strictest gap of the line leaves each of two strands', () => {
    const l = a();
    const marks = report(plan([l])).lines['a']!.marks;
    const push = pushMost(l, { marks }, catalogue)!;
    expect(push).toBeGreaterThan(0.02);
    expect(pushMost(l, { marks: [] }, catalogue)).toBeNull();
    const tight = marks.map((m) => (m.about === 'opening' ? { ...m, limit: m.limit / 2 } : m));
    expect(pushMost(l, { marks: tight }, catalogue)!).toBeLessThan(push);
  });
});

describe('the stringing table', () => {
  const s = strungIn(a(), flatRun(five), 'ht25', catalogue);

  it('has the steps and the day, falls with warmth, and passes through the school', () => {
    expect(temperatures(15)).toEqual([-10, -5, 0, 5, 10, 15, 20, 25, 30, 35, 40]);
    expect(temperatures(12)[5]).toBe(12);
    const rows = stringingTable(s, temperatures(15), tools, catalogue);
    expect(rows[5]!.tension_N).toBeCloseTo(1000, 6);
    rows.slice(1).forEach((r, k) => {
      const before = rows[k]!;
      expect(r.tension_N).toBeLessThan(before.tension_N);
      expect(r.sag_m).toBeGreaterThan(before.sag_m);
      expect(r.time_s).toBeGreaterThan(before.time_s);
      expect(r.pull_N).toBeLessThan(before.pull_N);
      expect(r.turns).toBeLessThan(before.turns);
    });
  });

  it('each tool tells the tension that is to be set', () => {
    const [row] = stringingTable(s, [5], tools, catalogue);
    const m = wireOf('ht25', catalogue).mass_kg_per_m;
    expect(m * (2000 / row!.time_s) ** 2).toBeCloseTo(row!.tension_N, 6);
    const held = { span_m: 5, EA_N: s.steel.EA_N, wire_length_m: 5, deflection_m: 0.1 };
    expect(lateralPull({ ...held, tension_N: row!.tension_N }).force_exact_N).toBeCloseTo(row!.pull_N, 9); // prettier-ignore
    // Held fast the same movement takes much more than where the wire slides.
    const [slides] = stringingTable(s, [5], { ...tools, slides_m: 100 }, catalogue);
    expect(row!.pull_N).toBeGreaterThan(1.3 * slides!.pull_N);
    expect(row!.spring_m).toBeNull();
    // Both ties slip: as much again for the second.
    const [none] = stringingTable(s, [5], { ...tools, slip_m: 0 }, catalogue);
    expect(row!.wound_m - none!.wound_m).toBeCloseTo(0.02, 9);
    expect(row!.turns).toBeGreaterThan(none!.turns);
  });

  it('with a spring: its length, no longer than its travel, and a table that is flatter', () => {
    const sprung = strungIn(a({ springs: true }), flatRun(five), 'ht25', catalogue);
    const rows = stringingTable(sprung, [-10, 40], tools, catalogue);
    const plain = stringingTable(s, [-10, 40], tools, catalogue);
    expect(rows[0]!.tension_N - rows[1]!.tension_N).toBeLessThan(0.75 * (plain[0]!.tension_N - plain[1]!.tension_N)); // prettier-ignore
    expect(rows[0]!.spring_m).toBeCloseTo(0.25 + rows[0]!.tension_N / 20_000, 9);
    expect(springLength(1e6, catalogue)).toBeCloseTo(0.35, 9);
    expect(springSolid(catalogue)).toBeCloseTo(2000, 9);
  });

  it('what was measured warm or cold is put at 15 degrees, and comes back', () => {
    for (const c of [-10, 5, 30]) expect(reduced(s, setAt(s, c), c)).toBeCloseTo(1000, 1);
    expect(() => reduced(s, 0, 5)).toThrow(/above 0/);
  });

  it('what knots leave: less the shorter the run, nothing below nothing', () => {
    const { EA_N } = wireOf('ht25', catalogue);
    const left = [20, 50, 100, 200, 400].map((L) => leftBySlip(1000, L, 0.02, EA_N));
    left.slice(1).forEach((t, k) => expect(t).toBeGreaterThan(left[k]!));
    expect(left[2]).toBeCloseTo(1000 - (EA_N * 0.02) / 100, 6);
    expect(leftBySlip(1000, 5, 0.02, EA_N)).toBe(0);
  });

  it('two passes from the top down, what is kept left out', () => {
    const l = a({ strands: [...strands([0.3], { kept: true }), ...strands([0.5, 0.8])] });
    const steps = tighteningSteps(l, [{ wire: 'ht25', today_N: 1000 }], { newtons: (n) => `${n} N` }); // prettier-ignore
    expect(steps.join(' ')).toMatch(/strand 3, 2, from the top down: to 600 N.*to the full setting, today 1000 N/); // prettier-ignore
    expect(steps.join(' ')).not.toMatch(/spring/);
    const sprung = tighteningSteps({ ...l, springs: true }, [], { newtons: String });
    expect(sprung.join(' ')).toMatch(/match the others/);
  });
});

describe('checks in the field', () => {
  const m = wireOf('ht25', catalogue).mass_kg_per_m;
  const known = 1000;
  const period = 200 * Math.sqrt(m / known);

  it('ten taps with 5 % jitter tell a known wire to within 3 %, and their own error', () => {
    const random = sequence(21);
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let within = 0;
    let said = 0;
    for (let trial = 0; trial < 400; trial++) {
      const taps = Array.from({ length: 10 }, (_, k) => 3 + period * (k + 0.05 * normal()));
      const read = byTaps(returnOf(taps), 100, m);
      if (Math.abs(read.tension_N / known - 1) < 0.03) within++;
      if (Math.abs(read.tension_N - known) < 2 * read.error_N) said++;
    }
    expect(within).toBeGreaterThan(385);
    // Two standard errors hold about nineteen of twenty; few taps make that a little less.
    expect(said).toBeGreaterThan(350);
  });

  it('refuses few taps, a missed return, and a spread that means nothing', () => {
    const even = (n: number) => Array.from({ length: n }, (_, k) => k * 1.2);
    expect(returnOf(even(5))).toMatchObject({ return_s: expect.closeTo(1.2, 9), spread: expect.closeTo(0, 9) }); // prettier-ignore
    expect(() => returnOf(even(4))).toThrow(/5 taps/);
    expect(() => returnOf([0, 1, 2, 4, 5, 6])).toThrow(/between tap 3 and 4/);
    expect(() => returnOf([0, 1, 1.1, 2, 3, 4])).toThrow(/missed or tapped twice/);
    expect(() => returnOf([0, 1.5, 2.4, 3.9, 4.7, 6.2, 7.1, 8.6])).not.toThrow();
    expect(() => returnOf([0, 1, 1.5, 2.9, 3.4, 5, 5.5, 7])).toThrow(/spread too far|missed/);
    expect(() => returnOf([0, 1, 1, 2, 3])).toThrow(/one another in time/);
  });

  it('a pull, a spring and a note read back what they were made with', () => {
    const i = { span_m: 5, EA_N: 982_000, wire_length_m: 5, deflection_m: 0.05 };
    const { force_exact_N } = lateralPull({ ...i, tension_N: known });
    const read = byPull({ ...i, force_N: force_exact_N });
    expect(read.tension_N).toBeCloseTo(known, 6);
    expect(read.error_N).toBeGreaterThan(20);
    const spring = { free_m: 0.25, rate_N_per_m: 20_000, travel_m: 0.1 };
    expect(bySpring(0.3, spring).tension_N).toBeCloseTo(1000, 9);
    expect(() => bySpring(0.25, spring)).toThrow(/carries nothing/);
    expect(() => bySpring(0.36, spring)).toThrow(/solid/);
    expect(byNote(noteOf(known, 5, m), 5, m).tension_N).toBeCloseTo(known, 6);
  });

  it('the note is found in a sound without its first mode, with noise; silence and noise alone give none', () => {
    const rate = 48_000;
    const sound = (hertz: number, parts: readonly number[], noise: number) => {
      const random = sequence(4);
      return Float32Array.from({ length: 32_768 }, (_, i) => parts.reduce((sum, k) => sum + Math.sin((2 * Math.PI * k * hertz * i) / rate + k) / k, 0) + noise * (random() - 0.5)); // prettier-ignore
    };
    for (const T of [400, 1000, 1800]) {
      const f = noteOf(T, 5, m);
      const range = [noteOf(60, 5, m), noteOf(4000, 5, m)] as const;
      // A telephone hears nothing below a hundred hertz or so: overtones alone.
      for (const parts of [
        [1, 2, 3],
        [5, 6, 7, 8, 9],
      ]) {
        const heard = pitchOf(sound(f, parts, 0.2), rate, range)!;
        expect(Math.abs(heard.hertz / f - 1)).toBeLessThan(0.01);
        expect(heard.clarity).toBeGreaterThan(0.8);
      }
    }
    expect(pitchOf(new Float32Array(32_768), rate, [5, 40])).toBeNull();
    const noise = pitchOf(sound(10, [], 1), rate, [5, 40]);
    expect(noise === null || noise.clarity < 0.6).toBe(true);
    expect(() => pitchOf(new Float32Array(1000), rate, [5, 40])).toThrow(/too short/);
  });
});

describe('drift', () => {
  const check = (strand: number, time: string, at15_N: number, at_m = 50): Checked => ({ id: `${strand}${time}`, time, strand, at_m, at15_N, error_N: 15 }); // prettier-ignore
  const ask = (checks: Checked[], more: object = {}) =>
    driftOf({ checks, creeps: () => false, strung_on: null, near_m: 10, ...more }).map((d) => d.verdict); // prettier-ignore

  it('tells a first check, one that holds, one strand that slipped, and an end that moved', () => {
    expect(ask([check(1, '2026-05-01T10:00:00Z', 1000)])).toEqual(['first']);
    const year = (n: number, first: number, then: number) => [
      check(n, '2025-05-01T10:00:00Z', first),
      check(n, '2026-05-01T10:00:00Z', then),
    ];
    expect(ask(year(1, 1000, 960))).toEqual(['holds']);
    expect(ask([...year(1, 1000, 990), ...year(2, 1000, 700)])).toEqual(['holds', 'slipped']);
    expect(ask([...year(1, 1000, 700), ...year(2, 1000, 720)])).toEqual(['moved', 'moved']);
    expect(ask(year(1, 1000, 700))).toEqual(['fell']);
    expect(ask(year(1, 1000, 1400))).toEqual(['rose']);
  });

  it('creep is told of wire that creeps, from a check of its first year', () => {
    const two = [check(1, '2026-05-01T10:00:00Z', 1000), check(1, '2027-05-01T10:00:00Z', 820)];
    expect(ask(two, { creeps: () => true, strung_on: '2026-04-20' })).toEqual(['crept']);
    expect(ask(two, { creeps: () => true, strung_on: '2020-04-20' })).toEqual(['fell']);
    expect(ask(two, { creeps: () => true })).toEqual(['crept']);
  });

  it('compares with the check nearest to a year before, and only with the same place', () => {
    const all = [
      check(1, '2024-05-01T10:00:00Z', 1300),
      check(1, '2025-05-10T10:00:00Z', 1000),
      check(1, '2026-03-01T10:00:00Z', 500, 200),
      check(1, '2026-05-01T10:00:00Z', 1010),
    ];
    const [d] = driftOf({ checks: all, creeps: () => false, strung_on: null, near_m: 10 });
    expect(d!.before!.at15_N).toBe(1000);
    expect(d!.verdict).toBe('holds');
  });
});

describe('wires and joints', () => {
  it('a wire broken at 440 kgf alone and at 390 kgf with a joint gives 89 %; common practice', () => {
    const kgf = 9.80665;
    const tests = [
      { wire: 'mt25', joint: null, break_N: 440 * kgf },
      { wire: 'mt25', joint: 'knot', break_N: 390 * kgf },
    ];
    const cat = ownCatalogue(catalogue, { overrides: {}, breakTests: tests });
    expect(cat.joints['knot']!.efficiency).toBeCloseTo(0.886, 3);
    expect(wireOf('mt25', cat).break_N).toBeCloseTo(4315, 0);
    expect(weakestJoint({}, cat)).toEqual({
      id: 'knot',
      efficiency: cat.joints['knot']!.efficiency,
    });
    // Without the wire alone its strength by section is what the joint is held against.
    expect(brokenJoint(tests.slice(1), 'knot', () => strengthOf(catalogue.wires['mt25']!))!.mean).toBeCloseTo(3824.6 / 4417.9, 3); // prettier-ignore
    expect(catalogue.joints['knot']!.efficiency).toBe(0.85);
  });

  it('mean and spread of several; one alone tells no spread; no joint is stronger than its wire', () => {
    expect(brokenOf([4, 6])).toEqual({ mean: 5, spread: expect.closeTo(Math.SQRT2, 9), tests: 2 });
    expect(brokenOf([4]).spread).toBeNull();
    const cat = ownCatalogue(catalogue, { overrides: {}, breakTests: [{ wire: 'ht25', joint: 'knot', break_N: 9000 }] }); // prettier-ignore
    expect(cat.joints['knot']!.efficiency).toBe(1);
  });

  it('an own wire carries by its section and its skin, as the catalogue has its thinner one', () => {
    const ownWires = { thin: { name: 'Thin', diameter_mm: 2, tensile_MPa: 1300, coating: 'zinc' as const, coil_m: 800, price: 70 } }; // prettier-ignore
    const cat = ownCatalogue(catalogue, { overrides: {}, ownWires });
    const like = catalogue.wires['ht20']!;
    const own = cat.wires['thin']!;
    expect(own.dc_ohm_per_km).toBeCloseTo(like.dc_ohm_per_km, 0);
    expect(Math.abs(own.planning_ohm_per_km / like.planning_ohm_per_km - 1)).toBeLessThan(0.01);
    expect(wireOf('thin', cat).break_N).toBeCloseTo(Math.PI * 1300, 6);
    expect(cat.prices['wire.thin']!.price).toBe(70);
    const p = plan([a({ strands: strands([0.3, 0.6, 0.9], { wire: 'thin' }) })], { ownWires });
    expect(checkPlan(p, catalogue, new Set())).toEqual([]);
    expect(report(p).supplies.find((s) => s.id === 'wire.thin')).toMatchObject({ quantity: 1 });
  });

  it('the weakest of tie and join counts, and moves the limit', () => {
    const limit = (part: Partial<Line>) => report(plan([a(part)])).lines['a']!.strain[0]!.limit_N;
    expect(limit({ tie: 'sleeves4' })).toBeCloseTo(limit({}), 6);
    expect(limit({ tie: 'sleeves4', join: 'sleeves4' }) / limit({})).toBeCloseTo(0.97 / 0.85, 6);
  });

  it('creep slackens the hottest day until the wire was taken up', () => {
    const hot = (part: Partial<Line>) => report(plan([a({ strands: strands([0.5], { wire: 'mt25' }), ...part })])).lines['a']!.strain[0]!; // prettier-ignore
    expect(hot({}).hot_N).toBeLessThan(hot({ takenUp_on: '2027-05-01' }).hot_N - 100);
    expect(hot({}).cold_N).toBeCloseTo(hot({ takenUp_on: '2027-05-01' }).cold_N, 6);
    expect(dueOn('2026-04-01')).toBe('2027-04-01');
    expect(dueOn('2028-02-29')).toBe('2029-02-28');
  });

  it('what was strung and not taken up is told; what was taken up is not, nor wire that does not creep', () => {
    const wire = { strands: strands([0.5], { wire: 'mt25' }) };
    expect(found(plan([a({ ...wire, strung_on: '2026-04-01' })]), 'not-taken-up')).toHaveLength(1);
    expect(found(plan([a({ ...wire, strung_on: '2026-04-01', takenUp_on: '2027-04-10' })]), 'not-taken-up')).toEqual([]); // prettier-ignore
    expect(found(plan([a(wire)]), 'not-taken-up')).toEqual([]);
    expect(found(plan([a({ strung_on: '2026-04-01' })]), 'not-taken-up')).toEqual([]);
  });

  it('springs, tensioners and ties are bought', () => {
    const items = (part: Partial<Line>) => Object.fromEntries(report(plan([a(part)])).supplies.map((s) => [s.id, s.quantity])); // prettier-ignore
    expect(items({ springs: true })).toMatchObject({ spring: 5, tensioner: 5 });
    expect(items({})['spring']).toBeUndefined();
    expect(items({ tie: 'wedge' })['joiner.wedge']).toBe(10);
  });
});

describe('along a line', () => {
  const bent = (part: Partial<Line> = {}): Line => {
    const l = line('a', [[0, 0], [100, 0], [100, 150]], part); // prettier-ignore
    return { ...l, vertices: l.vertices.map((v, i) => (i === 1 ? { ...v, kind: 'bend' as const } : v)) }; // prettier-ignore
  };
  const strain = (l: Line) => report(plan([l])).lines['a']!.strain[0]!;

  it('a bend costs what friction takes, and the place of the tensioner tells', () => {
    const at = (tensionerAt: NonNullable<Line['tensionerAt']>) => strain(bent({ tensionerAt }));
    // Weight on the supports takes a little besides.
    expect(at('start').least15_N / 1000).toBeLessThan(Math.exp((-0.35 * Math.PI) / 2));
    expect(at('start').least15_N / 1000).toBeGreaterThan(0.95 * Math.exp((-0.35 * Math.PI) / 2));
    expect(at('best').least15_N).toBeGreaterThanOrEqual(at('start').least15_N);
    expect(at('start').at_m).toBeLessThan(5);
    expect(at('end').at_m).toBeGreaterThan(244);
    expect(at('middle').at_m).toBeCloseTo(125, -1);
    const hand = strain(bent({ tensioners: [{ at_m: 200 }] }));
    expect(Math.abs(hand.at_m - 200)).toBeLessThan(4);
  });

  it('is tensioned in its middle, and pulled from its end where no tensioner stays in it', () => {
    expect(strain(a()).at_m).toBeCloseTo(50, -1);
    expect(strain(a({ tensioner: false })).at_m).toBeGreaterThan(95);
  });

  it('a push is judged as in any fence until a run loses more than fences of practice do', () => {
    const turned = (deg: number): Line => {
      const r = (deg * Math.PI) / 180;
      const l = line('a', [[0, 0], [120, 0], [120 + 120 * Math.cos(r), 120 * Math.sin(r)]], { tensionerAt: 'start' }); // prettier-ignore
      return { ...l, vertices: l.vertices.map((v, i) => (i === 1 ? { ...v, kind: 'bend' as const } : v)) }; // prettier-ignore
    };
    const even = strain(turned(0));
    expect(strain(turned(40)).push_N).toBeCloseTo(even.push_N, 6);
    expect(strain(turned(120)).push_N).toBeLessThan(0.95 * even.push_N);
    expect(strain(turned(120)).pushed_m).toBeGreaterThan(1.02 * even.pushed_m);
  });

  it('turned round, its start is its end, and a tensioner set by hand stays where it is', () => {
    const p = plan([bent({ tensionerAt: 'start', tensioners: [{ at_m: 30 }] })]);
    reverseLine(p, 'a');
    expect(p.lines['a']).toMatchObject({ tensionerAt: 'end', tensioners: [{ at_m: expect.closeTo(220, 6) }] }); // prettier-ignore
  });

  it('both ways: separate runs are tighter, cost more work, and hold their corners', () => {
    const both = bothWays('a', plan([bent()]), FLAT)!;
    expect(both.now).toBe('wrapped');
    expect(both.separate.runs).toBe(2);
    expect(both.wrapped.runs).toBe(1);
    expect(both.separate.least_N).toBeGreaterThan(1.5 * both.wrapped.least_N);
    expect(both.separate.hours).toBeGreaterThan(both.wrapped.hours);
    expect(both.separate.ties).toBe(2 * both.wrapped.ties);
    expect(both.separate.corners).toMatchObject([{ at_m: 100, turn_deg: expect.closeTo(90, 6) }]);
    expect(bothWays('a', plan([a()]), FLAT)).toBeNull();
  });

  it('a spring that lets a strand give is drawn with it on the coldest night', () => {
    expect(strain(bent({ springs: true })).spring_N).toBeGreaterThan(1000);
    expect(strain(bent()).spring_N).toBeUndefined();
    expect(strain(bent({ springs: true })).cold_N).toBeLessThan(strain(bent()).cold_N);
  });

  it('held fast and sliding are told apart: sliding is never slacker in its slackest bay', () => {
    const s = strain(bent());
    expect(s.hotHeld_N).toBeLessThanOrEqual(s.hot_N + 1e-6);
    const hollow = runOver([[0, 0, 0], [10, 0, -1], [20, 0, -1.5], [30, 0, 0], [40, 0, 2]]); // prettier-ignore
    const strung = strungIn(a(), hollow, 'ht25', catalogue);
    expect(Math.min(...tensionsAt(strung, 40, { held: true }))).toBeLessThanOrEqual(Math.min(...tensionsAt(strung, 40))); // prettier-ignore
  });
});

describe('what is asked of strain', () => {
  const of = (p: Plan) => found(p, 'run-wrapped');
  const at = (deg: number, part: Partial<Line> = {}): Plan => {
    const r = (deg * Math.PI) / 180;
    const l = line('a', [[0, 0], [100, 0], [100 + 100 * Math.cos(r), 100 * Math.sin(r)]], part); // prettier-ignore
    return plan([{ ...l, vertices: l.vertices.map((v, i) => (i === 1 ? { ...v, kind: 'bend' as const } : v)) }]); // prettier-ignore
  };

  it('a wire is wrapped from the turn on that leaves less than four fifths', () => {
    const edge = (Math.log(1 / 0.8) / 0.35) * (180 / Math.PI);
    expect(of(at(edge - 0.5))).toEqual([]);
    expect(of(at(edge + 0.5))).toHaveLength(1);
  });

  it('the door refuses joints that are none, wires of taken names, places out of order', () => {
    const faults = (part: Partial<Line>, more: Partial<Plan> = {}) => checkPlan(plan([a(part)], more), catalogue, new Set()).map((f) => `${f.place} ${f.reason}`); // prettier-ignore
    expect(faults({ tie: 'glue' })[0]).toMatch(/\/lines\/a\/tie no joint/);
    expect(faults({ tensioners: [{ at_m: 40 }, { at_m: 20 }] })[0]).toMatch(/rise from its start/);
    const own = { name: 'x', diameter_mm: 2, tensile_MPa: 900, coating: 'zinc' as const, coil_m: 500 }; // prettier-ignore
    expect(faults({}, { ownWires: { ht25: own } })[0]).toMatch(/has a wire of this name/);
    expect(faults({}, { breakTests: [{ wire: 'none', joint: null, break_N: 900 }] })[0]).toMatch(/no wire/); // prettier-ignore
    expect(faults({}, { overrides: { 'defaults.wire.jointEfficiency.value': { value: 0.8 } } })).toEqual([]); // prettier-ignore
  });

  it('a property that said its own efficiency of joints before has it for its knots now', () => {
    const cat = ownCatalogue(catalogue, { overrides: { 'defaults.wire.jointEfficiency.value': { value: 0.8 } } }); // prettier-ignore
    expect(cat.joints['knot']!.efficiency).toBe(0.8);
  });

  it('a spring is missed only where it takes up a tenth of the swing', () => {
    const hard = { climate: { cold_C: -30, today_C: 10, hot_C: 40 } };
    const run = (m: number, part: Partial<Line> = {}) => found(plan([line('a', [[0, 0], [m, 0]], part)], hard), 'spring-missing'); // prettier-ignore
    expect(run(90)).toEqual([]);
    expect(run(110)).toHaveLength(1);
    expect(run(430)).toHaveLength(1);
    // Beyond that the wire itself gives more than the spring.
    expect(run(460)).toEqual([]);
    expect(run(200, { springs: true })).toEqual([]);
  });
});
