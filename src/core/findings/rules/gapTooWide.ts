import { gapBreaches } from '../../strands/requirement.js';
import { eachLine, onLine, takeProposal, type Rule } from '../rule.js';

/** Two strands further apart than the stock on either side allow. */
export const gapTooWide: Rule = {
  id: 'gap-too-wide',
  kind: 'mend',
  source: { mark: 'practice', text: 'Widest gap by stock and predator profile' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      if (!report.requirement || line.strands.length === 0) return [];
      const heights = line.strands.map((s) => s.height_m);
      const worst = gapBreaches(heights, report.requirement.profiles, scene.cat).sort(
        (a, b) => b.upper_m - b.lower_m - b.limit_m - (a.upper_m - a.lower_m - a.limit_m),
      )[0];
      if (!worst) return [];
      const who = scene.cat.profiles[worst.profile]!.name;
      return [
        {
          key: line.id,
          title: `${who} get through ${line.name}`,
          why: `The gap from ${scene.say.mm(worst.lower_m)} to ${scene.say.mm(worst.upper_m)} is ${scene.say.mm(worst.upper_m - worst.lower_m)}; ${who.toLowerCase()} allow ${scene.say.mm(worst.limit_m)} there.`,
          todo: 'Take the proposed make-up, or move the strands closer.',
          place: onLine(line),
          mend: {
            words: 'Take the proposed make-up',
            patch: takeProposal(line, report, scene.cat),
          },
        },
      ];
    }),
};
