/** Plans in which each rule speaks up. */
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Line, Plan } from '../../src/core/plan/schema.js';
import { oldFence } from '../../src/core/strands/retrofit.js';
import type { Ground } from '../../src/core/terrain/ground.js';
import { energiser, line, plan, strands } from './scene.js';
import { hillside, wrongOnLand } from './wrong-land.js';

/** A line of 300 m that an energiser feeds in its middle. */
export const fed = (l: Partial<Line>, more: Partial<Plan> = {}) =>
  plan(
    [
      line(
        'a',
        [
          [0, 0],
          [300, 0],
        ],
        l,
      ),
    ],
    { energisers: { unit: energiser('a', 150) }, ...more },
  );
export const gate = (cable: boolean) => ({
  g: { id: 'g', name: 'Gate', line: 'a', at_m: 150, width_m: 4, cable },
});

type Join = NonNullable<Line['joins']>[number];
type Side = Join['ties'][number]['a']['side'];
export const tie = (s: Side, i: number, t: Side, k: number): Join['ties'][number] => ({
  a: { side: s, strand: i },
  b: { side: t, strand: k },
  kind: 'clamp',
});
const kept = (out: readonly number[]) => [0, 1, 2, 3, 4].filter((k) => !out.includes(k));
/** Five strands of a run tied one to the next, but some that are left out. */
export const ladder = (side: Side, out: readonly number[] = []): Join['ties'] =>
  kept(out).slice(1).map((k, i) => tie(side, kept(out)[i]!, side, k)); // prettier-ignore
/** Each strand led across a corner, the run before it tied together. */
export const acrossCorner = (out: readonly number[] = []): Join['ties'] => [
  ...ladder('before', out),
  ...kept(out).map((k) => tie('before', k, 'after', k)),
];
/** Two runs of 150 m round a corner, fed in the first one; joins by plan distance. */
export const cornered = (
  joins: Readonly<Record<number, Join['ties']>>,
  top: 'live' | 'earth' = 'live',
): Plan =>
  plan(
    [
      line('a', [[0, 0], [150, 0], [150, 150]], {
        strands: [...strands([0.15, 0.3, 0.45, 0.65]), ...strands([0.9], { duty: top })],
        joins: Object.entries(joins).map(([at_m, ties]) => ({ at_m: Number(at_m), ties })),
      }),
    ],
    { energisers: { unit: energiser('a', 20) } },
  ); // prettier-ignore

/** A wire that runs on round a right angle. */
const bent = (l: Partial<Line>): Plan => {
  const a = line('a', [[0, 0], [100, 0], [100, 150]], l); // prettier-ignore
  return plan([
    { ...a, vertices: a.vertices.map((v, i) => (i === 1 ? { ...v, kind: 'bend' as const } : v)) },
  ]);
};

const EARTHED = {
  strands: [...strands([0.3, 0.6, 0.9]), ...strands([0.45], { duty: 'earth' as const })].sort(
    (a, b) => a.height_m - b.height_m,
  ),
};
const GOATS_SIX = strands([0.15, 0.3, 0.45, 0.6, 0.8, 1.05]);

export const wrong: [string, Plan][] = [
  [
    'barbed-live',
    fed({ left: [], strands: [...strands([0.4]), ...strands([0.9], { wire: 'barbed' })] }),
  ],
  [
    'barbed-horses',
    fed({
      left: ['horses'],
      strands: [...strands([0.45, 0.7, 1]), ...strands([1.35], { wire: 'barbed', duty: 'cold' })],
    }),
  ],
  [
    'near-barbed',
    fed({
      left: [],
      strands: [...strands([0.4]), ...strands([0.5], { wire: 'barbed', duty: 'cold' })],
    }),
  ],
  [
    'live-uninsulated',
    fed({ strands: strands([0.15, 0.3, 0.45, 0.65, 0.9], { insulated: false }) }),
  ],
  ['does-not-hold', fed({ left: ['goats'], strands: strands([0.3, 0.45]) })],
  // An old fence that is kept: its mend adds live offsets and leaves what stands.
  [
    'does-not-hold',
    fed({ left: ['cattle-calves'], standing: true, strands: oldFence('barbed3', catalogue) }),
  ],
  ['gap-too-wide', fed({ strands: strands([0.15, 0.5, 0.9]) })],
  // Six strands at 9 m let goats squeeze through (common practice).
  ['gap-opens', fed({ left: ['goats'], maxBay_m: 9, strands: GOATS_SIX })],
  ['top-unseen', fed({ left: ['horses'], strands: strands([0.45, 0.75, 1.05, 1.35]) })],
  ['step-over', fed({ stepOver: true })],
  ['panel-live', fed({ strands: [...strands([0.8], { wire: 'woven' }), ...strands([0.95])] })],
  [
    'bare-on-steel',
    fed({
      strands: [
        ...strands([0.15, 0.3, 0.45, 0.65]),
        ...strands([0.9], { duty: 'cold', insulated: false }),
      ],
    }),
  ],
  [
    'left-design',
    fed(
      { design: 'd' },
      {
        designs: { d: { id: 'd', name: 'Ewes', strands: strands([0.15, 0.31, 0.48, 0.65, 0.9]) } },
      },
    ),
  ],
  ['bays-too-long', fed({ maxBay_m: 12 })],
  ['post-short', fed({ strands: strands([0.15, 0.31, 0.48, 0.65, 0.9, 1.15, 1.35]) })],
  ['post-unsuited', fed({ post: 'flexible-150' })],
  [
    'bend-unbraced',
    plan([
      {
        ...line('a', [
          [0, 0],
          [100, 0],
          [150, 80],
        ]),
        vertices: line('a', [
          [0, 0],
          [100, 0],
          [150, 80],
        ]).vertices.map((v, i) => (i === 1 ? { ...v, kind: 'bend' } : v)),
      },
    ]),
  ],
  ['cold-limit', fed({ school: 'firm' })],
  ['hot-sag', fed({ school: 'sag-out', maxBay_m: 15 })],
  [
    'window-empty',
    fed(
      { maxBay_m: 20, strands: strands([0.15, 0.3, 0.45, 0.65, 0.9], { wire: 'mt25' }) },
      { climate: { cold_C: -30, today_C: 12, hot_C: 40 } },
    ),
  ],
  ['run-wrapped', bent({})],
  ['pull-lost', plan([line('a', [[0, 0], [1600, 0]], { school: 'sag-out', tensionerAt: 'end' })])], // prettier-ignore
  ['tensioner-at-bend', bent({ tensioners: [{ at_m: 98 }] })],
  ['tensioner-nowhere', fed({ tensioners: [{ at_m: 150 }] }, { gates: gate(true) })],
  ['weak-joint', fed({}, { overrides: { 'joints.knot.efficiency': { value: 0.7 } } })],
  ['spring-missing', fed({}, { climate: { cold_C: -25, today_C: 12, hot_C: 35 } })],
  [
    'spring-solid',
    fed({ springs: true }, { overrides: { 'defaults.spring.travel.value': { value: 0.06 } } }),
  ],
  [
    'not-taken-up',
    fed({
      strung_on: '2026-04-01',
      strands: strands([0.15, 0.3, 0.45, 0.65, 0.9], { wire: 'mt25' }),
    }),
  ],
  [
    'no-tensioner',
    plan([
      line(
        'a',
        [
          [0, 0],
          [80, 0],
        ],
        { tensioner: false },
      ),
    ]),
  ],
  [
    'feeding',
    plan([
      line('a', [
        [0, 0],
        [80, 0],
      ]),
    ]),
  ],
  ['over-limit', fed({}, { energisers: { unit: energiser('a', 0, { model: 'old8' }) } })],
  [
    'below-aim',
    fed(
      {},
      {
        energisers: { unit: energiser('a', 0, { model: 'm05' }) },
        sizing: { resistance: 'planning', reserve: 0.9 },
      },
    ),
  ],
  // The third strand is left out at the corner and at the end: nothing feeds it beyond the corner.
  ['strand-dead', cornered({ 150: acrossCorner([2]), 300: ladder('before', [2]) })],
  ['dead-tail-long', fed({ keepOut: ['fox'], deadTail_m: 0.24 })],
  ['strand-one-sided', cornered({ 300: ladder('before', [2]) })],
  [
    'live-to-earth',
    cornered(
      { 150: [...acrossCorner([4]), tie('before', 4, 'after', 4), tie('before', 0, 'before', 4)] },
      'earth',
    ),
  ],
  [
    'dead',
    plan(
      [
        line('a', [
          [0, 0],
          [80, 0],
        ]),
        line('b', [
          [0, 50],
          [80, 50],
        ]),
      ],
      { energisers: { unit: energiser('a', 0) } },
    ),
  ],
  ['gate-no-cable', fed({}, { gates: gate(false) })],
  ['gate-no-earth-cable', fed(EARTHED, { gates: { g: { ...gate(true).g, earthCable: false } } })],
  [
    'gate-cable-shallow',
    fed({}, { gates: { g: { ...gate(true).g, conduit: false, depth_m: 0.1 } } }),
  ],
  [
    'jumper-missing',
    plan([line('a', [[0, 0], [300, 0]], { joins: [{ at_m: 0, ties: ladder('after', [4]) }] })]), // prettier-ignore
  ],
  ['mixed-metal', fed({ joins: [{ at_m: 0, ties: ladder('after'), metal: 'copper' }] })],
  ['tap-in-tension', fed({ crossings: [{ at_m: 50, kind: 'closure', joiner: 'tap' }] })],
  ['insulator-unsuited', fed({ insulators: { steel: 'claw' } })],
  ['earth-test', fed({}, { energisers: { unit: energiser('a', 0, { model: 'm35', rods: 3 }) } })],
  ['rods-close', fed({}, { energisers: { unit: energiser('a', 0, { rodSpacing_m: 1 }) } })],
  ['no-diverter', fed({})],
  ['felt-little', fed({ left: ['cattle-quiet'] }, { soil: 'stony' })],
  [
    'plate-fits',
    fed({}, { energisers: { unit: energiser('a', 0, { plate: { supply: 'mains', stored_J: 1, output_J: 0.9, open_V: 9000, at500_V: 8900, at100_V: 1500, interval_s: 1.2 } }) } }), // prettier-ignore
  ],
  [
    'supply-short',
    fed({}, { energisers: { unit: energiser('a', 0, { model: 's1', supply: { battery_V: 12, battery_Ah: 7, panel_W: 5, usable: 0.5, cloud_days: 7 } }) } }), // prettier-ignore
  ],
  ['off-ground', fed({}, {})],
  ['unsaid', fed({ left: [] })],
  ['later', fed({ later: ['deer-farmed'] })],
  ['short-run', plan([line('a', [[0, 0], [300, 0], [300, 4]])], { energisers: { unit: energiser('a', 150) } })], // prettier-ignore
  ['wire-insulates', fed({ strands: [...strands([0.15, 0.3, 0.45, 0.65]), { ...strands([0.9])[0]!, wire: 'mono' }] })], // prettier-ignore
  ['wire-long-run', fed({ strands: [...strands([0.15, 0.3, 0.45, 0.65]), { ...strands([0.9])[0]!, wire: 'soft20', duty: 'cold', insulated: false }] })], // prettier-ignore
  [
    'grade-break',
    fed({
      placed: [50, 100, 104, 108, 150].map((at_m) => ({ at_m, kind: 'steel-180' })),
      levels: [
        { at_m: 0, z_m: 0 },
        { at_m: 100, z_m: 0 },
        { at_m: 104, z_m: 1.4 },
        { at_m: 108, z_m: 0 },
        { at_m: 300, z_m: 0 },
      ],
    }),
  ],
  ['end-too-deep', fed({ ends: [{ at_m: 0, depth_m: 2 }] })],
  ['end-nowhere', fed({ ends: [{ at_m: 40, after: { kind: 'h' } }] })],
  ['end-overloaded', fed({ ends: [{ at_m: 0, after: { kind: 'post' } }] })],
  ['end-soft', fed({ ends: [{ at_m: 0, after: { kind: 'h' } }] }, { soil: 'sand' })],
  ['end-lifts', fed({ ends: [{ at_m: 0, after: { kind: 'h' } }], levels: [{ at_m: 0, z_m: 0 }, { at_m: 20, z_m: 5 }, { at_m: 300, z_m: 5 }], school: 'firm' }, { soil: 'loam' })], // prettier-ignore
  ['brace-wire-wrong', fed({ ends: [{ at_m: 0, after: { kind: 'h', wire: 'brace' } }] })],
  ['rail-short', fed({ ends: [{ at_m: 0, after: { kind: 'h', rail_m: 1.2 } }] })],
  ['end-shallow', fed({ ends: [{ at_m: 0, depth_m: 0.6 }] })],
  ['gate-one-diagonal', fed({ ends: [{ at_m: 148, before: { kind: 'h', wire: 'end' } }] }, { gates: gate(true) })], // prettier-ignore
  ['concrete-timber', fed({ ends: [{ at_m: 0, setting: 'concrete' }] })],
  ['setting-unsuited', fed({ ends: [{ at_m: 0, setting: 'driven' }] }, { soil: 'stony' })],
  ['post-untreated', fed({ ends: [{ at_m: 0, wood: 'untreated' }] })],
  ['end-engineer', fed({ strands: strands(Array.from({ length: 16 }, (_, k) => 0.1 + 0.06 * k)), school: 'firm' })], // prettier-ignore
  // A light post at the bottom of a dip.
  ['post-lifts', fed({ placed: Array.from({ length: 53 }, (_, k) => ({ at_m: 8 + 5.52 * k + (k > 16 ? 0.16 : 0), kind: 'steel-180' })).map((p, k) => (k === 17 ? { ...p, at_m: 100 } : p)) })], // prettier-ignore
  ['clearance', fed({})],
  ...wrongOnLand,
];

/** Ground with one dip of a given depth, and a rim that a 300 m line overruns. */
const dip = (depth: number, width: number) => ({
  kind: 'grid' as const,
  east0_m: -10,
  north0_m: -10,
  cell_m: 2,
  cols: 140,
  rows: 11,
  z_m: Array.from(
    { length: 140 * 11 },
    (_, k) => -depth * Math.exp(-((((k % 140) * 2 - 110) / width) ** 2)),
  ),
});
export const GROUND_OF: Record<string, Ground> = {
  'gate-swing': hillside,
  'off-ground': dip(1.4, 4),
  'post-lifts': dip(1.4, 4),
  clearance: dip(0.85, 4.5),
};
