import { eachLine, onLine, type Rule } from '../../../findings/rule.js';
import { figure } from '../../../plan/catalogue.js';
import { deadTail, keepsPredatorsOut, usualTail } from '../../../wiring/tail.js';

/** A long dead tail where predators are kept out. */
export const deadTailLong: Rule = {
  id: 'dead-tail-long',
  cause: 'Dead tails can be climbed',
  step: 'joins',
  kind: 'mend',
  source: { mark: 'practice', text: 'As short as the tie allows where predators are kept out' },
  check: (scene) =>
    eachLine(scene).flatMap(([line]) => {
      const tail = deadTail(line, scene.cat);
      const most = figure(scene.cat, 'end.deadTailPredator');
      if (tail <= most + 1e-9 || !keepsPredatorsOut(line, scene.cat)) return [];
      return [
        {
          key: line.id,
          title: `Dead tails of ${line.name} can be climbed`,
          why: `Between post and end insulator ${scene.say.mm(tail)} of each strand is dead; over ${scene.say.mm(most)} a predator finds its way up there.`,
          todo: 'Tie the end insulators as close to the post as the tie allows.',
          place: onLine(line),
          badness: tail,
          mends: () =>
            usualTail(line, scene.cat) > most
              ? []
              : [
                  {
                    words: 'As short as the tie allows',
                    patch: [{ op: 'remove', path: `/lines/${line.id}/deadTail_m` }],
                  },
                ],
        },
      ];
    }),
};
