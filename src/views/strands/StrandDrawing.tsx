import { recordOf } from '../../core/plan/catalogue.js';
import type { Strand } from '../../core/plan/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { DUTY_LOOK } from './words.js';

interface DrawingProps {
  readonly strand: Strand;
  readonly at: number;
  readonly left: number;
  readonly right: number;
  readonly scale: number;
  readonly y: (h: number) => number;
}

/** A strand by what it is: duty by line style and colour, material by form, insulators at the posts. */
export function StrandDrawing({ strand, at, left, right, scale, y }: DrawingProps) {
  const cat = useCatalogue();
  const { form } = recordOf(cat.wires, strand.wire);
  const look = DUTY_LOOK[strand.duty];
  // An offset strand stands before the posts: its brackets show, and it begins beside them.
  const off = strand.offset_m ? Math.min(26, strand.offset_m * scale * 0.5) : 0;
  const [from, to] = [left + off, right - off];
  return (
    <g>
      {form === 'panel' ? (
        <Weave top={at} bottom={y(0.05)} left={left} right={right} />
      ) : (
        <Wire form={form} at={at} from={from} to={to} cold={strand.duty === 'cold'} look={look} />
      )}
      {form === 'barbed' && (
        <path
          d={Array.from(
            { length: Math.floor((to - from) / 24) },
            (_, k) => `M${from + 14 + k * 24} ${at}m-4 -4l8 8m0 -8l-8 8`,
          ).join('')}
          stroke="var(--ink)"
          strokeWidth={1}
        />
      )}
      {off > 0 && (
        <path
          d={`M${left} ${at + 7}L${from} ${at}M${right} ${at + 7}L${to} ${at}`}
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      )}
      {strand.insulated &&
        [from, to].map((x) => (
          <circle
            key={x}
            cx={x}
            cy={at}
            r={4}
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth={1.3}
          />
        ))}
      {strand.switched && (
        <g stroke="var(--live)" strokeWidth={2} fill="var(--sheet)">
          <path d={`M${from + 22} ${at}h26`} stroke="var(--sheet)" strokeWidth={5} />
          <path d={`M${from + 22} ${at}l22 -10`} />
          <circle cx={from + 22} cy={at} r={2.5} />
          <circle cx={from + 48} cy={at} r={2.5} />
        </g>
      )}
    </g>
  );
}

function Wire({
  form,
  at,
  from,
  to,
  cold,
  look,
}: {
  form: string;
  at: number;
  from: number;
  to: number;
  cold: boolean;
  look: { colour: string; dash: string | undefined };
}) {
  if (form === 'tape')
    return (
      <rect
        x={from}
        y={at - 4}
        width={to - from}
        height={8}
        fill={cold ? 'var(--panel)' : look.colour}
        fillOpacity={0.35}
        stroke={look.colour}
        strokeWidth={1.5}
        strokeDasharray={look.dash}
      />
    );
  if (cold && form !== 'rope')
    // Two thin lines: a cold strand is told by its form too.
    return (
      <path
        d={`M${from} ${at - 1.5}H${to}M${from} ${at + 1.5}H${to}`}
        stroke={look.colour}
        strokeWidth={0.9}
      />
    );
  return (
    <>
      <path
        d={`M${from} ${at}H${to}`}
        stroke={look.colour}
        strokeWidth={form === 'rope' ? 5 : 2.4}
        strokeDasharray={look.dash}
      />
      {form === 'rope' && (
        <path
          d={`M${from} ${at}H${to}`}
          stroke="var(--panel)"
          strokeWidth={2}
          strokeDasharray="3 6"
        />
      )}
    </>
  );
}

/** A woven panel from the ground to its top. */
function Weave({
  top,
  bottom,
  left,
  right,
}: {
  top: number;
  bottom: number;
  left: number;
  right: number;
}) {
  const columns = Array.from(
    { length: Math.floor((right - left) / 18) },
    (_, k) => left + 9 + k * 18,
  );
  const rows = Array.from({ length: 7 }, (_, k) => top + (bottom - top) * (k / 6) ** 0.75);
  return (
    <path
      d={
        columns.map((x) => `M${x} ${top}V${bottom}`).join('') +
        rows.map((v) => `M${left} ${v}H${right}`).join('')
      }
      stroke="var(--soft)"
      strokeWidth={0.9}
      fill="none"
    />
  );
}
