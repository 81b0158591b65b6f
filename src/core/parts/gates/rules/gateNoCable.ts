import { onLine, replace, type Rule } from '../../../findings/rule.js';

/** A gate that breaks a live line and has no cable under it. */
export const gateNoCable: Rule = {
  id: 'gate-no-cable',
  cause: 'No cable under the gate',
  step: 'land',
  kind: 'mend',
  source: { mark: 'practice', text: 'Power never hangs on the gate: insulated cable under it' },
  check: (scene) =>
    Object.values(scene.plan.gates).flatMap((gate) => {
      const line = scene.plan.lines[gate.line];
      if (!line || gate.cable || !line.strands.some((s) => s.duty === 'live')) return [];
      return {
        key: gate.id,
        title: `No cable under ${gate.name}`,
        why: `The gate on ${line.name} cuts the live strands; nothing carries the pulse across.`,
        todo: `Double-insulated cable in conduit, ${scene.say.mm(0.3)} deep or more.`,
        place: onLine(line, gate.at_m),
        mends: () => [
          { words: 'Lay cable under the gate', patch: [replace(`/gates/${gate.id}/cable`, true)] },
        ],
      };
    }),
};
