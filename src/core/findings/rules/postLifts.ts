import { figure, recordOf } from '../../plan/catalogue.js';
import { pullOut } from '../../posts/forces.js';
import { eachLine, onLine, replace, type Rule } from '../rule.js';

/** The wire lifts a post out of a dip on the coldest night. */
export const postLifts: Rule = {
  id: 'post-lifts',
  kind: 'stop',
  source: {
    mark: 'memory',
    text: 'Uplift times 1.5 against shaft friction; the soil figures are judgement',
  },
  check: (scene) => {
    const safety = figure(scene.cat, 'posts.upliftSafety');
    const soil = recordOf(scene.cat.soils, scene.plan.soil);
    return eachLine(scene).flatMap(([line, report]) => {
      const lifted = report.posts.filter((p) => {
        const kind = scene.cat.posts[p.kind];
        return kind && p.uplift_N * safety > pullOut(kind, soil);
      });
      if (lifted.length === 0) return [];
      const worst = lifted.reduce((a, b) => (b.uplift_N > a.uplift_N ? b : a));
      const holds = pullOut(scene.cat.posts[worst.kind]!, soil);
      const stout = pullOut(scene.cat.posts['timber-210']!, soil);
      const mendable = line.post !== 'timber-210' && worst.uplift_N * safety <= stout;
      return [
        {
          key: line.id,
          title: `${lifted.length === 1 ? 'A post' : `${lifted.length} posts`} of ${line.name} will lift`,
          why: `At ${scene.say.metres(worst.s_m)} the strands pull up with ${scene.say.newtons(worst.uplift_N)} on the coldest night; the post holds ${scene.say.newtons(holds)} and should hold ${safety} times the pull.`,
          todo: 'Longer or stouter posts, an anchor, an end there, or less tension.',
          place: onLine(line, worst.s_m),
          ...(mendable
            ? {
                mend: {
                  words: 'Use stout timber posts on this line',
                  patch: [replace(`/lines/${line.id}/post`, 'timber-210')],
                },
              }
            : {}),
        },
      ];
    });
  },
};
