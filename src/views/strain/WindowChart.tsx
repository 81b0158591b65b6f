/** The window of settings drawn: what is too slack in summer, what holds, what is too tight in winter; the schools in it. */
import { say } from '../../core/base/units.js';
import type { WholeWindow } from '../../core/wire/window.js';
import { REFERENCE_C } from '../../core/wire/strung.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useWidth } from '../../ui/parts/width.js';
import type { Strained } from './strained.js';

const WIDE = 720;
const LEFT = 96;
const RIGHT = 14;
const ROW = 30;
const TOP = 34;

export function WindowChart({
  of,
  plain,
  sprung,
}: {
  of: Strained;
  plain: WholeWindow;
  sprung: WholeWindow | null;
}) {
  const units = useUnits();
  const [room, width] = useWidth<HTMLDivElement>(640);
  const W = Math.min(WIDE, Math.max(280, width));
  const { cat, row, line } = of;
  const schools = Object.values(cat.schools).map((s) => [s.name, Math.min(s.tension_N, cat.wires[of.wire]!.tension_N ?? Infinity)] as const); // prettier-ignore
  const rows = [
    ['without spring', plain, !line.springs] as const,
    ...(sprung ? [['with a spring', sprung, !!line.springs] as const] : []),
  ];
  const most = 1.06 * Math.max(row.at15_N, ...schools.map(([, n]) => n), ...rows.map(([, w]) => Math.min(w.stop_N, 1.25 * w.high_N))); // prettier-ignore
  const x = (n: number) => LEFT + (Math.min(most, Math.max(0, n)) / most) * (W - LEFT - RIGHT);
  const height = TOP + rows.length * ROW + 40;
  const bottom = TOP + rows.length * ROW;
  const said = rows.map(([name, w]) => `${name}: ${w.low_N > w.high_N ? 'nothing holds' : `${say(w.low_N, 'force', units)} to ${say(w.high_N, 'force', units)}`}`); // prettier-ignore
  // As many figures as have room beside one another.
  const step = [100, 250, 500, 1000].find((n) => x(n) - x(0) > 58) ?? 2000;
  return (
    <div ref={room}>
      <svg
        viewBox={`0 0 ${W} ${height}`}
        width={W}
        height={height}
        role="img"
        aria-label={`Settings that hold at ${say(REFERENCE_C, 'temperature', units)}. ${said.join('; ')}. It is set to ${say(row.at15_N, 'force', units)}.`}
      >
        <defs>
          <pattern
            id="slack"
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d="M0 0V6" stroke="var(--soft)" strokeWidth={1} />
          </pattern>
          <pattern
            id="tight"
            width="4"
            height="4"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(-45)"
          >
            <path d="M0 0V4" stroke="var(--warn)" strokeWidth={1.6} />
          </pattern>
        </defs>
        {rows.map(([name, w, own], k) => {
          const y = TOP + k * ROW;
          const [a, b] = [x(Math.min(w.low_N, w.high_N)), x(w.high_N)];
          const low = x(w.low_N);
          return (
            <g key={name}>
              <text x={0} y={y + 16} fontSize={12} fill="var(--ink)" fontWeight={own ? 600 : 400}>
                {name}
              </text>
              <rect
                x={LEFT}
                y={y + 4}
                width={Math.max(0, low - LEFT)}
                height={18}
                fill="url(#slack)"
              />
              {w.low_N <= w.high_N && (
                <rect
                  x={a}
                  y={y + 4}
                  width={b - a}
                  height={18}
                  fill="var(--live)"
                  fillOpacity={own ? 0.32 : 0.14}
                  stroke="var(--ink)"
                  strokeWidth={own ? 1.4 : 0.7}
                />
              )}
              <rect x={b} y={y + 4} width={x(w.stop_N) - b} height={18} fill="url(#tight)" />
              <rect
                x={x(w.stop_N)}
                y={y + 4}
                width={W - RIGHT - x(w.stop_N)}
                height={18}
                fill="var(--stop)"
                fillOpacity={0.8}
              />
              {w.low_N <= w.high_N && b - a > 120 && (
                <text
                  x={(a + b) / 2}
                  y={y + 17}
                  fontSize={11}
                  textAnchor="middle"
                  fill="var(--ink)"
                  stroke="var(--sheet)"
                  strokeWidth={2.5}
                  paintOrder="stroke"
                >
                  holds
                </text>
              )}
            </g>
          );
        })}
        {schools.map(([name, n], k) => (
          <g key={name}>
            <path
              d={`M${x(n)} ${TOP - 6}V${bottom}`}
              stroke="var(--ink)"
              strokeWidth={0.8}
              strokeDasharray="3 3"
            />
            <text x={x(n)} y={k % 2 ? 10 : 24} fontSize={11} textAnchor="middle" fill="var(--ink)">
              {name.toLowerCase()}
            </text>
          </g>
        ))}
        <path d={`M${x(row.at15_N)} ${bottom + 1}l-6 9h12z`} fill="var(--ink)" />
        <text
          x={x(row.at15_N)}
          y={bottom + 22}
          fontSize={11.5}
          fontWeight={600}
          textAnchor={row.at15_N > 0.85 * most ? 'end' : 'middle'}
          fill="var(--ink)"
        >
          set {say(row.at15_N, 'force', units)}
        </text>
        {Array.from({ length: Math.floor(most / step) + 1 }, (_, i) => i * step).map((n) => (
          <text
            key={n}
            x={x(n)}
            y={height - 4}
            fontSize={10.5}
            textAnchor="middle"
            fill="var(--soft)"
          >
            {say(n, 'force', units)}
          </text>
        ))}
      </svg>
      <p className="label">
        Hatched: too slack on the hottest day. Close hatching: over the limit on the coldest night.
        Full: never.
      </p>
    </div>
  );
}
