/** Tension of every strand of a line, today and at the extremes. */
import { figure, type Catalogue, recordOf } from '../plan/catalogue.js';
import type { Line, Plan, Strand } from '../plan/schema.js';
import type { Run, Strain } from '../report/schema.js';
import { GRAVITY, piecesOf } from '../base/numbers.js';
import { wireProperties } from './properties.js';
import { pushAside, rulingSpan, stateChange } from './temperature.js';

/** Temperature at which a school's tension is stated, degrees C. */
export const REFERENCE_C = 15;

/** Properties of a catalogue wire with the property's steel figures. */
export function wireOf(id: string, cat: Catalogue) {
  const wire = recordOf(cat.wires, id);
  const round = wireProperties({
    diameter_mm: wire.diameter_mm,
    tensile_MPa: wire.tensile_MPa,
    density_kg_m3: figure(cat, 'wire.density'),
    E_GPa: figure(cat, 'wire.modulus'),
    alpha_per_K: figure(cat, 'wire.expansion'),
    joint_efficiency: figure(cat, 'wire.jointEfficiency'),
    coil_m: wire.coil_m,
  });
  if (wire.mass_kg_per_m === undefined) return round;
  // Rope, tape and panels are no round steel: their own mass and stiffness stand.
  const EA_N = wire.EA_N ?? round.EA_N;
  return {
    ...round,
    mass_kg_per_m: wire.mass_kg_per_m,
    weight_N_per_m: wire.mass_kg_per_m * GRAVITY,
    coil_mass_kg: wire.mass_kg_per_m * wire.coil_m,
    EA_N,
    alpha_EA_N_per_K: EA_N * figure(cat, 'wire.expansion'),
  };
}

/** A run of a line with the bays in it, as taped over the ground. */
export interface BayedRun {
  readonly run: Run;
  readonly bays_m: readonly number[];
}

/** Tension at the reference temperature by the line's school, N. */
export const schoolTension = (line: Pick<Line, 'school'>, cat: Catalogue): number =>
  recordOf(cat.schools, line.school).tension_N;

/** Tension at which one wire of the line is strung at the reference temperature, N. */
export const strungAt = (line: Pick<Line, 'school'>, wire: string, cat: Catalogue): number =>
  Math.min(schoolTension(line, cat), recordOf(cat.wires, wire).tension_N ?? Infinity);

/** Tension at another temperature than the reference, ends fixed, ruling span of the run, N. */
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

/** One row for each run and each kind of wire in it (strands of one wire are set alike). */
export function strainOf(
  line: Pick<Line, 'school' | 'strands' | 'dropper'>,
  runs: readonly BayedRun[],
  climate: Plan['climate'],
  cat: Catalogue,
): Strain[] {
  const wires = [...new Set(line.strands.map((s: Strand) => s.wire))];
  const push = figure(cat, 'wire.pushForce');
  const { dropper } = line;
  return runs.flatMap(({ run, bays_m }, index) =>
    wires.map((wire): Strain => {
      const p = wireOf(wire, cat);
      const T = strungAt(line, wire, cat);
      const span = rulingSpan(bays_m);
      const longest = Math.max(...bays_m);
      const at = (celsius: number) => tensionAt(T, span, wire, celsius, cat);
      const [today, hot, cold] = [at(climate.today_C), at(climate.hot_C), at(climate.cold_C)];
      // Between droppers the strands keep one another's distance: a push opens that far and no further.
      const pushed = dropper ? longest / piecesOf(longest, dropper.each_m) : longest;
      const hangs = p.weight_N_per_m + (dropper ? dropperWeight(line, cat) : 0);
      const sag = (tension: number) => (hangs * longest * longest) / (8 * tension);
      return {
        run: index,
        ground_m: run.ground_m,
        bay_m: longest,
        wire,
        at15_N: T,
        today_N: today,
        cold_N: cold,
        hot_N: hot,
        limit_N: figure(cat, 'wire.coldLimit') * p.joint_break_N,
        sagToday_m: sag(today),
        sagHot_m: sag(hot),
        pushed_m: pushAside(push, hot, pushed, p.EA_N, run.ground_m),
      };
    }),
  );
}

/** Weight of droppers that hang, for each strand and metre, N/m; those that rest on the ground weigh nothing. */
function dropperWeight(line: Pick<Line, 'strands' | 'dropper'>, cat: Catalogue): number {
  if (!line.dropper) return 0;
  const kind = recordOf(cat.droppers, line.dropper.kind);
  if (kind.rests) return 0;
  return (kind.mass_kg * GRAVITY) / (line.dropper.each_m * Math.max(1, line.strands.length));
}

/** The least pull of one wire over the runs on the hottest day, N. */
export const hotPull = (strain: readonly Strain[], wire: string): number =>
  strain.reduce((t, r) => (r.wire === wire ? Math.min(t, r.hot_N) : t), Infinity);

/** The stringing table of one run: what to set at each temperature so that 15 degrees C comes right. */
export function stringingTable(tension15: number, span: number, wire: string, cat: Catalogue) {
  const rows: { celsius: number; tension_N: number; sag_m: number }[] = [];
  const w = wireOf(wire, cat).weight_N_per_m;
  for (let celsius = -10; celsius <= 40; celsius += 5) {
    const tension_N = tensionAt(tension15, span, wire, celsius, cat);
    rows.push({ celsius, tension_N, sag_m: (w * span * span) / (8 * tension_N) });
  }
  return rows;
}
