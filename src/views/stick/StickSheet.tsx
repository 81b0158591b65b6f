import { onSheet, RULER_MM, SHEET, type StickPart } from '../../core/strands/stick.js';
import { say } from '../../core/base/units.js';

const DASH = { live: undefined, earth: '5 2', cold: '0.8 1.2' } as const;

/** One A4 sheet at true size; every length in the drawing is a millimetre. */
export function StickSheet({
  name,
  parts,
  first,
  all,
  mark,
  invented,
}: {
  name: string;
  parts: readonly StickPart[];
  first: number;
  all: number;
  /** Its place among the others. */
  mark: string;
  invented: boolean;
}) {
  return (
    <svg
      className="stick-sheet border-rule mx-auto my-4 block border bg-white"
      style={{ width: `${SHEET.width}mm`, height: `${SHEET.height}mm`, breakAfter: 'page' }}
      viewBox={`0 0 ${SHEET.width} ${SHEET.height}`}
      role="img"
      aria-label={`Sheet ${mark} of the marked stick, true size`}
      fontFamily="var(--font-sans)"
      fill="black"
    >
      <text x={SHEET.margin} y={SHEET.margin - 2} fontSize={4}>
        {name} · sheet {mark}
        {invented ? ' · invented' : ''}
      </text>
      {parts.map((part, k) => (
        <Part
          key={part.from_mm}
          part={part}
          x={SHEET.margin + k * SHEET.apart}
          number={first + k + 1}
          all={all}
        />
      ))}
      <Ruler />
      <Key />
    </svg>
  );
}

function Part({
  part,
  x,
  number,
  all,
}: {
  part: StickPart;
  x: number;
  number: number;
  all: number;
}) {
  const y = (mm: number) => onSheet(part, mm);
  const [bottom, top] = [y(part.from_mm), y(part.to_mm)];
  const centimetres = Array.from(
    { length: (part.to_mm - part.from_mm) / 10 + 1 },
    (_, k) => part.from_mm + 10 * k,
  );
  return (
    <g data-part={number}>
      <rect
        x={x}
        y={top}
        width={SHEET.strip}
        height={bottom - top}
        fill="none"
        stroke="black"
        strokeWidth={0.2}
      />
      {centimetres.map((mm) => (
        <path
          key={mm}
          d={`M${x} ${y(mm)}h${mm % 50 === 0 ? 6 : 3}`}
          stroke="black"
          strokeWidth={0.2}
        />
      ))}
      {part.marks.map(({ height_mm, strand, number: n }) => (
        <g key={n}>
          <path
            className="stick-mark"
            d={`M${x} ${y(height_mm)}h${SHEET.strip}`}
            stroke="black"
            strokeWidth={0.6}
            strokeDasharray={DASH[strand.duty]}
          />
          <text x={x + 8} y={y(height_mm) - 1.4} fontSize={4.4} fontWeight={650}>
            {n} · {say(strand.height_m, 'height', 'metric')} ·{' '}
            {say(strand.height_m, 'height', 'imperial')}
          </text>
          <text x={x + 8} y={y(height_mm) + 4} fontSize={3.2}>
            {strand.duty}
            {strand.switched ? ', cut-out' : ''}
            {strand.offset_m ? ', on bracket' : ''}
          </text>
        </g>
      ))}
      {part.from_mm === 0 ? (
        <g>
          <path d={`M${x - 3} ${bottom}h${SHEET.strip + 6}`} stroke="black" strokeWidth={0.9} />
          <text x={x} y={bottom + 5} fontSize={4} fontWeight={650}>
            ground
          </text>
        </g>
      ) : (
        <text x={x} y={bottom + 5} fontSize={3.2}>
          cut here; this edge on the top edge of part {number - 1}
        </text>
      )}
      <text x={x} y={top - 1.5} fontSize={3.2}>
        part {number} of {all}: {part.from_mm} to {part.to_mm} mm
      </text>
    </g>
  );
}

/** 100 mm, upright like the strip, since printers stretch one way more than the other. */
function Ruler() {
  const x = 140;
  const bottom = onSheet({ from_mm: 0, to_mm: 0, marks: [] }, 0);
  return (
    <g>
      <path
        className="stick-ruler"
        d={`M${x} ${bottom}v${-RULER_MM}`}
        stroke="black"
        strokeWidth={0.5}
      />
      {Array.from({ length: 11 }, (_, k) => (
        <path
          key={k}
          d={`M${x} ${bottom - 10 * k}h${k % 5 === 0 ? 7 : 4}`}
          stroke="black"
          strokeWidth={0.3}
        />
      ))}
      <text x={x + 9} y={bottom - RULER_MM + 1.5} fontSize={4}>
        check ruler
      </text>
      <text x={x + 9} y={bottom - RULER_MM + 6.5} fontSize={4} fontWeight={650}>
        {RULER_MM} mm
      </text>
      <text x={x + 9} y={bottom - RULER_MM + 11.5} fontSize={3.2}>
        measure it with a tape
      </text>
      <text x={x + 9} y={bottom - RULER_MM + 16} fontSize={3.2}>
        before you cut
      </text>
    </g>
  );
}

function Key() {
  const x = 140;
  return (
    <g fontSize={3.6}>
      {(['live', 'earth', 'cold'] as const).map((duty, k) => (
        <g key={duty}>
          <path
            d={`M${x} ${30 + 8 * k}h18`}
            stroke="black"
            strokeWidth={0.6}
            strokeDasharray={DASH[duty]}
          />
          <text x={x + 21} y={31 + 8 * k}>
            {duty}
          </text>
        </g>
      ))}
      <text x={x} y={58}>
        Heights over the ground, to the wire.
      </text>
      <text x={x} y={63}>
        Glue the parts edge to edge on a batten;
      </text>
      <text x={x} y={68}>
        its foot stands on the ground at the post.
      </text>
    </g>
  );
}
