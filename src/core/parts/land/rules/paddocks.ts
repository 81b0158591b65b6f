import { figure } from '../../../plan/catalogue.js';
import { planLength } from '../../../plan/geometry.js';
import type { Line, PatchStep } from '../../../plan/schema.js';
import type { PaddockReport } from '../../../report/schema.js';
import { eachLine, replace, type Found, type Rule, type Scene } from '../../../findings/rule.js';

const stockIn = (p: PaddockReport): string[] =>
  Object.entries(p.stock).flatMap(([id, head]) => (head > 0 ? [id] : []));

/** Paddocks that hold stock. */
const stocked = (scene: Scene) => scene.paddocks.filter((p) => stockIn(p).length > 0);

/** A paddock with stock and no water, or water too far to walk to. */
export const paddockWater: Rule = {
  id: 'paddock-water',
  cause: 'Water for the paddock',
  step: 'land',
  kind: 'mend',
  whole: true,
  source: { mark: 'practice', text: 'Every paddock with stock has water' },
  check: (scene) => {
    const reach = figure(scene.cat, 'land.waterReach');
    return stocked(scene).flatMap((p): Found[] => {
      const place = { e: p.e, n: p.n };
      if (p.water.length === 0)
        return [
          {
            key: p.id ?? p.name,
            title: `${p.name} has stock and no water`,
            why: 'There is no water point within it or in its fences.',
            todo: 'Put a trough down, best in a fence so that it serves both sides.',
            place,
          },
        ];
      const far = Math.max(
        ...p.rim.map(([e, n]) =>
          Math.min(
            ...p.water.map((id) => {
              const at = scene.plan.things![id]!.points[0]!;
              return Math.hypot(at.e - e, at.n - n);
            }),
          ),
        ),
      );
      if (far <= reach) return [];
      return [
        {
          key: `${p.id ?? p.name}-far`,
          kind: 'confirm',
          cause: 'A long way to water',
          title: `A long way to water in ${p.name}`,
          why: `Its furthest corner is ${scene.say.metres(far)} from water; beyond ${scene.say.metres(reach)} the far end is badly grazed.`,
          todo: 'A second trough, or a paddock of another shape.',
          place,
        },
      ];
    });
  },
};

/** A paddock that nobody can get into. */
export const paddockGate: Rule = {
  id: 'paddock-gate',
  cause: 'Paddock without a gate',
  step: 'land',
  kind: 'mend',
  whole: true,
  source: { mark: 'practice', text: 'Every paddock has a gate' },
  check: (scene) =>
    stocked(scene).flatMap((p): Found[] =>
      p.gates.length > 0
        ? []
        : [
            {
              key: p.id ?? p.name,
              title: `${p.name} has no gate`,
              why: 'Stock are to go in and no gate opens into it.',
              todo: 'On Land press G and press one of its fences.',
              place: { e: p.e, n: p.n },
            },
          ],
    ),
};

/** Stock of a paddock that a line round it was not told of. */
export const paddockSides: Rule = {
  id: 'paddock-sides',
  cause: 'Line does not know its stock',
  step: 'land',
  kind: 'mend',
  whole: true,
  source: { mark: 'derived', text: 'Stock of the paddocks on either side of each line' },
  check: (scene) => {
    const missing = new Map<string, Record<'left' | 'right', Set<string>>>();
    for (const p of stocked(scene)) {
      for (const edge of p.edges) {
        const line = scene.plan.lines[edge.line]!;
        // A touch at a corner is no side.
        if (edge.to_m - edge.from_m < 1) continue;
        const side = edge.side as 'left' | 'right';
        for (const id of stockIn(p)) {
          if (line[side].includes(id)) continue;
          const row = missing.get(line.id) ?? { left: new Set(), right: new Set() };
          row[side].add(id);
          missing.set(line.id, row);
        }
      }
    }
    return eachLine(scene).flatMap(([line]): Found[] => {
      const row = missing.get(line.id);
      if (!row) return [];
      const names = [...new Set([...row.left, ...row.right])].map(
        (id) => scene.cat.profiles[id]?.name ?? id,
      );
      return [
        {
          key: line.id,
          title: `${line.name} does not know its stock`,
          why: `The paddocks beside it hold ${names.join(', ')}, and the line was not planned for them on that side.`,
          todo: 'Tell the line, and see whether its make-up still holds.',
          place: { line: line.id },
          badness: row.left.size + row.right.size,
          mends: () => [{ words: 'Put them on its sides', patch: sidesPatch(line, row) }],
        },
      ];
    });
  },
};

function sidesPatch(line: Line, row: Record<'left' | 'right', Set<string>>): PatchStep[] {
  return (['left', 'right'] as const).flatMap((side) =>
    row[side].size === 0
      ? []
      : [replace(`/lines/${line.id}/${side}`, [...line[side], ...row[side]].slice(0, 12))],
  );
}

/** A free end that stops just short of another line. */
export const gap: Rule = {
  id: 'gap',
  cause: 'Gap between two fences',
  step: 'land',
  kind: 'mend',
  whole: true,
  source: { mark: 'derived', text: 'Free ends near other lines; the distance is a default' },
  check: (scene) =>
    scene.gaps.flatMap((g): Found[] => {
      const line = scene.plan.lines[g.line]!;
      const to = scene.plan.lines[g.toLine]!;
      const s = g.vertex === 0 ? 0 : planLength(line);
      const at = `/lines/${g.line}/vertices/${g.vertex}`;
      return [
        {
          key: `${g.line}-${line.vertices[g.vertex]!.id}`,
          kind: line.locked ? 'confirm' : 'mend',
          title: `A gap of ${scene.say.metres(g.width_m)} at ${line.name}`,
          why: `Its ${g.vertex === 0 ? 'start' : 'end'} stops ${scene.say.metres(g.width_m)} short of ${to === line ? 'its other end' : to.name}: stock walk through, and the strands are not joined.`,
          todo: 'Close it, put a gate there, or leave it if it is meant.',
          place: { line: g.line, from_m: s, to_m: s, e: g.e, n: g.n },
          badness: g.width_m,
          mends: () =>
            line.locked
              ? []
              : [{ words: 'Close it', patch: [replace(`${at}/e`, g.e), replace(`${at}/n`, g.n)] }],
        },
      ];
    }),
};
