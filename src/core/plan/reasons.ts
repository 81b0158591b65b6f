/** Why the single figures of the catalogue are what they are. Loaded by whoever shows it, since it is long. */
import reasons from '../../../data/reasons.json' with { type: 'json' };

/** @returns in words, metric; undefined: there is no such default */
export const reasonOf = (key: string): string | undefined =>
  (reasons as Record<string, string>)[key];
