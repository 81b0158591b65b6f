import { isBarbed } from '../../../wire/bottom.js';
import { eachLine, makeUpMends, onLine, replace, type Rule } from '../../../findings/rule.js';

/** Barbed wire beside horses. */
export const barbedForHorses: Rule = {
  id: 'barbed-horses',
  cause: 'Barbed wire beside horses',
  step: 'strands',
  kind: 'mend',
  source: { mark: 'practice', text: 'Horses are never fenced with barbed wire' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      if (!report.requirement?.noBarbed) return [];
      const kept = line.strands.filter((s) => !isBarbed(s, scene.cat));
      if (kept.length === line.strands.length) return [];
      return [
        {
          key: line.id,
          title: `Barbed wire beside horses on ${line.name}`,
          why: 'Horses run into wire and tear themselves on it.',
          todo: 'Take the barbed strand off and hold them with plain wire.',
          place: onLine(line),
          mends: () => [
            ...makeUpMends(
              { ...line, strands: kept.length ? kept : line.strands },
              report,
              scene.cat,
            ).filter(() => !line.strands.some((s) => s.kept)),
            {
              words: 'Take the barbed strands off',
              patch: [replace(`/lines/${line.id}/strands`, kept)],
            },
          ],
        },
      ];
    }),
};
