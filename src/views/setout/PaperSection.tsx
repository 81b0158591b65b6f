/** The section of a whole line as it is printed above the places of its posts. */
import { scaleLinear } from 'd3-scale';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport } from '../../core/report/schema.js';
import { useProfile } from '../../ui/parts/profile.js';
import { Axis, AXIS, LEFT, RIGHT, SectionWindow } from '../section/frame.js';
import { GroundTrack } from '../section/GroundTrack.js';

/** As wide as A4 upright is between its margins, px. */
const [WIDTH, HEIGHT] = [703, 190];

/** Stands on a loaded session: ground, gates and findings are taken from there. */
export function PaperSection({ line, report }: { line: Line; report: LineReport }) {
  const profile = useProfile(line);
  const x = scaleLinear([0, profile.s.at(-1) ?? 1], [LEFT, WIDTH - RIGHT]);
  return (
    <svg
      className="mt-3 block h-auto w-full"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`Section of ${line.name}`}
    >
      <SectionWindow width={WIDTH} height={HEIGHT} />
      <Axis x={x} height={HEIGHT} runs={report.runs} profile={profile} />
      <GroundTrack
        line={line}
        report={report}
        profile={profile}
        x={x}
        top={AXIS}
        height={HEIGHT - AXIS - 6}
        steeper={0}
      />
    </svg>
  );
}
