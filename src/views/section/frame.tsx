/** The frame that all tracks of the section share: the distance axis and its scale. */
import { scaleLinear } from 'd3-scale';
import { say } from '../../core/base/units.js';
import { useUnits } from '../../ui/parts/Num.js';

export const LEFT = 52;
export const RIGHT = 14;
/** Height of the axis above the ground, px. */
export const AXIS = 16;

export type Scale = ReturnType<typeof scaleLinear<number, number>>;

/** Distance along the line, with a rule down through all tracks. */
export function Axis({ x, height }: { x: Scale; height: number }) {
  const units = useUnits();
  const metresPerUnit = units === 'metric' ? 1 : 0.3048;
  const ticks = scaleLinear(
    x.domain().map((d) => d / metresPerUnit),
    x.range(),
  ).ticks(8);
  return ticks.map((t) => (
    <g key={t} transform={`translate(${x(t * metresPerUnit)},0)`}>
      <line y1={AXIS - 4} y2={height} stroke="var(--rule)" />
      <text y={10} textAnchor="middle" className="fill-soft text-[11px]">
        {say(t * metresPerUnit, 'length', units)}
      </text>
    </g>
  ));
}

/** The name of a track and the figures at its edges, at the left. */
export function TrackName({ name, texts }: { name: string; texts: readonly [number, string][] }) {
  return (
    <>
      <title>{name}</title>
      {texts.map(([y, text]) => (
        <text key={`${y}${text}`} x={4} y={y} className="fill-soft text-[10.5px]">
          {text}
        </text>
      ))}
    </>
  );
}
