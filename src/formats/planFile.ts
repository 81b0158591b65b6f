/** The plan file: the plan document with the ground grids that it needs. */
import { catalogue } from '../core/plan/shipped.js';
import { checkPlan } from '../core/check.js';
import { PARTS } from '../core/parts/index.js';
import type { Part } from '../core/parts/part.js';
import { planSchemaOf, PlanSchema, type Grid, type Plan } from '../core/plan/schema.js';
import { liftPlan, versionOf } from '../core/versions.js';
import { FormatError, parseJson } from './error.js';
import { soundOrigin } from './projection.js';
import { validate } from './validate.js';

export interface OpenedPlan {
  /** The plan without its grids. */
  readonly plan: Plan;
  readonly grids: Record<string, Grid>;
}

/**
 * A plan from a value: schema, then what a schema cannot say.
 * @param known grids that are at hand besides those in the file
 * @throws FormatError naming the place and the reason; nothing has been changed then
 */
export function openPlan(
  value: unknown,
  known: ReadonlySet<string> = new Set(),
  parts: readonly Part[] = PARTS,
): OpenedPlan {
  const { grids = {}, ...plan } = validate<Plan>(schemaFor(parts), lifted(value, parts));
  soundOrigin(plan.origin);
  for (const [id, grid] of Object.entries(grids)) {
    if (grid.z_m.length !== grid.cols * grid.rows) {
      throw new FormatError(
        `/grids/${id}/z_m`,
        `${grid.z_m.length} heights where cols x rows is ${grid.cols * grid.rows}`,
      );
    }
  }
  const fault = checkPlan(plan, catalogue, new Set([...known, ...Object.keys(grids)]), parts)[0];
  if (fault) throw new FormatError(fault.place, fault.reason);
  return { plan, grids };
}

function lifted(value: unknown, parts: readonly Part[]): unknown {
  try {
    return liftPlan(value, parts);
  } catch (error) {
    if (error instanceof RangeError) throw new FormatError('/version', error.message);
    throw error;
  }
}

// A schema is compiled by its identity, so that the same parts must give the same one.
const schemas = new WeakMap<readonly Part[], object>([[PARTS, PlanSchema]]);
function schemaFor(parts: readonly Part[]): object {
  let schema = schemas.get(parts);
  if (!schema) {
    const keys = parts.map((part) => part.keys);
    schemas.set(parts, (schema = planSchemaOf(keys, versionOf(parts))));
  }
  return schema;
}

/** A plan from the text of a file. */
export const parsePlan = (text: string): OpenedPlan => openPlan(parseJson(text));

/** The text of a plan file, with the one grid that the plan names. */
export function printPlan(plan: Plan, grids: Readonly<Record<string, Grid>>): string {
  const id = plan.ground.kind === 'grid' ? plan.ground.id : null;
  const grid = id === null ? undefined : grids[id];
  return JSON.stringify(grid && id !== null ? { ...plan, grids: { [id]: grid } } : plan);
}
