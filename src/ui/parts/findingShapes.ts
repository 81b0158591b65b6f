/** The three kinds of finding by word, shape and colour: once, for lists, section, map and paper. */
import type { Finding } from '../../core/report/schema.js';

export type Kind = Finding['kind'];

export const KIND_NAMES: Record<Kind, string> = { stop: 'Stop', mend: 'Mend', confirm: 'Confirm' };

/** Names of the colours of the page that are theirs alone. */
export const KIND_COLOURS: Record<Kind, string> = {
  stop: 'var(--stop)',
  mend: 'var(--mend)',
  confirm: 'var(--confirm)',
};

interface Stroke {
  readonly d: string;
  readonly width?: number;
  readonly fill?: 'own' | 'paper';
  readonly ink?: 'own' | 'paper';
}

/**
 * Drawn in a square of 16: an eight-cornered plate with a stroke and a dot, a wedge with a dot, a ring with
 * three dots. Each part filled or stroked in the kind's own colour or that of the paper.
 */
export const KIND_SHAPES: Record<Kind, readonly Stroke[]> = {
  stop: [
    { d: 'M5 .8h6l4.2 4.2v6L11 15.2H5L.8 11V5z', fill: 'own' },
    { d: 'M8 4v4.6', width: 2, ink: 'paper' },
    { d: 'M8 11.4v.9', width: 2, ink: 'paper' },
  ],
  mend: [
    { d: 'M8 1.9 14.8 14H1.2z', width: 1.9, fill: 'paper', ink: 'own' },
    { d: 'M8 9.6v1.6', width: 2, ink: 'own' },
  ],
  confirm: [
    { d: 'M8 1.6a6.4 6.4 0 1 1 0 12.8a6.4 6.4 0 1 1 0-12.8z', width: 1.7, fill: 'paper', ink: 'own' }, // prettier-ignore
    { d: 'M4.8 8h.1M8 8h.1M11.2 8h.1', width: 1.9, ink: 'own' },
  ],
};

/** The same as a text of SVG, for a canvas. @param colours of the scheme, not names of them */
export function shapeSvg(kind: Kind, own: string, paper: string, size: number): string {
  const of = (which: 'own' | 'paper' | undefined) =>
    which === undefined ? 'none' : which === 'own' ? own : paper;
  const parts = KIND_SHAPES[kind].map(
    (p) =>
      `<path d="${p.d}" fill="${of(p.fill)}" stroke="${of(p.ink)}" stroke-width="${p.width ?? 0}" stroke-linecap="round" stroke-linejoin="round"/>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}" viewBox="0 0 16 16">${parts.join('')}</svg>`;
}
