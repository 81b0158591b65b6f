import { broken } from '../../../strands/judge.js';
import type { RuleMark } from '../../../report/schema.js';
import {
  eachLine,
  onLine,
  makeUpMends,
  type Rule,
  type LineScene,
} from '../../../findings/rule.js';

const ABOUT = ['count', 'live', 'lowest', 'clear', 'top', 'lowestLive', 'topLive'];

/** Lowest strand too high, top too low, too few strands or too few live for the stock on either side. */
export const doesNotHold: Rule = {
  id: 'does-not-hold',
  cause: 'Does not hold its stock',
  step: 'strands',
  kind: 'mend',
  source: { mark: 'practice', text: 'Usual make-ups by stock and predator profile' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const wrong = broken(report.marks).filter((m) => ABOUT.includes(m.about));
      if (wrong.length === 0) return [];
      return [
        {
          key: line.id,
          title: `${line.name} does not hold its stock`,
          why: wrong.map((m) => sentence(m, scene)).join(' '),
          todo: 'Take the proposed make-up, or say which stock really stand here.',
          place: onLine(line),
          badness: wrong.reduce((sum, m) => sum + Math.abs(m.value - m.limit), 0),
          mends: () => makeUpMends(line, report, scene.cat),
        },
      ];
    }),
};

function sentence(m: RuleMark, { cat, say }: LineScene): string {
  const who = m.profile ? ` for ${cat.profiles[m.profile]!.name.toLowerCase()}` : '';
  switch (m.about) {
    case 'count':
      return `It has ${m.value} strands and wants ${m.limit}${who}.`;
    case 'live':
      return `${m.value} of its strands are live; ${m.limit} are wanted${who}.`;
    case 'lowest':
      return `The lowest strand is at ${say.mm(m.value)}; it is at most ${say.mm(m.limit)}${who}.`;
    case 'clear':
      return `The lowest strand is at ${say.mm(m.value)}; under ${say.mm(m.limit)} it lies in the grass.`;
    case 'top':
      return `The top is at ${say.mm(m.value)}; it is at least ${say.mm(m.limit)}${who}.`;
    case 'lowestLive':
      return `The lowest strand is not always live, as is wanted${who}.`;
    default:
      return `The top is not live, as is wanted${who}: they lean on it.`;
  }
}
