import { usual } from '../../../plan/catalogue.js';
import { broken } from '../../../strands/judge.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** A top that horses, or stock in snow and dim light, do not see. */
export const topUnseen: Rule = {
  id: 'top-unseen',
  cause: 'Top is not seen',
  step: 'strands',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'Horses want a top that is seen from afar; so do snow and dim light',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const mark = broken(report.marks).find((m) => m.about === 'seen');
      if (!mark) return [];
      const i = mark.strands[0]!;
      const top = line.strands[i]!;
      const who = mark.profile
        ? scene.cat.profiles[mark.profile]!.name
        : 'Stock in snow or dim light';
      return [
        {
          key: line.id,
          title: `The top of ${line.name} is not seen`,
          why: `${who} run into a wire that they do not see; the top at ${scene.say.mm(top.height_m)} is ${scene.cat.wires[top.wire]!.name.toLowerCase()}.`,
          todo: 'Rope or tape on top.',
          place: onLine(line),
          mends: () => [
            {
              words: 'Rope on top',
              patch: [replace(`/lines/${line.id}/strands/${i}/wire`, usual('seenWire'))],
            },
          ],
        },
      ];
    }),
};

/** A live top where people step over. */
export const stepOver: Rule = {
  id: 'step-over',
  cause: 'People step over',
  step: 'strands',
  kind: 'confirm',
  source: { mark: 'practice', text: 'Where people step over, some leave the top cold; disputed' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const mark = broken(report.marks).find((m) => m.about === 'stepOver');
      if (!mark) return [];
      const i = mark.strands[0]!;
      return [
        {
          key: line.id,
          title: `People step over ${line.name}, and its top is ${line.strands[i]!.duty}`,
          why: 'Who steps over a live top is shocked where it hurts most. A stile or a gate is better than either.',
          todo: 'Leave the top cold, or build a stile.',
          place: onLine(line),
          mends: () => [
            {
              words: 'Make the top cold',
              patch: [replace(`/lines/${line.id}/strands/${i}/duty`, 'cold')],
            },
          ],
        },
      ];
    }),
};
