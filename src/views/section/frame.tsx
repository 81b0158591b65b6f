/** The frame that all tracks of the section share: the distance axis and its scale. */
import { scaleLinear } from 'd3-scale';
import { say } from '../../core/base/units.js';
import { placeAtTape } from '../../core/posts/whereabouts.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport, Run, SeasonPower } from '../../core/report/schema.js';
import type { Profile } from '../../core/terrain/profile.js';
import { useUnits } from '../../ui/parts/Num.js';

export const LEFT = 70;
export const RIGHT = 14;
/** Height of the axis above the ground, px. */
export const AXIS = 16;

export type Scale = ReturnType<typeof scaleLinear<number, number>>;

/** Labels stand no closer than this, px. */
const ROOM = 44;

/** What tracks are cut off at; all sections of a page are of one size, so they may share its name. */
export const SectionWindow = ({ width, height }: { width: number; height: number }) => (
  <clipPath id="section-window">
    <rect x={LEFT - 4} y={0} width={Math.max(0, width - LEFT - RIGHT + 8)} height={height} />
  </clipPath>
);

/** The tape over the ground, from zero at the start of each run, with a rule down through all tracks. */
export function Axis({
  x,
  height,
  runs,
  profile,
}: {
  x: Scale;
  height: number;
  runs: readonly Run[];
  profile: Profile;
}) {
  const units = useUnits();
  const metresPerUnit = units === 'metric' ? 1 : 0.3048;
  const [from, to] = x.domain() as [number, number];
  const [first = 0, second = 1] = scaleLinear(
    [from / metresPerUnit, to / metresPerUnit],
    [0, 1],
  ).ticks(8);
  const step = (second - first) * metresPerUnit;
  let last = -Infinity;
  const ticks = runs.flatMap((run) => {
    const marks = [];
    for (let k = 0; k * step < run.ground_m; k++) {
      const s = placeAtTape(profile, run.from_m, k * step);
      if (s >= from && s <= to) marks.push({ s, tape: k * step });
    }
    return marks;
  });
  return ticks.map(({ s, tape }) => {
    // The zero of a run is told before what stands close to it.
    const told = x(s) - last >= ROOM;
    if (told) last = x(s);
    return (
      <g key={s} transform={`translate(${x(s)},0)`}>
        <line
          y1={AXIS - 4}
          y2={height}
          stroke={tape === 0 ? 'var(--soft)' : 'var(--rule)'}
          strokeDasharray={tape === 0 ? '1 2' : undefined}
        />
        {told && (
          <text y={10} textAnchor="middle" className="fill-soft text-[0.786rem]">
            {say(tape, 'length', units)}
          </text>
        )}
      </g>
    );
  });
}

/** The name of a track and the figures at its edges, at the left. */
export function TrackName({ name, texts }: { name: string; texts: readonly [number, string][] }) {
  return (
    <>
      <title>{name}</title>
      {texts.map(([y, text]) => (
        <text key={`${y}${text}`} x={4} y={y} className="fill-soft text-[0.75rem]">
          {text}
        </text>
      ))}
    </>
  );
}

/** What a track below the ground is given. */
export interface TrackProps {
  line: Line;
  report: LineReport;
  profile: Profile;
  volts: SeasonPower['lines'][string] | null;
  x: Scale;
  height: number;
}
