/** What the answers given so far make: worked out in a worker, shown like any property, saved nowhere. */
import * as Comlink from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Answers } from '../../core/edit/firstPlan.js';
import type { Grid, Plan } from '../../core/plan/schema.js';
import { groundOf } from '../../core/terrain/ground.js';
import { useSession } from '../../session/state.js';
import type { Begun, StartApi } from '../../workers/start.worker.js';

let api: Comlink.Remote<StartApi> | null = null;
const started = (): Comlink.Remote<StartApi> =>
  (api ??= Comlink.wrap<StartApi>(
    new Worker(new URL('../../workers/start.worker.ts', import.meta.url), { type: 'module' }),
  ));

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
  const laid = useRef<Grid | null>(null);
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
          if (laid.current !== now.grid) await started().lay(now.grid);
          laid.current = now.grid;
          const made = await started().begin(now.answers);
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
    finish: (last: Answers): Promise<Plan> => started().finish(last),
  };
}

/** Puts a plan where the map looks for one. Nothing of it is kept: there is no property yet. */
export function show(plan: Plan, report: Begun['report'] | null, grid: Grid | null): void {
  const grids = plan.ground.kind === 'grid' && grid ? { [plan.ground.id]: grid } : {};
  useSession.setState({ plan, report, grid, ground: groundOf(plan, grids) });
}
