/** A page that stands by itself asks the same worker as the program: its property is put in the session's place. */
import { useEffect, useState } from 'react';
import { groundOf } from '../../core/terrain/ground.js';
import { useSession } from '../../session/state.js';
import type { Loaded } from './OnLoaded.js';

/** Whether the session has the loaded property; what reads the session may be drawn then. */
export function useStandingAlone(id: string, { plan, report, grid }: Loaded): boolean {
  const [ready, setReady] = useState(false);
  useEffect(() => {
    const grids = plan.ground.kind === 'grid' && grid ? { [plan.ground.id]: grid } : {};
    useSession.setState({ id, plan, report, grid, ground: groundOf(plan, grids) });
    setReady(true);
  }, [id, plan, report, grid]);
  return ready;
}
