/** Metals of strands and jumpers, by their surface. */
export const METALS = ['zinc', 'aluminium', 'stainless', 'copper'] as const;
export type Metal = (typeof METALS)[number];
