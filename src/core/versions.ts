/** Plans of older versions, brought up to this one step by step. */
import { PARTS } from './parts/index.js';
import type { Part } from './parts/part.js';

/** Version of the plans that these parts write: one more for every step that any of them brings. */
export const versionOf = (parts: readonly Part[] = PARTS): number =>
  Math.max(1, ...parts.flatMap((part) => (part.migrations ?? []).map((m) => m.to)));

/**
 * A plan document brought up to the version that the parts write; one of that version comes back as
 * it is, and so does what is no plan at all: the schema says what is wrong with it.
 * @throws RangeError when the plan was written by a later version of the program
 */
export function liftPlan(value: unknown, parts: readonly Part[] = PARTS): unknown {
  const newest = versionOf(parts);
  const from = (value as { version?: unknown } | null)?.version;
  if (typeof from !== 'number' || !Number.isInteger(from) || from < 1 || from === newest)
    return value;
  if (from > newest) {
    throw new RangeError(
      `this plan is of version ${from}, written by a later version of the program, which reads up to ${newest} here`,
    );
  }
  const plan = structuredClone(value) as Record<string, unknown>;
  for (let version = from + 1; version <= newest; version++) {
    for (const part of parts)
      for (const step of part.migrations ?? []) if (step.to === version) step.up(plan);
    plan['version'] = version;
  }
  return plan;
}
