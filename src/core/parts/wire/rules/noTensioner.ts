import { figure, recordOf } from '../../../plan/catalogue.js';
import { leftBySlip } from '../../../wire/stringing.js';
import { jointsOfLine, wireOf } from '../../../wire/wires.js';
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
      const set = report.strain.find((s) => report.runs[s.run] === run);
      if (!set) return [];
      const slip = recordOf(scene.cat.joints, jointsOfLine(line).tie).slip_m;
      const { EA_N } = wireOf(set.wire, scene.cat);
      const left = leftBySlip(set.at15_N, run.ground_m, 2 * slip, EA_N);
      return [
        {
          key: line.id,
          title: `No tensioner on ${line.name}`,
          why: `Its run of ${scene.say.metres(run.ground_m)} is short: when the knots at both ends bed by ${scene.say.mm(2 * slip)} together, ${scene.say.newtons(left)} of ${scene.say.newtons(set.at15_N)} are left.`,
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
