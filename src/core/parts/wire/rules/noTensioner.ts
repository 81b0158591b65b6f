import { figure } from '../../../plan/catalogue.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** A short run without a tensioner left in the wire. */
export const noTensioner: Rule = {
  id: 'no-tensioner',
  cause: 'No tensioner',
  step: 'strain',
  kind: 'mend',
  source: { mark: 'practice', text: 'An in-line tensioner for every run under 200 m' },
  check: (scene) => {
    const limit = figure(scene.cat, 'wire.springRunMax');
    return eachLine(scene).flatMap(([line, report]) => {
      if (line.tensioner || line.strands.length === 0) return [];
      const short = report.runs.filter((r) => r.ground_m < limit);
      if (short.length === 0) return [];
      const run = short.reduce((a, b) => (b.ground_m < a.ground_m ? b : a));
      return [
        {
          key: line.id,
          title: `No tensioner on ${line.name}`,
          why: `Its run of ${scene.say.metres(run.ground_m)} is short: the knots slip as they bed, and that eats the tension.`,
          todo: 'Leave an in-line tensioner in each strand.',
          place: onLine(line, run.from_m, run.to_m),
          badness: limit / run.ground_m,
          mends: () => [
            {
              words: 'Put tensioners in',
              patch: [replace(`/lines/${line.id}/tensioner`, true)],
            },
          ],
        },
      ];
    });
  },
};
