import { onLine, type Rule } from '../../../findings/rule.js';

/** Live strands that nothing feeds. */
export const dead: Rule = {
  id: 'dead',
  step: 'land',
  kind: 'mend',
  source: { mark: 'derived', text: 'Network of strands, jumpers and cables from the energiser' },
  check: (scene) => {
    if (Object.keys(scene.plan.energisers).length === 0) return [];
    const byLine = new Map<string, { from: number; to: number }>();
    for (const d of scene.dead) {
      const old = byLine.get(d.line);
      byLine.set(d.line, {
        from: Math.min(old?.from ?? Infinity, d.from_m),
        to: Math.max(old?.to ?? 0, d.to_m),
      });
    }
    return [...byLine].map(([id, { from, to }]) => {
      const line = scene.plan.lines[id]!;
      const whole = to - from > scene.lines[id]!.plan_m - 1;
      return {
        key: id,
        title: `${line.name} is dead`,
        why: `${whole ? 'No part of it' : `From ${scene.where(id, from)} to ${scene.where(id, to)} it`} ${whole ? 'is fed' : 'is not fed'}: it touches no fed line, or the way to it is broken at a gate.`,
        todo: 'Bring its end onto a fed line, or lay cable under the gate between.',
        place: onLine(line, from, to),
      };
    });
  },
};
