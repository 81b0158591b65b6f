import { figure, recordOf } from '../../../plan/catalogue.js';
import { eachLine, onLine, type Rule } from '../../../findings/rule.js';
import { otherSchools, shorterBays, springsIn } from './ways.js';

/** A strand so slack on the hottest day that it no longer keeps its gap. */
export const hotSag: Rule = {
  id: 'hot-sag',
  cause: 'Sags on the hottest day',
  step: 'strain',
  kind: 'mend',
  source: { mark: 'assumed', text: 'Most sag at mid-bay on the hottest day' },
  check: (scene) => {
    const { cat, say } = scene;
    const limit = figure(cat, 'wire.sagLimit');
    return eachLine(scene).flatMap(([line, report]) => {
      const slack = report.strain.filter((s) => s.sagHot_m > limit);
      if (slack.length === 0) return [];
      const worst = slack.reduce((a, b) => (b.sagHot_m > a.sagHot_m ? b : a));
      const run = report.runs[worst.run]!;
      // The bay that is short enough for every wire that sags; one that is never strung tighter is kept by it alone.
      const bay = Math.min(...slack.map((s) => s.sagBay_m * Math.sqrt(limit / s.sagHot_m)));
      const creeps = !line.takenUp_on && (recordOf(cat.wires, worst.wire).creep ?? 0) > 0;
      return [
        {
          key: line.id,
          title: `${line.name} sags on the hottest day`,
          why: `${say.mm(worst.sagHot_m)} at the middle of a ${say.metres(worst.sagBay_m)} bay, with ${say.newtons(worst.hot_N)} left in the slackest${creeps ? ' once the wire has crept' : ''}; ${say.mm(limit)} is the most.`,
          todo: 'More tension, shorter bays, or a spring that keeps the wire tight.',
          place: onLine(line, run.from_m, run.to_m),
          badness: worst.sagHot_m,
          mends: () => [
            ...otherSchools(scene, line, worst.at15_N, 'tighter'),
            ...shorterBays(scene, line, bay),
            ...springsIn(line),
          ],
        },
      ];
    });
  },
};
