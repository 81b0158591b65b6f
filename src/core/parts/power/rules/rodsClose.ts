import { replace, type Rule } from '../../../findings/rule.js';

/** Rods so close that they share the same soil. */
export const rodsClose: Rule = {
  id: 'rods-close',
  cause: 'Earth rods too close',
  step: 'power',
  kind: 'mend',
  whole: true,
  source: { mark: 'practice', text: 'Rods at least their own length apart; 3 m is usual' },
  check: (scene) =>
    Object.values(scene.plan.energisers).flatMap((e) => {
      if (e.rods < 2 || e.rodSpacing_m >= e.rodLength_m - 1e-6) return [];
      const factor = scene.energisers[e.id]?.earth.factor;
      return {
        key: e.id,
        title: `Earth rods too close at ${e.name}`,
        why: `They stand ${scene.say.metres(e.rodSpacing_m)} apart and reach ${scene.say.metres(e.rodLength_m)} down: they share the same soil${factor ? `, and each does only ${Math.round(100 / factor)} % of what one alone would` : ''}.`,
        todo: 'Set them at least their own length apart.',
        place: { e: e.e, n: e.n },
        badness: e.rodLength_m / e.rodSpacing_m,
        mends: () => [
          {
            words: `Set them ${scene.say.metres(Math.max(3, e.rodLength_m))} apart`,
            patch: [replace(`/energisers/${e.id}/rodSpacing_m`, Math.max(3, e.rodLength_m))],
          },
        ],
      };
    }),
};
