type Spot = readonly [e: number, n: number];

/** A small map: lines as ink, gates as gaps with posts. Says nothing by itself; words stand beside it. */
export function Sketch({
  lines,
  gates = [],
  className = 'h-20 w-full',
}: {
  lines: readonly (readonly Spot[])[];
  gates?: readonly Spot[];
  className?: string;
}) {
  const all = lines.flat();
  if (all.length === 0)
    return <svg aria-hidden viewBox="0 0 100 60" className={`bg-sheet ${className}`} />;
  const e = all.map((p) => p[0]);
  const n = all.map((p) => p[1]);
  const [west, south] = [Math.min(...e), Math.min(...n)];
  const [width, height] = [Math.max(...e) - west || 1, Math.max(...n) - south || 1];
  const room = Math.max(width, height) * 0.08;
  const path = (line: readonly Spot[]) =>
    `M${line.map(([x, y]) => `${(x - west).toFixed(1)},${(height - (y - south)).toFixed(1)}`).join('L')}`;
  return (
    <svg
      aria-hidden
      className={`bg-sheet ${className}`}
      viewBox={`${-room} ${-room} ${width + 2 * room} ${height + 2 * room}`}
    >
      {lines.map((line, i) => (
        <path
          key={i}
          d={path(line)}
          fill="none"
          stroke="var(--live)"
          strokeWidth={1.6}
          vectorEffect="non-scaling-stroke"
          strokeLinejoin="round"
        />
      ))}
      {gates.map(([x, y], i) => (
        <circle
          key={i}
          cx={x - west}
          cy={height - (y - south)}
          r={Math.max(width, height) * 0.018}
          fill="var(--panel)"
          stroke="var(--ink)"
          strokeWidth={1.4}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}
