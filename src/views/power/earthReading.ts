/** The earth test as a record: read beside the last rod of a unit. */
import { happened } from '../../session/records.js';

/** Where it is read, as the record says it. */
export const lastRod = (unit: { readonly name: string }): string => `${unit.name}, last rod`;

/** Keeps what was read, V. */
export const keepEarthTest = (
  unit: { readonly id: string; readonly name: string },
  value: number,
): string =>
  happened('readings', {
    note: `earth test of ${unit.name}`,
    line: null,
    at_m: null,
    spot: lastRod(unit),
    unit: unit.id,
    kind: 'earth_volts',
    value,
  });
