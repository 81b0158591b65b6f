/** The stringing table: what to set at each temperature, said for whatever tool is at hand. */
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import { lateralPull, returnTime } from './pull.js';
import { spoolTurns, takeUp } from './run.js';
import { handOf, setAt, setTo, springOf, type Strung } from './strung.js';
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
export function springLength(pull_N: number, cat: Catalogue): number {
  const { free_m, rate_N_per_m, travel_m } = springOf(cat);
  return free_m + Math.min(pull_N / rate_N_per_m, travel_m);
}

/** What a spring takes at the end of its travel, N: beyond it, it is solid. */
export function springSolid(cat: Catalogue): number {
  const { rate_N_per_m, travel_m } = springOf(cat);
  return rate_N_per_m * travel_m;
}

/** What a wire takes up from being drawn out by hand, m, with what its two ties slip; and the turns of the spool for it. */
export function woundIn(s: Strung, slip_m: number, cat: Catalogue) {
  const hand_N = handOf(s.set_N, cat);
  const { elastic_m, slack_m } = takeUp(s.shape, s.tension15_N, { ...s.steel, hand_N });
  const wound_m = elastic_m + slack_m + 2 * slip_m;
  const turns = spoolTurns(wound_m, {
    diameter_m: figure(cat, 'wire.spool'),
    wire_m: recordOf(cat.wires, s.wire).diameter_mm / 1000,
    perLayer: figure(cat, 'wire.perLayer'),
  });
  return { wound_m, turns };
}

/** The table of one wire of one run. @param celsius the temperatures, degrees C */
export function stringingTable(
  s: Strung,
  celsius: readonly number[],
  tools: Tools,
  cat: Catalogue,
): StringingRow[] {
  const { mass_kg_per_m } = wireOf(s.wire, cat);
  const { weight_N_per_m, EA_N } = s.steel;
  return celsius.map((c): StringingRow => {
    const tension_N = setAt(s, c);
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
      ...woundIn(setTo(s, tension_N, cat), tools.slip_m, cat),
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
export const leftBySlip = (
  tension_N: number,
  length_m: number,
  slip_m: number,
  EA_N: number,
): number => Math.max(0, tension_N - (EA_N * slip_m) / length_m);
