/** The chosen line from end to end on one distance axis: ground, posts, strands, volts. */
import { scaleLinear } from 'd3-scale';
import { area } from 'd3-shape';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { say } from '../../core/base/units.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport, SeasonPower } from '../../core/report/schema.js';
import { profileOf, readAt, zAt, type Profile } from '../../core/terrain/profile.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { KIND_COLOURS } from '../../ui/parts/FindingMark.js';
import { useSession } from '../../ui/session/session.js';
import { look, useView } from '../../ui/session/view.js';
import {
  Axis,
  GROUND_HEIGHT,
  GROUND_TOP,
  LEFT,
  Posts,
  RIGHT,
  Strands,
  VoltsTrack,
} from './tracks.js';

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
      <div className="flex items-baseline gap-4 overflow-hidden px-3 pt-1 whitespace-nowrap">
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
        {high - low > 0.5 && (
          <text x={4} y={GROUND_TOP + GROUND_HEIGHT} className="fill-soft text-[11px]">
            {say(low, 'length', units)}
          </text>
        )}
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
        <Posts posts={report.posts} x={x} y={y} height={fence} />
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
    <span className="figure ml-auto text-[12.5px]" aria-live="off">
      at {say(s, 'tape', units)}, ground {say(zAt(profile, s), 'length', units)}
      {volts ? `, ${say(readAt(volts.s_m, volts.v_V, s), 'volt', units)}` : ''}, post at{' '}
      {say(post.tape_m, 'tape', units)}
      {post.uplift_N > 1 ? `, lifted ${say(post.uplift_N, 'force', units)}` : ''}
    </span>
  );
}
