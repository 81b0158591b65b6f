/** A gate from the side, to scale: its leaves, pins, gap, and what it does to the post that it hangs on. */
import { say, type Units } from '../../core/base/units.js';
import type { GateFigures } from '../../core/ends/gates.js';
import type { Gate } from '../../core/plan/schema.js';
import { ArrowHead, Dim, High, Written } from './Elevation.js';

interface Props {
  readonly gate: Gate;
  readonly of: GateFigures;
  /** Pull of a leaf on its top pin, N. */
  readonly pin_N: number | null;
  readonly units: Units;
}

/** Height of a leaf that nobody has measured, m. */
const TALL = 1.15;
const LEFT = 96;

export function GateDrawing({ gate, of, pin_N, units }: Props) {
  const k = Math.min(440 / of.opening_m, 120);
  const W = LEFT + of.opening_m * k + 90;
  const ground = (TALL + of.gap_m + 0.35) * k + 12;
  const Y = (h: number) => ground - h * k;
  const right = LEFT + of.opening_m * k;
  const both = gate.leaves === 2;
  const atEnd = gate.hinge === 'end';
  const leaf = of.leaf_m * k;
  const room = (of.opening_m * k - (both ? 2 : 1) * leaf) / (both ? 3 : 2);
  const low = of.gap_m + (TALL - of.hinges_m) / 2;
  const leaves = both
    ? [
        { x: LEFT + room, hinge: LEFT },
        { x: right - room - leaf, hinge: right },
      ]
    : [{ x: LEFT + room, hinge: atEnd ? right : LEFT }];
  const post = (x: number, side: 1 | -1) => (
    <rect
      x={side < 0 ? x - 16 : x}
      y={Y(TALL + of.gap_m + 0.2)}
      width={16}
      height={(TALL + of.gap_m + 0.2) * k + 20}
      fill="var(--panel)"
      stroke="var(--ink)"
      strokeWidth={1.8}
    />
  );
  return (
    <svg
      viewBox={`0 0 ${W.toFixed(0)} ${(ground + 56).toFixed(0)}`}
      className="my-2 h-auto w-full"
      style={{ maxWidth: W }}
      role="img"
      aria-label={`${gate.name} from the side, drawn to scale`}
    >
      <defs>
        <ArrowHead id="gate-arrow" />
      </defs>
      <path d={`M20 ${ground}H${W - 20}`} stroke="var(--ink)" strokeWidth={1.5} />
      {post(LEFT, -1)}
      {post(right, 1)}
      {leaves.map(({ x, hinge }, n) => (
        <g key={n} stroke="var(--ink)" fill="none">
          <rect x={x} y={Y(of.gap_m + TALL)} width={leaf} height={TALL * k} strokeWidth={2.4} />
          {[1, 2, 3, 4].map((r) => (
            <path key={r} d={`M${x} ${Y(of.gap_m + (TALL * r) / 5)}h${leaf}`} strokeWidth={1.2} />
          ))}
          <path
            d={
              hinge < x
                ? `M${x} ${Y(of.gap_m)}L${x + leaf} ${Y(of.gap_m + TALL)}`
                : `M${x + leaf} ${Y(of.gap_m)}L${x} ${Y(of.gap_m + TALL)}`
            }
            strokeWidth={1.2}
          />
          {/* The lower pin stands up, the top pin down. */}
          {[low, low + of.hinges_m].map((h, i) => (
            <path
              key={h}
              d={`M${hinge} ${Y(h)}H${hinge < x ? x : x + leaf}M${hinge < x ? x - room / 2 : x + leaf + room / 2} ${Y(h)}v${i === 0 ? -9 : 9}`}
              strokeWidth={3}
            />
          ))}
        </g>
      ))}
      {pin_N !== null &&
        [0, 1].map((i) => {
          const from = leaves[0]!.hinge;
          const way = from === LEFT ? 1 : -1;
          const y = Y(low + i * of.hinges_m) - 8;
          const [a, b] =
            i === 1 ? [from - way * 10, from + way * 34] : [from + way * 34, from - way * 10];
          return (
            <path
              key={i}
              d={`M${a} ${y}H${b}`}
              stroke="var(--ink)"
              strokeWidth={2.4}
              markerEnd="url(#gate-arrow)"
            />
          );
        })}
      {pin_N !== null && (
        <Written
          x={leaves[0]!.hinge === LEFT ? LEFT + 40 : right - 40}
          y={Y(low + of.hinges_m) - 12}
          anchor={leaves[0]!.hinge === LEFT ? 'start' : 'end'}
        >
          pin {say(pin_N, 'force', units)}
        </Written>
      )}
      <Dim from={LEFT} to={right} y={ground + 26} text={say(of.opening_m, 'tape', units)} />
      <Dim
        from={leaves[0]!.x}
        to={leaves[0]!.x + leaf}
        y={ground + 48}
        text={say(of.leaf_m, 'tape', units)}
      />
      <High
        x={LEFT - 38}
        from={Y(low + of.hinges_m)}
        to={Y(low)}
        text={say(of.hinges_m, 'tape', units)}
        left
      />
      <High
        x={right + 34}
        from={Y(of.gap_m)}
        to={ground}
        text={say(of.gap_m, 'height', units)}
        left={false}
      />
    </svg>
  );
}
