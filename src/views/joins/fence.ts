/** The fences of the property as their wires see them: places, what is tied there, what is fed. */
import { useMemo } from 'react';
import type { Catalogue } from '../../core/plan/catalogue.js';
import type { Plan } from '../../core/plan/schema.js';
import type { Report } from '../../core/report/schema.js';
import type { Fence, Network } from '../../core/power/wired.js';
import { fencesOf } from '../../core/wiring/networks.js';
import { fedStrands, placesOf, type Fed, type Place } from '../../core/wiring/place.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';

export interface Wired {
  readonly net: Fence;
  /** All places of the lines that hang together. */
  readonly places: readonly Place[];
  /** By strand of a run; null: no unit feeds them. */
  readonly fed: ReadonlyMap<string, Fed> | null;
}

/** Lines that hang together, each group once. Worked out here and not in the worker: what is tied lights up at once. */
export function useFences(): readonly Wired[] {
  const plan = useSession((s) => s.plan);
  const lines = useSession((s) => s.report?.lines);
  const cat = useCatalogue();
  return useMemo(() => {
    return lines ? wiredOf(plan, { lines }, cat) : [];
  }, [plan, lines, cat]);
}

/** Lines that hang together, as the first unit on them feeds them. */
export function wiredOf(plan: Plan, report: Pick<Report, 'lines'>, cat: Catalogue): Wired[] {
  return fencesOf(plan, report, cat).map((net) => ({
    net,
    places: placesOf(net),
    fed: net.energiser ? fedStrands(net as Network) : null,
  }));
}

/** A place as a line meets it. */
export interface PlaceOn {
  readonly place: Place;
  readonly at_m: number;
}

/** The places of one line in their order, also those that another line has first. */
export const placesOn = ({ places, net }: Wired, line: string): PlaceOn[] =>
  places
    .flatMap((place) =>
      net.topology.marks[line]!.filter((m) => m.location === place.location)
        .filter((m, k, all) => k === 0 || m.s - all[k - 1]!.s > 1)
        .map((m) => ({ place, at_m: m.s })),
    )
    .sort((a, b) => a.at_m - b.at_m);
