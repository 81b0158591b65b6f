import { say, type Units } from '../../core/base/units.js';
import type { Strand } from '../../core/plan/schema.js';
import type { RuleMark } from '../../core/report/schema.js';
import { panelAt } from '../../core/wire/bottom.js';
import { useCatalogue } from '../../session/catalogue.js';
import { spread } from './spread.js';
import { STATE } from './words.js';

/** The gaps between strands with what the rules say of them. */
export function GapMarks({
  strands,
  marks,
  x,
  y,
  units,
  short,
}: {
  strands: readonly Strand[];
  marks: readonly RuleMark[];
  x: number;
  y: (h: number) => number;
  units: Units;
  /** Marks alone, without their words. */
  short: boolean;
}) {
  const cat = useCatalogue();
  const floor = Math.max(0, panelAt(strands, cat));
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
  const places = spread(rows.map((r) => (y(r.low) + y(r.high)) / 2).reverse(), 14).reverse();
  return (
    <g aria-hidden="true">
      {rows.map(({ i, low, high, worst }, row) => {
        const tight = y(low) - y(high) < 13;
        return (
          <g key={i}>
            <path
              d={`M${x} ${y(high) + 1.5}h6M${x} ${y(low) - 1.5}h6M${x + 3} ${y(high) + 1.5}V${y(low) - 1.5}`}
              stroke={worst?.state === 'broken' ? 'var(--stop)' : 'var(--soft)'}
              strokeWidth={worst?.state === 'broken' ? 2 : 1}
            />
            <text
              x={x + 12}
              y={places[row]! + 4.5}
              className={`figure ${tight ? 'text-[0.821rem]' : 'text-[0.893rem]'} ${worst?.state === 'broken' ? 'fill-live font-semibold' : 'fill-soft'}`}
            >
              {say(high - low, 'height', units)}
              {worst && ` ${STATE[worst.state].glyph}${short ? '' : ` ${said(worst, units)}`}`}
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
