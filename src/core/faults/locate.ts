/** Kind `fault_location`: where a fault lies, from readings on a network. */
import type { FenceResistiveInputs } from '../power/circuitTypes.js';
import { faultFence, geometric } from './fence.js';
import { bySection, entropy, posteriorOf, type Noise, type Prior } from './posterior.js';

export interface LocateInputs {
  readonly network: FenceResistiveInputs;
  readonly readings: readonly (
    | { readonly quantity: 'voltage'; readonly location: string; readonly v_v: number }
    | { readonly quantity: 'current'; readonly section: string; readonly at: 'from' | 'to'; readonly i_a: number } // prettier-ignore
  )[];
  readonly noise: Noise;
  readonly grid: {
    readonly cell_m: number;
    readonly r_min_ohm: number;
    readonly r_max_ohm: number;
    readonly r_count: number;
    readonly strand: string;
  };
  readonly prior: Prior;
}

/** @throws RangeError naming the part, where the network or a reading names something that is not there */
export function locate({ network, readings, noise, grid, prior }: LocateInputs) {
  const fence = faultFence(network, network.energiser.load_line, {
    cell_m: grid.cell_m,
    leaks_ohm: geometric(grid.r_min_ohm, grid.r_max_ohm, grid.r_count),
    strand: grid.strand,
  });
  const { cells, broken, leak_ohm } = posteriorOf(
    [fence],
    readings.map((r) => ({ meter: r, value: r.quantity === 'voltage' ? r.v_v : r.i_a })),
    noise,
    prior,
  );
  const p_section = bySection(fence.cells, cells);
  const best = cells.indexOf(Math.max(...cells));
  const { section, x_m } = fence.cells[best]!;
  return {
    p_section,
    p_broken: broken,
    best_cell: { section, x_m, p: cells[best]! },
    entropy_section_nat: entropy(Object.values(p_section)),
    r_geometric_mean_ohm_if_leak: leak_ohm,
  };
}
