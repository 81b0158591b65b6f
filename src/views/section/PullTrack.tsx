/** Tension of every bay along the line, by the chosen temperature, against its limit. */
import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { say } from '../../core/base/units.js';
import { baysOf } from '../../core/posts/layout.js';
import { nearestLimit } from '../../core/wire/strain.js';
import { strungIn } from '../../core/wire/strung.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';
import { useUnits } from '../../ui/parts/Num.js';
import { bayTensions, TensionLines } from '../strain/TensionLines.js';
import { TrackName, type TrackProps } from './frame.js';

/** Of each run the wire that comes nearest to its limit. */
export function PullTrack({ line, report, x, height }: TrackProps) {
  const units = useUnits();
  const cat = useCatalogue();
  const climate = useSession((s) => s.plan.climate);
  const warmth = useView((v) => v.warmth);
  const [from, to] = x.domain() as [number, number];
  const rows = useMemo(() => {
    const bays = baysOf(report);
    return report.runs.flatMap((run, k) => {
      const row = nearestLimit(report.strain.filter((s) => s.run === k));
      if (!row) return [];
      const strung = strungIn(line, bays[k]!, row.wire, cat);
      return [{ run, row, bays: bayTensions(bays[k]!, strung, climate, warmth) }];
    });
  }, [line, report, climate, warmth, cat]);
  const seen = rows.filter(({ run }) => run.to_m >= from && run.from_m <= to);
  const pull = (r: (typeof rows)[number]['row']) => (warmth === 'cold' ? r.cold_N : warmth === 'hot' ? Math.max(r.hot_N, r.at15_N) : Math.max(r.today_N, r.at15_N)); // prettier-ignore
  const most = Math.max(100, ...seen.flatMap(({ row }) => [pull(row), row.limit_N])) * 1.1;
  const y = scaleLinear([0, most], [height - 3, 4]);
  const said = warmth === 'cold' ? Math.max(0, ...seen.map(({ row }) => row.cold_N)) : warmth === 'hot' ? Math.min(...seen.map(({ row }) => row.hot_N)) : Math.max(0, ...seen.map(({ row }) => row.today_N)); // prettier-ignore
  return (
    <>
      <TrackName
        name="Pull in each bay"
        texts={[
          [12, 'pull'],
          [height - 4, seen.length ? `${warmth === 'hot' ? 'least' : 'most'} ${say(said, 'force', units)}` : ''], // prettier-ignore
        ]}
      />
      <g clipPath="url(#section-window)">
        {seen.map(({ run, row, bays }) => (
          <g key={run.from_m}>
            <line
              x1={x(run.from_m)}
              x2={x(run.to_m)}
              y1={y(row.limit_N)}
              y2={y(row.limit_N)}
              stroke="var(--soft)"
              strokeDasharray="5 4"
            />
            <TensionLines bays={bays} x={x} y={y} limit_N={row.limit_N} strong />
            <circle
              cx={x(row.at_m)}
              cy={height - 3}
              r={3}
              fill="var(--panel)"
              stroke="var(--ink)"
            />
          </g>
        ))}
      </g>
    </>
  );
}
