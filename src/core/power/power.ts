/** One energiser on its fence: volts by season, its earth, and what nothing feeds. */
import { soilAt } from '../land/things.js';
import { figure, recordOf, seasonsOf, type SeasonId } from '../plan/catalogue.js';
import type { EnergiserReport, SeasonPower } from '../report/schema.js';
import { earthing } from './earthing.js';
import { loadLineOf } from './unit.js';
import { smallestOf } from './sizing.js';
import { leastOf } from './design.js';
import { plateOfUnit, unitOf } from './unit.js';
import { aboutVolts, voltsOf, type Volts } from './volts.js';
import type { Network, WiredLine } from './wired.js';

export interface PowerResult {
  readonly report: Omit<EnergiserReport, 'felt'>;
  /** The volts behind it, by season. */
  readonly known: readonly Volts[];
  /** Lines and distances where live strands carry nothing. */
  readonly dead: readonly { line: string; from_m: number; to_m: number }[];
}

/** By the closed form: no pulse is simulated, and what rests on one is left open. */
export const ABOUT = 'about';

/**
 * Evaluates one energiser over the lines that hang together with its own.
 * @param by volts of a season, where somebody keeps them
 */
export function powerOf(
  net: Network,
  by: typeof ABOUT | ((season: SeasonId) => Volts | null) = (season) => voltsOf(net, season),
): PowerResult {
  const { energiser, ids, wired, plan, cat } = net;
  const soil = recordOf(cat.soils, soilAt(plan, energiser));
  const about = by === ABOUT;
  const volts = about ? (season: SeasonId) => aboutVolts(net, season) : by;
  const solved = seasonsOf(plan, cat).map((season) => ({ season, volts: volts(season) }));
  const known = solved.flatMap(({ volts }) => volts ?? []);
  const fence_m = ids.reduce((t, id) => t + fenceLength(wired[id]!), 0);
  const unit = unitOf(energiser, cat);
  return {
    report: {
      id: energiser.id,
      lines: [...ids],
      fence_m,
      wire_m: ids.reduce((t, id) => t + fenceLength(wired[id]!) * liveCount(wired[id]!), 0),
      plateFits: unit.fits,
      output_J: unit.plate.output_J,
      seasons: Object.fromEntries(
        solved.map(({ season, volts }) => [season, seasonPower(net, volts)]),
      ),
      ...(about ? { about } : {}),
      least: about ? null : leastOf(known),
      smallest: about ? null : smallestOf(net, known),
      earth: earthing(
        energiser,
        soil,
        loadLineOf(plateOfUnit(energiser, cat)),
        tiedResistance(net),
        cat,
      ),
      joulesByLength: (figure(cat, 'energiser.joulesPerKm') * fence_m) / 1000,
    },
    known,
    dead: deadStretches(net, solved.find((s) => s.season === 'today')!.volts),
  };
}

export const fenceLength = (w: WiredLine): number => w.runs.reduce((t, r) => t + r.ground_m, 0);

const liveCount = ({ line }: WiredLine): number =>
  line.strands.filter((s) => s.duty === 'live').length;

/** Resistance per metre of the live strands in parallel beside the energiser. */
function tiedResistance({ energiser, wired, plan, cat }: Network): number {
  const strands = (energiser.line ? wired[energiser.line]?.line.strands : undefined)?.filter(
    (s) => s.duty === 'live',
  );
  if (!strands?.length) return 0;
  const key = `${plan.sizing.resistance}_ohm_per_km` as const;
  const siemens = strands.reduce((t, s) => t + 1000 / recordOf(cat.wires, s.wire)[key], 0);
  return 1 / siemens;
}

/** What the report shows of a season. */
export function seasonPower(net: Network, volts: Volts | null): SeasonPower {
  if (!volts) {
    const v = plateOfUnit(net.energiser, net.cat).open_V;
    return { v_out_V: v, i_out_A: 0, r_earth_ohm: 0, v_earth_V: 0, worst: null, lines: {} };
  }
  const { out_V, out_A, earth_ohm, worst, lines } = volts;
  return {
    v_out_V: out_V,
    i_out_A: out_A,
    r_earth_ohm: earth_ohm,
    v_earth_V: out_A * earth_ohm,
    worst: worst && { ...worst },
    lines: { ...lines },
  };
}

function deadStretches({ ids, wired }: Network, volts: Volts | null): PowerResult['dead'] {
  return ids.flatMap((id) => {
    const { line, runs } = wired[id]!;
    if (!line.strands.some((s) => s.duty === 'live')) return [];
    // A run is fed or it is not: its strands are tied at both ends.
    return runs
      .filter((run) => {
        const [from, to] = [run.from_m + 0.01, run.to_m - 0.01];
        return !volts || volts.unfed.some((u) => u.line === id && u.from_m < to && u.to_m > from);
      })
      .map((run) => ({ line: id, from_m: run.from_m, to_m: run.to_m }));
  });
}
