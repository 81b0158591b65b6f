/** The secondary circuit of an energiser: a charged capacitor behind a switch and its lossy windings. */
export interface PulseSource {
  readonly c_eq_f: number;
  /** Volts on the capacitor as the output sees them. */
  readonly n_v0_v: number;
  readonly r_s_ohm: number;
  readonly l_s_h: number;
  /** What windings and core lose, as a resistance beside the inductance; absent: nothing. */
  readonly r_d_ohm?: number;
}

/** A source that is stepped through together with the node that it feeds. */
export interface Stepper {
  /**
   * Current of the next step, A, with the node taken implicitly.
   * @param v_V of the node now
   * @param lines_A that flow into it from the lines
   * @param C of the node, F; @param G its conductance to soil, S
   * @param lift_V that the earth terminal is driven above where the unit's own current puts it
   */
  current(v_V: number, lines_A: number, C: number, G: number, lift_V?: number): number;
  /** Takes the step with that current; gives the node's new volts. */
  advance(i_A: number, v_V: number, lines_A: number, C: number, G: number): number;
}

/** Steps that are taken wholly backwards after the switch closes, so that its front does not ring on. */
const DAMPED = 2;

/**
 * A charged source, by the trapezoidal rule but for its first steps. The first is half as long: currents of the
 * lines are known at the middle of a step, and before the switch closes there are none, so that the front meets
 * the lines' surge impedance and not twice that.
 * @param earth_ohm what its current comes back through
 */
export function charged(source: PulseSource, earth_ohm: number, dt: number): Stepper {
  const { c_eq_f, l_s_h, r_d_ohm } = source;
  let capacitor_V = source.n_v0_v;
  let inductor_A = 0;
  let taken = 0;
  const step = () => (taken === 0 ? dt / 2 : dt);
  /** Weight of a step's end against its beginning: 1 is backward Euler, one half the trapezoid. */
  const end = () => (taken < DAMPED ? 1 : 0.5);
  const windings = () => (end() * step()) / l_s_h + (r_d_ohm ? 1 / r_d_ohm : 0);
  const storing = (C: number) => C / (end() * step());
  return {
    current(v, lines, C, G, lift = 0) {
      const take = storing(C) + G;
      // Nothing is connected: no current, and the node stands at the capacitor's volts.
      if (take === 0) return 0;
      const pushed = (lines + storing(C) * v) / take;
      const series = source.r_s_ohm + earth_ohm + (end() * step()) / c_eq_f;
      const k = windings();
      return (capacitor_V + lift + inductor_A / k - pushed) / (series + 1 / k + 1 / take);
    },
    advance(i, v, lines, C, G) {
      const take = storing(C) + G;
      const weighed = take === 0 ? capacitor_V : (i + lines + storing(C) * v) / take;
      // A node without capacitance has no memory: it stands at what was weighed.
      const next = C === 0 ? weighed : v + (weighed - v) / end();
      inductor_A += (step() / l_s_h) * ((i - inductor_A) / windings());
      capacitor_V -= (step() / c_eq_f) * i;
      taken++;
      return next;
    },
  };
}
