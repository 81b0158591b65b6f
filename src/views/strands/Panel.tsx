import { recordOf } from '../../core/plan/catalogue.js';
import { say } from '../../core/base/units.js';
import type { Line } from '../../core/plan/schema.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../ui/session/catalogue.js';

const DUTY = {
  live: { colour: 'var(--live)', dash: undefined, name: 'live' },
  earth: { colour: 'var(--earth)', dash: '14 5', name: 'earth' },
  cold: { colour: 'var(--soft)', dash: '3 4', name: 'cold' },
} as const;

/** Two posts, the ground and the strands, one scale both ways; a metre stick beside. */
export function Panel({ line, bay_m }: { line: Line; bay_m: number }) {
  const units = useUnits();
  const cat = useCatalogue();
  const post = recordOf(cat.posts, line.post);
  const above = Math.max(
    post.length_m - post.embedment_m,
    (line.strands.at(-1)?.height_m ?? 1) + 0.1,
  );
  // A part of the bay is drawn, so that heights stay readable at one scale.
  const shown = Math.min(bay_m, 1.1);
  const scale = 190;
  const ground = above * scale + 26;
  const left = 92;
  const right = left + shown * scale;
  const y = (h: number) => ground - h * scale;
  return (
    <svg
      viewBox={`0 0 ${right + 100} ${ground + 100}`}
      className="w-full max-w-[520px]"
      role="img"
      aria-label={`${line.name}: ${line.strands.map((s) => `${say(s.height_m, 'height', units)} ${s.duty}`).join(', ') || 'no strands'}`}
    >
      <path d={`M0 ${ground}H${right + 100}`} stroke="var(--ink)" strokeWidth={1.5} />
      {Array.from({ length: 26 }, (_, i) => (
        <path key={i} d={`M${6 + i * 22} ${ground}l-7 9`} stroke="var(--soft)" strokeWidth={0.8} />
      ))}
      {[left, right].map((x) => (
        <g key={x}>
          <rect
            x={x - 5}
            y={y(above)}
            width={10}
            height={above * scale}
            fill="var(--panel)"
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
          <rect
            x={x - 5}
            y={ground}
            width={10}
            height={post.embedment_m * scale * 0.45}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1}
            strokeDasharray="3 3"
          />
        </g>
      ))}
      {line.strands.map((s, i) => {
        const look = DUTY[s.duty];
        const barbed = cat.wires[s.wire]?.form === 'barbed';
        return (
          <g key={i}>
            {s.duty === 'cold' ? (
              // Two thin lines: a cold strand is told by its form too.
              <>
                <path
                  d={`M${left} ${y(s.height_m) - 1.5}H${right}`}
                  stroke={look.colour}
                  strokeWidth={0.9}
                />
                <path
                  d={`M${left} ${y(s.height_m) + 1.5}H${right}`}
                  stroke={look.colour}
                  strokeWidth={0.9}
                />
              </>
            ) : (
              <path
                d={`M${left} ${y(s.height_m)}H${right}`}
                stroke={look.colour}
                strokeWidth={2.4}
                strokeDasharray={look.dash}
              />
            )}
            {barbed &&
              Array.from({ length: Math.floor((shown * scale) / 26) }, (_, k) => (
                <path
                  key={k}
                  d={`M${left + 14 + k * 26} ${y(s.height_m)}m-4 -4l8 8m0 -8l-8 8`}
                  stroke="var(--soft)"
                  strokeWidth={1}
                />
              ))}
            {s.insulated &&
              [left, right].map((x) => (
                <circle
                  key={x}
                  cx={x}
                  cy={y(s.height_m)}
                  r={4}
                  fill="var(--sheet)"
                  stroke="var(--ink)"
                  strokeWidth={1.2}
                />
              ))}
            <text
              x={left - 12}
              y={y(s.height_m) + 4}
              textAnchor="end"
              className="figure fill-ink text-[17px]"
            >
              {say(s.height_m, 'height', units)}
            </text>
            <text
              x={right + 12}
              y={y(s.height_m) + 4}
              className="fill-ink text-[17px]"
              style={{ fill: look.colour }}
            >
              {look.name}
              {barbed ? ', barbed' : ''}
            </text>
          </g>
        );
      })}
      <text
        x={(left + right) / 2}
        y={ground + 26}
        textAnchor="middle"
        className="fill-soft text-[16px]"
      >
        {shown < bay_m
          ? `${say(shown, 'length', units)} of a bay of ${say(bay_m, 'tape', units)}`
          : `a bay of ${say(bay_m, 'tape', units)}`}
      </text>
    </svg>
  );
}
