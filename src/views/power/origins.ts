/** Where the figures of this step come from. */
import type { Origin } from '../../ui/parts/Num.js';

/** Every volt of the step. */
export const PULSE: Origin = {
  kind: 'formula',
  title: 'One pulse, simulated',
  formula:
    'a capacitor behind lossy windings, fitted to the plate, into lines of 25 m cells with inductance, resistance, capacitance and leakage',
  source: 'Nothing above the plate’s open volts; docs/model.md, Pulse',
};

export const PLATE = (model: string): Origin => ({
  kind: 'default',
  title: 'Data plate',
  source: 'Invented; take the figures of the plate of the unit you mean to buy',
  inputs: [
    { name: 'Stored', path: `energisers.${model}.stored_J`, quantity: 'joule' },
    { name: 'Open circuit', path: `energisers.${model}.open_V`, quantity: 'volt' },
    { name: 'into 500 ohm', path: `energisers.${model}.at500_V`, quantity: 'volt' },
    { name: 'into 200 ohm', path: `energisers.${model}.at200_V`, quantity: 'volt' },
    { name: 'into 100 ohm', path: `energisers.${model}.at100_V`, quantity: 'volt' },
    { name: 'into 50 ohm', path: `energisers.${model}.at50_V`, quantity: 'volt' },
  ],
});
