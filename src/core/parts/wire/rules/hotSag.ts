import { figure } from '../../../plan/catalogue.js';
import { strungAt, tensionAt } from '../../../wire/strain.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** A strand so slack on the hottest day that it no longer keeps its gap. */
export const hotSag: Rule = {
  id: 'hot-sag',
  step: 'strain',
  kind: 'mend',
  source: { mark: 'assumed', text: 'Most sag at mid-bay on the hottest day' },
  check: (scene) => {
    const limit = figure(scene.cat, 'wire.sagLimit');
    return eachLine(scene).flatMap(([line, report]) => {
      const slack = report.strain.filter((s) => s.sagHot_m > limit);
      if (slack.length === 0) return [];
      const worst = slack.reduce((a, b) => (b.sagHot_m > a.sagHot_m ? b : a));
      const run = report.runs[worst.run]!;
      // The least tension that holds the sag on the hottest day and the wire on the coldest night.
      const { hot_C, cold_C } = scene.plan.climate;
      const at = (school: string, celsius: number) => {
        const T = strungAt({ school }, worst.wire, scene.cat);
        return tensionAt(T, worst.bay_m, worst.wire, celsius, scene.cat);
      };
      const tighter = Object.entries(scene.cat.schools)
        .filter(([id]) => {
          const sag = (worst.sagHot_m * worst.hot_N) / at(id, hot_C);
          return sag <= limit && at(id, cold_C) <= worst.limit_N;
        })
        .sort((a, b) => a[1].tension_N - b[1].tension_N)[0];
      return [
        {
          key: line.id,
          title: `${line.name} sags on the hottest day`,
          why: `${scene.say.mm(worst.sagHot_m)} at the middle of a ${scene.say.metres(worst.bay_m)} bay, with ${scene.say.newtons(worst.hot_N)} left in the wire; ${scene.say.mm(limit)} is the most.`,
          todo: 'More tension, shorter bays, or a spring that keeps the wire tight.',
          place: onLine(line, run.from_m, run.to_m),
          ...(tighter
            ? {
                mend: {
                  words: `Set it ${tighter[1].name.toLowerCase()}`,
                  patch: [replace(`/lines/${line.id}/school`, tighter[0])],
                },
              }
            : {}),
        },
      ];
    });
  },
};
