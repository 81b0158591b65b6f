/** Tension of every strand of a line, today and at the extremes. */
import { piecesOf, GRAVITY } from '../base/numbers.js';
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Line, Plan, Strand } from '../plan/schema.js';
import type { Strain } from '../report/schema.js';
import { pushAside } from './pull.js';
import { leastOf, mostOf } from './run.js';
import { REFERENCE_C, setAt, strungIn, tensionsAt, type BayedRun, type Strung, type StrungLine } from './strung.js'; // prettier-ignore
import { stateChange } from './temperature.js';
import { weakestJoint, wireOf } from './wires.js';

/** Tension at another temperature than the reference, ends fixed, one span, N. */
export function tensionAt(
  tension15: number,
  span: number,
  wire: string,
  celsius: number,
  cat: Catalogue,
) {
  const w = wireOf(wire, cat);
  return stateChange({
    tension_1_N: tension15,
    span_m: span,
    delta_theta_K: celsius - REFERENCE_C,
    wire_weight_N_per_m: w.weight_N_per_m,
    EA_N: w.EA_N,
    alpha_per_K: figure(cat, 'wire.expansion'),
  }).tension_2_N;
}

/** A line as far as its strain goes. */
export type StrainedLine = StrungLine & Pick<Line, 'strands' | 'dropper'>;

/** One row for each run and each kind of wire in it (strands of one wire are set alike). */
export function strainOf(
  line: StrainedLine,
  runs: readonly BayedRun[],
  climate: Plan['climate'],
  cat: Catalogue,
): Strain[] {
  const wires = [...new Set(line.strands.map((s: Strand) => s.wire))];
  return runs.flatMap((bayed, run) =>
    wires.map((wire): Strain =>
      rowOf(line, bayed, strungIn(line, bayed, wire, cat), run, climate, cat),
    ),
  );
}

/** A wire of one run on the hottest day. */
export interface HotDay {
  /** The least in any bay on the hottest day, N, and how far the wire sags in the bay where it sags most, m. */
  readonly hot_N: number;
  readonly sagHot_m: number;
  readonly sagBay_m: number;
  /** How far the usual push moves the strand in the bay that gives most, m, and the least tension it is judged at, N. */
  readonly pushed_m: number;
  readonly push_N: number;
}

/** What a strand and its droppers weigh by the metre, N/m. */
const hangs = (line: Pick<Line, 'strands' | 'dropper'>, s: Strung, cat: Catalogue): number =>
  s.steel.weight_N_per_m + dropperWeight(line, cat);

/** The bay that sags most at these tensions, and by how much, m. */
function mostSag(weight_N_per_m: number, { shape }: Strung, T: Float64Array) {
  let [sag_m, bay_m] = [0, 0];
  T.forEach((t, k) => {
    const c = shape.chord_m[k]!;
    const sag = (weight_N_per_m * c * c) / (8 * t);
    if (sag > sag_m) [sag_m, bay_m] = [sag, c];
  });
  return { sag_m, bay_m };
}

/** The most in any bay on the coldest night, with the wire sliding over its posts, N. */
export const coldNight = (s: Strung, climate: Plan['climate']): number =>
  mostOf(tensionsAt(s, climate.cold_C));

/**
 * The hottest day, with the wire sliding over its posts. Limits of opening come from fences of
 * practice as they are set, and those too keep only a part of that in their slackest bay: at a push a run loses
 * nothing until it loses more than they do.
 * @param run_m length of the run as taped: what a push can draw on
 */
export function hotDay(
  line: Pick<Line, 'strands' | 'dropper'>,
  s: Strung,
  climate: Plan['climate'],
  run_m: number,
  cat: Catalogue,
): HotDay {
  const hot = tensionsAt(s, climate.hot_C, { crept: true });
  const sag = mostSag(hangs(line, s, cat), s, hot);
  const even = setAt({ ...s, set_N: s.set_N * (1 - s.creep) }, climate.hot_C);
  const usual = figure(cat, 'strands.pushKeeps');
  const { dropper } = line;
  let push_N = Infinity;
  /** Bays that could give most: the slackest for its length, and the longest. */
  let [slack, long] = [
    { L: 0, T: 1 },
    { L: 0, T: 1 },
  ];
  hot.forEach((t, k) => {
    const c = s.shape.chord_m[k]!;
    const T = Math.min(even, t / usual);
    push_N = Math.min(push_N, T);
    // Between droppers the strands keep one another's distance: a push opens that far and no further.
    const L = dropper ? c / piecesOf(c, dropper.each_m) : c;
    if (L / T > slack.L / slack.T) slack = { L, T };
    if (L > long.L) long = { L, T };
  });
  const give = ({ L, T }: typeof slack) =>
    pushAside(figure(cat, 'wire.pushForce'), T, L, s.steel.EA_N, run_m);
  return {
    hot_N: leastOf(hot),
    sagHot_m: sag.sag_m,
    sagBay_m: sag.bay_m,
    pushed_m: Math.max(give(slack), give(long)),
    push_N,
  };
}

function rowOf(
  line: StrainedLine,
  { run, bays_m }: BayedRun,
  strung: Strung,
  index: number,
  climate: Plan['climate'],
  cat: Catalogue,
): Strain {
  const joint = weakestJoint(line, cat);
  const cold = tensionsAt(strung, climate.cold_C);
  const held = (celsius: number) =>
    tensionsAt(strung, celsius, { held: true, crept: celsius > REFERENCE_C });
  return {
    run: index,
    ground_m: run.ground_m,
    bay_m: Math.max(...bays_m),
    ruling_m: strung.ruling_m,
    wire: strung.wire,
    at_m: strung.at_m,
    at15_N: strung.set_N,
    least15_N: leastOf(strung.tension15_N),
    today_N: setAt(strung, climate.today_C),
    cold_N: mostOf(cold),
    ...hotDay(line, strung, climate, run.ground_m, cat),
    coldHeld_N: mostOf(held(climate.cold_C)),
    hotHeld_N: leastOf(held(climate.hot_C)),
    limit_N: figure(cat, 'wire.coldLimit') * wireOf(strung.wire, cat).break_N * joint.efficiency,
    joint: joint.id,
    sagToday_m: mostSag(hangs(line, strung, cat), strung, tensionsAt(strung, climate.today_C))
      .sag_m,
    ...(strung.spring ? { spring_N: cold[strung.at]! } : {}),
  };
}

/** Weight of droppers that hang, for each strand and metre, N/m; those that rest on the ground weigh nothing. */
export function dropperWeight(line: Pick<Line, 'strands' | 'dropper'>, cat: Catalogue): number {
  if (!line.dropper) return 0;
  const kind = recordOf(cat.droppers, line.dropper.kind);
  if (kind.rests) return 0;
  return (kind.mass_kg * GRAVITY) / (line.dropper.each_m * Math.max(1, line.strands.length));
}

/** Of some wires the one that comes nearest to its limit on the coldest night, or goes furthest beyond. */
export const nearestLimit = (strain: readonly Strain[]): Strain | undefined =>
  worstOf(strain, (s) => s.cold_N / s.limit_N);

/** Of some wires the one whose slackest bay keeps least of what was set. */
export const slackestOf = (strain: readonly Strain[]): Strain | undefined =>
  worstOf(strain, (s) => s.at15_N / s.least15_N);

const worstOf = (strain: readonly Strain[], by: (s: Strain) => number): Strain | undefined =>
  strain.reduce<Strain | undefined>((a, b) => (a && by(a) >= by(b) ? a : b), undefined);

/** The least pull at which a push on one wire is judged, N. */
export const pushPull = (strain: readonly Strain[], wire: string): number =>
  strain.reduce((t, r) => (r.wire === wire ? Math.min(t, r.push_N) : t), Infinity);

/** The least pull of one wire over the runs on the hottest day, N. */
export const hotPull = (strain: readonly Strain[], wire: string): number =>
  strain.reduce((t, r) => (r.wire === wire ? Math.min(t, r.hot_N) : t), Infinity);
