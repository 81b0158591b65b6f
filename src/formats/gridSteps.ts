/**
 * A ground as it goes over the wire: heights as whole steps of a decimal, each as what it is off the plane through its
 * neighbours to the west, south and south-west. Ground is smooth: that is less than half of the heights' own text once packed.
 */
import type { Grid } from '../core/plan/schema.js';

export interface GridSteps extends Omit<Grid, 'z_m'> {
  /** Decimals of a metre that a step is. */
  readonly decimals: number;
  readonly steps: readonly number[];
}

/** Grids are kept to the millimetre at most. */
const MOST_DECIMALS = 3;

/** The ground in steps; itself where its heights are no such decimals, or some are not known. */
export function inSteps(grid: Grid): Grid | GridSteps {
  const { z_m, ...rest } = grid;
  for (let decimals = 0; decimals <= MOST_DECIMALS; decimals++) {
    const k = 10 ** decimals;
    const whole = z_m.map((z) => (z === null ? NaN : Math.round(z * k)));
    if (whole.every((w, i) => w / k === z_m[i]))
      return { ...rest, decimals, steps: whole.map((w, i) => w - expected(whole, i, grid.cols)) };
  }
  return grid;
}

/** The ground again, to the last bit. */
export function outOfSteps(sent: Grid | GridSteps): Grid {
  if (!('steps' in sent)) return sent;
  const { steps, decimals, ...rest } = sent;
  const whole: number[] = [];
  steps.forEach((step, i) => whole.push(step + expected(whole, i, rest.cols)));
  const k = 10 ** decimals;
  return { ...rest, z_m: whole.map((w) => w / k) };
}

/** The height on the plane through the three before it; at the edges that of the one before. */
function expected(whole: readonly number[], i: number, cols: number): number {
  const [west, south] = [i % cols > 0, i >= cols];
  if (west && south) return whole[i - 1]! + whole[i - cols]! - whole[i - cols - 1]!;
  return west ? whole[i - 1]! : south ? whole[i - cols]! : 0;
}
