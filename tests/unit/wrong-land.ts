/** Plans in which each rule about the land speaks up. */
import type { Gate, Plan, Thing } from '../../src/core/plan/schema.js';
import { energiser, line, plan } from './scene.js';

export const thing = (
  kind: Thing['kind'],
  points: [number, number][],
  part: Partial<Thing> = {},
): Thing => ({ id: kind, name: kind, kind, points: points.map(([e, n]) => ({ e, n })), ...part });

export const things = (...list: Thing[]): Partial<Plan> => ({
  things: Object.fromEntries(list.map((t) => [t.id, t])),
});

const run = (part: Parameters<typeof line>[2] = {}) =>
  line('a', [[0, 0], [300, 0]], part); // prettier-ignore
const fed = (...list: Thing[]) =>
  plan([run()], { energisers: { unit: energiser('a', 150) }, ...things(...list) });

/** A square paddock of one line, 100 m a side, with sheep inside it. */
export const paddock = (part: Partial<Plan> = {}): Plan =>
  plan(
    [
      line('a', [[0, 0], [100, 0], [100, 100], [0, 100], [0, 0]]), // prettier-ignore
    ],
    {
      energisers: { unit: energiser('a', 50) },
      paddocks: {
        p: { id: 'p', name: 'Croft', e: 50, n: 50, stock: { sheep: 20 }, use: 'grazing' },
      },
      ...part,
    },
  );

const gate = (part: Partial<Gate>): Plan['gates'] => ({
  g: { id: 'g', name: 'Gate', line: 'a', at_m: 50, width_m: 4, cable: true, ...part },
});

export const wrongOnLand: [string, Plan][] = [
  ['overhead', fed(thing('overhead', [[150, -50], [150, 50]], { volts_kV: 11, height_m: 4 }))], // prettier-ignore
  ['outside', fed(thing('property', [[-10, -50], [200, -50], [200, 50], [-10, 50]]))], // prettier-ignore
  [
    'networks-close',
    plan(
      [
        run(),
        line('b', [
          [0, 2],
          [300, 2],
        ]),
      ],
      {
        // prettier-ignore
        energisers: {
        unit: energiser('a', 0),
        two: energiser('b', 0, { id: 'two', e: 0, n: 40 }),
      },
      },
    ),
  ],
  ['earth-near', fed(thing('building', [[5, 5], [15, 5], [15, 15]], { earthed: true }))], // prettier-ignore
  ['mains-far', fed(thing('mains', [[0, 500]]))],
  ['gap', plan([run(), line('b', [[150, 100], [150, 2]])])], // prettier-ignore
  ['crosses', plan([run(), line('b', [[150, 100], [150, -100]])])], // prettier-ignore
  ['ring', plan([run({ keepOut: ['fox'] }), line('b', [[0, -100], [0, 100]], { boundary: true })], { energisers: { unit: energiser('a', 150) } })], // prettier-ignore
  ['outside-stock', paddock({ paddocks: {}, lines: { a: line('a', [[0, 0], [100, 0], [100, 100], [0, 100], [0, 0]], { left: [], right: ['sheep'] }) } })], // prettier-ignore
  ['loose-end', plan([run(), line('b', [[150, 100], [150, 0]])])], // prettier-ignore
  ['paddock-open', { ...paddock({}), lines: { a: line('a', [[0, 0], [100, 0], [100, 100]]) } }], // prettier-ignore
  ['paddock-water', paddock({ gates: gate({}) })],
  ['paddock-gate', paddock(things(thing('water', [[50, 50]])))],
  [
    'paddock-sides',
    paddock({
      lines: {
        a: line('a', [[0, 0], [100, 0], [100, 100], [0, 100], [0, 0]], { left: [] }), // prettier-ignore
      },
    }),
  ],
  ['old-fence', fed(thing('oldFence', [[150, -20], [150, 20]], { barbed: true }))], // prettier-ignore
  ['burn-crossing', fed(thing('burn', [[120, -50], [120, 50]], { width_m: 3 }))], // prettier-ignore
  ['public-way', fed(thing('publicWay', [[100, -50], [100, 50]]))], // prettier-ignore
  ['trees', fed(thing('tree', [[100, 3]], { width_m: 10 }))],
  ['gate-swing', paddock({ gates: gate({ swing: 'left' }) })],
  ['post-barred', fed(thing('obstacle', [[95, -4], [99, -4], [99, 4], [95, 4]]))], // prettier-ignore
];

/** Ground that rises to the north, for what needs a slope. */
export const hillside = {
  kind: 'grid' as const,
  east0_m: -20,
  north0_m: -20,
  cell_m: 10,
  cols: 40,
  rows: 20,
  z_m: Array.from({ length: 800 }, (_, k) => Math.floor(k / 40) * 1.5),
};
