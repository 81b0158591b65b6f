/** The calculator of faults: where one lies, from what was read. */
import { Type } from './base/type.js';
import { checkNetwork, networkInputs } from './calcElectric.js';
import { any, calculator, name, notNegative, positive, type Calculator } from './calculator.js';
import { sum } from './base/numbers.js';
import { locate, type LocateInputs } from './faults/locate.js';

const rel = Type.Number({ minimum: 0, maximum: 1 });
/** Faults that are told apart at most. */
const MOST = 400_000;

export const faults: Readonly<Record<string, Calculator>> = {
  fault_location: calculator(
    'How likely a leak or a break is in each stretch of a fence, from volts and amps read on it',
    Type.Object({
      network: networkInputs,
      readings: Type.Array(
        Type.Union([
          Type.Object({ quantity: Type.Literal('voltage'), location: name, v_v: any }),
          Type.Object({
            quantity: Type.Literal('current'),
            section: name,
            at: Type.Union([Type.Literal('from'), Type.Literal('to')]),
            i_a: any,
          }),
        ]),
        { maxItems: 500 },
      ),
      noise: Type.Object({
        voltage_rel: rel,
        voltage_floor_v: positive,
        current_rel: rel,
        current_floor_a: positive,
      }),
      grid: Type.Object({
        cell_m: positive,
        r_min_ohm: positive,
        r_max_ohm: positive,
        r_count: Type.Integer({ minimum: 1, maximum: 500 }),
        strand: name,
      }),
      prior: Type.Object({ p_leak: notNegative, p_broken: notNegative }),
    }),
    (i) => {
      const inputs = i as unknown as LocateInputs;
      checkNetwork(inputs.network);
      const { cell_m, r_min_ohm, r_max_ohm, r_count } = inputs.grid;
      if (r_max_ohm < r_min_ohm) throw new RangeError('grid: r_max_ohm is below r_min_ohm');
      if (!(inputs.prior.p_leak + inputs.prior.p_broken > 0))
        throw new RangeError('prior: leak and break cannot both be impossible');
      const cells = sum(inputs.network.sections.map((s) => Math.ceil(s.length_m / cell_m)));
      if (cells * (r_count + 1) > MOST)
        throw new RangeError(`grid: more than ${MOST} faults to tell apart; take longer cells`);
      return locate(inputs);
    },
  ),
};
