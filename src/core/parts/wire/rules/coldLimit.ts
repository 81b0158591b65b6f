import { figure } from '../../../plan/catalogue.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** Tension on the coldest night beyond the share of the break load that the property allows. */
export const coldLimit: Rule = {
  id: 'cold-limit',
  step: 'strain',
  kind: 'stop',
  source: { mark: 'practice', text: 'At most 0.4 of the break load times the joint efficiency' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const worst = report.strain
        .filter((s) => s.cold_N > s.limit_N)
        .reduce<(typeof report.strain)[number] | null>(
          (a, b) => (!a || b.cold_N > a.cold_N ? b : a),
          null,
        );
      if (!worst) return [];
      const run = report.runs[worst.run]!;
      const share = Math.round(figure(scene.cat, 'wire.coldLimit') * 100);
      const softer = Object.entries(scene.cat.schools)
        .filter(([, s]) => s.tension_N < worst.at15_N)
        .sort((a, b) => b[1].tension_N - a[1].tension_N)[0];
      return [
        {
          key: line.id,
          title: `${line.name} is too tight for the coldest night`,
          why: `${scene.say.newtons(worst.cold_N)} at ${scene.say.celsius(scene.plan.climate.cold_C)}; the limit is ${scene.say.newtons(worst.limit_N)}, ${share} % of what its weakest joint holds.`,
          todo: 'Less tension, a spring in the wire, or better joints.',
          place: onLine(line, run.from_m, run.to_m),
          ...(softer
            ? {
                mend: {
                  words: `Set it ${softer[1].name.toLowerCase()}`,
                  patch: [replace(`/lines/${line.id}/school`, softer[0])],
                },
              }
            : {}),
        },
      ];
    }),
};
