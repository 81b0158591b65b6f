/**
 * Steps whose sights are answers of the question worker, which is wanted as soon as the page is; and of what kinds of
 * records they ask, which are fetched while the page is being drawn.
 */
const ASKING: Readonly<Record<string, readonly string[]>> = {
  power: [],
  supplies: ['stock', 'orders', 'deliveries'],
  build: ['work', 'inspections'],
  rounds: ['readings', 'events'],
  faults: ['readings', 'events'],
};

/** Kinds of records. Null: the step asks nothing at once. @param step its name in the address */
export const asks = (step: string | undefined): readonly string[] | null =>
  ASKING[step ?? ''] ?? null;
