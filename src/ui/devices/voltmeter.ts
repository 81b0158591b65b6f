/** A simulated voltmeter, for trying the pad without a fence: what should be read, off as a meter is off. */

/** Shares of the reading. */
const OFF = 0.03;

/** Normal noise from two even ones [published: Box and Muller 1958]. */
const bell = (): number =>
  Math.sqrt(-2 * Math.log(1 - Math.random())) * Math.cos(2 * Math.PI * Math.random());

/** What it shows where so much should be read. */
export const simulatedVolts = (should: number): number => Math.max(0, should * (1 + OFF * bell()));

/** As a record says that it was no real one. */
export const SIMULATED = 'simulated meter';
