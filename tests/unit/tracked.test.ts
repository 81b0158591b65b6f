/**
 * What a change touches is worked out anew, and nothing else has to be named by hand: an evaluator that follows changes of
 * any key of plan, conditions and figures, to and fro, says what one says that never saw the plan before, mends included.
 * More sequences with TRACKED=200; the seed is printed with a counterexample.
 */
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkPlan, type Fault } from '../../src/core/check.js';
import { createEvaluator, evaluate } from '../../src/core/evaluate.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Line, Plan } from '../../src/core/plan/schema.js';
import type { Ground } from '../../src/core/terrain/ground.js';
import { ALL, often } from '../often.js';
import { energiser, line, plan, strands } from './scene.js';

const RUNS = Number(process.env['TRACKED'] ?? often(1, 60));

/** What each key may become; undefined: it is left out. A key that is new to the schema does not compile until it stands here. */
type Choices<T> = { readonly [K in keyof Required<T>]: readonly (T[K] | undefined)[] };

const ids = (role: string) => Object.entries(catalogue.profiles).filter(([, p]) => p.role === role).map(([id]) => id); // prettier-ignore
const [STOCK, KEPT_OUT] = [ids('stock'), ids('predator')];

const LINE: Choices<Omit<Line, 'id'>> = {
  name: ['A', 'B'],
  vertices: [
    line('x', [[0, 0], [90, 0], [90, 70]]).vertices, // prettier-ignore
    line('x', [[0, 0], [90, 4], [96, 70]]).vertices, // prettier-ignore
    line('x', [[0, 0], [95, 0]]).vertices, // prettier-ignore
  ],
  locked: [undefined, true],
  levels: [undefined, [{ at_m: 10, z_m: 1 }, { at_m: 30, z_m: 2 }]], // prettier-ignore
  left: [['sheep'], [], ...STOCK.map((id) => [id])],
  right: [[], ...STOCK.map((id) => [id])],
  keepOut: [[], ...KEPT_OUT.map((id) => [id])],
  boundary: [false, true],
  stepOver: [undefined, true],
  snow: [undefined, true],
  dim: [undefined, true],
  later: [undefined, ['goats']],
  demands: [undefined, { lowest: { value: 0.12, note: 'mine' } }],
  ends: [
    undefined,
    ...Object.keys(catalogue.settings).map((setting) => [{ at_m: 0, setting, depth_m: 0.7 }]),
    [{ at_m: 0, after: { kind: 'post' } }],
    [{ at_m: 0, depth_m: 0.6, wood: 'untreated' }],
    [{ at_m: 0, after: { kind: 'stay', foot: 'block' } }],
  ] as readonly Line['ends'][],
  post: ['steel-180', 'fibre-180', 'timber-180'],
  maxBay_m: [null, 5, 12],
  dropper: [undefined, { kind: Object.keys(catalogue.droppers)[0]!, each_m: 3 }],
  standing: [undefined, true],
  pins: [undefined, [{ at_m: 20, kind: null }]],
  noPosts: [undefined, [{ from_m: 10, to_m: 14, why: 'rock' }]],
  placed: [undefined],
  school: Object.keys(catalogue.schools),
  tensioner: [true, false],
  tensionerAt: [undefined, 'start', 'best'],
  tensioners: [undefined, [{ at_m: 22 }]],
  springs: [undefined, true],
  tie: [undefined, ...Object.entries(catalogue.joints).filter(([, j]) => j.where.includes('end')).map(([id]) => id)], // prettier-ignore
  join: [undefined, ...Object.entries(catalogue.joints).filter(([, j]) => j.where.includes('join')).map(([id]) => id)], // prettier-ignore
  strung_on: [undefined, '2026-03-01'],
  takenUp_on: [undefined, '2026-04-01'],
  fill_m: [undefined, 0.1],
  strands: [
    strands([0.15, 0.3, 0.45, 0.65, 0.9]),
    strands([0.2, 0.45, 0.9]),
    strands([0.1, 0.2, 0.3, 0.45, 0.65, 0.9, 1.1]).map((s, k) => (k % 2 ? { ...s, duty: 'earth' } : s)), // prettier-ignore
  ],
  design: [undefined, 'd'],
  growth: [undefined, 'bare', 'rank'],
  deadTail_m: [undefined, 0.3],
  insulators: [undefined],
  crossings: [undefined, [{ at_m: 40, kind: 'flood' }]],
  joins: [undefined],
};

type Fixed = 'format' | 'version' | 'lines' | 'overrides' | 'origin' | 'grids' | 'ground';
const PLAN: Choices<Omit<Plan, Fixed>> = {
  name: ['Test', 'Other'],
  invented: [undefined, true],
  units: ['metric', 'imperial'],
  currency: ['EUR', 'GBP'],
  soil: Object.keys(catalogue.soils),
  accepted: [
    undefined,
    { 'end-overloaded:a-0-after': { note: 'n', who: 'w', at: '2026-01-01', kind: 'stop', badness: 1 } }, // prettier-ignore
  ],
  newLines: [{ left: [], right: [], keepOut: [], boundary: false }],
  gates: [
    {},
    { g: { id: 'g', name: 'G', line: 'a', at_m: 30, width_m: 4, cable: false } },
    { g: { id: 'g', name: 'G', line: 'b', at_m: 30, width_m: 3, cable: true } },
  ],
  frost_m: [undefined, 0, 1],
  noDriver: [undefined, true],
  climate: [
    { cold_C: -10, today_C: 15, hot_C: 35 },
    { cold_C: -30, today_C: 10, hot_C: 30 },
    { cold_C: 2, today_C: 20, hot_C: 48 },
  ],
  ownWires: [
    undefined,
    { own: { name: 'Own', diameter_mm: 2, tensile_MPa: 900, coating: 'zinc', coil_m: 500 } },
  ] as readonly Plan['ownWires'][],
  breakTests: [undefined, [{ wire: 'ht25', joint: null, break_N: 3000 }]],
  designs: [undefined, { d: { id: 'd', name: 'D', strands: strands([0.2, 0.5, 0.9]) } }],
  things: [
    {},
    { t: { id: 't', name: 'T', kind: 'publicWay', points: [{ e: 50, n: -30 }, { e: 50, n: 30 }] } }, // prettier-ignore
    { t: { id: 't', name: 'T', kind: 'burn', points: [{ e: 40, n: -30 }, { e: 40, n: 30 }] } }, // prettier-ignore
  ] as readonly Plan['things'][],
  paddocks: [undefined, { p: { id: 'p', name: 'P', e: 50, n: 30, stock: [], use: 'pasture' } }] as readonly Plan['paddocks'][], // prettier-ignore
  energisers: [
    { unit: energiser('a', 0) },
    { unit: energiser('a', 0, { model: 'm05', rods: 2 }) },
    { unit: energiser('b', 0, { model: 'm5', rods: 3, rodSpacing_m: 1 }) },
    {},
  ],
  sizing: [
    { resistance: 'planning', reserve: 0 },
    { resistance: 'guaranteed', reserve: 1 },
  ],
  connectors: [undefined, 'hand', 'tap'],
  book: [undefined, { 'post.steel-180': [{ price: 9, on: '2026-01-01' }] }] as readonly Plan['book'][], // prettier-ignore
  supplyRows: [undefined, { staple: { out: true } }],
  ownItems: [undefined, { tea: { name: 'Tea', per: 'box', quantity: 2 } }] as readonly Plan['ownItems'][], // prettier-ignore
  build: [undefined, { start: '2026-05-04' }] as readonly Plan['build'][],
};

/** Figures that a property may put in its own place of. */
const FIGURES = Object.entries(catalogue.defaults).map(([id, { value }]) => ({ path: `defaults.${id}.value`, value })); // prettier-ignore

type Step =
  | { readonly plan: keyof typeof PLAN; readonly pick: number }
  | { readonly line: 'a' | 'b'; readonly key: keyof typeof LINE; readonly pick: number }
  | { readonly figure: number; readonly times: number }
  | { readonly ground: number }
  | { readonly undo: number };

const with_ = <T extends object>(of: T, key: keyof T, value: unknown): T => {
  const next = { ...of, [key]: value };
  if (value === undefined) delete next[key];
  return next;
};
const at = <T>(list: readonly T[], pick: number): T => list[pick % list.length]!;

function after(p: Plan, step: Exclude<Step, { undo: number } | { ground: number }>): Plan {
  if ('plan' in step) return with_(p, step.plan, at<unknown>(PLAN[step.plan], step.pick));
  if ('line' in step) {
    const changed = with_(p.lines[step.line]!, step.key, at<unknown>(LINE[step.key], step.pick));
    return { ...p, lines: { ...p.lines, [step.line]: changed } };
  }
  const { path, value } = at(FIGURES, step.figure);
  return { ...p, overrides: with_(p.overrides, path, step.times === 1 ? undefined : { value: value * step.times }) }; // prettier-ignore
}

const rolling: Ground = {
  kind: 'grid',
  east0_m: -20,
  north0_m: -40,
  cell_m: 20,
  cols: 10,
  rows: 10,
  z_m: Array.from({ length: 100 }, (_, k) => 5 + 1.5 * Math.sin(k) + 0.2 * (k % 10)),
};
const GROUNDS: readonly Ground[] = [{ kind: 'flat', z_m: 0 }, rolling];
/** Much is found of it: ends set as it does not suit them, a live line over a public way, a fence that holds little. */
const START = plan(
  [
    line('a', [[0, 0], [90, 0], [90, 70]], { post: 'timber-180', ends: [{ at_m: 0, setting: 'concrete', wood: 'untreated' }] }), // prettier-ignore
    line('b', [[0, 0], [0, 80]], { left: ['horses'], strands: strands([0.2, 0.45, 0.9]), ends: [{ at_m: 80, setting: 'gravel', depth_m: 0.7 }] }), // prettier-ignore
  ],
  {
    energisers: { unit: energiser('a', 0, { rods: 2 }) },
    things: { t: { id: 't', name: 'T', kind: 'publicWay', points: [{ e: 50, n: -30 }, { e: 50, n: 30 }] } }, // prettier-ignore
  },
);

/** Pulses take most of the time: where none are meant there is no unit. */
const UNFED = { ...START, energisers: {} };

const steps = fc.oneof(
  { weight: 4, arbitrary: fc.record({ plan: fc.constantFrom(...(Object.keys(PLAN) as (keyof typeof PLAN)[])), pick: fc.nat(12) }) }, // prettier-ignore
  { weight: 4, arbitrary: fc.record({ line: fc.constantFrom('a' as const, 'b' as const), key: fc.constantFrom(...(Object.keys(LINE) as (keyof typeof LINE)[])), pick: fc.nat(12) }) }, // prettier-ignore
  { weight: 2, arbitrary: fc.record({ figure: fc.nat(FIGURES.length - 1), times: fc.constantFrom(0.8, 1, 1.25) }) }, // prettier-ignore
  { weight: 1, arbitrary: fc.record({ ground: fc.nat(1) }) },
  { weight: 2, arbitrary: fc.record({ undo: fc.integer({ min: 1, max: 4 }) }) },
);

/** Follows steps with one evaluator, now and then in a hurry, and holds what it says at rest against what is said from nothing. */
function follows(list: readonly Step[], start = START): Fault[] {
  const refused: Fault[] = [];
  const follow = createEvaluator();
  let now = { plan: start, ground: GROUNDS[0]! };
  const before = [now];
  expect(checkPlan(start, catalogue, new Set())).toEqual([]);
  follow(now.plan, now.ground, catalogue);
  list.forEach((step, k) => {
    const next =
      'undo' in step
        ? before[Math.max(0, before.length - 1 - step.undo)]!
        : 'ground' in step
          ? { ...now, ground: GROUNDS[step.ground]! }
          : { ...now, plan: after(now.plan, step) };
    // What no door would let in is left out.
    const faults = checkPlan(next.plan, catalogue, new Set());
    if (faults.length > 0) return void refused.push(...faults);
    now = next;
    before.push(now);
    const left = ['wire', 'hold', 'strands', 'power'] as const;
    const hurried = [{ hurry: true, left }, { mends: 1 }, { hurry: 'wet' as const, left }, null, { hurry: 'volts' as const }][k % 5]; // prettier-ignore
    if (hurried) follow(now.plan, now.ground, catalogue, { mends: 0, ...hurried });
    expect(follow(now.plan, now.ground, catalogue)).toEqual(
      evaluate(now.plan, now.ground, catalogue),
    );
  });
  return refused;
}

describe('what follows changes', () => {
  it(
    'says what is said from nothing, whatever was changed, taken back or looked at in a hurry',
    () => fc.assert(fc.property(fc.array(steps, { minLength: 6, maxLength: 12 }), (list) => void follows(list)), { numRuns: RUNS }), // prettier-ignore
    120_000 + RUNS * 6000,
  );

  it('the same with every key of the plan by itself, to and fro', () => {
    for (const key of Object.keys(PLAN) as (keyof typeof PLAN)[])
      expect(
        follows(
          PLAN[key].map((_, pick): Step => ({ plan: key, pick })).slice(0, often(2, Infinity)),
          UNFED,
        ),
      ).toEqual([]);
  }, 120_000);

  // Seen: the list by hand of what a mend rests on lacked the frost's depth, and that nothing can be driven.
  it.each(['frost_m', 'noDriver'] as const)(
    'a mend that %s makes useless is no longer offered',
    (key) => {
      for (const setting of ALL ? Object.keys(catalogue.settings) : ['concrete']) {
        const change: Step[] = [{ line: 'a', key: 'ends', pick: LINE.ends.findIndex((e) => e?.[0]?.setting === setting) }]; // prettier-ignore
        const refused = follows([
          ...change,
          ...PLAN[key].map((_, pick): Step => ({ plan: key, pick })),
        ]);
        expect(refused).toEqual([]);
      }
    },
  );
});
