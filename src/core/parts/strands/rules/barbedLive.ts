import { isBarbed } from '../../../wire/bottom.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** Barbed wire made live: an animal or a person that hangs in it cannot get away. */
export const barbedLive: Rule = {
  id: 'barbed-live',
  step: 'strands',
  kind: 'stop',
  source: { mark: 'published', text: 'IEC 60335-2-76, annex on installing fences, from memory' },
  check: (scene) =>
    eachLine(scene).flatMap(([line]) =>
      line.strands.flatMap((s, i) => {
        if (s.duty !== 'live' || !isBarbed(s, scene.cat)) return [];
        return {
          key: `${line.id}-${i}`,
          title: `Barbed wire is live on ${line.name}`,
          why: 'Whoever is caught in live barbed wire cannot get free of it.',
          todo: 'Leave it cold, or put plain wire in its place.',
          place: onLine(line),
          mend: {
            words: 'Make the barbed strand cold',
            patch: [replace(`/lines/${line.id}/strands/${i}/duty`, 'cold')],
          },
        };
      }),
    ),
};
