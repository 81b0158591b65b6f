/** Addresses that a page fetches first, and that the head of the page names ahead: one place, so that they are the same. */

/** A property, and which of the changes that wait in a browser are saved. */
export const openedAt = (property: string, mine: readonly string[]): string =>
  `/api/properties/${property}?mine=${mine.join(',')}`;

/** A ground by its content, in steps (gridSteps.ts). */
export const groundAt = (id: string): string => `/api/grids/${id}?in=steps`;
