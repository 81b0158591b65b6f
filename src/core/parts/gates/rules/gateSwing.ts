import { onLine, replace, type Found, type Rule } from '../../../findings/rule.js';

/** Room under a hung gate, m. */
const UNDER = 0.1;

/** A gate that opens into rising ground. */
export const gateSwing: Rule = {
  id: 'gate-swing',
  cause: 'Gate opens into the hill',
  step: 'land',
  kind: 'mend',
  source: { mark: 'assumed', text: 'A gate hangs about 100 mm clear of the ground' },
  check: (scene) =>
    Object.values(scene.plan.gates).flatMap((gate): Found[] => {
      const line = scene.plan.lines[gate.line];
      const rise = line && scene.lines[line.id]?.swings[gate.id];
      if (!rise || !gate.swing) return [];
      const sides = gate.swing === 'both' ? (['left', 'right'] as const) : ([gate.swing] as const);
      const worst = Math.max(...sides.map((s) => rise[s]));
      if (worst <= UNDER) return [];
      const other = rise.left < rise.right ? 'left' : 'right';
      return [
        {
          key: gate.id,
          title: `${gate.name} opens into the hill`,
          why: `The ground rises ${scene.say.mm(worst)} under the leaf as it swings; it clears ${scene.say.mm(UNDER)}.`,
          todo: 'Swing it the other way, hang it on the other post, or make it two leaves.',
          place: onLine(line, gate.at_m),
          badness: worst,
          mends: () => [
            {
              words: `Let it swing to the ${other}`,
              patch: [replace(`/gates/${gate.id}/swing`, other)],
            },
            {
              words: 'Hang it on the other post',
              patch: [
                {
                  op: gate.hinge ? 'replace' : 'add',
                  path: `/gates/${gate.id}/hinge`,
                  value: gate.hinge === 'end' ? 'start' : 'end',
                },
              ],
            },
          ],
        },
      ];
    }),
};
