import { broken, worstOver } from '../../../strands/judge.js';
import { eachLine, onLine, makeUpMends, type Rule } from '../../../findings/rule.js';

/** Two strands further apart than the stock on either side allow. */
export const gapTooWide: Rule = {
  id: 'gap-too-wide',
  cause: 'Stock get through',
  step: 'strands',
  kind: 'mend',
  source: { mark: 'practice', text: 'Widest gap by stock and predator profile' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const worst = worstOver(broken(report.marks).filter((m) => m.about === 'gap'));
      if (!worst) return [];
      const [low, high] = worst.strands.map((i) => line.strands[i]!.height_m);
      const who = scene.cat.profiles[worst.profile!]!.name;
      return [
        {
          key: line.id,
          title: `${who} get through ${line.name}`,
          why: `The gap from ${scene.say.mm(low!)} to ${scene.say.mm(high!)} is ${scene.say.mm(worst.value)}; ${who.toLowerCase()} allow ${scene.say.mm(worst.limit)} there.`,
          todo: 'Take the proposed make-up, or move the strands closer.',
          place: onLine(line),
          badness: worst.value - worst.limit,
          mends: () => makeUpMends(line, report, scene.cat),
        },
      ];
    }),
};
