/** A property of three lines on flat ground, for tests whose point is not the demo. */
import { readFileSync } from 'node:fs';

const demo = JSON.parse(readFileSync('demo/hollin-scar.plan.json', 'utf8')) as {
  lines: Record<string, object>;
  energisers: Record<string, object>;
  [key: string]: unknown;
};
const [like] = Object.values(demo.lines) as [Record<string, unknown>];
const line = (id: string, name: string, points: readonly [number, number][]) => {
  return {
    ...like,
    id,
    name,
    // What stands along the line that this one is made after lies elsewhere here.
    pins: undefined,
    placed: undefined,
    levels: undefined,
    noPosts: undefined,
    design: undefined,
    boundary: false,
    maxBay_m: null,
    vertices: points.map(([e, n], i) => ({ id: `v${i + 1}`, e, n, kind: i === 0 || i === points.length - 1 ? 'end' : 'corner' })), // prettier-ignore
  };
};
const [unit] = Object.values(demo.energisers) as [Record<string, unknown>];

export const small = {
  ...demo,
  name: 'Three lines',
  ground: { kind: 'flat', z_m: 0 },
  grids: undefined,
  lines: {
    north: line('north', 'North', [[0, 100], [150, 110], [300, 100]]), // prettier-ignore
    east: line('east', 'East', [[300, 100], [300, -100]]), // prettier-ignore
    across: line('across', 'Across', [[0, 0], [300, 0]]), // prettier-ignore
  },
  gates: { g1: { id: 'g1', name: 'Gate', line: 'across', at_m: 120, width_m: 3.6, cable: true } },
  energisers: { unit: { ...unit, id: 'unit', line: 'north', at_m: 0, e: 0, n: 105 } },
  things: {},
  paddocks: {},
  // Nobody is named yet to build it.
  build: undefined,
};
