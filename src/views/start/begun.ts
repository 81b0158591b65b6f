/** What the answers given so far make: worked out in a worker, shown like any property, saved nowhere. */
import { useEffect, useRef, useState } from 'react';
import type { Answers } from '../../core/edit/firstPlan.js';
import type { Grid, Plan } from '../../core/plan/schema.js';
import { groundOf } from '../../core/terrain/ground.js';
import { useSession } from '../../session/state.js';
import { askKept, keptWorker, type Running } from '../../session/workers.js';
import type { Begun, StartApi } from '../../workers/begin.js';

const worker = keptWorker('begin');

/** Work that takes longer than this is said, ms. */
const LONG_MS = 400;

/**
 * Begins a plan for the answers (by their identity), the newest only, and shows it on the map.
 * @returns what came of it, and why nothing did
 */
export function useBegun(answers: Answers, grid: Grid | null) {
  const [begun, setBegun] = useState<Begun | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [working, setWorking] = useState(false);
  const wanted = useRef<{ answers: Answers; grid: Grid | null } | null>(null);
  const busy = useRef(false);
  const laid = useRef<{ by: Running<StartApi>; grid: Grid | null } | null>(null);
  useEffect(() => {
    wanted.current = { answers, grid };
    if (!busy.current) void run();
    async function run() {
      busy.current = true;
      const long = setTimeout(() => setWorking(true), LONG_MS);
      while (wanted.current) {
        const now = wanted.current;
        wanted.current = null;
        try {
          const made = await askKept(worker, async (running) => {
            const { api } = running;
            if (laid.current?.by !== running || laid.current.grid !== now.grid)
              await api.lay(now.grid);
            laid.current = { by: running, grid: now.grid };
            return api.begin(now.answers);
          });
          show(made.plan, made.report, now.grid);
          setBegun(made);
          setFault(null);
        } catch (e) {
          setFault((e as Error).message);
        }
      }
      busy.current = false;
      clearTimeout(long);
      setWorking(false);
    }
  }, [answers, grid]);
  return {
    begun,
    fault,
    working,
    finish: (last: Answers): Promise<Plan> => askKept(worker, ({ api }) => api.finish(last)),
  };
}

/** Puts a plan where the map looks for one. Nothing of it is kept: there is no property yet. */
export function show(plan: Plan, report: Begun['report'] | null, grid: Grid | null): void {
  const grids = plan.ground.kind === 'grid' && grid ? { [plan.ground.id]: grid } : {};
  useSession.setState({ plan, report, grid, ground: groundOf(plan, grids) });
}
