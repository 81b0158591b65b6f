import { listed, onLine, type Rule } from '../../../findings/rule.js';

/** Live strands that nothing feeds. */
export const dead: Rule = {
  id: 'dead',
  cause: 'Dead fence',
  step: 'land',
  kind: 'mend',
  whole: true,
  source: { mark: 'derived', text: 'Network of strands, jumpers and cables from the energiser' },
  check: (scene) => {
    if (Object.keys(scene.plan.energisers).length === 0) return [];
    const byLine = new Map<string, { from: number; to: number }[]>();
    for (const { line, from_m: from, to_m: to } of scene.dead) {
      const known = byLine.get(line) ?? [];
      byLine.set(line, [...known, { from, to }]);
    }
    return [...byLine].map(([id, found]) => {
      const line = scene.plan.lines[id]!;
      const parts = joined(found);
      const dead_m = parts.reduce((sum, { from, to }) => sum + to - from, 0);
      // Between two runs stands a gate, which is no part of the fence.
      const fence_m = scene.lines[id]!.runs.reduce((sum, r) => sum + r.to_m - r.from_m, 0);
      const where = listed(
        parts.map(({ from, to }) => `from ${scene.where(id, from)} to ${scene.where(id, to)}`),
      );
      const whole = dead_m > fence_m - 1;
      const longest = parts.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a));
      return {
        key: id,
        cause: whole ? 'Dead fence' : 'A part of a fence is dead',
        title: whole ? `${line.name} is dead` : `A part of ${line.name} is dead`,
        why: `${whole ? 'No part of it is fed' : `It is not fed ${where}`}: it touches no fed line there, or the way to it is broken at a gate.`,
        todo: 'Bring its end onto a fed line, or lay cable under the gate between.',
        place: onLine(line, longest.from, longest.to),
        badness: dead_m,
      };
    });
  },
};

/** Stretches put together where they meet or overlap: each strand tells its own. */
function joined(parts: readonly { from: number; to: number }[]) {
  const out: { from: number; to: number }[] = [];
  for (const part of [...parts].sort((a, b) => a.from - b.from)) {
    const last = out.at(-1);
    if (last && part.from <= last.to + 0.1) last.to = Math.max(last.to, part.to);
    else out.push({ ...part });
  }
  return out;
}
