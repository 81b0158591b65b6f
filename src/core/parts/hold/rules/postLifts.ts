import { figure } from '../../../plan/catalogue.js';
import { eachLine, onLine, placeAnew, type Rule } from '../../../findings/rule.js';

/** The wire lifts a post out of a dip on the coldest night. */
export const postLifts: Rule = {
  id: 'post-lifts',
  cause: 'Posts will lift',
  step: 'section',
  kind: 'stop',
  source: {
    mark: 'memory',
    text: 'Uplift times 1.5 against shaft friction; the soil figures are judgement',
  },
  check: (scene) => {
    const safety = figure(scene.cat, 'posts.upliftSafety');
    return eachLine(scene).flatMap(([line, report]) => {
      const lifted = report.posts.filter((p) => p.uplift_N * safety > p.holds_N);
      if (lifted.length === 0) return [];
      const worst = lifted.reduce((a, b) =>
        b.uplift_N / b.holds_N > a.uplift_N / a.holds_N ? b : a,
      );
      return [
        {
          key: line.id,
          title: `${lifted.length === 1 ? 'A post' : `${lifted.length} posts`} of ${line.name} will lift`,
          why: `At ${scene.where(line.id, worst.s_m)} the strands pull up with ${scene.say.newtons(worst.uplift_N)} on the coldest night; the post holds ${scene.say.newtons(worst.holds_N)} and should hold ${safety} times the pull.`,
          todo: 'Longer or stouter posts, an anchor, a dropper or fill instead of the post, an end there, or less tension. Weights hung on a post seldom hold.',
          place: onLine(line, worst.s_m),
          badness: worst.uplift_N / Math.max(worst.holds_N, 1),
          mends: () => [placeAnew(line)],
        },
      ];
    });
  },
};
