/** Performance claims live here: each in brackets behind its name, where `npm run bench` reads it for its table. */
import { readFileSync } from 'node:fs';
import { bench, describe } from 'vitest';
import { planWork } from '../../src/core/build/planned.js';
import { shaped } from '../../src/core/build/shaped.js';
import { tasksOf } from '../../src/core/build/tasks.js';
import { geometric } from '../../src/core/faults/fence.js';
import {
  fencesAsTheyMayBe,
  foundBy,
  metersAt,
  nextFrom,
  placesOf,
} from '../../src/core/faults/hunt.js';
import { searchedOf } from '../../src/core/faults/property.js';
import { madeOf } from '../../src/core/building.js';
import { createChoices } from '../../src/core/choices.js';
import { createEvaluator, evaluate } from '../../src/core/evaluate.js';
import { seasonsOf } from '../../src/core/plan/catalogue.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { moveVertex } from '../../src/core/edit/edits.js';
import { place } from '../../src/core/posts/placement.js';
import { judgeOf } from '../../src/core/joins/continuity.js';
import { solveUnit } from '../../src/core/power/network.js';
import { createPipeline } from '../../src/core/pipeline.js';
import { requirementOf } from '../../src/core/strands/requirement.js';
import { search } from '../../src/core/strands/search.js';
import { groundOf } from '../../src/core/terrain/ground.js';
import { edit } from '../../src/formats/patch.js';
import { parsePlan } from '../../src/formats/planFile.js';
import { circuitOf } from '../../src/core/power/circuit.js';
import { breakCost } from '../../src/core/wiring/breaking.js';
import { cutOutsOf } from '../../src/core/wiring/cutouts.js';
import { strongerTies } from '../../src/core/wiring/stronger.js';
import { candidatesOf } from '../../src/core/power/sizing.js';
import { voltsOf } from '../../src/core/power/volts.js';
import { sampler } from '../../src/core/sizing/sure.js';
import { cutCoils } from '../../src/core/supplies/coils.js';
import large from '../reference/cases/coils_large.json' with { type: 'json' };
import { baysOf } from '../../src/core/posts/layout.js';
import { strainOf } from '../../src/core/wire/strain.js';
import { setTo, strungIn, tensionsAt } from '../../src/core/wire/strung.js';
import { windowOf } from '../../src/core/wire/window.js';
import { runOver } from '../unit/runs.js';
import { energiser, line, networkOf, plan, strands } from '../unit/scene.js';
import { station, stationGround } from './station.js';
import { farmCircuit } from '../unit/farm.js';

/** For what takes many seconds. */
const ONCE = { iterations: 2, time: 0, warmupIterations: 0, warmupTime: 0 };

const farm = farmCircuit(2000, 5);
const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
const ground = groundOf(demo.plan, demo.grids);

/** The demo's larger network. */
const net = networkOf(demo.plan, 'steading', ground);

describe('network', () => {
  bench('2,000 sections of 5 strands, assembled and solved [100 ms]', () => void solveUnit(farm));
  bench(
    'the demo strand by strand, one line changed or not',
    () => void solveUnit(circuitOf(net, 'wet')),
  );
});

describe('coils', () => {
  bench('400 runs of 50 lengths [1000 ms]', () => void cutCoils(large.cases[0]!.inputs));
});

describe('strain', () => {
  const bays = 1999;
  const rough = runOver(Array.from({ length: bays + 1 }, (_, i) => [5 * i, 0, 3 * Math.sin(i / 9) + Math.sin(1.7 * i)] as const)); // prettier-ignore
  const l = line('a', [[0, 0], [5 * bays, 0]], { strands: strands([0.15, 0.25, 0.35, 0.45, 0.6, 0.75, 0.9, 1.1]) }); // prettier-ignore
  const climate = { cold_C: -12, today_C: 12, hot_C: 32 };
  bench(
    '2,000 posts, 8 strands of one wire [50 ms]',
    () => void strainOf(l, [rough], climate, catalogue),
  );
  const each = strungIn(l, rough, 'ht25', catalogue);
  const eight = l.strands.map((_, k) => setTo(each, 700 + 100 * k, catalogue));
  bench('the same, 8 strands that are each set differently, one temperature [50 ms]', () => {
    for (const s of eight) tensionsAt(s, 32);
  });
  const ridge = createPipeline()(demo.plan, ground, catalogue);
  const run = baysOf(ridge.lines['ridge']!)[0]!;
  bench('the window of the longest run of the demo [60 ms]', () =>
    void windowOf({ line: demo.plan.lines['ridge']!, bayed: run, wire: 'ht25', climate, push_m: 0.3 }, catalogue)); // prettier-ignore
});

describe('continuity', () => {
  const long = farmCircuit(2100, 5);
  const ties = { jumpers: long.jumpers, switches: [], breaks: [] };
  bench('500 km of 5 strands, from nothing [100 ms]', () => void judgeOf(long)(ties));
  const judge = judgeOf(long);
  let k = 0;
  bench('the same, one join changed [20 ms]', () => {
    k = (k + 1) % ties.jumpers.length;
    judge({ ...ties, jumpers: ties.jumpers.filter((_, j) => j !== k) });
  });
});

describe('what Joins proposes', () => {
  bench('cut-out switches that halve the search [150 ms]', () => void cutOutsOf(net, 20));
  bench('what one break costs [150 ms]', () => void breakCost(net, 'wet', { line: 'burn', strand: 0, at_m: 30 })); // prettier-ignore
  bench('ties more [150 ms]', () => void strongerTies(net, 0.001));
});

describe('pulse', () => {
  bench('the demo, all five seasons [120 ms]', () => {
    for (const season of seasonsOf(demo.plan, catalogue)) voltsOf(net, season);
  });
  const long = networkOf(
    plan([line('a', [[0, 0], [5000, 0]])], { energisers: { unit: energiser('a', 0, { e: 0, n: 1 }) } }), // prettier-ignore
  );
  bench('one line of 5 km [20 ms]', () => void voltsOf(long, 'wet'));
  bench(
    'thirty properties drawn by lot, with a second unit beside each [2000 ms]',
    () => {
      const lot = sampler(net, { line: 'burn', other: null, seed: 1 });
      for (let k = 0; k < 30; k++) lot.next();
    },
    { iterations: 3 },
  );
  bench('every unit of the catalogue on the demo', () => void candidatesOf(net), { iterations: 3 });
});

describe('evaluate', () => {
  bench(
    'the whole demo property with every mend tried',
    () => void evaluate(demo.plan, ground, catalogue),
    ONCE,
  );

  const warm = createEvaluator();
  warm(demo.plan, ground, catalogue);
  let step = 0;
  bench('the demo property, one vertex dragged [50 ms]', () => {
    step++;
    const { next } = edit(demo.plan, (d) =>
      moveVertex(d, 'terrace', 1, { e: 212 + (step % 40) / 10, n: 72 }),
    );
    warm(next, ground, catalogue, { hurry: true, mends: 0 });
  });
  // Claim: with the tenth of a second that it may wait, at most 150 ms behind the hand.
  bench('the same, the volts of the season on the screen [150 ms]', () => {
    step++;
    const { next } = edit(demo.plan, (d) =>
      moveVertex(d, 'terrace', 1, { e: 212 + (step % 40) / 10, n: 72 + step / 1000 }),
    );
    warm(next, ground, catalogue, { hurry: 'wet', mends: 0 });
  });
  bench('the same, volts in every season and all findings', () => {
    step++;
    const { next } = edit(demo.plan, (d) =>
      moveVertex(d, 'terrace', 1, { e: 212 + (step % 40) / 10, n: 72 + step / 1000 }),
    );
    warm(next, ground, catalogue, { mends: 0 });
  });
});

describe('choices', () => {
  const stages = createPipeline();
  const choices = createChoices();
  let step = 0;
  // Claim: a dragged strand shows all its figures within 100 ms; with `evaluate` this is the work of it.
  bench('all that can be put on a line, one strand dragged [100 ms]', () => {
    const height_m = 0.9 + (step++ % 12) / 100;
    const { next } = edit(
      demo.plan,
      (d) => void (d.lines['burn']!.strands[5]!.height_m = height_m),
    );
    choices('burn', next, ground, stages(next, ground, catalogue));
  });
  const need = requirementOf(
    { left: ['goats'], right: ['horses'], keepOut: ['fox', 'deer-out'], boundary: true },
    catalogue,
  )!;
  bench('the search for a make-up, everybody at once', () => void search(need, 'turns'));
});

describe('station of 500 km, 20,000 posts, 5 strands', () => {
  const big = station();
  const under = groundOf(big, { ground: stationGround() });
  bench(
    'whole, from nothing [2500 ms]',
    () => void evaluate(big, under, catalogue, { mends: 0 }),
    ONCE,
  );
  const known = createEvaluator();
  known(big, under, catalogue);
  const [id] = Object.keys(big.lines);
  let n = 0;
  for (const hurry of [true, false])
    bench(
      `one line changed${hurry ? ', its volts to follow [150 ms]' : ', volts and all [1500 ms]'}`,
      () => {
        const { next } = edit(big, (d) => moveVertex(d, id!, 4, { e: 360 + (n++ % 9), n: 4 }));
        known(next, under, catalogue, { hurry, mends: 0 });
      },
    );
});

describe('placement', () => {
  const s = Array.from({ length: 4001 }, (_, i) => i * 0.5);
  const z = s.map((x) => 2 * Math.sin(x / 40) + 0.4 * Math.sin(x / 11) + 0.15 * Math.sin(x / 4.3));
  bench('2 km at 0.5 m samples, 12 m limit [200 ms]', () => {
    place({
      ground_s_m: s,
      ground_z_m: z,
      strands: 5,
      tension_N: 1000,
      wire_weight_N_per_m: 0.378,
      wire_height_low_m: 0.15,
      clearance_min_m: 0.05,
      clearance_max_m: 0.4,
      max_spacing_m: 12,
      min_spacing_m: 1,
      safety_factor: 1.5,
      post_kinds: [
        { name: 'light', price: 5, pullout_capacity_N: 1200 },
        { name: 'stout', price: 12, pullout_capacity_N: 5000 },
      ],
    });
  });
});

describe('the work planned', () => {
  const ofDemo = madeOf(demo.plan, createPipeline()(demo.plan, ground, catalogue));
  const once = shaped(tasksOf(ofDemo), demo.plan, [], catalogue);
  // The demo has 20 lines: twice over they are forty.
  const forty = ['', 'b'].flatMap(
    (c) =>
    once.map((t) => ({ ...t, id: t.id + c, line: t.line && t.line + c, after: t.after.map((a) => ({ ...a, id: a.id + c })) })), // prettier-ignore
  );
  const crew = Object.fromEntries(Array.from({ length: 12 }, (_, k) => [`h${k}`, { id: `h${k}`, name: `Hand ${k + 1}`, ...(k < 2 ? { runs: ['hire.driver' as const] } : {}) }])); // prettier-ignore
  bench('40 lines, 12 people [1000 ms]', () => {
    planWork({ tasks: forty, build: { crew }, did: [], today: '2026-03-02', cat: catalogue });
  });
});

describe('a fault hunted on the demo', () => {
  const { plan: farm, grids } = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
  const fence = searchedOf(networkOf(farm, 'steading', groundOf(farm, grids)), 'today')!;
  const { fences, sections } = fence;
  const places = placesOf(fences[0]!, sections).filter((p) => fence.pieces[p.section]);
  const asked = { noise: fence.noise, prior: { p_leak: 0.7, p_joint: 0.1, p_broken: 0.2 }, places, near_m: 100, pace: { metres_per_minute: 67, reading_min: 5 } }; // prettier-ignore
  const fault = Uint32Array.of(31 * 70 + 12);
  const readings = places.filter((_, k) => k % 40 === 7).flatMap((p) => metersAt(p, sections).map((meter) => ({ meter, value: fences[0]!.read(meter, fault)[0]! }))); // prettier-ignore
  const { posterior } = foundBy(fences, sections, readings, asked);
  let k = 0;
  bench('one reading more [50 ms]', () => {
    const more = { ...readings[3]!, value: readings[3]!.value * (1 + ++k * 1e-6) };
    foundBy(fences, sections, [...readings, more], asked);
  });
  bench(
    'the next place [200 ms]',
    () => void nextFrom(fences, sections, posterior, places[40]!, asked),
  );
});

describe('a fault hunted', () => {
  const plate = { v_open_v: 9200, v_500_ohm_v: 6800, v_200_ohm_v: 4900, v_100_ohm_v: 3300, v_50_ohm_v: 2000 }; // prettier-ignore
  // Squares of 480 m by 470 m: 84 sections, 40 km.
  const sections = Array.from({ length: 49 }, (_, k) => [Math.floor(k / 7), k % 7] as const).flatMap(([i, j]) => [
    ...(i < 6 ? [{ id: `h${i}.${j}`, from: `${i},${j}`, to: `${i + 1},${j}`, length_m: 480, strands: { s1: 't' } }] : []),
    ...(j < 6 ? [{ id: `v${i}.${j}`, from: `${i},${j}`, to: `${i},${j + 1}`, length_m: 470, strands: { s1: 't' } }] : []),
  ]); // prettier-ignore
  const circuit = { strand_types: { t: { role: 'hot' as const, r_ohm_per_km: 30, g_s_per_km: 1e-4 } }, energiser: { location: '0,0', hot_strands: ['s1'], earth_strands: [], lead_ohm: 0.05 }, r_earth_ohm: 8, sections, jumpers: [], shunts: [], breaks: [], probes: [] }; // prettier-ignore
  const fences = fencesAsTheyMayBe(circuit, plate, { cell_m: 50, leaks_ohm: geometric(50, 5000, 41), strand: 's1' }); // prettier-ignore
  const noise = { voltage_rel: 0.036, voltage_floor_v: 60, current_rel: 0.054, current_floor_a: 0.15 }; // prettier-ignore
  const asked = { noise, prior: { p_leak: 0.8, p_broken: 0.2 }, near_m: 100, pace: { metres_per_minute: 67, reading_min: 5 } }; // prettier-ignore
  const fault = 41 * 333 + 20;
  const places = [['h0.0', 0], ['v0.3', 25], ['h3.3', 0]] as const; // prettier-ignore
  const readings = places.flatMap(([section, x_m]) => metersAt({ section, x_m }, sections).map((meter) => ({ meter, value: fences[0]!.read(meter)[fault]! }))); // prettier-ignore
  const { posterior } = foundBy(fences, sections, readings, asked);
  let k = 0;
  bench('40 km: one reading more [50 ms]', () => {
    // Another value each time: nothing of it is known beforehand.
    const more = { ...readings[5]!, value: readings[5]!.value * (1 + ++k * 1e-6) };
    foundBy(fences, sections, [...readings, more], asked);
  });
  bench('40 km: where to go next [200 ms]', () => {
    nextFrom(fences, sections, posterior, { section: 'h3.3', x_m: 0 }, asked);
  });
});
