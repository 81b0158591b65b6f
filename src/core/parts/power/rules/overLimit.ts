import { figure } from '../../../plan/catalogue.js';
import { plateOfUnit } from '../../../power/unit.js';
import { remove, replace, type Rule } from '../../../findings/rule.js';

/** An energiser above the output that the standard allows. */
export const overLimit: Rule = {
  id: 'over-limit',
  cause: 'Unit over the limit',
  step: 'power',
  kind: 'stop',
  whole: true,
  source: { mark: 'published', text: 'IEC 60335-2-76, output into 500 ohm, figure from memory' },
  check: (scene) => {
    const limit = figure(scene.cat, 'energiser.limit');
    return Object.values(scene.plan.energisers).flatMap((e) => {
      const model = plateOfUnit(e, scene.cat);
      if (model.output_J <= limit) return [];
      const name = e.plate ? `The unit of ${e.name}` : scene.cat.energisers[e.model]!.name;
      // What the network asks for first, else the strongest that is allowed.
      const asked = scene.energisers[e.id]?.smallest;
      const allowed = Object.entries(scene.cat.energisers)
        .filter(([, m]) => m.offered && m.output_J <= limit && m.supply === model.supply)
        .sort((a, b) => b[1].output_J - a[1].output_J)
        .map(([id]) => id);
      return {
        key: e.id,
        title: `${name} is over the limit`,
        why: `It puts out ${scene.say.joules(model.output_J)} into 500 ohm; the standard allows ${scene.say.joules(limit)}. A person or an animal held on the wire can be hurt.`,
        todo: 'Do not connect it. Take a unit within the limit, and confirm the rule where you are.',
        place: { e: e.e, n: e.n },
        badness: model.output_J,
        mends: () =>
          [...(asked ? [asked] : []), ...allowed].map((id) => ({
            words: `Choose ${scene.cat.energisers[id]!.name}`,
            patch: [
              replace(`/energisers/${e.id}/model`, id),
              ...(e.plate ? [remove(`/energisers/${e.id}/plate`)] : []),
            ],
          })),
      };
    });
  },
};
