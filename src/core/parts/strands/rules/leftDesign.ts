import { differences } from '../../../strands/designs.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** A line whose strands are no longer those of the design that it is said to follow. */
export const leftDesign: Rule = {
  id: 'left-design',
  cause: 'Line has left its design',
  step: 'strands',
  kind: 'confirm',
  source: { mark: 'practice', text: 'One marked stick serves all the lines of a design' },
  check: (scene) =>
    eachLine(scene).flatMap(([line]) => {
      const design = line.design ? scene.plan.designs?.[line.design] : undefined;
      if (!design || differences(line.strands, design.strands).length === 0) return [];
      return [
        {
          key: line.id,
          title: `${line.name} has left its design`,
          why: `It is said to follow “${design.name}”, but its strands differ: the marked stick of the design is wrong here.`,
          todo: 'Go back to the design, or keep these strands as a design of their own on Strands.',
          place: onLine(line),
          mends: () => [
            {
              words: `Back to ${design.name}`,
              patch: [replace(`/lines/${line.id}/strands`, design.strands)],
            },
          ],
        },
      ];
    }),
};
