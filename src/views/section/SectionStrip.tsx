/** The chosen line from end to end on one distance axis: ground, posts, strands, volts. */
import { scaleLinear } from 'd3-scale';
import { area, line as path } from 'd3-shape';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { say } from '../../core/base/units.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport, SeasonPower } from '../../core/report/schema.js';
import { profileOf, readAt, zAt, type Profile } from '../../core/terrain/profile.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { KIND_COLOURS } from '../../ui/parts/FindingMark.js';
import { useSession } from '../../ui/session/session.js';
import { look, useView } from '../../ui/session/view.js';

const LEFT = 46;
const RIGHT = 14;
const GROUND_TOP = 16;
const GROUND_HEIGHT = 104;
const VOLTS_TOP = 134;
const VOLTS_HEIGHT = 40;

/** The volts of a line in a season, from whichever energiser feeds it. */
function useVolts(id: string | null): SeasonPower['lines'][string] | null {
  const report = useSession((s) => s.report);
  const season = useView((v) => v.season);
  if (!id || !report) return null;
  for (const e of Object.values(report.energisers)) {
    const along = e.seasons[season]?.lines[id];
    if (along) return along;
  }
  return null;
}

export function SectionStrip() {
  const id = useView((v) => v.line);
  const line = useSession((s) => (id ? s.plan.lines[id] : undefined));
  const report = useSession((s) => (id ? s.report?.lines[id] : undefined));
  const ground = useSession((s) => s.ground);
  const volts = useVolts(id);
  const profile = useMemo(() => (line ? profileOf(line.vertices, ground) : null), [line, ground]);
  const [box, width] = useWidth();
  return (
    <section
      ref={box}
      aria-label="Section of the chosen line"
      className={`border-ink bg-panel no-print shrink-0 border-t max-[700px]:order-last ${line ? 'h-[214px]' : ''}`}
    >
      {line && report && profile ? (
        <Strip line={line} report={report} profile={profile} volts={volts} width={width} />
      ) : (
        <p className="label px-4 py-2">
          Choose a line on the map to see its ground, posts and strands from end to end.
        </p>
      )}
    </section>
  );
}

function useWidth() {
  const box = useRef<HTMLElement>(null);
  const [width, setWidth] = useState(800);
  useLayoutEffect(() => {
    if (!box.current) return;
    const watch = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  return [box, width] as const;
}

interface StripProps {
  line: Line;
  report: LineReport;
  profile: Profile;
  volts: SeasonPower['lines'][string] | null;
  width: number;
}

function Strip({ line, report, profile, volts, width }: StripProps) {
  const units = useUnits();
  const cursor = useView((v) => v.cursor);
  const findings = useSession((s) => s.report?.findings) ?? [];
  const total = report.plan_m;
  const x = scaleLinear([0, total], [LEFT, Math.max(LEFT + 100, width - RIGHT)]);
  const low = Math.min(...profile.z);
  const high = Math.max(...profile.z);
  const top = line.strands.at(-1)?.height_m ?? 1;
  // Ground exaggerated at most as much as fills the strip; strands keep a scale of their own.
  const fence = 26;
  const y = scaleLinear(
    [low, Math.max(high, low + 4)],
    [GROUND_TOP + GROUND_HEIGHT, GROUND_TOP + fence + 6],
  );
  const lift = (h: number) => (h / Math.max(top, 0.5)) * fence;
  const place = (event: { clientX: number; currentTarget: Element }) => {
    const left = event.currentTarget.getBoundingClientRect().left;
    return Math.min(total, Math.max(0, x.invert(event.clientX - left)));
  };
  const step = (by: 1 | -1) => {
    const at = cursor ?? 0;
    const posts = report.posts.map((p) => p.s_m);
    const next = by > 0 ? posts.find((s) => s > at + 0.01) : posts.findLast((s) => s < at - 0.01);
    look({ cursor: next ?? (by > 0 ? total : 0) });
  };
  const own = findings.filter((f) => f.place.line === line.id && f.place.from_m !== undefined);
  const ground = area<number>()
    .x((s) => x(s))
    .y0(GROUND_TOP + GROUND_HEIGHT + 4)
    .y1((s) => y(zAt(profile, s)));
  const gates = useSession((s) => s.plan.gates);
  const shown = cursor === null ? null : Math.min(cursor, total);
  return (
    <>
      <div className="flex items-baseline gap-4 px-3 pt-1">
        <span className="font-semibold">{line.name}</span>
        <Num
          value={report.ground_m}
          q="tape"
          from={{
            kind: 'measured',
            title: 'Length over ground',
            formula: 'sum of sqrt(ds² + dz²) along the ground',
            source: 'Ground sampled every metre along the drawn line',
          }}
        />
        <span className="label">
          {report.posts.length} posts, {line.strands.length} strands
        </span>
        <Reading s={shown} profile={profile} report={report} volts={volts} />
      </div>
      <svg
        width={width}
        height={184}
        role="slider"
        tabIndex={0}
        aria-label={`Cursor along ${line.name}; arrows go from post to post`}
        aria-valuemin={0}
        aria-valuemax={Math.round(total)}
        aria-valuenow={Math.round(shown ?? 0)}
        aria-valuetext={say(shown ?? 0, 'tape', units)}
        onPointerMove={(event) => look({ cursor: place(event) })}
        onPointerDown={(event) => look({ cursor: place(event) })}
        onKeyDown={(event) => {
          if (event.key === 'ArrowRight') step(1);
          else if (event.key === 'ArrowLeft') step(-1);
          else if (event.key === 'Home') look({ cursor: 0 });
          else if (event.key === 'End') look({ cursor: total });
          else return;
          event.preventDefault();
          event.stopPropagation();
        }}
      >
        <Axis x={x} />
        <text x={4} y={y(high) + 4} className="fill-soft text-[11px]">
          {say(high, 'length', units)}
        </text>
        <text x={4} y={GROUND_TOP + GROUND_HEIGHT} className="fill-soft text-[11px]">
          {say(low, 'length', units)}
        </text>
        <path
          d={ground([...profile.s]) ?? ''}
          fill="var(--chosen)"
          stroke="var(--ink)"
          strokeWidth={1.2}
        />
        {report.unknownGround.map(([a, b]) => (
          <line
            key={a}
            x1={x(a)}
            x2={x(b)}
            y1={GROUND_TOP + GROUND_HEIGHT}
            y2={GROUND_TOP + GROUND_HEIGHT}
            stroke="var(--warn)"
            strokeWidth={4}
            strokeDasharray="3 3"
          />
        ))}
        {report.stretches.map((st) => (
          <Strands
            key={st.from_m}
            line={line}
            report={report}
            from={st.from_m}
            to={st.to_m}
            x={x}
            y={y}
            lift={lift}
          />
        ))}
        {report.posts.map((p, i) => (
          <line
            key={i}
            x1={x(p.s_m)}
            x2={x(p.s_m)}
            y1={y(p.z_m) + (p.role === 'line' ? 2 : 6)}
            y2={y(p.z_m) - fence - (p.role === 'line' ? 1 : 4)}
            stroke="var(--ink)"
            strokeWidth={p.role === 'line' ? 1 : p.role === 'bend' ? 2 : 3}
          />
        ))}
        {Object.values(gates)
          .filter((g) => g.line === line.id)
          .map((g) => (
            <text
              key={g.id}
              x={x(g.at_m)}
              y={y(zAt(profile, g.at_m)) - fence - 7}
              textAnchor="middle"
              className="fill-ink text-[11px]"
            >
              {g.name}
            </text>
          ))}
        {own.map((f) => (
          <circle
            key={f.id}
            cx={x((f.place.from_m! + f.place.to_m!) / 2)}
            cy={GROUND_TOP + GROUND_HEIGHT + 9}
            r={3.5}
            fill={KIND_COLOURS[f.kind]}
          >
            <title>{f.title}</title>
          </circle>
        ))}
        <VoltsTrack volts={volts} aim={report.requirement?.aim_V ?? null} x={x} />
        {shown !== null && (
          <line
            x1={x(shown)}
            x2={x(shown)}
            y1={4}
            y2={180}
            stroke="var(--earth)"
            strokeWidth={1.5}
            data-cursor
          />
        )}
      </svg>
    </>
  );
}

type Scale = ReturnType<typeof scaleLinear<number, number>>;

/** Strands of one stretch: straight from post to post, style by duty. */
function Strands({
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

function Axis({ x }: { x: Scale }) {
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

function VoltsTrack({
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

/** What stands at the cursor. */
function Reading({
  s,
  profile,
  report,
  volts,
}: {
  s: number | null;
  profile: Profile;
  report: LineReport;
  volts: SeasonPower['lines'][string] | null;
}) {
  const units = useUnits();
  if (s === null) return <span className="label ml-auto">move over the section to read it</span>;
  const post = report.posts.reduce((a, b) => (Math.abs(b.s_m - s) < Math.abs(a.s_m - s) ? b : a));
  return (
    <span className="figure ml-auto text-[13px]" aria-live="off">
      at {say(s, 'tape', units)}, ground {say(zAt(profile, s), 'length', units)}
      {volts ? `, ${say(readAt(volts.s_m, volts.v_V, s), 'volt', units)}` : ''}, nearest post at{' '}
      {say(post.tape_m, 'tape', units)}
      {post.uplift_N > 1 ? `, lifted ${say(post.uplift_N, 'force', units)}` : ''}
    </span>
  );
}
