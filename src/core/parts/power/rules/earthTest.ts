import { figure } from '../../../plan/catalogue.js';
import { replace, type Rule } from '../../../findings/rule.js';

/** The rods rise too far above the soil around them in the dry season. */
export const earthTest: Rule = {
  id: 'earth-test',
  step: 'power',
  kind: 'mend',
  whole: true,
  source: { mark: 'practice', text: 'The earth test reads at most 0.2 to 0.3 kV' },
  check: (scene) => {
    const limit = figure(scene.cat, 'earth.testLimit');
    return Object.values(scene.energisers).flatMap((report) => {
      const { test, rods, rodsNeeded } = report.earth;
      if (test.rise_V <= limit) return [];
      const e = scene.plan.energisers[report.id]!;
      return {
        key: report.id,
        title: `The earth of ${e.name} is too weak for the driest month`,
        why: `With the fence loaded, ${rods} rods would stand ${Math.round(test.rise_V)} V above the soil; ${limit} V is the most. What the rods lose, the animal does not feel.`,
        todo: rodsNeeded
          ? `${rodsNeeded} rods in line would do; damper ground does with fewer.`
          : 'More rods alone do not get there: look for damp ground, or use longer rods.',
        place: { e: e.e, n: e.n },
        badness: test.rise_V,
        mends: () =>
          rodsNeeded
            ? [
                {
                  words: `Set ${rodsNeeded} rods`,
                  patch: [replace(`/energisers/${e.id}/rods`, rodsNeeded)],
                },
              ]
            : [],
      };
    });
  },
};
