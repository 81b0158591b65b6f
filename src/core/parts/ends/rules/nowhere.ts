import { eachLine, onLine, type Found, type Rule } from '../../../findings/rule.js';
import { endPatch } from './ends.js';

/** Places closer than this are one, m. */
const SAME = 0.05;

/** What was set by hand for an end that has gone since: its gate was moved, its corner taken away. */
export const endNowhere: Rule = {
  id: 'end-nowhere',
  cause: 'An end set by hand stands nowhere',
  step: 'ends',
  kind: 'confirm',
  source: { mark: 'derived', text: 'No run ends, and nothing bends sharply, at that place' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, { ends }]): Found[] => {
      const lost = (line.ends ?? []).filter((own) => {
        const here = ends.filter((e) => Math.abs(e.at_m - own.at_m) <= SAME);
        const held = (['before', 'after', 'bend'] as const).filter((side) => own[side]);
        return here.length === 0 || held.some((side) => !here.some((e) => e.side === side));
      });
      if (lost.length === 0) return [];
      return [
        {
          key: line.id,
          title: `${lost.length === 1 ? 'An end' : `${lost.length} ends`} of ${line.name} set by hand ${lost.length === 1 ? 'stands' : 'stand'} nowhere`,
          why: `At ${scene.where(line.id, lost[0]!.at_m)} no run ends any more and nothing bends sharply: what was set there is not built.`,
          todo: 'Set it anew where the post stands now, or let it go.',
          place: onLine(line, lost[0]!.at_m),
          badness: lost.length,
          mends: () => [
            {
              words: 'Let it go',
              patch: endPatch({ ...line, ends: line.ends! }, lost[0]!.at_m, { before: undefined, after: undefined, bend: undefined, post: undefined, depth_m: undefined, setting: undefined, wood: undefined }), // prettier-ignore
            },
          ],
        },
      ];
    }),
};
