import { figure } from '../../../plan/catalogue.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

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
      const [good, most] = [
        figure(scene.cat, 'wire.coldLimit'),
        figure(scene.cat, 'wire.coldMost'),
      ];
      const worst = report.strain.reduce<(typeof report.strain)[number] | null>(
        (a, b) => (!a || b.cold_N / b.limit_N > a.cold_N / a.limit_N ? b : a),
        null,
      );
      if (!worst || worst.cold_N <= worst.limit_N) return [];
      const run = report.runs[worst.run]!;
      const joint_N = worst.limit_N / good;
      const stop = worst.cold_N > most * joint_N;
      const share = Math.round((stop ? most : good) * 100);
      const softer = Object.entries(scene.cat.schools)
        .filter(([, s]) => s.tension_N < worst.at15_N)
        .sort((a, b) => b[1].tension_N - a[1].tension_N);
      return [
        {
          key: line.id,
          kind: stop ? 'stop' : 'mend',
          title: `${line.name} is too tight for the coldest night`,
          why: `${scene.say.newtons(worst.cold_N)} at ${scene.say.celsius(scene.plan.climate.cold_C)}; ${stop ? 'never more than' : 'for a good life at most'} ${scene.say.newtons((stop ? most : good) * joint_N)}, ${share} % of what its weakest joint holds.`,
          todo: 'Less tension, a spring in the wire, or better joints.',
          place: onLine(line, run.from_m, run.to_m),
          badness: worst.cold_N / joint_N,
          mends: () =>
            softer.map(([id, { name }]) => ({
              words: `Set it ${name.toLowerCase()}`,
              patch: [replace(`/lines/${line.id}/school`, id)],
            })),
        },
      ];
    }),
};
