/** Rules about springs: where one is worth it, and where it is drawn out. */
import { figure } from '../../../plan/catalogue.js';
import { eachLine, onLine, remove, type Rule } from '../../../findings/rule.js';
import { springSolid } from '../../../wire/stringing.js';
import { springOf } from '../../../wire/strung.js';
import { wireOf } from '../../../wire/wires.js';
import { otherSchools, springsIn } from './ways.js';

/** Share of the swing between summer and winter that a spring must take up to be worth it. */
const WORTH = 0.1;

/** A long run in a hard climate whose strands have no springs. */
export const springMissing: Rule = {
  id: 'spring-missing',
  cause: 'No spring on a long run',
  step: 'strain',
  kind: 'confirm',
  source: {
    mark: 'memory',
    text: 'One spring in each strand on runs of 100 to 500 m where summer and winter lie far apart; offered where it takes up a tenth of the swing',
  },
  check: (scene) => {
    const { cat, say, plan } = scene;
    const swing = plan.climate.hot_C - plan.climate.cold_C;
    if (swing < figure(cat, 'wire.hardClimate')) return [];
    return eachLine(scene).flatMap(([line, report]) => {
      if (line.springs) return [];
      const worth = report.strain.flatMap((s) => {
        const run = report.runs[s.run]!;
        const long =
          s.ground_m >= figure(cat, 'wire.springLong') &&
          s.ground_m <= figure(cat, 'wire.springMost');
        const { EA_N } = wireOf(s.wire, cat);
        // A spring in series with the run's own stretch.
        const takes = 1 / (1 + (springOf(cat).rate_N_per_m * s.ground_m) / EA_N);
        return long && takes >= WORTH && cat.wires[s.wire]!.form === 'plain'
          ? [{ s, run, takes }]
          : [];
      });
      if (worth.length === 0) return [];
      const best = worth.reduce((a, b) => (b.takes > a.takes ? b : a));
      return [
        {
          key: line.id,
          title: `No springs in ${line.name}`,
          why: `From ${say.celsius(plan.climate.cold_C)} to ${say.celsius(plan.climate.hot_C)} its strands go from ${say.newtons(best.s.cold_N)} to ${say.newtons(best.s.hot_N)}; a spring takes up ${Math.round(100 * best.takes)} % of that on its run of ${say.metres(best.s.ground_m)}, and gives way under a fallen branch.`,
          todo: 'A spring in each strand, beside the tensioner.',
          place: onLine(line, best.run.from_m, best.run.to_m),
          badness: best.takes,
          mends: () => springsIn(line),
        },
      ];
    });
  },
};

/** A spring that is solid on the coldest night: it gives no more. */
export const springSolidCold: Rule = {
  id: 'spring-solid',
  cause: 'Spring drawn out to its end',
  step: 'strain',
  kind: 'mend',
  source: {
    mark: 'memory',
    text: 'A spring works to the middle of its travel, and is solid at its end',
  },
  check: (scene) => {
    const { cat, say } = scene;
    const solid = springSolid(cat);
    return eachLine(scene).flatMap(([line, report]) => {
      const out = report.strain.filter((s) => (s.spring_N ?? 0) > solid);
      if (out.length === 0) return [];
      const worst = out.reduce((a, b) => (b.spring_N! > a.spring_N! ? b : a));
      const run = report.runs[worst.run]!;
      return [
        {
          key: line.id,
          title: `The springs of ${line.name} are drawn out to their end`,
          why: `${say.newtons(worst.spring_N!)} on the coldest night, where the spring is solid at ${say.newtons(solid)}: from there the wire is as hard as without one.`,
          todo: 'Less tension, a stronger spring, or none.',
          place: onLine(line, run.from_m, run.to_m),
          badness: worst.spring_N!,
          mends: () => [
            { words: 'Leave the springs out', patch: [remove(`/lines/${line.id}/springs`)] },
            ...otherSchools(scene, line, worst.at15_N, 'softer'),
          ],
        },
      ];
    });
  },
};
