import type { Rule } from '../../../findings/rule.js';

/** A plate that no circuit has: one of its figures is not what it says. */
export const plateFits: Rule = {
  id: 'plate-fits',
  cause: 'Plate that does not fit together',
  step: 'power',
  kind: 'confirm',
  whole: true,
  source: { mark: 'derived', text: 'Capacitor behind lossy windings, fitted to the plate' },
  check: (scene) =>
    Object.values(scene.energisers).flatMap((report) => {
      if (report.plateFits) return [];
      const e = scene.plan.energisers[report.id]!;
      return {
        key: e.id,
        title: `The plate of ${e.name} does not fit together`,
        why: 'No unit of the usual kind stores so much and gives these volts into these loads: the volts of the fence are those of the nearest one.',
        todo: 'Look at its plate again: stored and not output joules, volts into 500 ohm and not open, ohm by ohm.',
        place: { e: e.e, n: e.n },
      };
    }),
};
