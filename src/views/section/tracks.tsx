/** The tracks of the section strip: all on one distance axis. */
import { scaleLinear } from 'd3-scale';
import { line as path } from 'd3-shape';
import { say } from '../../core/base/units.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport, Post, SeasonPower } from '../../core/report/schema.js';
import { useUnits } from '../../ui/parts/Num.js';

export const LEFT = 46;
export const RIGHT = 14;
export const GROUND_TOP = 16;
export const GROUND_HEIGHT = 104;
export const VOLTS_TOP = 134;
export const VOLTS_HEIGHT = 40;

export type Scale = ReturnType<typeof scaleLinear<number, number>>;

/** All posts of a line, one path for each weight: line posts thin, bends heavier, ends heaviest. */
export function Posts({
  posts,
  x,
  y,
  height,
}: {
  posts: LineReport['posts'];
  x: Scale;
  y: Scale;
  height: number;
}) {
  const stroke = (role: Post['role']) => (role === 'line' ? 1 : role === 'bend' ? 2 : 3);
  return [1, 2, 3].map((width) => {
    const reach = width === 1 ? { foot: 2, head: 1 } : { foot: 6, head: 4 };
    const d = posts
      .filter((p) => stroke(p.role) === width)
      .map(
        (p) =>
          `M${x(p.s_m).toFixed(1)} ${(y(p.z_m) + reach.foot).toFixed(1)}V${(y(p.z_m) - height - reach.head).toFixed(1)}`,
      )
      .join('');
    return <path key={width} d={d} stroke="var(--ink)" strokeWidth={width} />;
  });
}

/** Strands of one stretch: straight from post to post, style by duty. */
export function Strands({
  line,
  report,
  from,
  to,
  x,
  y,
  lift,
}: {
  line: Line;
  report: LineReport;
  from: number;
  to: number;
  x: Scale;
  y: Scale;
  lift: (h: number) => number;
}) {
  const posts = report.posts.filter((p) => p.s_m >= from - 1e-6 && p.s_m <= to + 1e-6);
  return line.strands.map((s, i) => (
    <polyline
      key={i}
      fill="none"
      stroke={
        s.duty === 'live' ? 'var(--live)' : s.duty === 'earth' ? 'var(--earth)' : 'var(--soft)'
      }
      strokeWidth={1}
      strokeDasharray={s.duty === 'live' ? undefined : s.duty === 'earth' ? '9 3' : '2 2'}
      points={posts.map((p) => `${x(p.s_m)},${y(p.z_m) - lift(s.height_m)}`).join(' ')}
    />
  ));
}

/** Distance along the line. */
export function Axis({ x }: { x: Scale }) {
  const units = useUnits();
  const metresPerUnit = units === 'metric' ? 1 : 0.3048;
  const ticks = scaleLinear(
    x.domain().map((d) => d / metresPerUnit),
    x.range(),
  ).ticks(8);
  return ticks.map((t) => (
    <g key={t} transform={`translate(${x(t * metresPerUnit)},0)`}>
      <line y1={GROUND_TOP - 4} y2={VOLTS_TOP + VOLTS_HEIGHT} stroke="var(--rule)" />
      <text y={10} textAnchor="middle" className="fill-soft text-[11px]">
        {say(t * metresPerUnit, 'length', units)}
      </text>
    </g>
  ));
}

/** Lowest live volts along the line against the aim. */
export function VoltsTrack({
  volts,
  aim,
  x,
}: {
  volts: SeasonPower['lines'][string] | null;
  aim: number | null;
  x: Scale;
}) {
  const units = useUnits();
  if (!volts) {
    return (
      <text x={LEFT} y={VOLTS_TOP + 24} className="fill-soft text-[11px]">
        No volts: nothing feeds this line.
      </text>
    );
  }
  const most = Math.max(...volts.v_V, aim ?? 0, 1000) * 1.1;
  const y = scaleLinear([0, most], [VOLTS_TOP + VOLTS_HEIGHT, VOLTS_TOP]);
  const draw = path<number>()
    .x((i) => x(volts.s_m[i]!))
    .y((i) => y(volts.v_V[i]!));
  return (
    <g>
      <line
        x1={LEFT}
        x2={x.range()[1]!}
        y1={y(0)}
        y2={y(0)}
        stroke="var(--ink)"
        strokeWidth={0.8}
      />
      {aim !== null && (
        <>
          <line
            x1={LEFT}
            x2={x.range()[1]!}
            y1={y(aim)}
            y2={y(aim)}
            stroke="var(--soft)"
            strokeDasharray="5 4"
          />
          <text
            x={x.range()[1]! - 2}
            y={VOLTS_TOP + VOLTS_HEIGHT - 4}
            textAnchor="end"
            className="fill-soft text-[11px]"
          >
            aim {say(aim, 'volt', units)}
          </text>
        </>
      )}
      <path
        d={draw(volts.s_m.map((_, i) => i)) ?? ''}
        fill="none"
        stroke="var(--live)"
        strokeWidth={2}
      />
      <text x={4} y={VOLTS_TOP + 12} className="fill-soft text-[11px]">
        {say(Math.min(...volts.v_V), 'volt', units)}
      </text>
    </g>
  );
}
