/** The first complete plan, from the answers of the guided start. */
import { addEnergiser } from './edits.js';
import { bringIn, type Walk, type Waypoint } from './bring.js';
import { figure, recordOf } from '../plan/catalogue.js';
import { catalogue } from '../plan/shipped.js';
import { planLength, pointAt } from '../plan/geometry.js';
import { closes, turnsLeft } from '../land/ring.js';
import { VERSION, type Plan } from '../plan/schema.js';
import type { Report } from '../report/schema.js';

export interface Answers {
  readonly name: string;
  readonly units: Plan['units'];
  readonly currency: string;
  readonly ground: Plan['ground'];
  readonly origin: Plan['origin'];
  readonly lines: readonly Walk[];
  /** How near straight runs keep to the lines, m; 0 where they are exact. */
  readonly tolerance_m?: number;
  readonly places?: readonly Waypoint[];
  /** Of a line that closes `left` is the inside, whichever way round it was walked. */
  readonly left: string[];
  readonly right: string[];
  readonly keepOut: string[];
  readonly boundary: boolean;
  readonly soil: string;
  readonly supply: 'mains' | 'solar';
}

/** A middle-sized unit of each supply to start from; Power names the right one. */
const FIRST_UNIT = { mains: 'm2', solar: 's2' } as const;

/** Lines with the proposed make-up, and an energiser beside the middle of the first. */
export function newPlan(a: Answers): Plan {
  const plan: Plan = {
    format: 'anabatic-plan',
    version: VERSION,
    name: a.name.trim().slice(0, 80),
    units: a.units,
    currency: a.currency,
    origin: a.origin,
    ground: a.ground,
    soil: a.soil,
    climate: { cold_C: -10, today_C: 15, hot_C: 35 },
    lines: {},
    gates: {},
    energisers: {},
    sizing: { resistance: 'planning', reserve: 0.3 },
    newLines: {
      left: a.left,
      right: a.right,
      keepOut: a.keepOut,
      boundary: a.boundary,
      model: FIRST_UNIT[a.supply],
    },
    overrides: {},
  };
  const { lines } = bringIn(plan, a.lines, a.places ?? [], a.tolerance_m ?? 0);
  for (const id of lines) insideFirst(plan, id);
  const first = plan.lines[lines[0] ?? ''];
  if (first && Object.keys(plan.energisers).length === 0) {
    addEnergiser(plan, pointAt(first.vertices, planLength(first) / 2), 5);
  }
  return plan;
}

/** A line that closes has its first stock within, also where it was walked clockwise. */
function insideFirst(plan: Plan, id: string): void {
  const line = plan.lines[id]!;
  if (!closes(line.vertices) || turnsLeft(line.vertices)) return;
  [line.left, line.right] = [line.right, line.left];
}

/** A unit and rods may each change what the other must be: a few rounds settle them. */
const ROUNDS = 4;

/**
 * The plan with the unit and the rods that its fence asks for.
 * @param report works a plan out
 */
export function sized(plan: Plan, report: (plan: Plan) => Report): Plan {
  let now = plan;
  for (let round = 0; round < ROUNDS; round++) {
    const { energisers } = report(now);
    const next = Object.fromEntries(
      Object.entries(now.energisers).map(([id, e]) => {
        const asked = energisers[id];
        return [
          id,
          {
            ...e,
            model: asked?.smallest ?? strongest(e.model),
            rods: asked?.earth.rodsNeeded ?? e.rods,
          },
        ];
      }),
    );
    const same = Object.entries(next).every(
      ([id, e]) => e.model === now.energisers[id]!.model && e.rods === now.energisers[id]!.rods,
    );
    if (same) return now;
    now = { ...now, energisers: next };
  }
  return now;
}

/** The strongest unit of the same supply within the limit, where none is enough. */
function strongest(model: string): string {
  const { supply } = recordOf(catalogue.energisers, model);
  const limit = figure(catalogue, 'energiser.limit');
  const able = Object.entries(catalogue.energisers).filter(
    ([, m]) => m.offered && m.supply === supply && m.output_J <= limit,
  );
  return able.reduce((a, b) => (b[1].output_J > a[1].output_J ? b : a))[0];
}
