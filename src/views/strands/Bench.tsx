import { useRef } from 'react';
import { say } from '../../core/base/units.js';
import { figure, type Catalogue, type SeasonId } from '../../core/plan/catalogue.js';
import type { Line } from '../../core/plan/schema.js';
import type { RuleMark } from '../../core/report/schema.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useView } from '../../session/view.js';
import { GapMarks } from './GapMarks.js';
import { Handle } from './Handle.js';
import { useDrag, useWidth } from './holding.js';
import { Animals, beastsOf, Grass, Ground } from './Scenery.js';
import { spread } from './spread.js';

const LEFT = 84;
const NARROW = 560;

/** The default that says how high the grass of a season stands. */
export const grassKey = (season: SeasonId): string =>
  `strands.grass${season[0]!.toUpperCase()}${season.slice(1)}`;

/** Height of the grass that the season stands for, m. */
export const grassOf = (season: SeasonId, cat: Catalogue): number => figure(cat, grassKey(season));

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
  const [grown] = beasts;
  const wide = Math.max(2, grown ? grown.to_m - grown.from_m + 0.25 : 0);
  const tall = Math.max(top + 0.18, ...beasts.map((b) => b.tall_m + 0.1), 1);
  const [room, width] = useWidth();
  const narrow = width < NARROW;
  const drawn = width - LEFT - (narrow ? 96 : 190);
  // On a phone the fence is as tall as a finger needs it, and an animal may reach out of the bay.
  const scale = narrow ? 300 / tall : Math.min(drawn / wide, 430 / tall);
  const ground = tall * scale + 8;
  const left = LEFT;
  const right = LEFT + drawn;
  const y = (h: number) => ground - h * scale;
  const grass = grassOf(season, cat);
  // From the top down, as the screen counts.
  const labels = spread(strands.map((s) => y(s.height_m)).reverse(), 16).reverse();
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
    <div ref={room} className="max-w-[860px]">
      <svg
        ref={svg}
        viewBox={`0 0 ${width} ${ground + 34}`}
        className="block w-full touch-pan-y select-none"
        role="group"
        aria-label={`${line.name}, ${strands.length} strands, drawn to scale`}
      >
        <clipPath id="bay">
          <rect x={left} y={0} width={drawn} height={ground + 34} />
        </clipPath>
        <g clipPath="url(#bay)">
          <Animals
            beasts={narrow ? beasts.slice(0, 1) : beasts}
            left={left + 12}
            right={right - 12}
            y={y}
            scale={scale}
          />
        </g>
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
        <GapMarks
          strands={strands}
          marks={marks}
          x={right + 12}
          y={y}
          units={units}
          short={narrow}
        />
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
            label={labels[i]!}
            marks={marks}
            onChoose={onChoose}
            onPointerDown={drag(i)}
          />
        ))}
        <text x={left - 18} y={ground + 22} textAnchor="end" className="fill-soft text-[0.929rem]">
          ground
        </text>
        <g transform={`translate(${left}, ${ground + 22})`} className="text-soft">
          <path d={`M0 -5v5h${scale * 0.5}v-5`} fill="none" stroke="var(--soft)" />
          <text x={scale * 0.5 + 6} y={1} className="fill-soft text-[0.929rem]">
            {say(0.5, 'height', units)}
            {narrow ? '' : ', the same both ways'}
          </text>
        </g>
      </svg>
    </div>
  );
}
