import { eachLine, onLine, remove, type Found, type Rule } from '../../../findings/rule.js';
import { recordOf } from '../../../plan/catalogue.js';
import type { Metal } from '../../../plan/schemaParts.js';

/** Metals that may lie on one another: zinc and aluminium differ little, the others eat them. */
const near = (a: Metal, b: Metal): boolean =>
  a === b || [a, b].every((m) => m === 'zinc' || m === 'aluminium');

/** A jumper of another metal than the strands that it ties: the lesser of the two corrodes in the wet. */
export const mixedMetal: Rule = {
  id: 'mixed-metal',
  cause: 'Jumpers of another metal',
  step: 'joins',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'Same metal as the fence; zinc beside aluminium is near enough [memory]',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line]) => {
      const metalOf = (id: string, strand: number): Metal | null => {
        const wire = scene.plan.lines[id]?.strands[strand]?.wire;
        return wire === undefined ? null : recordOf(scene.cat.wires, wire).metal;
      };
      return (line.joins ?? []).flatMap(({ at_m, ties, metal }, k): Found[] => {
        if (!metal) return [];
        const others = ties
          .flatMap(({ a, b }) => [a, b])
          .map((e) => metalOf(e.line ?? line.id, e.strand));
        const other = others.find((m) => m !== null && !near(m, metal));
        if (!other) return [];
        return [
          {
            key: `${line.id} ${at_m.toFixed(1)}`,
            title: `Jumpers of ${metal} on ${line.name}`,
            why: `At ${scene.where(line.id, at_m)} jumpers of ${metal} tie strands of ${other}: where they touch, wet makes a cell of them, the surface of the wire is eaten and the tie becomes a resistance.`,
            todo: 'Jumpers of the fence’s own wire.',
            place: onLine(line, at_m),
            badness: ties.length,
            mends: () => [
              {
                words: 'Jumpers of the fence’s own wire',
                patch: [remove(`/lines/${line.id}/joins/${k}/metal`)],
              },
            ],
          },
        ];
      });
    }),
};
