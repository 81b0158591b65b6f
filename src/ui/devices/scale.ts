/** A simulated scale in the wire, for trying a check without a fence: what should pull, off as a scale is off. */
import { normal } from '../../core/base/random.js';

/** Share of the reading. */
const OFF = 0.02;

const bell = normal(Date.now());

/** What it shows where so much should pull. */
export const simulatedPull = (should: number): number => Math.max(0, should * (1 + OFF * bell()));
