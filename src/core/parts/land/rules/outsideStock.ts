import { onLine, replace, type Found, type Rule } from '../../../findings/rule.js';

const SIDES = ['left', 'right'] as const;
/** Uses of a paddock in which stock stand. */
const GRAZED = ['grazing', 'lane', 'yard'];

/** Stock that a line has on the side where no paddock is, and none where one is. */
export const outsideStock: Rule = {
  id: 'outside-stock',
  cause: 'Stock on no paddock’s side',
  step: 'land',
  kind: 'mend',
  whole: true,
  source: { mark: 'derived', text: 'The side of each line on which a paddock lies' },
  check: (scene) => {
    /** Sides of each line along which a paddock lies, and whether stock stand in it. */
    const beside = new Map<string, Map<string, boolean>>();
    for (const p of scene.paddocks)
      for (const { line, side, from_m, to_m } of p.edges) {
        // A touch at a corner is no side.
        if (to_m - from_m < 1) continue;
        const own = beside.get(line) ?? new Map<string, boolean>();
        own.set(side, (own.get(side) ?? false) || GRAZED.includes(p.use));
        beside.set(line, own);
      }
    return Object.values(scene.plan.lines).flatMap((line): Found[] => {
      const own = beside.get(line.id);
      if (own?.size !== 1) return [];
      const [[inner, grazed]] = [...own] as [['left' | 'right', boolean]];
      const outer = SIDES.find((s) => s !== inner)!;
      if (!grazed || line[inner].length > 0 || line[outer].length === 0) return [];
      const names = line[outer].map((id) => scene.cat.profiles[id]?.name.toLowerCase() ?? id);
      return [
        {
          key: line.id,
          title: `The stock of ${line.name} stand on no paddock's side`,
          why: `It was planned for ${names.join(', ')} on its ${outer}, where no paddock is closed, and for none on its ${inner}, where one is.`,
          todo: 'Change its sides over, or say who stands within.',
          place: onLine(line),
          mends: () => [
            {
              words: 'Change its sides over',
              patch: [
                replace(`/lines/${line.id}/${inner}`, line[outer]),
                replace(`/lines/${line.id}/${outer}`, line[inner]),
              ],
            },
          ],
        },
      ];
    });
  },
};
