/** The tracks below the ground: each one figure along the line, with its limit where it has one. */
import { scaleLinear } from 'd3-scale';
import { area, line as path } from 'd3-shape';
import { lazy, memo, Suspense, type ComponentType } from 'react';
import { figure } from '../../core/plan/catalogue.js';
import { say } from '../../core/base/units.js';
import { gapsUnder } from '../../core/posts/forces.js';
import type { SeasonPower } from '../../core/report/schema.js';
import { mostUnder } from '../../core/strands/under.js';
import { zAt } from '../../core/terrain/profile.js';
import { bottomOf } from '../../core/wire/bottom.js';
import { hotPull } from '../../core/wire/strain.js';
import { wireOf } from '../../core/wire/wires.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useView, type Beside, type Track } from '../../session/view.js';
import { LEFT, TrackName, type Scale, type TrackProps } from './frame.js';

const within = (x: Scale) => {
  const [from, to] = x.domain() as [number, number];
  return (s: number) => s >= from - 1e-6 && s <= to + 1e-6;
};

function Limit({ x, y, label }: { x: Scale; y: number; label?: string }) {
  const right = x.range()[1]!;
  return (
    <>
      <line x1={LEFT} x2={right} y1={y} y2={y} stroke="var(--soft)" strokeDasharray="5 4" />
      {label && (
        <text
          x={right - 2}
          y={y < 14 ? y + 11 : y - 3}
          textAnchor="end"
          className="fill-soft text-[0.75rem]"
          stroke="var(--panel)"
          strokeWidth={3}
          paintOrder="stroke"
        >
          {label}
        </text>
      )}
    </>
  );
}

/** The gap under the lowest strand between its limits. */
function ClearanceTrack({ line, report, profile, x, height }: TrackProps) {
  const units = useUnits();
  const cat = useCatalogue();
  const lowest = bottomOf(line.strands, cat);
  if (!lowest) return <TrackName name="Gap under the lowest strand" texts={[[14, 'no strand']]} />;
  const hot = hotPull(report.strain, lowest.wire);
  const weight = wireOf(lowest.wire, cat).weight_N_per_m;
  const [from, to] = x.domain() as [number, number];
  // A stretch at a time, so that nothing is drawn across a gate.
  const paths = report.stretches
    .filter((st) => st.to_m > from && st.from_m < to)
    .map((st) => gapsUnder(lowest.height_m, profile, report.posts, [st], weight, hot));
  const gaps = paths.flat().filter((g) => within(x)(g.s_m));
  const most = mostUnder(lowest.height_m, report.requirement, cat) + (line.fill_m ?? 0);
  const least = figure(cat, 'posts.clearanceMin');
  const top = Math.max(most * 1.25, ...gaps.map((g) => g.gap_m));
  const y = scaleLinear([Math.min(0, ...gaps.map((g) => g.gap_m)), top], [height - 3, 4]);
  const draw = path<(typeof gaps)[number]>()
    .x((g) => x(g.s_m))
    .y((g) => y(g.gap_m));
  return (
    <>
      <TrackName
        name="Gap under the lowest strand"
        texts={[
          [12, 'gap'],
          [height - 4, `most ${say(Math.max(0, ...gaps.map((g) => g.gap_m)), 'height', units)}`],
        ]}
      />
      <Limit x={x} y={y(most)} label={`at most ${say(most, 'height', units)}`} />
      <Limit x={x} y={y(least)} />
      <g clipPath="url(#section-window)">
        {paths.map((gapsOf, i) => (
          <path key={i} d={draw(gapsOf) ?? ''} fill="none" stroke="var(--ink)" strokeWidth={1.3} />
        ))}
      </g>
    </>
  );
}

/** Uplift of each post against what it holds. */
function UpliftTrack({ report, x, height }: TrackProps) {
  const units = useUnits();
  const cat = useCatalogue();
  const safety = figure(cat, 'posts.upliftSafety');
  const posts = report.posts.filter((p) => within(x)(p.s_m));
  const most = Math.max(
    100,
    ...posts.map((p) => Math.max(p.uplift_N, 0)),
    ...posts.map((p) => (p.role === 'line' ? p.holds_N / safety : 0)),
  );
  const y = scaleLinear([0, most], [height - 4, 5]);
  return (
    <>
      <TrackName
        name="Uplift on the coldest night"
        texts={[
          [12, 'lift'],
          [height - 4, `most ${say(Math.max(0, ...posts.map((p) => p.uplift_N)), 'force', units)}`],
        ]}
      />
      {posts.map((p) => {
        const over = p.uplift_N * safety > p.holds_N;
        return (
          <g key={p.s_m}>
            {p.uplift_N > 0 && (
              <line
                x1={x(p.s_m)}
                x2={x(p.s_m)}
                y1={y(0)}
                y2={y(p.uplift_N)}
                stroke={over ? 'var(--stop)' : 'var(--ink)'}
                strokeWidth={over ? 4 : 2.5}
              />
            )}
            {p.role === 'line' && (
              <line
                x1={x(p.s_m) - 3}
                x2={x(p.s_m) + 3}
                y1={y(p.holds_N / safety)}
                y2={y(p.holds_N / safety)}
                stroke="var(--soft)"
              />
            )}
          </g>
        );
      })}
    </>
  );
}

/** Grade of the ground over a length of a few metres. */
function GradeTrack({ profile, x, height }: TrackProps) {
  const units = useUnits();
  const [from, to] = x.domain() as [number, number];
  const step = Math.max(2, (to - from) / 200);
  const rows = Array.from({ length: Math.floor((to - from) / step) }, (_, i) => {
    const s = from + (i + 0.5) * step;
    return { s, grade: (zAt(profile, s + step / 2) - zAt(profile, s - step / 2)) / step };
  });
  const most = Math.max(0.1, ...rows.map((r) => Math.abs(r.grade)));
  const y = scaleLinear([-most, most], [height - 3, 4]);
  const draw = path<(typeof rows)[number]>()
    .x((r) => x(r.s))
    .y((r) => y(r.grade));
  return (
    <>
      <TrackName
        name="Grade of the ground"
        texts={[
          [12, 'grade'],
          [height - 4, `± ${say(most, 'percent', units)}`],
        ]}
      />
      <Limit x={x} y={y(0)} />
      <path d={draw(rows) ?? ''} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
    </>
  );
}

/** Lowest live volts along the line against the aim. */
function VoltsTrack({ line, report, volts, x, height }: TrackProps) {
  const units = useUnits();
  const beside = useView((v) => v.beside);
  const aim = report.requirement?.aim_V ?? null;
  if (!volts) {
    return (
      <text x={LEFT} y={height / 2 + 4} className="fill-soft text-[0.786rem]">
        No volts: nothing feeds this line.
      </text>
    );
  }
  const other = beside?.lines[line.id];
  const most = Math.max(...volts.v_V, ...(other?.high_V ?? []), aim ?? 0, 1000) * 1.1;
  const y = scaleLinear([0, most], [height - 3, 3]);
  const draw = path<number>()
    .x((i) => x(volts.s_m[i]!))
    .y((i) => y(volts.v_V[i]!));
  return (
    <>
      <TrackName
        name="Lowest live volts"
        texts={[
          [12, 'volts'],
          [height - 4, `least ${say(Math.min(...volts.v_V), 'volt', units)}`],
        ]}
      />
      {aim !== null && <Limit x={x} y={y(aim)} label={`aim ${say(aim, 'volt', units)}`} />}
      <g clipPath="url(#section-window)">
        {other && <BesideVolts other={other} x={x} y={y} />}
        <path
          d={draw(volts.s_m.map((_, i) => i)) ?? ''}
          fill="none"
          stroke="var(--live)"
          strokeWidth={2}
        />
      </g>
      <LeastMark volts={volts} x={x} y={y} />
      {beside && other && (
        <text
          x={LEFT + 4}
          y={height - 6}
          className="fill-ink text-[0.75rem]"
          stroke="var(--panel)"
          strokeWidth={3}
          paintOrder="stroke"
        >
          {beside.words}
        </text>
      )}
    </>
  );
}

/** A ring at the least volts that are in view. */
function LeastMark({
  volts,
  x,
  y,
}: {
  volts: SeasonPower['lines'][string];
  x: Scale;
  y: (v: number) => number;
}) {
  const seen = volts.s_m.flatMap((s, i) => (within(x)(s) && volts.v_V[i]! > 0 ? [i] : []));
  const least = seen.reduce<number | null>(
    (a, i) => (a === null || volts.v_V[i]! < volts.v_V[a]! ? i : a),
    null,
  );
  if (least === null) return null;
  return (
    <circle
      cx={x(volts.s_m[least]!)}
      cy={y(volts.v_V[least]!)}
      r={4}
      fill="var(--panel)"
      stroke="var(--ink)"
      strokeWidth={2}
    />
  );
}

/** A second line, dashed, or a band between two. */
function BesideVolts({
  other,
  x,
  y,
}: {
  other: Beside['lines'][string];
  x: Scale;
  y: (v: number) => number;
}) {
  const of = (volts: readonly number[]) =>
    path<number>()
      .x((i) => x(other.s_m[i]!))
      .y((i) => y(volts[i]!))(other.s_m.map((_, i) => i)) ?? '';
  const band = area<number>()
    .x((i) => x(other.s_m[i]!))
    .y0((i) => y(other.low_V[i]!))
    .y1((i) => y(other.high_V[i]!));
  return (
    <>
      <path d={band(other.s_m.map((_, i) => i)) ?? ''} fill="var(--earth)" opacity={0.18} />
      {[other.low_V, other.high_V].map((volts, k) => (
        <path key={k} d={of(volts)} fill="none" stroke="var(--ink)" strokeDasharray="5 3" />
      ))}
    </>
  );
}

// Folded until somebody asks for it: what it works out with is fetched then.
const Pull = lazy(() => import('./PullTrack.js').then((m) => ({ default: m.PullTrack })));
const PullTrack = (props: TrackProps) => (
  <Suspense fallback={null}>
    <Pull {...props} />
  </Suspense>
);

/** How likely the fault lies where, for each metre; drawn while one is looked for. */
function ChanceTrack({ line, x, height }: TrackProps) {
  const chances = useView((v) => v.chances);
  const own = chances?.[line.id] ?? [];
  if (!chances) return <text x={LEFT} y={height / 2 + 4} className="fill-soft text-[0.786rem]">No fault is looked for.</text>;
  const perMetre = (c: { from_m: number; to_m: number; p: number }) => c.p / Math.max(1, c.to_m - c.from_m);
  const most = Math.max(1e-6, ...Object.values(chances).flat().map(perMetre));
  const total = own.reduce((sum, c) => sum + c.p, 0);
  return (
    <>
      <TrackName name="Chance of the fault" texts={[[12, 'fault'], [height - 4, `${Math.round(100 * total)} % on it`]]} />
      <g clipPath="url(#section-window)">
        {own.map((c) => {
          const tall = ((height - 6) * perMetre(c)) / most;
          return <rect key={c.from_m} x={x(c.from_m)} y={height - 3 - tall} width={Math.max(0.5, x(c.to_m) - x(c.from_m))} height={tall} fill="var(--live)" />;
        })}
      </g>
    </>
  );
} // prettier-ignore

export const TRACKS: readonly {
  readonly id: Track;
  readonly name: string;
  readonly height: number;
  readonly Draw: ComponentType<TrackProps>;
}[] = [
  { id: 'clearance', name: 'gap under the lowest strand', height: 44, Draw: memo(ClearanceTrack) },
  { id: 'uplift', name: 'uplift', height: 40, Draw: memo(UpliftTrack) },
  { id: 'grade', name: 'grade', height: 36, Draw: memo(GradeTrack) },
  { id: 'volts', name: 'volts', height: 46, Draw: memo(VoltsTrack) },
  { id: 'pull', name: 'pull', height: 40, Draw: memo(PullTrack) },
  { id: 'chance', name: 'chance of the fault', height: 44, Draw: memo(ChanceTrack) },
];
