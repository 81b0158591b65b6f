/** An end as it is built, seen from the side, drawn from the figures that are computed for it. */
import type { ReactNode } from 'react';
import { say, type Units } from '../../core/base/units.js';
import { figure, type Catalogue } from '../../core/plan/catalogue.js';
import type { Both, Built } from '../../core/ends/assembly.js';
import { endDrawing, type DrawnForce, type DrawnPost, type XY } from '../../core/ends/drawing.js';
import type { EndReport } from '../../core/report/schema.js';

interface Props {
  readonly end: Built & Pick<EndReport, 'strands' | 'side' | 'setting' | 'hinged'>;
  readonly forces: Both;
  readonly units: Units;
  readonly cat: Catalogue;
  /** Room that it is drawn for, px. */
  readonly width?: number;
}

const NAMES: Readonly<Record<DrawnForce['of'], string>> = {
  pull: 'pull of the strands',
  rail: 'rail',
  strut: 'strut',
  wire: 'brace wire',
  guy: 'guy',
  lift: 'lifts',
  down: 'presses',
};

export function Elevation({ end, forces, units, cat, width = 640 }: Props) {
  const d = endDrawing(end, forces, cat);
  // The run that ends here comes from the left: drawn as one sees it along the line.
  const flip = end.side === 'before';
  const wide = d.right_m - d.left_m;
  // Room for the figures beside the end post, and beyond the fence.
  const [beside, beyond] = [64, 14];
  const k = Math.min((width - beside - beyond) / wide, 190);
  const tall = (d.top_m - d.bottom_m) * k + 30;
  const X = (x: number) => (flip ? beyond : beside) + (flip ? d.right_m - x : x - d.left_m) * k;
  const Y = (y: number) => 6 + (d.top_m - y) * k;
  const P = ([x, y]: XY) => `${X(x).toFixed(1)} ${Y(y).toFixed(1)}`;
  const W = beside + beyond + wide * k;
  const seconds = d.posts.slice(1);
  const length = (m: number) => say(m, 'tape', units);
  const low = Y(d.bottom_m) + 8;
  return (
    <svg
      viewBox={`0 0 ${W.toFixed(0)} ${tall.toFixed(0)}`}
      className="h-auto w-full max-w-full"
      style={{ maxWidth: W * 1.1 }}
      role="img"
      aria-label={`${cat.ends[end.kind]!.name} from the side, ${length(end.rail_m)} long, drawn to scale`}
    >
      <defs>
        <ArrowHead id="end-arrow" />
        <pattern id="end-fill" width="6" height="6" patternUnits="userSpaceOnUse">
          <circle cx="1.5" cy="1.5" r="1" fill="var(--soft)" />
          <circle cx="4.5" cy="4.2" r="1.2" fill="var(--soft)" />
        </pattern>
      </defs>
      {d.posts.map((p, i) => p.fill && <Fill key={i} p={p} X={X} Y={Y} k={k} />)}
      <path d={`M${d.ground.map(P).join('L')}`} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
      <Hatch ground={d.ground} X={X} Y={Y} />
      {d.strands.map((s) => (
        <path
          key={s.y_m}
          d={`M${P([s.from_m, s.y_m])}L${P([s.to_m, s.y_m + (d.ground.at(-1)![1] / d.ground.at(-1)![0]) * s.to_m])}`}
          stroke="var(--soft)"
          strokeWidth={1.3}
        />
      ))}
      {d.bars.map((b, i) => (
        <g key={i}>
          <path
            d={`M${P(b.from)}L${P(b.to)}`}
            stroke="var(--ink)"
            strokeWidth={Math.max(5, 0.11 * k)}
          />
          <path
            d={`M${P(b.from)}L${P(b.to)}`}
            stroke="var(--panel)"
            strokeWidth={Math.max(3, 0.11 * k - 3)}
          />
        </g>
      ))}
      {d.posts.map((p, i) => (
        <Post key={i} p={p} X={X} Y={Y} k={k} />
      ))}
      {d.block && (
        <rect
          x={X(d.block[0]) - 0.12 * k}
          y={Y(d.block[1])}
          width={0.24 * k}
          height={figure(cat, 'ends.blockDepth') * k}
          fill="var(--panel)"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      )}
      {d.log && (
        <circle
          cx={X(d.log.at[0])}
          cy={Y(d.log.at[1])}
          r={(d.log.side_m / 2) * k}
          fill="var(--panel)"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      )}
      {d.pins.map((p, i) => (
        <path key={i} d={`M${P(p.from)}L${P(p.to)}`} stroke="var(--ink)" strokeWidth={2.2} />
      ))}
      {d.wires.map((w, i) => (
        <g
          key={i}
          stroke="var(--ink)"
          strokeWidth={1.3}
          strokeDasharray={w.idle ? '7 4' : undefined}
        >
          {[-1.6, 1.6].map((o) => (
            <path key={o} d={`M${P(w.from)}L${P(w.to)}`} transform={`translate(0 ${o})`} />
          ))}
        </g>
      ))}
      {d.forces.map((f, i) => (
        <Arrow
          key={i}
          f={f}
          edge={flip ? 6 : W - 6}
          X={X}
          Y={Y}
          units={units}
          flip={flip}
          name={f.of === 'wire' && end.kind === 'n' ? 'tie wire' : NAMES[f.of]}
        />
      ))}
      {seconds.length > 0 || d.block ? (
        <Dim from={X(0)} to={X(end.rail_m)} y={low} text={length(end.rail_m)} />
      ) : null}
      {d.log && <Dim from={X(-end.rail_m)} to={X(0)} y={low} text={length(end.rail_m)} />}
      <Deep p={d.posts[0]!} X={X} Y={Y} text={length(end.depth_m)} side={flip ? 1 : -1} k={k} />
      {end.kind !== 'post' && (
        <High
          x={X(0) + (flip ? 1 : -1) * (34 + (d.posts[0]!.width_m * k) / 2)}
          from={Y(0)}
          to={Y(end.railHeight_m)}
          text={length(end.railHeight_m)}
          left={!flip}
        />
      )}
    </svg>
  );
}

type Scale = (m: number) => number;

function Fill({ p, X, Y, k }: { p: DrawnPost; X: Scale; Y: Scale; k: number }) {
  const { width_m, from_m, to_m } = p.fill!;
  return (
    <rect
      x={X(p.x_m) - (width_m * k) / 2}
      y={Y(from_m)}
      width={width_m * k}
      height={(from_m - to_m) * k}
      fill="url(#end-fill)"
      stroke="var(--soft)"
      strokeDasharray="3 3"
    />
  );
}

function Post({ p, X, Y, k }: { p: DrawnPost; X: Scale; Y: Scale; k: number }) {
  const w = Math.max(6, p.width_m * k);
  const x = X(p.x_m) - w / 2;
  return (
    <>
      <rect
        x={x}
        y={Y(p.ground_m)}
        width={w}
        height={Y(p.foot_m) - Y(p.ground_m)}
        fill="var(--panel)"
        stroke="var(--ink)"
        strokeWidth={1.3}
        strokeDasharray="5 3"
      />
      <rect
        x={x}
        y={Y(p.top_m)}
        width={w}
        height={Y(p.ground_m) - Y(p.top_m)}
        fill="var(--panel)"
        stroke="var(--ink)"
        strokeWidth={1.8}
      />
    </>
  );
}

function Hatch({ ground, X, Y }: { ground: readonly XY[]; X: Scale; Y: Scale }) {
  const [a, b, c] = [ground[0]!, ground[1]!, ground[2]!];
  const at = (t: number): XY => {
    const x = a[0] + (c[0] - a[0]) * t;
    return [x, x <= b[0] ? 0 : (c[1] / c[0]) * x];
  };
  return (
    <path
      d={Array.from({ length: 40 }, (_, i) => at((i + 0.5) / 40))
        .map(([x, y]) => `M${X(x).toFixed(1)} ${Y(y).toFixed(1)}l-5 6`)
        .join('')}
      stroke="var(--rule)"
    />
  );
}

function Arrow({
  f,
  edge,
  X,
  Y,
  units,
  flip,
  name,
}: {
  f: DrawnForce;
  /** Where the pull's words end: the rim of the drawing. */
  edge: number;
  X: Scale;
  Y: Scale;
  units: Units;
  flip: boolean;
  name: string;
}) {
  const [x1, y1, x2, y2] = [X(f.at[0]), Y(f.at[1]), X(f.to[0]), Y(f.to[1])];
  const level = Math.abs(y2 - y1) < 4;
  const upright = Math.abs(x2 - x1) < 4;
  // Beside an upright arrow, over a level one, below a slanting one, clear of what it lies on.
  const right = x2 >= x1;
  // A strut's words stand above it, where it leaves room; a wire's below.
  const strut = f.of === 'strut';
  const tx = upright
    ? x1 + (flip ? -8 : 8)
    : level
      ? (x1 + x2) / 2
      : (x1 + x2) / 2 + (right !== strut ? 10 : -10);
  const ty = upright
    ? (y1 + y2) / 2 + (f.of === 'lift' ? 18 : 10)
    : level
      ? y1 - 7
      : (y1 + y2) / 2 + (strut ? -8 : 16);
  const slanted = right !== strut ? 'start' : 'end';
  const anchor =
    f.of === 'pull'
      ? flip
        ? 'start'
        : 'end'
      : upright
        ? flip
          ? 'end'
          : 'start'
        : level
          ? 'middle'
          : slanted; // prettier-ignore
  return (
    <g>
      <path
        d={`M${x1.toFixed(1)} ${y1.toFixed(1)}L${x2.toFixed(1)} ${y2.toFixed(1)}`}
        stroke="var(--ink)"
        strokeWidth={2.4}
        markerEnd="url(#end-arrow)"
        fill="none"
      />
      <Written x={f.of === 'pull' ? edge : tx} y={ty} anchor={anchor}>
        {name} {say(f.N, 'force', units)}
      </Written>
    </g>
  );
}

/** A length under a drawing. */
export function Dim({ from, to, y, text }: { from: number; to: number; y: number; text: string }) {
  return (
    <g stroke="var(--soft)">
      <path d={`M${from} ${y}H${to}M${from} ${y - 5}v10M${to} ${y - 5}v10`} fill="none" />
      <Written x={(from + to) / 2} y={y - 4} anchor="middle">
        {text}
      </Written>
    </g>
  );
}

function Deep({
  p,
  X,
  Y,
  text,
  side,
  k,
}: {
  p: DrawnPost;
  X: Scale;
  Y: Scale;
  text: string;
  side: 1 | -1;
  k: number;
}) {
  const x = X(p.x_m) + side * ((p.width_m * k) / 2 + 22);
  return <High x={x} from={Y(p.ground_m)} to={Y(p.foot_m)} text={text} left={side < 0} />;
}

/** A height beside a drawing. */
export function High({
  x,
  from,
  to,
  text,
  left,
}: {
  x: number;
  from: number;
  to: number;
  text: string;
  left: boolean;
}) {
  return (
    <g stroke="var(--soft)">
      <path d={`M${x} ${from}V${to}M${x - 5} ${from}h10M${x - 5} ${to}h10`} fill="none" />
      <Written x={x + (left ? -6 : 6)} y={(from + to) / 2 + 4} anchor={left ? 'end' : 'start'}>
        {text}
      </Written>
    </g>
  );
}

/** A figure on a drawing, clear of what lies under it. */
export function Written({
  x,
  y,
  anchor,
  children,
}: {
  x: number;
  y: number;
  anchor: 'start' | 'middle' | 'end';
  children: ReactNode;
}) {
  return (
    <text
      x={x}
      y={y}
      textAnchor={anchor}
      fontSize={12}
      className="figure"
      fill="var(--ink)"
      stroke="var(--sheet)"
      strokeWidth={3}
      paintOrder="stroke"
    >
      {children}
    </text>
  );
}

/** The head of an arrow, by the id under which a line takes it. */
export const ArrowHead = ({ id }: { id: string }) => (
  <marker
    id={id}
    viewBox="0 0 8 8"
    refX="7"
    refY="4"
    markerWidth="7"
    markerHeight="7"
    orient="auto"
  >
    <path d="M0 0.5 8 4 0 7.5z" fill="var(--ink)" />
  </marker>
);
