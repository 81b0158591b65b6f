/** The stringing table: what to set at each temperature, said for whatever tool is at hand. */
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import { lateralPull, returnTime } from './pull.js';
import { pulledAlong, spoolTurns, takeUp } from './run.js';
import { setAt, type Strung } from './strung.js';
import { wireOf } from './wires.js';

/** How one measures with each tool. */
export interface Tools {
  /** Bay in which the strand is pulled aside and its sag is sighted, m. */
  readonly bay_m: number;
  /** How far it is pulled aside at mid-bay, m. */
  readonly moved_m: number;
  /** How far the wire slides towards the bay, m; null: it is held fast at both posts. */
  readonly slides_m: number | null;
  /** Returns of a pulse that are counted, and the length that it runs over, m. */
  readonly returns: number;
  readonly over_m: number;
  /** How far the two ties slip as they bed, m each. */
  readonly slip_m: number;
}

export interface StringingRow {
  readonly celsius: number;
  /** To set at the tensioner. */
  readonly tension_N: number;
  readonly sag_m: number;
  readonly spring_m: number | null;
  readonly time_s: number;
  readonly pull_N: number;
  /** To wind in from a wire drawn out by hand, with what the ties slip; and the turns of the spool. */
  readonly wound_m: number;
  readonly turns: number;
}

/** Length of a spring under a pull, m; no longer than its travel lets it. */
export const springLength = (pull_N: number, cat: Catalogue): number =>
  figure(cat, 'spring.free') +
  Math.min(pull_N / figure(cat, 'spring.rate'), figure(cat, 'spring.travel'));

/** What a spring takes at the end of its travel, N: beyond it, it is solid. */
export const springSolid = (cat: Catalogue): number =>
  figure(cat, 'spring.rate') * figure(cat, 'spring.travel');

/** The table of one wire of one run. @param celsius the temperatures, degrees C */
export function stringingTable(
  s: Strung,
  celsius: readonly number[],
  tools: Tools,
  cat: Catalogue,
): StringingRow[] {
  const { mass_kg_per_m } = wireOf(s.wire, cat);
  const { weight_N_per_m, EA_N } = s.steel;
  const spool = {
    diameter_m: figure(cat, 'wire.spool'),
    wire_m: recordOf(cat.wires, s.wire).diameter_mm / 1000,
    perLayer: figure(cat, 'wire.perLayer'),
  };
  return celsius.map((c): StringingRow => {
    const tension_N = setAt(s, c);
    const hand_N = Math.min(figure(cat, 'wire.hand'), tension_N);
    const T = pulledAlong(s.shape, {
      supports: s.supports,
      at: s.at,
      applied_N: tension_N,
      hand_N,
    });
    const { elastic_m, slack_m } = takeUp(s.shape, T, { EA_N, weight_N_per_m, hand_N });
    const wound_m = elastic_m + slack_m + 2 * tools.slip_m;
    return {
      celsius: c,
      tension_N,
      sag_m: (weight_N_per_m * tools.bay_m ** 2) / (8 * tension_N),
      spring_m: s.spring ? springLength(tension_N, cat) : null,
      time_s: returnTime({
        mass_kg_per_m,
        returns: tools.returns,
        length_m: tools.over_m,
        tension_N,
      }),
      pull_N: lateralPull({
        tension_N,
        span_m: tools.bay_m,
        deflection_m: tools.moved_m,
        EA_N,
        wire_length_m: tools.slides_m ?? tools.bay_m,
      }).force_exact_N,
      wound_m,
      turns: spoolTurns(wound_m, spool),
    };
  });
}

/** Temperatures of the table, degrees C: -10 to 40 in steps of 5, and the one that is looked at. */
export function temperatures(now_C: number): number[] {
  const steps = Array.from({ length: 11 }, (_, k) => 5 * k - 10);
  return steps.includes(now_C) ? steps : [...steps, now_C].sort((a, b) => a - b);
}

/**
 * What the ties leave of a strand's tension when they bed after it was tensioned and no tensioner stayed in it, N.
 * @param length_m of the run
 * @param slip_m of both ties together
 */
export function leftBySlip(
  tension_N: number,
  length_m: number,
  slip_m: number,
  EA_N: number,
  spring_N_per_m?: number,
): number {
  const stiffness = 1 / (length_m / EA_N + (spring_N_per_m ? 1 / spring_N_per_m : 0));
  return Math.max(0, tension_N - stiffness * slip_m);
}
