import { isPanel } from '../../../wire/bottom.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** A woven panel made live: whoever puts a head through it is held in it. */
export const panelLive: Rule = {
  id: 'panel-live',
  step: 'strands',
  kind: 'stop',
  source: { mark: 'practice', text: 'Nothing live may trap a person or an animal' },
  check: (scene) =>
    eachLine(scene).flatMap(([line]) =>
      line.strands.flatMap((s, i) => {
        if (s.duty !== 'live' || !isPanel(s, scene.cat)) return [];
        return {
          key: `${line.id}-${i}`,
          title: `A woven panel is live on ${line.name}`,
          why: 'An animal or a child with the head through a live mesh cannot get free of it.',
          todo: 'Leave the panel cold and hold stock off it with a live strand.',
          place: onLine(line),
          mend: {
            words: 'Make the panel cold',
            patch: [replace(`/lines/${line.id}/strands/${i}/duty`, 'cold')],
          },
        };
      }),
    ),
};
