/** Where a day's work is: all lines thin, the stretches of the day strong and numbered by the order of the work. */
import type { DayTask } from '../../core/build/loadout.js';
import { pointAt } from '../../core/plan/geometry.js';
import type { Plan } from '../../core/plan/schema.js';

interface DayMapProps {
  readonly plan: Plan;
  readonly tasks: readonly DayTask[];
}

const SIZE = 320;

export function DayMap({ plan, tasks }: DayMapProps) {
  const lines = Object.values(plan.lines);
  const points = lines.flatMap((l) => l.vertices);
  if (points.length === 0) return null;
  const [west, east] = [Math.min(...points.map((p) => p.e)), Math.max(...points.map((p) => p.e))];
  const [south, north] = [Math.min(...points.map((p) => p.n)), Math.max(...points.map((p) => p.n))];
  const scale = (SIZE - 36) / Math.max(east - west, north - south, 1);
  const height = Math.max(60, (north - south) * scale + 36);
  const at = (p: { e: number; n: number }): [number, number] => [18 + (p.e - west) * scale, height - 18 - (p.n - south) * scale]; // prettier-ignore
  const path = (ps: readonly { e: number; n: number }[]) => ps.map((p, k) => `${k ? 'L' : 'M'}${at(p).map((x) => x.toFixed(1)).join(' ')}`).join(''); // prettier-ignore
  // One number for each line: its tasks of the day stand together in the list.
  const seen = [...new Set(tasks.flatMap((t) => t.task.line ?? []))];
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${height.toFixed(0)}`}
      role="img"
      aria-label={`Where the work of the day is: ${seen.map((id) => plan.lines[id]?.name).join(', ')}`}
      className="w-full max-w-[24rem] print:max-w-[82mm]"
    >
      {lines.map((l) => (
        <path key={l.id} d={path(l.vertices)} fill="none" stroke="currentColor" strokeWidth={0.7} opacity={0.6} /> // prettier-ignore
      ))}
      {seen.map((id, k) => {
        const line = plan.lines[id]!;
        const own = tasks.filter((t) => t.task.line === id);
        const middle = at(pointAt(line.vertices, middleOf(own)));
        return (
          <g key={id}>
            <path d={path(line.vertices)} fill="none" stroke="currentColor" strokeWidth={2.6} />
            {own
              .filter(({ task }) => task.to_m - task.from_m < 12)
              .map(({ task }) => {
                const [x, y] = at(pointAt(line.vertices, (task.from_m + task.to_m) / 2));
                return <rect key={task.id} x={x - 3} y={y - 3} width={6} height={6} fill="var(--live)" stroke="var(--sheet)" strokeWidth={0.6} />; // prettier-ignore
              })}
            <circle cx={middle[0]} cy={middle[1]} r={8} fill="var(--sheet)" stroke="currentColor" />
            <text x={middle[0]} y={middle[1] + 3.6} textAnchor="middle" fontSize={10.5} fontWeight={650} fill="currentColor">
              {k + 1}
            </text>
          </g>
        );
      })}
    </svg>
  );
} // prettier-ignore

/** Where along its line the work of a day has its middle. */
function middleOf(own: readonly DayTask[]): number {
  const from = Math.min(...own.map((t) => t.task.from_m + (t.task.to_m - t.task.from_m) * t.part[0])); // prettier-ignore
  const to = Math.max(...own.map((t) => t.task.from_m + (t.task.to_m - t.task.from_m) * t.part[1]));
  return (from + to) / 2;
}
