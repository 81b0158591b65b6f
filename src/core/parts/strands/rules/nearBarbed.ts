import { figure } from '../../../plan/catalogue.js';
import { isBarbed } from '../../../wire/bottom.js';
import { apart } from '../../../strands/judge.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** A live strand that can swing or be pushed against old barbed wire. */
export const nearBarbed: Rule = {
  id: 'near-barbed',
  step: 'strands',
  kind: 'mend',
  source: { mark: 'memory', text: 'A live strand stays 150 mm off barbed wire on the same posts' },
  check: (scene) => {
    const least = figure(scene.cat, 'posts.gap.barbed');
    return eachLine(scene).flatMap(([line]) => {
      const old = line.strands.filter((s) => isBarbed(s, scene.cat));
      const close = line.strands.filter(
        (s) =>
          s.duty === 'live' &&
          !isBarbed(s, scene.cat) &&
          old.some((o) => apart(o, s) < least - 1e-9),
      );
      const offset_m = figure(scene.cat, 'strands.offset');
      return close.map((s) => ({
        key: `${line.id}-${scene.say.mm(s.height_m)}`,
        title: `Live strand close to barbed wire on ${line.name}`,
        why: `The strand at ${scene.say.mm(s.height_m)} is nearer than ${scene.say.mm(least)} to barbed wire; pushed against it, it is shorted or makes it live.`,
        todo: 'Move the strand, hold it off on brackets, or take the barbed wire off there.',
        place: onLine(line),
        mend: {
          words: 'Hold it off on brackets',
          patch: [
            replace(`/lines/${line.id}/strands/${line.strands.indexOf(s)}`, { ...s, offset_m }),
          ],
        },
      }));
    });
  },
};
