/** Opens a property: from the server, or from what this browser kept of it where the server does not answer. */
import type { Grid, Plan } from '../core/plan/schema.js';
import { groundAt, openedAt } from '../formats/addresses.js';
import type { Opened } from '../formats/change.js';
import { outOfSteps, type GridSteps } from '../formats/gridSteps.js';
import { keepGrid, keptGrid, keptProperty, type KeptProperty } from './field.js';
import { reached, useReach } from './reach.js';
import { heardFrom, useVisitor } from './visitor.js';

/** A server that is slower than this is not waited for where the property is here, ms. */
const PATIENCE_MS = 4000;

export interface OpenedHere extends Opened {
  /** Of the changes that were asked about, those that are saved. */
  readonly landed: readonly string[];
  readonly visitor: KeptProperty['visitor'];
}

/**
 * @param mine ids of changes that wait here
 * @throws Error in words when it is neither there nor here
 */
export async function openedProperty(id: string, mine: readonly string[]): Promise<OpenedHere> {
  const kept = await keptProperty(id);
  const signal = kept ? { signal: AbortSignal.timeout(PATIENCE_MS) } : {};
  try {
    const answer = await fetch(openedAt(id, mine), signal);
    heardFrom(answer);
    if (answer.ok) {
      const opened = (await answer.json()) as OpenedHere;
      reached(true);
      useReach.setState({ asOf: null });
      useVisitor.setState(opened.visitor);
      return opened;
    }
    // What the server denies is not shown from here: it may have been taken away.
    if (answer.status === 404) throw new Gone('There is no such property.');
    if (answer.status === 403) throw new Gone('You may not look at this property.');
  } catch (error) {
    if (error instanceof Gone) throw error;
  }
  if (!kept) throw new Error('The server did not answer, and this browser has not kept this property.');
  reached(false);
  useReach.setState({ asOf: kept.asOf });
  useVisitor.setState(kept.visitor);
  return { ...kept, landed: [] };
} // prettier-ignore

class Gone extends Error {}

/** The ground of a plan; null where it is flat. @throws Error in words when it cannot be had */
export async function groundGrid(plan: Plan): Promise<Grid | null> {
  if (plan.ground.kind === 'flat') return null;
  const { id } = plan.ground;
  // It is named by its content: what was kept is what the server has.
  const here = await keptGrid(id);
  if (here) return here;
  const answer = await fetch(groundAt(id)).catch(() => null);
  if (!answer?.ok) throw new Error('The ground of this property could not be loaded.');
  const grid = outOfSteps((await answer.json()) as Grid | GridSteps);
  void keepGrid(id, grid);
  return grid;
}
