/** What lines can have in common, and lines made alike in it. */
import type { Line, Plan } from '../plan/schema.js';

/** What of a line can be given to others, by what it is about; the rest belongs to its own place. */
export const COMMON = {
  stock: [
    'left',
    'right',
    'keepOut',
    'boundary',
    'stepOver',
    'snow',
    'growth',
    'dim',
    'later',
    'demands',
  ],
  strands: ['strands', 'design', 'deadTail_m', 'insulators'],
  posts: ['post', 'maxBay_m', 'dropper', 'fill_m', 'standing'],
  tension: ['school', 'tensioner', 'tensionerAt', 'springs', 'tie', 'join'],
} as const satisfies Record<string, readonly (keyof Line)[]>;

export type Common = keyof typeof COMMON;

/** Gives lines what another one has. */
export function makeAlike(
  plan: Plan,
  from: string,
  ids: readonly string[],
  about: readonly Common[],
): void {
  const model = plan.lines[from]!;
  for (const id of ids) {
    if (id === from || !plan.lines[id]) continue;
    const line = plan.lines[id] as Record<string, unknown>;
    for (const key of about.flatMap((a): readonly (keyof Line)[] => COMMON[a])) {
      if (model[key] === undefined) delete line[key];
      else line[key] = plain(model[key]);
    }
  }
}

/** A value without what watches over its being written to. */
const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value)) as unknown;

/** The value that all of these lines have; undefined where they differ. */
export function shared<T>(lines: readonly Line[], of: (line: Line) => T): T | undefined {
  const [first, ...rest] = lines;
  if (!first) return undefined;
  const text = JSON.stringify(of(first) ?? null);
  return rest.every((l) => JSON.stringify(of(l) ?? null) === text) ? of(first) : undefined;
}
