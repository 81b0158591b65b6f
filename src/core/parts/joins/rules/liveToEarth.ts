import { onLine, remove, type Mend, type Rule } from '../../../findings/rule.js';

/** A tie by hand from a live strand to an earth strand: the energiser works into a short. */
export const liveToEarth: Rule = {
  id: 'live-to-earth',
  cause: 'Live tied to earth',
  step: 'joins',
  kind: 'stop',
  source: { mark: 'derived', text: 'A strand cannot be live and earth at once' },
  check: (scene) =>
    Object.values(scene.plan.lines).flatMap((line) =>
      (line.joins ?? []).flatMap(({ at_m, ties }, k) => {
        const duty = (end: (typeof ties)[number]['a']) =>
          scene.plan.lines[end.line ?? line.id]?.strands[end.strand]?.duty;
        const wrong = ties.flatMap(({ a, b }, t) =>
          [duty(a), duty(b)].sort().join() === 'earth,live' ? [t] : [],
        );
        if (wrong.length === 0) return [];
        const untie: Mend = {
          words: 'Take the tie away',
          patch: [...wrong].reverse().map((t) => remove(`/lines/${line.id}/joins/${k}/ties/${t}`)),
        };
        return [
          {
            key: `${line.id} ${at_m.toFixed(1)}`,
            title: `Live is tied to earth on ${line.name}`,
            why: `At ${scene.where(line.id, at_m)} a jumper leads from a live strand to an earth strand: the energiser works into a short, and nothing on the fence is felt.`,
            todo: 'Take that jumper away; tie live strands with one another, and earth strands apart.',
            place: onLine(line, at_m),
            badness: wrong.length,
            mends: () => [untie],
          },
        ];
      }),
    ),
};
