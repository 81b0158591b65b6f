import { isBarbed } from '../../../wire/bottom.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** Barbed wire made live: an animal or a person that hangs in it cannot get away. */
export const barbedLive: Rule = {
  id: 'barbed-live',
  cause: 'Barbed wire is live',
  step: 'strands',
  kind: 'stop',
  source: { mark: 'published', text: 'IEC 60335-2-76, annex on installing fences, from memory' },
  check: (scene) =>
    eachLine(scene).flatMap(([line]) => {
      const wrong = line.strands.flatMap((s, i) =>
        s.duty === 'live' && isBarbed(s, scene.cat) ? [i] : [],
      );
      if (wrong.length === 0) return [];
      return [
        {
          key: line.id,
          title: `Barbed wire is live on ${line.name}`,
          why: 'Whoever is caught in live barbed wire cannot get free of it.',
          todo: 'Leave it cold, or put plain wire in its place.',
          place: onLine(line),
          badness: wrong.length,
          mends: () => [
            {
              words: `Make the barbed ${wrong.length === 1 ? 'strand' : 'strands'} cold`,
              patch: wrong.map((i) => replace(`/lines/${line.id}/strands/${i}/duty`, 'cold')),
            },
          ],
        },
      ];
    }),
};
