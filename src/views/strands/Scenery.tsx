import { curveCatmullRomClosed, line as pathOf } from 'd3-shape';
import { recordOf, type Catalogue } from '../../core/plan/catalogue.js';
import { silhouetteOf, type Silhouette } from './outlines.js';

/** An animal of a kind, grown and young. */
export function beastsOf(animal: string, cat: Catalogue): Silhouette[] {
  const a = recordOf(cat.animals, animal);
  return [silhouetteOf(animal, a.shoulder_m), silhouetteOf(animal, a.young_m)];
}

const smooth = pathOf<readonly [number, number]>().curve(curveCatmullRomClosed.alpha(0.5));
const sharp = pathOf<readonly [number, number]>();

/** Behind the fence, for size: the grown one at the left, the young one before it at the right. */
export function Animals({
  beasts,
  left,
  right,
  y,
  scale,
}: {
  beasts: readonly Silhouette[];
  left: number;
  right: number;
  y: (h: number) => number;
  scale: number;
}) {
  return (
    <g aria-hidden="true">
      {beasts.map((b, k) => {
        const from = k === 0 ? left - b.from_m * scale : right - b.to_m * scale;
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

export function Ground({ from, to, y }: { from: number; to: number; y: number }) {
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
export function Grass({
  from,
  to,
  y,
  height,
}: {
  from: number;
  to: number;
  y: number;
  height: number;
}) {
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
