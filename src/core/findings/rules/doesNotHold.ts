import { eachLine, onLine, takeProposal, type Rule } from '../rule.js';

/** Lowest strand too high, top too low or too few strands for the stock on either side. */
export const doesNotHold: Rule = {
  id: 'does-not-hold',
  kind: 'mend',
  source: { mark: 'practice', text: 'Usual make-ups by stock and predator profile' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const need = report.requirement;
      if (!need) return [];
      const name = (id: string) => scene.cat.profiles[id]!.name;
      const heights = line.strands.map((s) => s.height_m);
      const said: string[] = [];
      if (heights.length < need.minStrands) {
        said.push(`It has ${heights.length} strands and wants ${need.minStrands}.`);
      }
      if (heights.length && heights[0]! > need.lowestMax_m + 1e-6) {
        said.push(
          `The lowest strand is at ${scene.say.mm(heights[0]!)}; for ${name(need.decidedBy.lowest).toLowerCase()} it is at most ${scene.say.mm(need.lowestMax_m)}.`,
        );
      }
      if (heights.length && heights.at(-1)! < need.topMin_m - 1e-6) {
        said.push(
          `The top is at ${scene.say.mm(heights.at(-1)!)}; for ${name(need.decidedBy.top).toLowerCase()} it is at least ${scene.say.mm(need.topMin_m)}.`,
        );
      }
      if (said.length === 0) return [];
      return [
        {
          key: line.id,
          title: `${line.name} does not hold its stock`,
          why: said.join(' '),
          todo: 'Take the proposed make-up, or say which stock really stand here.',
          place: onLine(line),
          mend: {
            words: 'Take the proposed make-up',
            patch: takeProposal(line, report, scene.cat),
          },
        },
      ];
    }),
};
