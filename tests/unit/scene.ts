/** Small made-up plans for tests. */
import { catalogue } from '../../src/core/plan/shipped.js';
import { evaluate } from '../../src/core/evaluate.js';
import { verticesFrom } from '../../src/core/edit/edits.js';
import type { Energiser, Line, Plan, Strand } from '../../src/core/plan/schema.js';
import { createPipeline } from '../../src/core/pipeline.js';
import type { Network } from '../../src/core/power/wired.js';
import type { Report } from '../../src/core/report/schema.js';
import type { Ground } from '../../src/core/terrain/ground.js';

export const FLAT: Ground = { kind: 'flat', z_m: 0 };

export const strands = (heights: number[], part: Partial<Strand> = {}): Strand[] =>
  heights.map((height_m) => ({ height_m, duty: 'live', wire: 'ht25', insulated: true, ...part }));

export function line(id: string, points: [number, number][], part: Partial<Line> = {}): Line {
  return {
    id,
    name: id,
    vertices: verticesFrom(points.map(([e, n]) => ({ e, n }))),
    left: ['sheep'],
    right: [],
    keepOut: [],
    boundary: false,
    strands: strands([0.15, 0.3, 0.45, 0.65, 0.9]),
    post: 'steel-180',
    maxBay_m: null,
    school: 'moderate',
    tensioner: true,
    ...part,
  };
}

export const energiser = (on: string, at_m: number, part: Partial<Energiser> = {}): Energiser => ({
  id: 'unit',
  name: 'Unit',
  model: 'm2',
  e: 0,
  n: 0,
  line: on,
  at_m,
  rods: 20,
  rodLength_m: 2,
  rodDiameter_m: 0.016,
  rodSpacing_m: 3,
  ...part,
});

export function plan(lines: Line[], part: Partial<Plan> = {}): Plan {
  return {
    format: 'anabatic-plan',
    version: 2,
    name: 'Test',
    units: 'metric',
    currency: 'EUR',
    origin: { proj: '+proj=utm +zone=30 +datum=WGS84 +units=m +no_defs', x: 500_000, y: 5_300_000 },
    ground: { kind: 'flat', z_m: 0 },
    soil: 'clay',
    climate: { cold_C: -10, today_C: 15, hot_C: 35 },
    lines: Object.fromEntries(lines.map((l) => [l.id, l])),
    gates: {},
    energisers: {},
    sizing: { resistance: 'planning', reserve: 0 },
    newLines: { left: [], right: [], keepOut: [], boundary: false },
    overrides: {},
    ...part,
  };
}

/** The report, mends not tried: that takes ten times as long, and most do not look at them. */
export const report = (p: Plan, ground: Ground = FLAT): Report =>
  evaluate(p, ground, catalogue, { mends: 0 });
/** The report with every mend tried. */
export const mended = (p: Plan, ground: Ground = FLAT): Report => evaluate(p, ground, catalogue);

/** The network of an energiser of a plan, as the Power step asks about it. */
export function networkOf(p: Plan, id = 'unit', ground: Ground = FLAT): Network {
  const { whole, cat } = createPipeline()(p, ground, catalogue);
  const { wired, topology, groups } = whole.power;
  const energiser = p.energisers[id]!;
  const group = groups.find((g) => g.energisers.includes(energiser))!;
  return { energiser, ids: group.lines, wired, topology, plan: p, cat };
}

/** What a search for posts keeps to in tests; each adds its ground, spacing and kinds. */
export const PLACING = {
  strands: 5,
  tension_N: 900,
  wire_weight_N_per_m: 0.378,
  wire_height_low_m: 0.15,
  clearance_min_m: 0.03,
  clearance_max_m: 0.32,
  min_spacing_m: 0,
  safety_factor: 1.5,
} as const;
