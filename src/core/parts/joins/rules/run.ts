/** What the rules about strands of a run share: how they are named, and how they are mended. */
import { listed, remove, type Mend, type Scene } from '../../../findings/rule.js';
import type { Line } from '../../../plan/schema.js';
import { NEAR } from '../../../power/wired.js';

/** Strands by their heights, from the ground: "300 mm and 450 mm". */
export const heightsOf = ({ say }: Scene, line: Line, strands: readonly number[]): string =>
  listed([...strands].sort((a, b) => a - b).map((k) => say.mm(line.strands[k]!.height_m)));

/** The joins at the ends of a run put back to what is proposed: one of them, then both. */
export function asProposed(
  { plan, meetings }: Scene,
  line: Line,
  from_m: number,
  to_m: number,
): Mend[] {
  const at = new Map([[line.id, [from_m, to_m]]]);
  // The place of a join may be told on the other line that meets there.
  for (const m of meetings)
    for (const s of [from_m, to_m]) {
      if (m.a === line.id && Math.abs(m.sa - s) <= NEAR)
        at.set(m.b, [...(at.get(m.b) ?? []), m.sb]);
      if (m.b === line.id && Math.abs(m.sb - s) <= NEAR)
        at.set(m.a, [...(at.get(m.a) ?? []), m.sa]);
    }
  const paths = [...at].flatMap(([id, places]) =>
    (plan.lines[id]?.joins ?? []).flatMap((j, k) =>
      places.some((s) => Math.abs(s - j.at_m) <= NEAR) ? [`/lines/${id}/joins/${k}`] : [],
    ),
  );
  const words = 'Tie this place as proposed';
  const one = paths.map((path): Mend => ({ words, patch: [remove(path)] }));
  // Later entries first, so that the earlier ones keep their numbers.
  const all: Mend = {
    words: 'Tie both ends as proposed',
    patch: [...paths].reverse().map((p) => remove(p)),
  };
  return paths.length > 1 ? [...one, all] : one;
}
