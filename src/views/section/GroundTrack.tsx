/** Ground, posts, strands, gates, barred stretches and findings of the section. */
import { scaleLinear } from 'd3-scale';
import { area } from 'd3-shape';
import { memo } from 'react';
import { say } from '../../core/base/units.js';
import type { Line, Strand } from '../../core/plan/schema.js';
import { isOpen } from '../../core/report/open.js';
import type { LineReport, Post, Report } from '../../core/report/schema.js';
import { readAt, zAt, type Profile } from '../../core/terrain/profile.js';
import { FindingMark } from '../../ui/parts/FindingMark.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';
import type { Scale } from './frame.js';
import { fedOn, Strands, styleOf } from './Strands.js';

interface Props {
  line: Line;
  report: LineReport;
  profile: Profile;
  x: Scale;
  top: number;
  height: number;
  /** Ground drawn this many times steeper than it is; 0: as much as fits. */
  steeper: number;
}

/** Line posts are drawn no closer than this, strands no closer than that, px. */
const POST_ROOM = 7;
const STRAND_ROOM = 4;

/** The strands that are drawn at this scale: the top one, the lowest, and those between with room. @param up px a metre */
function thinned(strands: readonly Strand[], up: number): readonly Strand[] {
  const [low, top] = [strands[0], strands.at(-1)];
  if (!low || !top) return [];
  const out = [low];
  for (const s of strands.slice(1, -1)) {
    const room = (a: Strand, b: Strand) => (b.height_m - a.height_m) * up >= STRAND_ROOM;
    if (room(out.at(-1)!, s) && room(s, top)) out.push(s);
  }
  return strands.length > 1 ? [...out, top] : out;
}

const NONE: Report['fed'] = {};

export const GroundTrack = memo(function GroundTrack(p: Props) {
  const { line, report, profile, x, top, height, steeper } = p;
  const units = useUnits();
  const chosen = useView((v) => v.finding);
  const findings = useSession((s) => s.report?.findings) ?? [];
  const gates = useSession((s) => s.plan.gates);
  const fed = useSession((s) => s.report?.fed) ?? NONE;
  const [from, to] = x.domain() as [number, number];
  const seen = profile.s.flatMap((s, i) => (s >= from && s <= to ? [i] : []));
  const zs = [zAt(profile, from), zAt(profile, to), ...seen.map((i) => profile.z[i]!)];
  const [low, high] = [Math.min(...zs), Math.max(...zs)];
  const head = line.strands.at(-1)?.height_m ?? 1;
  const bottom = top + height;
  // Pixels a metre upwards: as steep as chosen, or as fits between the fence's head and the foot.
  const perMetre = (x.range()[1]! - x.range()[0]!) / (to - from);
  const fits = (height - 34) / Math.max(high - low, 4);
  const up = steeper === 0 ? fits : perMetre * steeper;
  const fence = steeper === 0 ? Math.max(26, Math.min(60, head * up)) : Math.max(3, head * up);
  const middle = (low + high) / 2;
  const y =
    steeper === 0
      ? scaleLinear([low, low + 1], [bottom, bottom - up])
      : scaleLinear([middle, middle + 1], [top + height * 0.6, top + height * 0.6 - up]);
  const lift = (h: number) => (h / Math.max(head, 0.5)) * fence;
  const groundPath = area<number>()
    .x((s) => x(s))
    .y0(bottom + 4)
    .y1((s) => y(zAt(profile, s)));
  const own = findings.filter(
    (f) => f.place.line === line.id && f.place.from_m !== undefined && isOpen(f),
  );
  const posts = report.posts.filter((p) => p.s_m >= from - 40 && p.s_m <= to + 40);
  // What would run into a black band is thinned out: every post that matters stays.
  const apart_px = (perMetre * (to - from)) / Math.max(1, posts.length);
  const every = Math.max(1, Math.ceil(POST_ROOM / apart_px));
  const drawn = every === 1 ? posts : posts.filter((p, i) => p.role !== 'line' || i % every === 0);
  const strands = thinned(line.strands, fence / Math.max(head, 0.5));
  return (
    <g data-track="ground">
      <text x={4} y={Math.max(top + 8, y(high) + 4)} className="fill-soft text-[0.786rem]">
        {say(high, 'length', units)}
      </text>
      {high - low > 0.5 && (
        <text x={4} y={bottom} className="fill-soft text-[0.786rem]">
          {say(low, 'length', units)}
        </text>
      )}
      <g clipPath="url(#section-window)">
        <path
          d={groundPath([from, ...seen.map((i) => profile.s[i]!), to]) ?? ''}
          fill="var(--ground)"
          stroke="var(--ink)"
          strokeWidth={1.2}
        />
        {report.unknownGround.map(([a, b]) => (
          <line
            key={a}
            x1={x(a)}
            x2={x(b)}
            y1={bottom}
            y2={bottom}
            stroke="var(--warn)"
            strokeWidth={4}
            strokeDasharray="3 3"
          />
        ))}
        {report.barred.map((b) => (
          <rect
            key={`${b.from_m}${b.why}`}
            x={x(b.from_m)}
            width={Math.max(2, x(b.to_m) - x(b.from_m))}
            y={top}
            height={height}
            fill="none"
            stroke="var(--warn)"
            strokeDasharray="2 3"
          >
            <title>no posts: {b.why}</title>
          </rect>
        ))}
        {report.stretches.map((st) =>
          st.to_m < from || st.from_m > to ? null : (
            <Strands
              key={st.from_m}
              strands={strands}
              styles={strands.map((s) =>
                styleOf(s, fedOn(fed, line, s, (st.from_m + st.to_m) / 2)),
              )}
              posts={posts.filter((p) => p.s_m >= st.from_m - 1e-6 && p.s_m <= st.to_m + 1e-6)}
              x={x}
              y={y}
              lift={lift}
            />
          ),
        )}
        {every === 1 && <Droppers line={line} report={report} x={x} y={y} lift={lift} />}
        <Posts posts={drawn} x={x} y={y} height={fence} />
        {Object.values(gates)
          .filter((g) => g.line === line.id && g.at_m >= from && g.at_m <= to)
          .map((g) => (
            <text
              key={g.id}
              x={x(g.at_m)}
              y={y(zAt(profile, g.at_m)) - fence - 7}
              textAnchor="middle"
              className="fill-ink text-[0.786rem]"
            >
              {g.name}
            </text>
          ))}
        {own.map((f) => {
          const at = x((f.place.from_m! + f.place.to_m!) / 2);
          return (
            <g key={f.id} transform={`translate(${at - 6},${bottom - 12})`}>
              <title>{f.title}</title>
              {f.id === chosen && (
                <circle cx={6} cy={6} r={10} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
              )}
              <FindingMark kind={f.kind} size={12} />
            </g>
          );
        })}
      </g>
    </g>
  );
});

/** Posts, one path for each weight: line posts thin, pins and bends heavier, ends heaviest. */
function Posts({
  posts,
  x,
  y,
  height,
}: {
  posts: readonly Post[];
  x: Scale;
  y: Scale;
  height: number;
}) {
  const stroke = (p: Post) => (p.role === 'line' ? (p.fixed ? 2 : 1) : p.role === 'bend' ? 2 : 3);
  return (
    <>
      {[1, 2, 3].map((width) => {
        const reach = width === 1 ? { foot: 2, head: 1 } : { foot: 6, head: 4 };
        const d = posts
          .filter((p) => stroke(p) === width)
          .map(
            (p) =>
              `M${x(p.s_m).toFixed(1)} ${(y(p.z_m) + reach.foot).toFixed(1)}V${(y(p.z_m) - height - reach.head).toFixed(1)}`,
          )
          .join('');
        return <path key={width} d={d} stroke="var(--ink)" strokeWidth={width} />;
      })}
      {posts
        .filter((p) => p.role === 'line' && p.fixed)
        .map((p) => (
          <path
            key={p.s_m}
            d={`M${x(p.s_m)} ${y(p.z_m) - height - 4}m-4 -5h8l-4 6z`}
            fill="var(--ink)"
          >
            <title>pinned</title>
          </path>
        ))}
    </>
  );
}

/** Droppers from the lowest strand to the top one, dotted: they stand on no ground of their own. */
function Droppers({
  line,
  report: { droppers, posts },
  x,
  y,
  lift,
}: {
  line: Line;
  report: LineReport;
  x: Scale;
  y: Scale;
  lift: (h: number) => number;
}) {
  const [low, top] = [line.strands[0]?.height_m, line.strands.at(-1)?.height_m];
  if (low === undefined || top === undefined || droppers.length === 0) return null;
  const s = posts.map((p) => p.s_m);
  const z = posts.map((p) => p.z_m);
  const d = droppers
    .map((at) => {
      const base = y(readAt(s, z, at));
      return `M${x(at).toFixed(1)} ${(base - lift(low)).toFixed(1)}V${(base - lift(top)).toFixed(1)}`;
    })
    .join('');
  return <path d={d} stroke="var(--ink)" strokeWidth={1.5} strokeDasharray="2 2" data-droppers />;
}
