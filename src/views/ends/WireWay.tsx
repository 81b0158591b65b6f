/** Which way the brace wire runs: the right diagonal, and beside it the wrong one, struck out. */
import type { EndReport } from '../../core/report/schema.js';

export function WireWay({
  end,
  small = false,
}: {
  end: Pick<EndReport, 'wire' | 'side'>;
  /** On a card: the two drawings alone. */
  small?: boolean;
}) {
  const size = small ? 84 : 180;
  return (
    <figure>
      <figcaption className={small ? 'font-semibold' : 'heading mb-1'}>
        Which way the brace wire runs
      </figcaption>
      <div className={`flex flex-wrap ${small ? 'gap-2' : 'gap-6'}`}>
        <Way size={size} right flip={end.side === 'before'} both={end.wire === 'both'} />
        <Way size={size} right={false} flip={end.side === 'before'} both={false} />
      </div>
      {!small && (
        <p className="label mt-1 max-w-[34rem]">
          From the foot of the <strong>end</strong> post to the top of the <strong>brace</strong>{' '}
          post: the fence pulls the end post over, and that diagonal is what grows longer. The other
          one goes slack.{' '}
          {end.wire === 'both' && 'Here both: the gate leans the other way than the fence pulls.'}
        </p>
      )}
    </figure>
  );
}

function Way({
  size,
  right,
  flip,
  both,
}: {
  size: number;
  right: boolean;
  flip: boolean;
  both: boolean;
}) {
  const X = (x: number) => (flip ? 180 - x : x);
  const line = (a: readonly [number, number], b: readonly [number, number]) => `M${X(a[0])} ${a[1]}L${X(b[0])} ${b[1]}`; // prettier-ignore
  const good = line([40, 92], [120, 40]);
  const bad = line([40, 40], [120, 92]);
  const mid = X(158);
  return (
    <svg
      viewBox="0 0 180 140"
      width={size}
      height={(size * 140) / 180}
      role="img"
      aria-label={right ? 'Right' : 'Wrong'}
    >
      <path d="M6 104H174" stroke="var(--ink)" strokeWidth={1.4} />
      {[36, 116].map((x) => (
        <rect
          key={x}
          x={flip ? 180 - x - 8 : x}
          y={20}
          width={8}
          height={100}
          fill="var(--panel)"
          stroke="var(--ink)"
          strokeWidth={1.4}
        />
      ))}
      <path d={line([44, 40], [116, 40])} stroke="var(--ink)" strokeWidth={6} />
      <path d={line([40, 30], [174, 30])} stroke="var(--soft)" />
      <path d={line([40, 52], [174, 52])} stroke="var(--soft)" />
      <path d={line([40, 74], [174, 74])} stroke="var(--soft)" />
      <path d={right ? good : bad} stroke="var(--ink)" strokeWidth={2.6} fill="none" />
      {both && (
        <path d={bad} stroke="var(--ink)" strokeWidth={2.6} strokeDasharray="6 4" fill="none" />
      )}
      <path
        d={`M${mid} 88h${flip ? -14 : 14}m${flip ? 5 : -5} -5l${flip ? -5 : 5} 5l${flip ? 5 : -5} 5`}
        stroke="var(--ink)"
        fill="none"
        strokeWidth={2}
      />
      {!right && <path d="M14 14L166 122M166 14L14 122" stroke="var(--stop)" strokeWidth={4} />}
      <text
        x={90}
        y={136}
        textAnchor="middle"
        fontSize={13}
        fontWeight={600}
        fill={right ? 'var(--ink)' : 'var(--stop)'}
      >
        {right ? (both ? 'right, both' : 'right') : 'wrong'}
      </text>
    </svg>
  );
}
