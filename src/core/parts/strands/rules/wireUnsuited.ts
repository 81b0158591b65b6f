import { recordOf, usual } from '../../../plan/catalogue.js';
import { eachLine, onLine, replace, type Found, type Rule } from '../../../findings/rule.js';

/** A live or earth strand of something that carries no volts. */
export const wireInsulates: Rule = {
  id: 'wire-insulates',
  cause: 'Strand that carries no volts',
  step: 'strands',
  kind: 'stop',
  source: { mark: 'published', text: 'Polymers insulate' },
  check: (scene) =>
    eachLine(scene).flatMap(([line]): Found[] => {
      const wrong = line.strands.flatMap((s, i) => s.duty !== 'cold' && recordOf(scene.cat.wires, s.wire).insulates ? [i] : []); // prettier-ignore
      if (wrong.length === 0) return [];
      const s = line.strands[wrong[0]!]!;
      return [
        {
          key: line.id,
          title: `A strand of ${line.name} carries no volts`,
          why: `The strand at ${scene.say.mm(s.height_m)} is ${recordOf(scene.cat.wires, s.wire).name.toLowerCase()}: it insulates, and is counted on as ${s.duty}.`,
          todo: 'Make it a strand without volts, or of wire.',
          place: onLine(line),
          badness: wrong.length,
          mends: () => [
            {
              words: 'Take it without volts',
              patch: wrong.map((i) => replace(`/lines/${line.id}/strands/${i}/duty`, 'cold')),
            },
          ],
        },
      ];
    }),
};

/** Soft wire on a run that is too long for it. */
export const wireLongRun: Rule = {
  id: 'wire-long-run',
  cause: 'Soft wire on a long run',
  step: 'strands',
  kind: 'mend',
  source: {
    mark: 'memory',
    text: 'Tie wire for short runs and curves, monofilament for long ones',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, { runs }]): Found[] => {
      const longest = runs.reduce((m, r) => Math.max(m, r.ground_m), 0);
      const wrong = line.strands.flatMap((s, i) => !s.kept && longest > (recordOf(scene.cat.wires, s.wire).runMost_m ?? Infinity) ? [i] : []); // prettier-ignore
      if (wrong.length === 0) return [];
      const { wire } = line.strands[wrong[0]!]!;
      const most = recordOf(scene.cat.wires, wire).runMost_m!;
      const springy = Object.entries(scene.cat.wires).find(([, w]) => w.insulates)?.[0];
      const cold = wrong.every((i) => line.strands[i]!.duty === 'cold');
      const to = cold && springy ? springy : usual('wire');
      return [
        {
          key: line.id,
          title: `Soft wire on a long run of ${line.name}`,
          why: `A run of ${scene.say.metres(longest)}; ${recordOf(scene.cat.wires, wire).name.toLowerCase()} keeps its tension on ${scene.say.metres(most)} at most.`,
          todo: 'Monofilament or high-tensile wire there.',
          place: onLine(line),
          badness: longest / most,
          mends: () => [
            {
              words: `Take ${recordOf(scene.cat.wires, to).name.toLowerCase()}`,
              patch: wrong.map((i) => replace(`/lines/${line.id}/strands/${i}/wire`, to)),
            },
          ],
        },
      ];
    }),
};
