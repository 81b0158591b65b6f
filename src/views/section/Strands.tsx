/** The strands of the section: straight from post to post, each in the manner of its duty and of how it is fed. */
import type { SVGProps } from 'react';
import type { Line, Strand } from '../../core/plan/schema.js';
import type { Post, Report } from '../../core/report/schema.js';
import type { Scale } from './frame.js';

/** How a live strand is fed at a place of its line; what is dead or hangs on one end is drawn so. */
export function fedOn(
  fed: Report['fed'],
  line: Line,
  strand: Strand,
  at_m: number,
): 'dead' | 'once' | null {
  const k = line.strands.indexOf(strand);
  const here = (list: readonly { line: string; from_m: number; to_m: number; strands: readonly number[] }[]) => list.some((d) => d.line === line.id && d.from_m <= at_m && at_m <= d.to_m && d.strands.includes(k)); // prettier-ignore
  const all = Object.values(fed);
  return all.some((f) => here(f.dead)) ? 'dead' : all.some((f) => here(f.single)) ? 'once' : null;
}

export function styleOf({ duty }: Strand, fed: 'dead' | 'once' | null) {
  if (duty === 'earth') return { stroke: 'var(--earth)', strokeDasharray: '9 3' };
  if (duty === 'cold') return { stroke: 'var(--soft)', strokeDasharray: '2 2' };
  if (fed === 'dead') return { stroke: 'var(--soft)', strokeDasharray: '1 5', 'data-fed': fed };
  if (fed === 'once')
    return { stroke: 'var(--live)', strokeDasharray: '14 3 2 3', 'data-fed': fed };
  return { stroke: 'var(--live)' };
}

/** Strands of one stretch: straight from post to post, style by duty. */
export function Strands({
  strands,
  styles,
  posts,
  x,
  y,
  lift,
}: {
  strands: readonly Strand[];
  styles: readonly Pick<SVGProps<SVGPolylineElement>, 'stroke' | 'strokeDasharray'>[];
  posts: readonly Post[];
  x: Scale;
  y: Scale;
  lift: (h: number) => number;
}) {
  // Tenths of a pixel: long numbers cost more than the drawing.
  const tenth = (px: number) => Math.round(px * 10) / 10;
  const across = posts.map((p) => tenth(x(p.s_m)));
  const feet = posts.map((p) => y(p.z_m));
  return strands.map((s, i) => (
    <polyline
      key={i}
      fill="none"
      strokeWidth={1}
      {...styles[i]}
      points={across.map((px, k) => `${px},${tenth(feet[k]! - lift(s.height_m))}`).join(' ')}
    />
  ));
}
