/** What a page for paper shows: the saved plan with its report, and its ground where it has one. */
import { useEffect, useState, type ReactNode } from 'react';
import type { Grid, Plan } from '../../core/plan/schema.js';
import type { Report } from '../../core/report/schema.js';
import { groundGrid, openedProperty } from '../../session/open.js';
import { useReach } from '../../session/reach.js';

export interface Loaded {
  readonly plan: Plan;
  readonly report: Report;
  readonly grid: Grid | null;
}

/**
 * A page that stands on a loaded property.
 * @param words said while it is on its way; @param children the page, once it is there
 */
export function OnLoaded(p: {
  id: string;
  words: string;
  children: (loaded: Loaded) => ReactNode;
}) {
  const [loaded, setLoaded] = useState<Loaded | string | null>(null);
  useEffect(() => {
    load(p.id).then(setLoaded, (e: Error) => setLoaded(e.message));
  }, [p.id]);
  if (loaded === null) return <p className="p-6">{p.words}</p>;
  if (typeof loaded === 'string')
    return (
      <p role="alert" className="p-6">
        {loaded}
      </p>
    );
  return p.children(loaded);
}

async function load(id: string): Promise<Loaded> {
  const opened = await openedProperty(id, []);
  const { plan } = opened;
  const grid = await groundGrid(plan);
  const answer = await fetch(`/api/properties/${id}/report?mends=0`).catch(() => null);
  if (answer?.ok) return { plan, report: (await answer.json()) as Report, grid };
  if (useReach.getState().away === null) throw new Error('The property could not be loaded.');
  // Without the server it is worked out here, by the worker that the program itself asks.
  const { reportHere } = await import('../../session/reportHere.js');
  return { plan, grid, report: await reportHere(id, opened, grid) };
}
