import { onLine, type Rule } from '../../../findings/rule.js';
import { asProposed, heightsOf } from './run.js';

/** A strand that hangs on one end alone, beside others that could feed it from the other end too. */
export const strandOneSided: Rule = {
  id: 'strand-one-sided',
  cause: 'A strand is fed from one end only',
  step: 'joins',
  kind: 'mend',
  whole: true,
  source: {
    mark: 'practice',
    text: 'All live strands are tied together at both ends of every run',
  },
  check: (scene) =>
    Object.values(scene.fed).flatMap(({ single }) =>
      single.flatMap(({ line: id, from_m, to_m, strands, lost_m }) => {
        const line = scene.plan.lines[id]!;
        const live = line.strands.filter((s) => s.duty === 'live').length;
        // One live strand alone has nothing beside it to be fed from.
        if (live < 2) return [];
        const mends = asProposed(scene, line, from_m, to_m);
        if (mends.length === 0) return [];
        const named = heightsOf(scene, line, strands);
        return [
          {
            key: `${id} ${from_m.toFixed(1)} ${strands.join()}`,
            title: `${strands.length === 1 ? 'A live strand' : `${strands.length} live strands`} of ${line.name} ${strands.length === 1 ? 'is' : 'are'} fed from one end only`,
            why: `The strand at ${named} from ${scene.where(id, from_m)} to ${scene.where(id, to_m)} hangs on one end of the run. One break there, or one bad tie, and ${scene.say.metres(lost_m)} of live strand is dead.`,
            todo: 'Tie it to the other live strands at the other end too.',
            place: onLine(line, from_m, to_m),
            badness: lost_m,
            mends: () => mends,
          },
        ];
      }),
    ),
};
