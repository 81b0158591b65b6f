/** What a page for paper shows: the saved plan with its report, and its ground where it has one. */
import { useEffect, useState, type ReactNode } from 'react';
import type { Grid, Plan } from '../../core/plan/schema.js';
import type { Report } from '../../core/report/schema.js';

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
  const get = async <T,>(url: string): Promise<T> => {
    const answer = await fetch(url);
    if (!answer.ok) throw new Error('The property could not be loaded.');
    return (await answer.json()) as T;
  };
  const [{ plan }, report] = await Promise.all([
    get<{ plan: Plan }>(`/api/properties/${id}`),
    get<Report>(`/api/properties/${id}/report?mends=0`),
  ]);
  const grid = plan.ground.kind === 'grid' ? await get<Grid>(`/api/grids/${plan.ground.id}`) : null;
  return { plan, report, grid };
}
