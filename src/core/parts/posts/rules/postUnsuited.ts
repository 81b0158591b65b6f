import { figure, recordOf, usual } from '../../../plan/catalogue.js';
import { outFor, tallEnough } from '../../../posts/kinds.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** Flexible posts under wire that is strung tight: they lean, and the wire comes off them. */
export const postUnsuited: Rule = {
  id: 'post-unsuited',
  cause: 'Flexible posts under tight wire',
  step: 'section',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'Flexible posts are for wire with only the sag taken out, 0.3 to 0.5 kN, and stand close',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const kind = recordOf(scene.cat.posts, line.post);
      const most = figure(scene.cat, 'posts.flexibleMost');
      const tight = Math.max(0, ...report.strain.map((s) => s.at15_N));
      if (!kind.flexible || tight <= most) return [];
      const slack = Object.entries(scene.cat.schools)
        .filter(([, s]) => s.tension_N <= most)
        .sort((a, b) => b[1].tension_N - a[1].tension_N);
      const stiff = tallEnough(usual('post'), outFor(line.strands, scene.cat), scene.cat);
      return [
        {
          key: line.id,
          title: `Flexible posts under tight wire on ${line.name}`,
          why: `Its wire is set to ${scene.say.newtons(tight)}; flexible posts carry ${scene.say.newtons(most)} at the most.`,
          todo: 'Take only the sag out and set the posts close, or take posts that are stiff.',
          place: onLine(line),
          badness: tight,
          mends: () => [
            ...slack.map(([id, s]) => ({
              words: `Set it ${s.name.toLowerCase()}`,
              patch: [replace(`/lines/${line.id}/school`, id)],
            })),
            {
              words: `Take ${recordOf(scene.cat.posts, stiff).name.toLowerCase()}`,
              patch: [replace(`/lines/${line.id}/post`, stiff)],
            },
          ],
        },
      ];
    }),
};
