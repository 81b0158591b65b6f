import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** A live strand that lies bare on posts that conduct. */
export const liveUninsulated: Rule = {
  id: 'live-uninsulated',
  cause: 'Live strand without insulators',
  step: 'strands',
  kind: 'stop',
  source: { mark: 'practice', text: 'A live strand wants an insulator at every post' },
  check: (scene) =>
    eachLine(scene).flatMap(([line]) => {
      const bare = line.strands.filter((s) => s.duty === 'live' && !s.insulated);
      if (bare.length === 0) return [];
      const conducts = scene.cat.posts[line.post]?.conducts ?? true;
      const strands = line.strands.map((s) => (s.duty === 'live' ? { ...s, insulated: true } : s));
      return [
        {
          key: line.id,
          kind: conducts ? ('stop' as const) : ('mend' as const),
          title: `Live strand without insulators on ${line.name}`,
          why: conducts
            ? 'Its posts conduct: the strand is shorted to soil at the first of them.'
            : 'Timber leaks when it is wet: the strand loses its volts in rain.',
          todo: 'Put an insulator at every post.',
          place: onLine(line),
          mends: () => [
            { words: 'Insulate it', patch: [replace(`/lines/${line.id}/strands`, strands)] },
          ],
        },
      ];
    }),
};
