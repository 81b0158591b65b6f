import { add, type Rule } from '../../../findings/rule.js';

/** Nothing leads lightning off before it reaches a unit on the mains. */
export const noDiverter: Rule = {
  id: 'no-diverter',
  cause: 'No lightning diverter',
  step: 'power',
  kind: 'confirm',
  whole: true,
  source: { mark: 'practice', text: 'A diverter with rods of its own between fence and unit' },
  check: (scene) =>
    Object.values(scene.plan.energisers).flatMap((e) => {
      if (e.diverter || e.line === null) return [];
      return {
        key: e.id,
        title: `${e.name} has no lightning diverter`,
        why: 'A stroke near the fence comes in by the lead-out, into the unit and, on the mains, into the house.',
        todo: 'A diverter with a rod more than the unit has, ten metres or more from its rods, and a choke in the lead. Pull the plug in a storm where that is safe.',
        place: { e: e.e, n: e.n },
        mends: () => [
          {
            words: `A diverter with ${e.rods + 1} rods`,
            patch: [add(`/energisers/${e.id}/diverter`, { rods: e.rods + 1 })],
          },
        ],
      };
    }),
};
