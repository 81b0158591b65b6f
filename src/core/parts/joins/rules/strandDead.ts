import { onLine, type Rule } from '../../../findings/rule.js';
import { asProposed, heightsOf } from './run.js';

/** Strands that hang on the posts as live ones, and are tied to nothing that is fed, while others of the run are. */
export const strandDead: Rule = {
  id: 'strand-dead',
  cause: 'A strand is dead',
  step: 'joins',
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
        const named = heightsOf(scene, line, strands);
        return [
          {
            key: `${id} ${from_m.toFixed(1)} ${strands.join()}`,
            title: `${strands.length === 1 ? 'A live strand' : `${strands.length} live strands`} of ${line.name} ${strands.length === 1 ? 'is' : 'are'} dead`,
            why: `The strand at ${named} from ${scene.where(id, from_m)} to ${scene.where(id, to_m)} is tied to nothing that is fed, at neither end of the run.`,
            todo: 'Tie it to the other live strands at an end of the run.',
            place: onLine(line, from_m, to_m),
            badness: strands.length * (to_m - from_m),
            mends: () => asProposed(scene, line, from_m, to_m),
          },
        ];
      }),
    ),
};
