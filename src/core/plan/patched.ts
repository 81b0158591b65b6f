/** A plan with a patch put in; what the patch does not touch keeps its identity. */
import type { PatchStep, Plan } from './schema.js';

/**
 * For patches of the heart's own making. What comes from outside goes through `formats/patch`, which says
 * what is wrong with it.
 * @throws RangeError when a step leads nowhere
 */
export const patched = (plan: Plan, patch: readonly PatchStep[]): Plan =>
  patch.reduce((p, step) => put(p, keysOf(step.path), step) as Plan, plan);

const keysOf = (pointer: string): string[] =>
  pointer
    .slice(1)
    .split('/')
    .map((key) => key.replaceAll('~1', '/').replaceAll('~0', '~'));

function put(at: unknown, [key, ...rest]: readonly string[], step: PatchStep): unknown {
  if (typeof at !== 'object' || at === null || key === undefined)
    throw new RangeError(`${step.path} leads nowhere`);
  const copy: Record<string, unknown> | unknown[] = Array.isArray(at) ? [...at] : { ...at };
  const own = copy as Record<string, unknown>;
  if (rest.length > 0) own[key] = put(own[key], rest, step);
  else if (Array.isArray(copy) && step.op !== 'replace') {
    const index = key === '-' ? copy.length : Number(key);
    if (step.op === 'add') copy.splice(index, 0, step.value);
    else copy.splice(index, 1);
  } else if (step.op === 'remove') delete own[key];
  else own[key] = step.value;
  return copy;
}
