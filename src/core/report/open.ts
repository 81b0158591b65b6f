/** Findings that still ask for something. */
import type { Finding } from './schema.js';

/** Nobody lets it be, or it has become worse since. */
export const isOpen = (f: Pick<Finding, 'accepted'>): boolean => !f.accepted?.holds;
