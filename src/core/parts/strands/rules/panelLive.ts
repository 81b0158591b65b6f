import { isPanel } from '../../../wire/bottom.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** A woven panel made live: whoever puts a head through it is held in it. */
export const panelLive: Rule = {
  id: 'panel-live',
  cause: 'Woven panel is live',
  step: 'strands',
  kind: 'stop',
  source: { mark: 'practice', text: 'Nothing live may trap a person or an animal' },
  check: (scene) =>
    eachLine(scene).flatMap(([line]) => {
      const wrong = line.strands.flatMap((s, i) =>
        s.duty === 'live' && isPanel(s, scene.cat) ? [i] : [],
      );
      if (wrong.length === 0) return [];
      return [
        {
          key: line.id,
          title: `A woven panel is live on ${line.name}`,
          why: 'An animal or a child with the head through a live mesh cannot get free of it.',
          todo: 'Leave the panel cold and hold stock off it with a live strand.',
          place: onLine(line),
          badness: wrong.length,
          mends: () => [
            {
              words: 'Make the panel cold',
              patch: wrong.map((i) => replace(`/lines/${line.id}/strands/${i}/duty`, 'cold')),
            },
          ],
        },
      ];
    }),
};
