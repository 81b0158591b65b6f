import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { say } from '../../core/base/units.js';
import { recordOf } from '../../core/plan/catalogue.js';
import type { Line } from '../../core/plan/schema.js';
import type { RuleMark } from '../../core/report/schema.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { addAbove, remove, setDuty, setHeight, setMake, STEP, swap } from './moves.js';
import { StrandDrawing } from './StrandDrawing.js';

interface HandleProps {
  readonly line: Line;
  readonly i: number;
  readonly chosen: boolean;
  readonly y: (h: number) => number;
  readonly left: number;
  readonly right: number;
  readonly scale: number;
  /** Where the figure of its height stands. */
  readonly label: number;
  readonly marks: readonly RuleMark[];
  readonly onChoose: (i: number | null) => void;
  readonly onPointerDown: (event: PointerEvent) => void;
}

/** One strand as something to take hold of. */
export function Handle(p: HandleProps) {
  const { line, i } = p;
  const units = useUnits();
  const cat = useCatalogue();
  const own = useRef<SVGGElement>(null);
  const strand = line.strands[i]!;
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
      className="cursor-ns-resize touch-none"
      onKeyDown={key}
      onFocus={() => p.onChoose(i)}
      onPointerDown={p.onPointerDown}
    >
      {p.chosen && (
        <rect
          x={4}
          y={at - 11}
          width={p.right - 4 + 12}
          height={22}
          fill="var(--chosen)"
          opacity={0.75}
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
      <text
        x={p.left - 16}
        y={p.label + 5}
        textAnchor="end"
        className="figure fill-ink text-[1.036rem]"
      >
        {say(strand.height_m, 'height', units)}
      </text>
      <rect x={0} y={at - 11} width={p.right + 12} height={22} fill="transparent" />
    </g>
  );
}
