/** A simulated voltmeter, for trying the pad without a fence: what should be read, off as a meter is off. */
import { normal } from '../../core/base/random.js';

/** Shares of the reading. */
const OFF = 0.03;

const bell = normal(Date.now());

/** What it shows where so much should be read. */
export const simulatedVolts = (should: number): number => Math.max(0, should * (1 + OFF * bell()));
