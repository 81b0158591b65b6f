/** Rods by number and spacing: what they cost, what the test would read, and what they give back. */
import { soilAt } from '../land/things.js';
import { recordOf } from '../plan/catalogue.js';
import { earthing, earthResistance } from '../power/earthing.js';
import { loadLineOf } from '../power/unit.js';
import { plateOfUnit } from '../power/unit.js';
import type { Network } from '../power/wired.js';
import { priceInUse } from '../supplies/takeoff.js';
import { decidingSeason, scoreWith } from './worst.js';

export interface EarthRow {
  readonly rods: number;
  readonly spacing_m: number;
  readonly r_dry_ohm: number;
  readonly reading_V: number;
  readonly cost: number;
  /** Volts at the worst point in the driest month; the same for every spacing of a number, about. */
  readonly worst_V: number | null;
}

const NUMBERS = [1, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20];
const SPACINGS = [1.2, 2, 3, 5];

/** The table of the earth bench, by spacing and number. */
export function earthBench(net: Network): EarthRow[] {
  const { energiser, plan, cat } = net;
  const soil = recordOf(cat.soils, soilAt(plan, energiser));
  const line = loadLineOf(plateOfUnit(energiser, cat));
  const fed = decidingSeason(net) !== null;
  const each = priceInUse('earth.rod', cat) + priceInUse('earth.clamp', cat);
  return SPACINGS.flatMap((spacing_m) =>
    NUMBERS.map((rods): EarthRow => {
      const e = { ...energiser, rods, rodSpacing_m: spacing_m };
      const { test, r_dry_ohm } = earthing(e, soil, line, 0, cat);
      // One spacing is enough to see what rods give back.
      const volts = fed && spacing_m === 3 ? scoreWith(net, 'dry', { earth_ohm: earthResistance(e, soil, 'dry', cat) }) : null; // prettier-ignore
      const lead = spacing_m * (rods - 1) * (cat.defaults['supplies.rodLead']?.value ?? 1);
      return {
        rods,
        spacing_m,
        r_dry_ohm,
        reading_V: test.reading_V,
        cost: rods * each + lead * priceInUse('cable', cat),
        worst_V: volts?.worst.v_V ?? null,
      };
    }),
  );
}
