import { figure } from '../../../plan/catalogue.js';
import { replace, type Rule } from '../../../findings/rule.js';

/** An energiser above the output that the standard allows. */
export const overLimit: Rule = {
  id: 'over-limit',
  step: 'power',
  kind: 'stop',
  source: { mark: 'published', text: 'IEC 60335-2-76, output into 500 ohm, figure from memory' },
  check: (scene) => {
    const limit = figure(scene.cat, 'energiser.limit');
    return Object.values(scene.plan.energisers).flatMap((e) => {
      const model = scene.cat.energisers[e.model];
      if (!model || model.output_J <= limit) return [];
      const other = scene.energisers[e.id]?.smallest ?? 'm5';
      return {
        key: e.id,
        title: `${model.name} is over the limit`,
        why: `It puts out ${model.output_J} J into 500 ohm; the standard allows ${limit} J. A person or an animal held on the wire can be hurt.`,
        todo: 'Do not connect it. Take a unit within the limit, and confirm the rule where you are.',
        place: { e: e.e, n: e.n },
        mend: {
          words: `Choose ${scene.cat.energisers[other]!.name}`,
          patch: [replace(`/energisers/${e.id}/model`, other)],
        },
      };
    });
  },
};
