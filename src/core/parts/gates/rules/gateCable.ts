import { figure } from '../../../plan/catalogue.js';
import { carried } from '../../../power/circuit.js';
import { add, onLine, remove, type Found, type Rule } from '../../../findings/rule.js';

/** Earth strands that a gate cuts, while the live ones go under it. */
export const gateNoEarthCable: Rule = {
  id: 'gate-no-earth-cable',
  cause: 'No earth cable under the gate',
  step: 'joins',
  kind: 'mend',
  source: { mark: 'practice', text: 'An earth strand needs a cable of its own under a gate' },
  check: (scene) =>
    Object.values(scene.plan.gates).flatMap((gate): Found[] => {
      const line = scene.plan.lines[gate.line];
      if (!line?.strands.some((s) => s.duty === 'earth')) return [];
      if (!gate.cable || carried(gate, 'earth')) return [];
      return [
        {
          key: gate.id,
          title: `No earth cable under ${gate.name}`,
          why: `The gate on ${line.name} cuts its earth strands: beyond it an animal between live and earth strand closes no circuit.`,
          todo: 'A second cable in the same conduit, from earth strand to earth strand.',
          place: onLine(line, gate.at_m),
          mends: () => [
            {
              words: 'A cable for the earth strands too',
              patch: [remove(`/gates/${gate.id}/earthCable`)],
            },
          ],
        },
      ];
    }),
};

/** A cable that wheels, hooves or a spade find. */
export const gateCableShallow: Rule = {
  id: 'gate-cable-shallow',
  cause: 'Cable under a gate lies open',
  step: 'joins',
  kind: 'confirm',
  source: { mark: 'memory', text: 'In a conduit, 300 mm deep or more' },
  check: (scene) =>
    Object.values(scene.plan.gates).flatMap((gate): Found[] => {
      const line = scene.plan.lines[gate.line];
      const deep = figure(scene.cat, 'gate.cableDepth');
      const depth = gate.depth_m ?? deep;
      const bare = gate.conduit === false;
      if (!line || !gate.cable || (depth >= deep - 1e-9 && !bare)) return [];
      return [
        {
          key: gate.id,
          title: `The cable under ${gate.name} lies open`,
          why: `${bare ? 'Without a conduit' : 'In its conduit'}, ${scene.say.mm(depth)} down: wheels, hooves and frost work at it, and a cable that leaks under a gate is looked for last.`,
          todo: `In a conduit, ${scene.say.mm(deep)} deep or more, ends turned down, with a loop for frost.`,
          place: onLine(line, gate.at_m),
          badness: deep - depth + Number(bare),
          mends: () => [
            {
              words: `In a conduit, ${scene.say.mm(deep)} deep`,
              patch: [
                ...(bare ? [remove(`/gates/${gate.id}/conduit`)] : []),
                ...(depth < deep ? [add(`/gates/${gate.id}/depth_m`, deep)] : []),
              ],
            },
          ],
        },
      ];
    }),
};
