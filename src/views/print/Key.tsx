/** The key of the printed map: only what is on it. */
import { THING_NAMES } from '../../core/edit/landEdits.js';
import { THING_KINDS, type Plan } from '../../core/plan/schema.js';
import { ENERGISER, GATE, GATE_BARE, spotOf } from '../../ui/symbols.js';
import type { Drawn } from '../../ui/drawn.js';
import { PaperSymbol } from './PaperSymbol.js';
import { WAY_STROKES } from './strokes.js';

type Row =
  | { name: string; drawn: Drawn }
  | { name: string; stroke: string; width: number; dash: string; fill?: string };

const ROWS = 6;

export function Key({ x, plan, posts }: { x: number; plan: Plan; posts: boolean }) {
  const things = Object.values(plan.things ?? {});
  const gates = Object.values(plan.gates);
  const rows: Row[] = [
    { name: 'fence', stroke: '#b3261e', width: 0.45, dash: '' },
    { name: 'boundary fence', stroke: '#b3261e', width: 0.8, dash: '' },
    ...(gates.some((g) => g.cable) ? [{ name: 'gate', drawn: GATE }] : []),
    ...(gates.some((g) => !g.cable) ? [{ name: 'gate, no cable', drawn: GATE_BARE }] : []),
    ...(Object.keys(plan.energisers).length > 0 ? [{ name: 'energiser', drawn: ENERGISER }] : []),
    ...THING_KINDS.flatMap((k): Row[] => {
      const own = things.filter((t) => t.kind === k);
      const name = THING_NAMES[k].split(',')[0]!.toLowerCase();
      if (own.length === 0) return [];
      if (own.some((t) => t.points.length === 1)) return [{ name, drawn: spotOf(k) }];
      const { width, dash, ink, fill } = WAY_STROKES[k];
      return [{ name, stroke: ink, width, dash, ...(fill ? { fill } : {}) }];
    }),
    ...(posts ? [{ name: 'post', stroke: '', width: 0, dash: '' }] : []),
  ];
  return (
    <g transform={`translate(${x},0)`} data-key>
      {rows.map((r, i) => (
        <g key={r.name} transform={`translate(${Math.floor(i / ROWS) * 30},${(i % ROWS) * 3.5})`}>
          {'drawn' in r ? (
            <PaperSymbol drawn={r.drawn} x={4} y={0} scale={0.14} />
          ) : r.name === 'post' ? (
            <circle cx={4} cy={0} r={0.5} fill="white" stroke="#1c2b33" strokeWidth={0.2} />
          ) : (
            <>
              {r.fill && <rect x={0} y={-1.2} width={8} height={2.4} fill={r.fill} />}
              <line x2={8} stroke={r.stroke} strokeWidth={r.width} strokeDasharray={r.dash} />
            </>
          )}
          <text x={9.5} y={0.8} fontSize={2.3} fill="#1c2b33">
            {r.name}
          </text>
        </g>
      ))}
    </g>
  );
}
