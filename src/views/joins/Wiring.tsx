/** The wiring of a place as it is built: strands to scale, jumpers, cables and earth leads. */
import { useMemo, type ReactNode } from 'react';
import { say, type Units } from '../../core/base/units.js';
import type { Plan } from '../../core/plan/schema.js';
import {
  drawingOf,
  SWITCH,
  type Box,
  type DrawnWire,
  type Label,
  type XY,
} from '../../core/wiring/drawing.js';
import type { Fed, Place } from '../../core/wiring/place.js';
import { endWords, FED, KINDS, LEADS, ofMany, SIDES } from './words.js';

interface WiringProps {
  readonly place: Place;
  readonly lines: Plan['lines'];
  readonly units: Units;
  readonly fed: ReadonlyMap<string, Fed> | null;
  /** The end that was pressed first. */
  readonly held?: number | null;
  readonly onEnd?: (end: number) => void;
}

/** Half the width of the little bridge where a wire passes over another. */
const HOP = 3.5;

export function Wiring({ place, lines, units, fed, held = null, onEnd }: WiringProps) {
  const d = useMemo(() => drawingOf(place), [place]);
  const many = ofMany(place);
  const inkOf = (end: number) => {
    const { duty, name } = place.arriving[end]!;
    if (duty === 'cold') return { stroke: 'var(--soft)', state: null };
    if (duty === 'earth') return { stroke: 'var(--earth)', state: null };
    const state = fed?.get(name) ?? null;
    return { stroke: state === 'dead' ? 'var(--soft)' : 'var(--live)', state };
  };
  return (
    <svg
      viewBox={`0 0 ${d.width} ${d.height}`}
      className="wiring h-auto w-full max-w-full"
      style={{ maxWidth: d.width * 1.2 }}
      role="group"
      aria-label={`Wiring, ${KINDS[place.kind]}`}
    >
      <line x1={0} x2={d.width} y1={d.ground_y} y2={d.ground_y} stroke="var(--ink)" />
      {Array.from({ length: Math.ceil(d.width / 14) }, (_, k) => (
        <path key={k} d={`M${14 * k + 8} ${d.ground_y}l-5 5`} stroke="var(--rule)" />
      ))}
      {d.posts.map((p, k) => (
        <g key={k}>
          <rect
            {...boxed(p)}
            fill="var(--panel)"
            stroke="var(--ink)"
            strokeDasharray={p.again ? '4 3' : undefined}
          />
          {p.again && <title>the same post, seen from another side</title>}
        </g>
      ))}
      {d.strands.map((s) => {
        const { stroke, state } = inkOf(s.end);
        const own = place.arriving[s.end]!;
        const dash = own.duty === 'earth' ? '9 4' : state === 'dead' ? '2 4' : undefined;
        return (
          <g key={s.end}>
            {s.tail && (
              <line
                {...ends(s.tail)}
                stroke="var(--soft)"
                strokeWidth={1.6}
                strokeDasharray="2 3"
              />
            )}
            <line
              {...ends([s.from, s.to])}
              stroke={stroke}
              strokeWidth={2.4}
              strokeDasharray={dash}
            />
            {state === 'dead' && <Hatch from={s.from} to={s.to} />}
            {s.insulator && (
              <rect {...boxed(s.insulator)} rx={3} fill="var(--sheet)" stroke="var(--ink)" />
            )}
            <Words at={s.label}>
              {say(own.height_m, 'height', units)} {own.duty}
              {state === 'dead' ? ', dead' : state === 'once' ? ', once' : ''}
            </Words>
          </g>
        );
      })}
      {d.wires.map((w) => {
        const end = w.is === 'tie' ? place.ties[w.of]!.a : place.leads[w.of]!.on;
        const { stroke } = inkOf(end);
        const kind = w.is === 'tie' ? place.ties[w.of]!.kind : 'clamp';
        return (
          <g key={`${w.is}${w.of}`}>
            <path
              d={pathOf(w)}
              fill="none"
              stroke={stroke}
              strokeWidth={w.is === 'lead' ? 2.2 : 1.6}
              strokeDasharray={
                w.is === 'lead' && place.leads[w.of]!.duty === 'earth' ? '6 3' : undefined
              }
            />
            {w.cut && <Switch at={w.cut.at} upright={w.cut.upright} stroke={stroke} />}
            {w.dots.map(([x, y], k) => (
              <Connector key={k} x={x} y={y} kind={kind} stroke={stroke} />
            ))}
          </g>
        );
      })}
      {d.heads.map((h, k) => (
        <Words key={k} at={h} strong>
          {many ? short(lines[h.line]?.name ?? h.line) : SIDES[h.side]}
        </Words>
      ))}
      {d.leads.map((at, k) => {
        const { to, duty } = place.leads[k]!;
        return (
          <Words key={k} at={at}>
            {LEADS[to]}
            {to === 'rod' ? '' : `, ${duty}`}
          </Words>
        );
      })}
      {onEnd &&
        d.strands.map((s) => {
          const own = place.arriving[s.end]!;
          if (own.duty === 'cold') return null;
          const state = inkOf(s.end).state;
          return (
            <g
              key={s.end}
              role="button"
              tabIndex={0}
              aria-pressed={held === s.end}
              aria-label={`${endWords(own, lines, units, many)}${state ? `, ${FED[state]}` : ''}`}
              className="wire-end cursor-pointer"
              onClick={() => onEnd(s.end)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' && event.key !== ' ') return;
                event.preventDefault();
                onEnd(s.end);
              }}
            >
              <rect
                x={s.grip[0] - 14}
                y={s.grip[1] - 8}
                width={28}
                height={16}
                fill="transparent"
              />
              <circle
                cx={s.grip[0]}
                cy={s.grip[1]}
                r={5}
                fill={held === s.end ? 'var(--pick)' : 'var(--sheet)'}
                stroke="var(--ink)"
                strokeWidth={held === s.end ? 2.5 : 1.3}
              />
            </g>
          );
        })}
    </svg>
  );
}

/** Words in the room that the drawing keeps for them. */
function Words({
  at,
  strong = false,
  children,
}: {
  at: Label;
  strong?: boolean;
  children: ReactNode;
}) {
  return (
    <text
      x={at.toRight ? at.x + at.w : at.x}
      y={at.y + (strong ? 10 : 9.5)}
      textAnchor={at.toRight ? 'end' : 'start'}
      className={`fill-ink text-[10px] ${strong ? 'font-semibold' : ''}`}
    >
      {children}
    </text>
  );
}

/** Strokes across a strand that is dead. */
function Hatch({ from, to }: { from: XY; to: XY }) {
  const [low, high] = [Math.min(from[0], to[0]), Math.max(from[0], to[0])];
  const n = Math.floor((high - low) / 7);
  const d = Array.from({ length: n }, (_, k) => `M${low + 7 * k + 2} ${from[1] + 4}l4 -8`).join('');
  return <path d={d} stroke="var(--soft)" strokeWidth={1} />;
}

/** A cut-out switch: a gap in the wire, with its blade lifted. */
function Switch({ at: [x, y], upright, stroke }: { at: XY; upright: boolean; stroke: string }) {
  return (
    <g transform={`translate(${x} ${y})${upright ? ' rotate(90)' : ''}`}>
      <title>cut-out switch</title>
      <rect x={-SWITCH.along} y={-1.5} width={2 * SWITCH.along} height={3} fill="var(--sheet)" />
      <path d={`M${-SWITCH.along} 0L${SWITCH.along - 1} -4`} stroke={stroke} strokeWidth={1.8} />
      {[-SWITCH.along, SWITCH.along].map((cx) => (
        <circle key={cx} cx={cx} r={1.8} fill={stroke} />
      ))}
    </g>
  );
}

/** Each kind of connector has its own shape. */
function Connector({ x, y, kind, stroke }: { x: number; y: number; kind: string; stroke: string }) {
  if (kind === 'hand')
    return <path d={`M${x - 3} ${y - 3}l6 6M${x + 3} ${y - 3}l-6 6`} stroke={stroke} strokeWidth={1.6} />; // prettier-ignore
  if (kind === 'tap')
    return <rect x={x - 3.2} y={y - 3.2} width={6.4} height={6.4} fill={stroke} />;
  return <circle cx={x} cy={y} r={3.2} fill="var(--sheet)" stroke={stroke} strokeWidth={1.8} />;
}

/** A wire with a little bridge wherever it passes over another. */
function pathOf({ points, hops }: DrawnWire): string {
  const out = [`M${points[0]![0]} ${points[0]![1]}`];
  points.slice(1).forEach((q, k) => {
    const p = points[k]!;
    if (p[0] === q[0]) {
      const way = Math.sign(q[1] - p[1]);
      const own = hops
        .filter(([x, y]) => x === p[0] && (y - p[1]) * way > 0 && (q[1] - y) * way > 0)
        .sort((a, b) => (a[1] - b[1]) * way);
      for (const [x, y] of own)
        out.push(`L${x} ${y - way * HOP}A${HOP} ${HOP} 0 0 ${way > 0 ? 1 : 0} ${x} ${y + way * HOP}`); // prettier-ignore
    }
    out.push(`L${q[0]} ${q[1]}`);
  });
  return out.join('');
}

const boxed = ({ x, y, w, h }: Box) => ({ x, y, width: w, height: h });
const ends = ([p, q]: readonly [XY, XY]) => ({ x1: p[0], y1: p[1], x2: q[0], y2: q[1] });

const short = (name: string): string => (name.length > 16 ? `${name.slice(0, 15)}…` : name);
