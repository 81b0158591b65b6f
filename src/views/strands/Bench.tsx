import { curveCatmullRomClosed, line as pathOf } from 'd3-shape';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { figure, recordOf, type Catalogue } from '../../core/plan/catalogue.js';
import { say, type Units } from '../../core/base/units.js';
import type { Line, Strand } from '../../core/plan/schema.js';
import type { RuleMark } from '../../core/report/schema.js';
import { isPanel } from '../../core/wire/bottom.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../ui/session/catalogue.js';
import { preview } from '../../ui/session/session.js';
import { useView } from '../../ui/session/view.js';
import { addAbove, hold, moved, remove, setDuty, setHeight, setMake, STEP, swap } from './moves.js';
import { silhouetteOf, type Silhouette } from './outlines.js';
import { StrandDrawing } from './StrandDrawing.js';
import { STATE } from './words.js';

const LEFT = 84;
const RIGHT = 190;
const DRAWN = 456;

/** Height of the grass that the season stands for, m. */
export const grassOf = (season: string, cat: Catalogue): number =>
  figure(cat, `strands.grass${season === 'dry' ? 'Dry' : season === 'wet' ? 'Wet' : 'Today'}`);

interface BenchProps {
  readonly line: Line;
  readonly marks: readonly RuleMark[];
  /** Kind of animal that stands behind the fence for size; null: none. */
  readonly animal: string | null;
  readonly chosen: number | null;
  readonly onChoose: (i: number | null) => void;
}

/** Two posts, ground, grass and strands at one scale both ways; strands move by mouse and by key. */
export function Bench({ line, marks, animal, chosen, onChoose }: BenchProps) {
  const units = useUnits();
  const cat = useCatalogue();
  const season = useView((v) => v.season);
  const svg = useRef<SVGSVGElement>(null);
  const strands = line.strands;
  const top = strands.at(-1)?.height_m ?? 0.9;
  const beasts = animal ? beastsOf(animal, cat) : [];
  const wide = Math.max(
    1.9,
    beasts.reduce((w, b) => w + b.to_m - b.from_m + 0.15, 0.35),
  );
  const tall = Math.max(top + 0.18, ...beasts.map((b) => b.tall_m + 0.1), 1);
  const scale = Math.min(DRAWN / wide, 430 / tall);
  const ground = tall * scale + 8;
  const left = LEFT;
  const right = LEFT + DRAWN;
  const y = (h: number) => ground - h * scale;
  const grass = grassOf(season, cat);
  const drag = useDrag(
    line,
    (clientY) => {
      const box = svg.current!.getBoundingClientRect();
      const at = ((clientY - box.top) / box.height) * (ground + 34);
      return (ground - at) / scale;
    },
    onChoose,
  );

  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${right + RIGHT} ${ground + 34}`}
      className="w-full max-w-[860px] touch-pan-y select-none"
      role="group"
      aria-label={`${line.name}, ${strands.length} strands, drawn to scale`}
    >
      <Animals beasts={beasts} x={left + 14} y={y} scale={scale} />
      <Ground from={12} to={right + 30} y={ground} />
      <Grass from={left + 8} to={right - 8} y={ground} height={grass * scale} />
      {[left, right].map((x) => (
        <rect
          key={x}
          x={x - 5}
          y={y(Math.max(top + 0.08, 0.5))}
          width={10}
          height={Math.max(top + 0.08, 0.5) * scale + 12}
          fill="var(--panel)"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      ))}
      <GapMarks strands={strands} marks={marks} x={right + 14} y={y} units={units} />
      {strands.map((_, i) => (
        <Handle
          key={i}
          line={line}
          i={i}
          chosen={i === chosen}
          y={y}
          left={left}
          right={right}
          scale={scale}
          marks={marks}
          onChoose={onChoose}
          onPointerDown={drag(i)}
        />
      ))}
      <text x={left - 18} y={ground + 22} textAnchor="end" className="fill-soft text-[13px]">
        ground
      </text>
      <g transform={`translate(${left}, ${ground + 22})`} className="text-soft">
        <path d={`M0 -5v5h${scale * 0.5}v-5`} fill="none" stroke="var(--soft)" />
        <text x={scale * 0.5 + 6} y={1} className="fill-soft text-[13px]">
          {say(0.5, 'height', units)}, the same both ways
        </text>
      </g>
    </svg>
  );
}

/** Follows a held strand; the change is made when it is let go. */
function useDrag(line: Line, heightAt: (clientY: number) => number, onChoose: (i: number) => void) {
  const frame = useRef(0);
  return (i: number) => (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.preventDefault();
    (event.currentTarget as SVGElement).focus();
    onChoose(i);
    const from = line.strands;
    const away = from[i]!.height_m - heightAt(event.clientY);
    let wanted = from[i]!.height_m;
    const move = (e: globalThis.PointerEvent) => {
      wanted = Math.round((heightAt(e.clientY) + away) / STEP) * STEP;
      cancelAnimationFrame(frame.current);
      frame.current = requestAnimationFrame(() => {
        const next = moved(from, i, wanted);
        hold(line, next.strands);
        onChoose(next.at);
      });
    };
    const stop = (e: globalThis.PointerEvent) => {
      removeEventListener('pointermove', move);
      removeEventListener('pointerup', stop);
      removeEventListener('pointercancel', stop);
      cancelAnimationFrame(frame.current);
      if (e.type === 'pointercancel' || Math.abs(wanted - from[i]!.height_m) < 1e-6) {
        preview(null);
        onChoose(i);
      } else onChoose(setHeight({ ...line, strands: from }, i, wanted));
    };
    addEventListener('pointermove', move);
    addEventListener('pointerup', stop);
    addEventListener('pointercancel', stop);
  };
}

interface HandleProps {
  readonly line: Line;
  readonly i: number;
  readonly chosen: boolean;
  readonly y: (h: number) => number;
  readonly left: number;
  readonly right: number;
  readonly scale: number;
  readonly marks: readonly RuleMark[];
  readonly onChoose: (i: number | null) => void;
  readonly onPointerDown: (event: PointerEvent) => void;
}

/** One strand as something to take hold of. */
function Handle(p: HandleProps) {
  const { line, i } = p;
  const units = useUnits();
  const cat = useCatalogue();
  const own = useRef<SVGGElement>(null);
  const strand = line.strands[i]!;
  const [focused, setFocused] = useState(false);
  // A strand that passes another keeps the focus that it had.
  useEffect(() => {
    if (p.chosen && document.activeElement?.closest('[data-strand]')) own.current?.focus();
  }, [p.chosen]);
  const go = (height: number) => p.onChoose(setHeight(line, i, height));
  const key = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey) return;
    const by = event.shiftKey ? 0.05 : STEP;
    const act: Record<string, () => void> = {
      ArrowUp: () => (event.altKey ? p.onChoose(swap(line, i, true)) : go(strand.height_m + by)),
      ArrowDown: () => (event.altKey ? p.onChoose(swap(line, i, false)) : go(strand.height_m - by)),
      PageUp: () => go(strand.height_m + 0.1),
      PageDown: () => go(strand.height_m - 0.1),
      l: () => setDuty(line, i, 'live', cat),
      e: () => setDuty(line, i, 'earth', cat),
      c: () => setDuty(line, i, 'cold', cat),
      i: () => setMake(line, i, { insulated: !strand.insulated }, cat, 'insulators'),
      Insert: () => p.onChoose(addAbove(line, i)),
      '+': () => p.onChoose(addAbove(line, i)),
      Delete: () => {
        remove(line, i);
        p.onChoose(Math.max(0, i - 1));
      },
    };
    const run = act[event.key] ?? act[event.key.toLowerCase()];
    if (!run) return;
    event.preventDefault();
    event.stopPropagation();
    run();
  };
  const wrong = p.marks.filter((m) => m.strands.includes(i) && m.state === 'broken').length > 0;
  const at = p.y(strand.height_m);
  const name = recordOf(cat.wires, strand.wire).name;
  return (
    <g
      ref={own}
      data-strand={i}
      tabIndex={0}
      role="slider"
      aria-orientation="vertical"
      aria-label={`Strand ${i + 1} from the ground: ${strand.duty}, ${name}${wrong ? ', breaks a rule' : ''}`}
      aria-valuemin={20}
      aria-valuemax={3400}
      aria-valuenow={Math.round(strand.height_m * 1000)}
      aria-valuetext={say(strand.height_m, 'height', units)}
      className="cursor-ns-resize touch-none outline-none"
      onKeyDown={key}
      onFocus={() => {
        setFocused(true);
        p.onChoose(i);
      }}
      onBlur={() => setFocused(false)}
      onPointerDown={p.onPointerDown}
    >
      {(p.chosen || focused) && (
        <rect
          x={4}
          y={at - 11}
          width={p.right - 4 + 12}
          height={22}
          fill="var(--chosen)"
          opacity={0.75}
          stroke={focused ? 'var(--earth)' : 'none'}
          strokeWidth={2}
        />
      )}
      <StrandDrawing
        strand={strand}
        at={at}
        left={p.left}
        right={p.right}
        scale={p.scale}
        y={p.y}
      />
      <text x={p.left - 16} y={at + 5} textAnchor="end" className="figure fill-ink text-[14.5px]">
        {say(strand.height_m, 'height', units)}
      </text>
      <rect x={0} y={at - 11} width={p.right + 12} height={22} fill="transparent" />
    </g>
  );
}

/** The gaps between strands with what the rules say of them. */
function GapMarks({
  strands,
  marks,
  x,
  y,
  units,
}: {
  strands: readonly Strand[];
  marks: readonly RuleMark[];
  x: number;
  y: (h: number) => number;
  units: Units;
}) {
  const cat = useCatalogue();
  const floor = Math.max(
    0,
    strands.findLastIndex((s) => isPanel(s, cat)),
  );
  const rows = strands.flatMap((s, i) => {
    if (i < floor) return [];
    const low = i === 0 ? 0 : strands[i - 1]!.height_m;
    if (i === floor && floor > 0) return [];
    const between = marks.filter((m) =>
      i === 0
        ? ['lowest', 'clear'].includes(m.about)
        : ['gap', 'opening', 'offBarbed'].includes(m.about) &&
          m.strands.includes(i) &&
          m.strands.includes(i - 1),
    );
    const worst =
      between.find((m) => m.state === 'broken') ?? between.find((m) => m.state === 'limit') ?? null;
    return [{ i, low, high: s.height_m, worst }];
  });
  return (
    <g aria-hidden="true">
      {rows.map(({ i, low, high, worst }) => {
        const mid = (y(low) + y(high)) / 2;
        const tight = y(low) - y(high) < 13;
        return (
          <g key={i}>
            <path
              d={`M${x} ${y(high) + 1.5}h6M${x} ${y(low) - 1.5}h6M${x + 3} ${y(high) + 1.5}V${y(low) - 1.5}`}
              stroke={worst?.state === 'broken' ? 'var(--live)' : 'var(--soft)'}
              strokeWidth={worst?.state === 'broken' ? 2 : 1}
            />
            <text
              x={x + 12}
              y={mid + (tight ? 4 : 4.5)}
              className={`figure ${tight ? 'text-[11px]' : 'text-[13.5px]'} ${worst?.state === 'broken' ? 'fill-live font-semibold' : 'fill-soft'}`}
            >
              {say(high - low, 'height', units)}
              {worst && ` ${STATE[worst.state].glyph} ${said(worst, units)}`}
            </text>
          </g>
        );
      })}
    </g>
  );
}

const said = (m: RuleMark, units: Units): string =>
  m.state === 'limit'
    ? 'limit'
    : m.about === 'opening'
      ? 'opens too far'
      : `${m.value > m.limit ? 'over' : 'under'} ${say(m.limit, 'height', units)}`;

function beastsOf(animal: string, cat: Catalogue): Silhouette[] {
  const a = recordOf(cat.animals, animal);
  return [silhouetteOf(animal, a.shoulder_m), silhouetteOf(animal, a.young_m)];
}

const smooth = pathOf<readonly [number, number]>().curve(curveCatmullRomClosed.alpha(0.5));
const sharp = pathOf<readonly [number, number]>();

function Animals({
  beasts,
  x,
  y,
  scale,
}: {
  beasts: readonly Silhouette[];
  x: number;
  y: (h: number) => number;
  scale: number;
}) {
  let at = x;
  return (
    <g aria-hidden="true">
      {beasts.map((b, k) => {
        const from = at - b.from_m * scale;
        at += (b.to_m - b.from_m + 0.15) * scale;
        const put = (dots: readonly (readonly [number, number])[]) =>
          dots.map(([u, v]): [number, number] => [from + u * scale, y(v)]);
        return (
          <g key={k} opacity={0.32} fill="var(--soft)" stroke="var(--soft)" strokeLinecap="round">
            {b.shapes.map((s, j) => (
              <path key={j} d={smooth(put(s))!} stroke="none" />
            ))}
            {b.legs.map((s, j) => (
              <path
                key={j}
                d={sharp(put(s))!}
                fill="none"
                strokeWidth={b.leg_m * scale}
                strokeLinecap="butt"
              />
            ))}
            {b.strokes.map((s, j) => (
              <path
                key={j}
                d={sharp(put(s))!}
                fill="none"
                strokeWidth={Math.max(2, b.leg_m * scale * 0.4)}
              />
            ))}
          </g>
        );
      })}
    </g>
  );
}

function Ground({ from, to, y }: { from: number; to: number; y: number }) {
  const hatches = Array.from({ length: Math.floor((to - from) / 22) }, (_, i) => from + 8 + i * 22);
  return (
    <g aria-hidden="true">
      <path d={`M${from} ${y}H${to}`} stroke="var(--ink)" strokeWidth={1.5} />
      <path
        d={hatches.map((x) => `M${x} ${y}l-7 9`).join('')}
        stroke="var(--soft)"
        strokeWidth={0.8}
      />
    </g>
  );
}

/** Blades of the season's grass: what stands in it leaks. */
function Grass({ from, to, y, height }: { from: number; to: number; y: number; height: number }) {
  const blades = Array.from({ length: Math.floor((to - from) / 9) }, (_, i) => {
    // An even scatter of heights without a clock or a dice: a drawing stays as it was.
    const share = 0.6 + 0.4 * Math.abs(Math.sin(i * 2.7));
    const x = from + i * 9;
    return `M${x} ${y}q${i % 2 ? 2 : -2} ${-height * share * 0.6} ${i % 2 ? 5 : -4} ${-height * share}`;
  });
  return (
    <path
      d={blades.join('')}
      fill="none"
      stroke="var(--good)"
      strokeWidth={1}
      opacity={0.6}
      aria-hidden="true"
    />
  );
}
