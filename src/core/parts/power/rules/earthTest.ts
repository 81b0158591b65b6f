import { figure } from '../../../plan/catalogue.js';
import { replace, type Rule } from '../../../findings/rule.js';

/** The test reads more than it may in the driest month. */
export const earthTest: Rule = {
  id: 'earth-test',
  cause: 'Earth too weak in the driest month',
  step: 'power',
  kind: 'mend',
  whole: true,
  source: { mark: 'practice', text: 'The earth test reads at most 0.2 to 0.3 kV' },
  check: (scene) => {
    const limit = figure(scene.cat, 'earth.testLimit');
    return Object.values(scene.energisers).flatMap((report) => {
      const { test, rods, rodsNeeded } = report.earth;
      if (test.reading_V <= limit) return [];
      const e = scene.plan.energisers[report.id]!;
      return {
        key: report.id,
        title: `The earth of ${e.name} is too weak for the driest month`,
        why: `With the fence loaded, a probe beside the last of ${rods} rods would read ${Math.round(test.reading_V)} V; ${limit} V is the most. Against far soil they stand ${Math.round(test.rise_V)} V, and what the rods lose the animal does not feel.`,
        todo: rodsNeeded
          ? `${rodsNeeded} rods in line would do; damper ground does with fewer.`
          : 'More rods alone do not get there: look for damp ground, or use longer rods.',
        place: { e: e.e, n: e.n },
        badness: test.reading_V,
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
