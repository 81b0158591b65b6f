import { eachLine, onLine, remove, type Found, type Rule } from '../../../findings/rule.js';
import { CARRIES } from '../../../wiring/crossings.js';

/** A tap or a clamp where a strand is held under tension: neither carries any. */
export const tapInTension: Rule = {
  id: 'tap-in-tension',
  cause: 'Tap or clamp under tension',
  step: 'joins',
  kind: 'stop',
  source: { mark: 'practice', text: 'Tap crimps and clamps carry no tension' },
  check: (scene) =>
    eachLine(scene).flatMap(([line]) =>
      (line.crossings ?? []).flatMap(({ at_m, kind, joiner }, k): Found[] => {
        if (kind !== 'closure' || !joiner || CARRIES[joiner]) return [];
        return [
          {
            key: `${line.id} ${at_m.toFixed(1)}`,
            title: `${joiner === 'tap' ? 'Taps' : 'Clamps'} hold the wire of ${line.name}`,
            why: `The span at ${scene.where(line.id, at_m)} is held by ${joiner === 'tap' ? 'tap crimps' : 'line clamps'}: they join for the current and slip under tension; a strand that lets go whips back.`,
            todo: 'Wedge joiners, which come off again, or crimp sleeves made for a splice.',
            place: onLine(line, at_m),
            mends: () => [
              {
                words: 'Wedge joiners',
                patch: [remove(`/lines/${line.id}/crossings/${k}/joiner`)],
              },
            ],
          },
        ];
      }),
    ),
};
