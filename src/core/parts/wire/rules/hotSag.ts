import { figure } from '../../../plan/catalogue.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** A strand so slack on the hottest day that it no longer keeps its gap. */
export const hotSag: Rule = {
  id: 'hot-sag',
  cause: 'Sags on the hottest day',
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
      // A wire that is never strung tighter is kept by shorter bays alone.
      const bay = Math.floor(10 * worst.bay_m * Math.sqrt(limit / worst.sagHot_m)) / 10;
      const tighter = Object.entries(scene.cat.schools)
        .filter(([, s]) => s.tension_N > worst.at15_N)
        .sort((a, b) => a[1].tension_N - b[1].tension_N);
      return [
        {
          key: line.id,
          title: `${line.name} sags on the hottest day`,
          why: `${scene.say.mm(worst.sagHot_m)} at the middle of a ${scene.say.metres(worst.bay_m)} bay, with ${scene.say.newtons(worst.hot_N)} left in the wire; ${scene.say.mm(limit)} is the most.`,
          todo: 'More tension, shorter bays, or a spring that keeps the wire tight.',
          place: onLine(line, run.from_m, run.to_m),
          badness: worst.sagHot_m,
          mends: () => [
            ...tighter.map(([id, { name }]) => ({
              words: `Set it ${name.toLowerCase()}`,
              patch: [replace(`/lines/${line.id}/school`, id)],
            })),
            ...(line.placed || bay < 1
              ? []
              : [
                  {
                    words: `Bays of ${scene.say.along(bay)} at most`,
                    patch: [replace(`/lines/${line.id}/maxBay_m`, bay)],
                  },
                ]),
          ],
        },
      ];
    });
  },
};
