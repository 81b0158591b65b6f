/** How an energiser's peak voltage sags under load. */
import { bisect } from '../base/numbers.js';
import { monotoneCubic } from '../base/interpolate.js';

export interface LoadLinePlate {
  readonly v_open_v: number;
  readonly v_500_ohm_v?: number;
  readonly v_200_ohm_v?: number;
  readonly v_100_ohm_v?: number;
  readonly v_50_ohm_v?: number;
}

/** Peak volts into a resistance in ohm; Infinity is open circuit. */
export type LoadLine = (r_ohm: number) => number;

/**
 * Load line from a data plate: monotone cubic of volts against amps through open circuit and the
 * rated loads; beyond the heaviest, the straight line through the last two (docs/model.md, Power).
 * @throws RangeError when no load is rated, or the points do not fall as the load grows
 */
export function loadLine(plate: LoadLinePlate): LoadLine {
  const amps = [0];
  const volts = [plate.v_open_v];
  const rated: [number, number | undefined][] = [
    [500, plate.v_500_ohm_v],
    [200, plate.v_200_ohm_v],
    [100, plate.v_100_ohm_v],
    [50, plate.v_50_ohm_v],
  ];
  for (const [r, v] of rated) {
    if (v === undefined) continue;
    if (!(v > 0 && v < volts.at(-1)! && v / r > amps.at(-1)!)) {
      throw new RangeError(`the load line must fall: look at the volts at ${r} ohm`);
    }
    amps.push(v / r);
    volts.push(v);
  }
  if (amps.length < 2) throw new RangeError('a load line needs the volts at one load at least');
  const curve = monotoneCubic(amps, volts);
  const n = amps.length;
  const end = (volts[n - 2]! - volts[n - 1]!) / (amps[n - 1]! - amps[n - 2]!);
  const short = amps[n - 1]! + volts[n - 1]! / end;
  return (r) => {
    if (r === Infinity) return plate.v_open_v;
    if (!(r >= 0)) throw new RangeError('the load must be zero or more ohm');
    if (r === 0) return 0;
    // Volts fall with amps and the load's line rises: one crossing between open and short circuit.
    const i = bisect((x) => curve(x) - x * r, 0, short, 1e-15);
    return i * r;
  };
}
