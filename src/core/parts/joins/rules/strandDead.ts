import {
  listed,
  onLine,
  remove,
  type Mend,
  type Rule,
  type Scene,
} from '../../../findings/rule.js';
import type { Line } from '../../../plan/schema.js';
import { NEAR } from '../../../power/wired.js';

/** Strands that hang on the posts as live ones, and are tied to nothing that is fed, while others of the run are. */
export const strandDead: Rule = {
  id: 'strand-dead',
  cause: 'A strand is dead',
  step: 'power',
  kind: 'mend',
  whole: true,
  source: { mark: 'derived', text: 'Graph of strands and jumpers from the energiser' },
  check: (scene) =>
    Object.values(scene.fed).flatMap(({ dead }) =>
      dead.flatMap(({ line: id, from_m, to_m, strands }) => {
        const line = scene.plan.lines[id]!;
        const live = line.strands.filter((s) => s.duty === 'live').length;
        // Where nothing of a run is fed, the fence itself is dead: another finding.
        if (strands.length >= live) return [];
        const named = listed([...strands].sort((a, b) => a - b).map((k) => scene.say.mm(line.strands[k]!.height_m))); // prettier-ignore
        return [
          {
            key: `${id} ${from_m.toFixed(1)} ${strands.join()}`,
            title: `${strands.length === 1 ? 'A live strand' : `${strands.length} live strands`} of ${line.name} ${strands.length === 1 ? 'is' : 'are'} dead`,
            why: `The strand at ${named} from ${scene.where(id, from_m)} to ${scene.where(id, to_m)} is tied to nothing that is fed, at neither end of the run.`,
            todo: 'Tie it to the other live strands at an end of the run.',
            place: onLine(line, from_m, to_m),
            badness: strands.length * (to_m - from_m),
            mends: () => proposed(scene, line, from_m, to_m),
          },
        ];
      }),
    ),
};

/** The joins at the ends of a run put back to what is proposed: one of them, then both. */
function proposed({ plan, meetings }: Scene, line: Line, from_m: number, to_m: number): Mend[] {
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
