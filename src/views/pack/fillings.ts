/** What goes into each part of the pack: the same leaves that each step prints by itself. */
import { useMemo } from 'react';
import { catalogue } from '../../core/plan/shipped.js';
import { ownCatalogue } from '../../core/plan/ownCatalogue.js';
import type { Line, Plan } from '../../core/plan/schema.js';
import { useDayLeaves } from '../build/DayPages.js';
import { handLeaves } from '../build/HandCards.js';
import { endLeaves } from '../ends/EndCards.js';
import { wiredOf } from '../joins/fence.js';
import { wiringLeaves } from '../joins/WiringSheets.js';
import type { Loaded } from '../print/OnLoaded.js';
import { mapLeaves } from '../print/mapLeaves.js';
import { setOutLeaf } from '../setout/SetOutView.js';
import { stickLeaves, type Marked } from '../stick/StickView.js';
import { strainLeaves } from '../strain/StrainCards.js';
import { coilLeaves } from '../supplies/CoilCards.js';
import { useCuts, useLedger } from '../supplies/supplied.js';
import type { Filling, PartId } from './pack.js';

/** @param only the line that it is for; null: all of them. Coils and days are of the whole property. */
export function useFillings(loaded: Loaded, only: string | null): Record<PartId, Filling> {
  const { plan, report } = loaded;
  const { value: cuts, waiting } = useCuts(useLedger());
  const days = useDayLeaves(null, Infinity);
  const drawn = useMemo(() => {
    const cat = ownCatalogue(catalogue, plan);
    const lines = Object.values(plan.lines).filter((l) => only === null || l.id === only);
    const wired = wiredOf(plan, report, cat);
    const or = <T>(all: readonly T[], why: string) => (all.length > 0 ? all : why);
    const none = 'no line yet';
    return {
      map: or(lines.length > 0 ? mapLeaves(loaded, only) : [], none),
      setout: or(lines.map((l) => setOutLeaf(l, report.lines[l.id]!, plan)), none), // prettier-ignore
      wiring: or(
        lines.flatMap((l) => {
          const own = wired.find((w) => w.net.ids.includes(l.id));
          return own ? wiringLeaves(l, own, plan, cat) : [];
        }),
        'no run of wire yet: nothing to tie',
      ),
      ends: or(lines.flatMap((l) => endLeaves(l, report, plan, cat)), 'no strands yet: nothing pulls at the ends'), // prettier-ignore
      strain: or(lines.flatMap((l) => strainLeaves(l, report, plan, cat)), 'no strands yet: nothing to tension'), // prettier-ignore
      sticks: or(
        sticksOf(lines).flatMap((s) => stickLeaves(s, plan)),
        'no strands yet',
      ),
      cards: handLeaves(plan.units),
    };
  }, [loaded, plan, report, only]);
  const coils = useMemo(() => {
    if (!cuts || waiting) return null;
    const leaves = coilLeaves(cuts, plan, ownCatalogue(catalogue, plan));
    return leaves.length > 0 ? leaves : 'no coils to cut';
  }, [cuts, waiting, plan]);
  return { ...drawn, coils, days };
}

/** One stick for all lines with the same strands, named after them. */
export function sticksOf(lines: readonly Pick<Line, 'name' | 'strands'>[]): Marked[] {
  const alike = new Map<string, { names: string[]; strands: Plan['lines'][string]['strands'] }>();
  for (const { name, strands } of lines) {
    if (strands.length === 0) continue;
    const key = JSON.stringify(strands.map((s) => [s.height_m, s.duty]));
    const known = alike.get(key);
    if (known) known.names.push(name);
    else alike.set(key, { names: [name], strands });
  }
  return [...alike.values()].map(({ names, strands }) => ({ name: names.join(', '), strands }));
}
