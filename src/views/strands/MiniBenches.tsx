/** Make-ups side by side as small drawings to one scale: looked at before they are read. */
import { say } from '../../core/base/units.js';
import { recordOf } from '../../core/plan/catalogue.js';
import type { Strand } from '../../core/plan/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useUnits } from '../../ui/parts/Num.js';
import { DUTY_LOOK } from './words.js';

export interface Mini {
  readonly id: string;
  readonly name: string;
  /** Null where none is proposed; `why` then says it. */
  readonly strands: readonly Strand[] | null;
  readonly why?: string | null;
  readonly best: boolean;
  readonly stands: boolean;
  /** A figure below it, such as its price. */
  readonly figure: string;
}

const WIDTH = 120;
const HEIGHT = 130;
const FOOT = 14;

export function MiniBenches({ list, onTake }: { list: readonly Mini[]; onTake(id: string): void }) {
  const units = useUnits();
  const cat = useCatalogue();
  const top = Math.max(1, ...list.flatMap((m) => (m.strands ?? []).map((s) => s.height_m)));
  const y = (h: number) => HEIGHT - FOOT - (h / (top + 0.12)) * (HEIGHT - FOOT - 4);
  return (
    <ul className="mb-3 flex flex-wrap gap-2" aria-label="Proposals, drawn to one scale">
      {list.map((m) => (
        <li
          key={m.id}
          className={`flex w-[9.6rem] flex-col border p-2 ${m.stands ? 'bg-chosen' : ''} ${m.best ? 'border-ink border-2' : 'border-rule'}`}
        >
          <span className="leading-tight font-semibold">{m.name}</span>
          <span className="text-good text-[0.857rem]">{m.best ? '★ recommended' : '\u00a0'}</span>
          {m.strands ? (
            <svg
              viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
              className="my-1 w-full"
              role="img"
              aria-label={`${m.name}: ${m.strands.map((s) => `${say(s.height_m, 'height', units)} ${s.duty}`).join(', ')}`}
            >
              <path
                d={`M0 ${HEIGHT - FOOT}H${WIDTH}`}
                stroke="var(--ink)"
                strokeWidth={1.2}
                fill="none"
              />
              {[14, WIDTH - 14].map((x) => (
                <path
                  key={x}
                  d={`M${x} ${HEIGHT - 3}V${y(m.strands!.at(-1)!.height_m) - 5}`}
                  stroke="var(--ink)"
                  strokeWidth={4}
                />
              ))}
              {m.strands.map((s, i) => (
                <line
                  key={i}
                  x1={14}
                  x2={WIDTH - 14}
                  y1={y(s.height_m)}
                  y2={y(s.height_m)}
                  stroke={DUTY_LOOK[s.duty].colour}
                  strokeDasharray={DUTY_LOOK[s.duty].dash}
                  strokeWidth={recordOf(cat.wires, s.wire).form === 'plain' ? 2 : 4}
                />
              ))}
            </svg>
          ) : (
            <p className="label my-1 flex-1">{m.why}</p>
          )}
          {m.strands && (
            <span className="label mt-auto">
              {m.strands.length} strands, {say(m.strands.at(-1)?.height_m ?? 0, 'height', units)}{' '}
              high
            </span>
          )}
          <span className="figure">{m.figure}</span>
          {m.strands && (
            <button
              type="button"
              className={`button mt-1 justify-center ${m.best && !m.stands ? 'button-strong' : ''}`}
              disabled={m.stands}
              aria-label={`Take ${m.name.toLowerCase()}`}
              onClick={() => onTake(m.id)}
            >
              {m.stands ? 'stands' : 'Take'}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
