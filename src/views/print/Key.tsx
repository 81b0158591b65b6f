/** The key of the printed map: only what is on it. */
import { THING_NAMES } from '../../core/edit/landEdits.js';
import { SHAPE_OF } from '../../core/land/things.js';
import type { Plan } from '../../core/plan/schema.js';
import { WAY_STROKES } from './strokes.js';

export function Key({ x, plan }: { x: number; plan: Plan }) {
  const kinds = [...new Set(Object.values(plan.things ?? {}).map((t) => t.kind))].filter(
    (k) => SHAPE_OF[k] !== 'point',
  );
  const rows: { name: string; stroke: string; width: number; dash: string }[] = [
    { name: 'fence', stroke: '#b3261e', width: 0.45, dash: '' },
    { name: 'boundary fence', stroke: '#b3261e', width: 0.7, dash: '' },
    ...kinds.map((k) => ({
      name: THING_NAMES[k].split(',')[0]!.toLowerCase(),
      stroke: '#334',
      width: WAY_STROKES[k].width,
      dash: WAY_STROKES[k].dash,
    })),
  ];
  return (
    <g transform={`translate(${x},1)`} data-key>
      {rows.map((r, i) => (
        <g key={r.name} transform={`translate(${Math.floor(i / 5) * 34},${(i % 5) * 3.7})`}>
          <line x2={8} stroke={r.stroke} strokeWidth={r.width} strokeDasharray={r.dash} />
          <text x={9.5} y={0.8} fontSize={2.3} fill="#1c2b33">
            {r.name}
          </text>
        </g>
      ))}
    </g>
  );
}
