/**
 * How much is tried: little with every run of `npm test`, much with `npm run test:all`, which is run whole before a piece of
 * work is called done. What is found by the many is tried by itself in both from then on.
 */
export const ALL = process.env['ALL'] === '1';

/** How often, in the short run and in the whole one. */
export const often = (short: number, whole: number): number => (ALL ? whole : short);
