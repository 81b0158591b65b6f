/** Gates stand on lines, go with them, and are not cut through. */
import type { Line, Plan } from '../../plan/schema.js';

export const placed = {
  places: { tables: { gates: { goes: true } } },
  turned(plan: Plan, line: Line): void {
    for (const gate of Object.values(plan.gates)) {
      if (gate.line !== line.id) continue;
      if (gate.hinge) gate.hinge = gate.hinge === 'start' ? 'end' : 'start';
      if (gate.swing === 'left' || gate.swing === 'right')
        gate.swing = gate.swing === 'left' ? 'right' : 'left';
    }
  },
  blocksCut: (plan: Plan, line: Line, s: number): boolean =>
    Object.values(plan.gates).some(
      (g) => g.line === line.id && Math.abs(g.at_m - s) < g.width_m / 2,
    ),
};
