/** Every line by how its strands are fed, with what the paint means. */
import { useMemo } from 'react';
import type { Plan, Point } from '../../core/plan/schema.js';
import { nearestLine } from '../../core/plan/snap.js';
import type { Report } from '../../core/report/schema.js';
import { useSession } from '../../session/session.js';
import { look } from '../../session/view.js';
import { MapCanvas } from '../land/MapCanvas.js';
import { PaintLegend } from '../land/PaintLegend.js';
import type { Painted, PaintedLook } from '../land/shown.js';

const ROWS: readonly (readonly [PaintedLook, string])[] = [
  ['twice', 'every live strand from both ends'],
  ['once', 'a strand from one end only'],
  ['dead', 'a strand is dead, or nothing is fed'],
];

export function FedMap() {
  const plan = useSession((s) => s.plan);
  const report = useSession((s) => s.report);
  const painted = useMemo(
    (): Painted => ({ stretches: report ? stretchesOf(plan, report) : [], words: {}, land: false, pins: [] }), // prettier-ignore
    [plan, report],
  );
  const press = (p: Point) => {
    const on = nearestLine(plan.lines, p, Infinity);
    if (on) look({ line: on.line.id, cursor: on.hit.s, vertex: null });
  };
  return (
    <div className="border-rule relative h-[20rem] border">
      <MapCanvas painted={painted} onPress={press} />
      <PaintLegend title="Fed" rows={ROWS} />
    </div>
  );
}

/** Runs by the worst of their live strands. */
function stretchesOf(plan: Plan, { lines, fed, energisers }: Report): Painted['stretches'] {
  const on = new Set(Object.values(energisers).flatMap((e) => e.lines));
  const all = Object.values(fed);
  return Object.values(plan.lines).flatMap((line) =>
    (lines[line.id]?.runs ?? []).map(({ from_m, to_m }) => {
      const here = (d: { line: string; from_m: number }) =>
        d.line === line.id && Math.abs(d.from_m - from_m) < 0.01;
      const live = line.strands.some((s) => s.duty === 'live');
      const dead = !live || !on.has(line.id) || all.some((f) => f.dead.some(here));
      const once = all.some((f) => f.single.some(here));
      return { line: line.id, from_m, to_m, look: dead ? 'dead' : once ? 'once' : 'twice' };
    }),
  );
}
