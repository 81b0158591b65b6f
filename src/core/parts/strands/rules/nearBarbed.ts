import { figure } from '../../../plan/catalogue.js';
import type { Strand } from '../../../plan/schema.js';
import { isBarbed } from '../../../wire/bottom.js';
import { apart } from '../../../strands/judge.js';
import { eachLine, listed, onLine, replace, type Rule } from '../../../findings/rule.js';

/** Live strands that can swing or be pushed against old barbed wire. */
export const nearBarbed: Rule = {
  id: 'near-barbed',
  cause: 'Live strand close to barbed wire',
  step: 'strands',
  kind: 'mend',
  source: { mark: 'memory', text: 'A live strand stays 150 mm off barbed wire on the same posts' },
  check: (scene) => {
    const least = figure(scene.cat, 'posts.gap.barbed');
    return eachLine(scene).flatMap(([line]) => {
      const old = line.strands.filter((s) => isBarbed(s, scene.cat));
      const off = (s: Strand) => Math.min(...old.map((o) => apart(o, s)));
      const close = line.strands.filter(
        (s) => s.duty === 'live' && !isBarbed(s, scene.cat) && off(s) < least - 1e-9,
      );
      if (close.length === 0) return [];
      const offset_m = figure(scene.cat, 'strands.offset');
      const many = close.length > 1;
      return [
        {
          key: line.id,
          title: `Live ${many ? 'strands' : 'strand'} close to barbed wire on ${line.name}`,
          why: `The ${many ? 'strands' : 'strand'} at ${listed(close.map((s) => scene.say.mm(s.height_m)))} ${many ? 'are' : 'is'} nearer than ${scene.say.mm(least)} to barbed wire; pushed against it, ${many ? 'they are' : 'it is'} shorted or make${many ? '' : 's'} it live.`,
          todo: 'Move the strand, hold it off on brackets, or take the barbed wire off there.',
          place: onLine(line),
          badness: close.reduce((sum, s) => sum + least - off(s), 0),
          mends: () => [
            {
              words: `Hold ${many ? 'them' : 'it'} off on brackets`,
              patch: close.map((s) =>
                replace(`/lines/${line.id}/strands/${line.strands.indexOf(s)}`, { ...s, offset_m }),
              ),
            },
          ],
        },
      ];
    });
  },
};
