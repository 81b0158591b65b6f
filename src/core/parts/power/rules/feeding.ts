import { figure } from '../../../plan/catalogue.js';
import { onLine, type Found, type Rule } from '../../../findings/rule.js';

/** No energiser at all, one that feeds nothing, or two on one fence. */
export const feeding: Rule = {
  id: 'feeding',
  cause: 'Feeding',
  step: 'power',
  kind: 'mend',
  whole: true,
  source: {
    mark: 'published',
    text: 'IEC 60335-2-76, annex: one energiser to a fence; from memory',
  },
  check: (scene) => {
    const out: Found[] = [];
    const all = Object.values(scene.plan.energisers);
    const first = Object.values(scene.plan.lines).find((l) =>
      l.strands.some((s) => s.duty === 'live'),
    );
    if (all.length === 0 && first) {
      out.push({
        key: 'none',
        cause: 'No energiser yet',
        title: 'No energiser yet',
        why: 'Live strands are planned and nothing feeds them.',
        todo: 'On Land press E and press a place on a line, best near the middle of the fence.',
        place: onLine(first),
      });
    }
    for (const e of all) {
      if (e.line !== null && scene.plan.lines[e.line]) continue;
      out.push({
        key: `loose-${e.id}`,
        cause: 'Unit that feeds no line',
        title: `${e.name} feeds no line`,
        why: 'Its lead-out goes nowhere.',
        todo: 'Put it down again on the line that it feeds.',
        place: { e: e.e, n: e.n },
      });
    }
    for (const ids of scene.shared) {
      const names = ids.map((id) => scene.plan.energisers[id]!.name);
      const { e, n } = scene.plan.energisers[ids[1]!]!;
      out.push({
        key: `shared-${ids.join('-')}`,
        kind: 'stop',
        cause: 'Two energisers on one fence',
        title: 'Two energisers on one fence',
        why: `${names.join(' and ')} feed lines that touch. Their pulses come together and can hurt or kill.`,
        todo: `Part the fences by ${scene.say.metres(figure(scene.cat, 'land.networksApart'))} or more, closed with something that does not conduct, or take one unit away.`,
        place: { e, n },
      });
    }
    return out;
  },
};
