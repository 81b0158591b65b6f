import { figure } from '../../../plan/catalogue.js';
import { broken, worstOver } from '../../../strands/judge.js';
import { longestBayThatHolds } from '../../../strands/opening.js';
import { hotPull } from '../../../wire/strain.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** A gap that a push at mid-bay opens wider than a fence that is known to hold. */
export const gapOpens: Rule = {
  id: 'gap-opens',
  step: 'strands',
  kind: 'mend',
  source: {
    mark: 'derived',
    text: 'Opening under the usual push, against that of the longest bay which practice says holds',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const need = report.requirement;
      const worst = worstOver(broken(report.marks).filter((m) => m.about === 'opening'));
      if (!need || !worst) return [];
      const who = scene.cat.profiles[worst.profile!]!.name;
      const [a, b] = worst.strands.map((i) => line.strands[i]!);
      const nominal = b!.height_m - a!.height_m;
      const over = worst.value - worst.limit;
      // The gap itself may be at fault too; what shorter bays can mend is the opening alone.
      const hot = Math.min(hotPull(report.strain, a!.wire), hotPull(report.strain, b!.wire));
      const run = Math.max(...report.runs.map((r) => r.ground_m));
      const spare = worst.limit - nominal - Math.min(...need.needs.map((n) => n.opening_m));
      const bay = Math.floor(longestBayThatHolds(need, spare, hot, run, scene.cat) * 10) / 10;
      const longest = Math.max(...report.stretches.map((s) => s.bay_m));
      const mends = !line.placed && bay >= 1.5 && bay < longest;
      return [
        {
          key: line.id,
          title: `${who} push ${line.name} apart`,
          why: `A push of ${scene.say.newtons(figure(scene.cat, 'wire.pushForce'))} at mid-bay opens the gap of ${scene.say.mm(nominal)} to ${scene.say.mm(worst.value)} on the hottest day, ${scene.say.mm(over)} more than a fence for ${who.toLowerCase()} that is known to hold.`,
          todo: 'Posts closer together, more tension, or more strands: Strands shows what each is worth.',
          place: onLine(line),
          ...(mends
            ? {
                mend: {
                  words: `Bays of ${scene.say.metres(bay)} at most`,
                  patch: [replace(`/lines/${line.id}/maxBay_m`, bay)],
                },
              }
            : {}),
        },
      ];
    }),
};
