import { recordOf } from '../../../plan/catalogue.js';
import { isPanel } from '../../../wire/bottom.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** Earth and cold strands bare on steel posts: the zinc is rubbed off at every post. */
export const bareOnSteel: Rule = {
  id: 'bare-on-steel',
  cause: 'Bare wire on steel posts',
  step: 'strands',
  kind: 'confirm',
  source: {
    mark: 'practice',
    text: 'On steel posts cold and earth strands are insulated as well: a wire that works in a bare hole loses its zinc',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line]) => {
      if (!recordOf(scene.cat.posts, line.post).conducts) return [];
      const bare = (s: (typeof line.strands)[number]) =>
        s.duty !== 'live' && !s.insulated && !s.kept && !isPanel(s, scene.cat);
      const wrong = line.strands.filter(bare);
      if (wrong.length === 0) return [];
      const strands = line.strands.map((s) => (bare(s) ? { ...s, insulated: true } : s));
      return [
        {
          key: line.id,
          title: `Bare wire on steel posts, ${line.name}`,
          why: `The ${wrong.length === 1 ? 'strand' : 'strands'} at ${wrong.map((s) => scene.say.mm(s.height_m)).join(', ')} will rub, rust and snap at post after post.`,
          todo: 'An insulator at each post, which also lets a post be changed without cutting the wire.',
          place: onLine(line),
          mends: () => [
            { words: 'Insulate them', patch: [replace(`/lines/${line.id}/strands`, strands)] },
          ],
        },
      ];
    }),
};
