/** The first complete plan, from the answers of the guided start. */
import { addEnergiser, addLine } from '../../core/edit/edits.js';
import { catalogue } from '../../core/plan/catalogue.js';
import { planLength, pointAt } from '../../core/plan/geometry.js';
import type { Plan, Point } from '../../core/plan/schema.js';
import { startingMakeUp } from '../../core/strands/proposal.js';

export interface Answers {
  readonly name: string;
  readonly units: Plan['units'];
  readonly currency: string;
  readonly ground: Plan['ground'];
  readonly origin: Plan['origin'];
  readonly lines: readonly { name: string; points: readonly Point[] }[];
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
    version: 1,
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
  const strands = startingMakeUp(plan.newLines, catalogue);
  for (const line of a.lines) addLine(plan, line.points, strands, line.name);
  const first = Object.values(plan.lines)[0];
  if (first) {
    addEnergiser(plan, pointAt(first.vertices, planLength(first) / 2), 5);
  }
  return plan;
}
