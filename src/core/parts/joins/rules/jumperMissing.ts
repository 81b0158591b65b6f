import { eachLine, onLine, remove, type Found, type Rule } from '../../../findings/rule.js';
import { Groups, mostCommon } from '../../../base/groups.js';
import { NEAR } from '../../../power/wired.js';
import { heightsOf } from './run.js';

/**
 * Strands of one duty that end at a post and are not all tied there, as set by hand. Live ones that a unit feeds are
 * judged by what it makes of them (`strandDead`, `strandOneSided`); these are the earth strands, and fences without one.
 */
export const jumperMissing: Rule = {
  id: 'jumper-missing',
  cause: 'Jumper missing at an end',
  step: 'joins',
  kind: 'mend',
  whole: true,
  source: {
    mark: 'practice',
    text: 'All strands of a duty are tied at the start and the end of every run',
  },
  check: (scene) => {
    const fed = new Set(Object.values(scene.energisers).flatMap((e) => e.lines));
    return eachLine(scene).flatMap(([line, { runs }]) =>
      (line.joins ?? []).flatMap(({ at_m, ties }, k): Found[] => {
        const nameOf = (e: (typeof ties)[number]['a']) => `${e.line ?? line.id} ${e.side} ${e.strand}`; // prettier-ignore
        const groups = new Groups();
        for (const { a, b } of ties) groups.join(nameOf(a), nameOf(b));
        for (const duty of ['live', 'earth'] as const) {
          if (duty === 'live' && fed.has(line.id)) continue;
          const own = line.strands.flatMap((s, i) => (s.duty === duty ? [i] : []));
          for (const side of ['before', 'after'] as const) {
            const ends = runs.some((r) => Math.abs((side === 'before' ? r.to_m : r.from_m) - at_m) <= NEAR); // prettier-ignore
            if (!ends || own.length < 2) continue;
            const of = own.map((i) => groups.of(`${line.id} ${side} ${i}`));
            const loose = own.filter((_, n) => of[n] !== mostCommon(of));
            if (loose.length === 0) continue;
            return [
              {
                key: `${line.id} ${at_m.toFixed(1)} ${duty} ${side}`,
                title: `Jumper missing on ${line.name}`,
                why: `At ${scene.where(line.id, at_m)} the ${duty} strand at ${heightsOf(scene, line, loose)} is not tied to the other ${duty} strands where the run ${side === 'before' ? 'ends' : 'starts'}.`,
                todo: 'Tie all strands of a duty together at both ends of every run.',
                place: onLine(line, at_m),
                badness: loose.length,
                mends: () => [
                  {
                    words: 'Tie this place as proposed',
                    patch: [remove(`/lines/${line.id}/joins/${k}`)],
                  },
                ],
              },
            ];
          }
        }
        return [];
      }),
    );
  },
};
