import { figure, recordOf } from '../../../plan/catalogue.js';
import { eachLine, onLine, type Rule } from '../../../findings/rule.js';
import { nearestLimit } from '../../../wire/strain.js';
import { betterJoints, otherSchools, springsIn } from './ways.js';

/** Tension on the coldest night beyond the share of its weakest joint that keeps a wire for long. */
export const coldLimit: Rule = {
  id: 'cold-limit',
  cause: 'Too tight for the coldest night',
  step: 'strain',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'For a good life at most 0.4 of what the weakest joint holds, and never above 0.6 of it',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const { cat, say } = scene;
      const [good, most] = [figure(cat, 'wire.coldLimit'), figure(cat, 'wire.coldMost')];
      const worst = nearestLimit(report.strain);
      if (!worst || worst.cold_N <= worst.limit_N) return [];
      const run = report.runs[worst.run]!;
      const softer = otherSchools(scene, line, worst.at15_N, 'softer');
      const joint_N = worst.limit_N / good;
      const stop = worst.cold_N > most * joint_N;
      const share = Math.round((stop ? most : good) * 100);
      return [
        {
          key: line.id,
          kind: stop ? 'stop' : 'mend',
          title: `${line.name} is too tight for the coldest night`,
          why: `${say.newtons(worst.cold_N)} at ${say.celsius(scene.plan.climate.cold_C)}; ${stop ? 'never more than' : 'for a good life at most'} ${say.newtons((stop ? most : good) * joint_N)}, ${share} % of what its weakest joint holds (${recordOf(cat.joints, worst.joint).name.toLowerCase()}).`,
          todo: 'Less tension, a spring in the wire, or better joints.',
          place: onLine(line, run.from_m, run.to_m),
          badness: worst.cold_N / joint_N,
          mends: () => [
            // A step softer; then what lets it stay as tight; last what leaves it slack.
            ...softer.slice(0, 1),
            ...betterJoints(scene, line),
            ...springsIn(line),
            ...softer.slice(1),
          ],
        },
      ];
    }),
};
