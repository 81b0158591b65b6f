import { stretchesNear, thingsOf } from '../../../land/things.js';
import { onLine, type Found, type Rule } from '../../../findings/rule.js';

/** A line under the crown of a tree: branches fall on it. */
export const trees: Rule = {
  id: 'trees',
  cause: 'Fence under trees',
  step: 'land',
  kind: 'confirm',
  source: { mark: 'practice', text: 'Branches over the wire are the first fault after a storm' },
  check: (scene) =>
    thingsOf(scene.plan, 'tree').flatMap((tree) =>
      Object.values(scene.plan.lines).flatMap((line): Found[] => {
        const under = stretchesNear(line, tree, 0.01)[0];
        if (!under || !tree.width_m) return [];
        return [
          {
            key: `${line.id}-${tree.id}`,
            title: `${line.name} runs under ${tree.name}`,
            why: `From ${scene.where(line.id, under[0])} to ${scene.where(line.id, under[1])} branches hang over the wire; they fall on it, or touch it in wind and rain.`,
            todo: 'Lop it, move the line, or put a cut-out on each side. A tree is no post.',
            place: onLine(line, ...under),
          },
        ];
      }),
    ),
};
