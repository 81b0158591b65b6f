/** What a page for paper shows: the saved plan with its report, and its ground where it has one. */
import { useEffect, useState } from 'react';
import type { Grid, Plan } from '../../core/plan/schema.js';
import type { Report } from '../../core/report/schema.js';

export interface Loaded {
  readonly plan: Plan;
  readonly report: Report;
  readonly grid: Grid | null;
}

/** The property; words where it could not be loaded; null while it is on its way. */
export function useLoaded(id: string): Loaded | string | null {
  const [loaded, setLoaded] = useState<Loaded | string | null>(null);
  useEffect(() => {
    load(id).then(setLoaded, (e: Error) => setLoaded(e.message));
  }, [id]);
  return loaded;
}

async function load(id: string): Promise<Loaded> {
  const get = async <T>(url: string): Promise<T> => {
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
