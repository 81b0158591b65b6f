/** The three kinds of finding by word, shape and colour: once, for lists, section, map and paper. */
import type { Finding } from '../../core/report/schema.js';
import type { Drawn } from '../drawn.js';

export type Kind = Finding['kind'];

export const KIND_NAMES: Record<Kind, string> = { stop: 'Stop', mend: 'Mend', confirm: 'Confirm' };

/** Names of the colours of the page that are theirs alone. */
export const KIND_COLOURS: Record<Kind, string> = {
  stop: 'var(--stop)',
  mend: 'var(--mend)',
  confirm: 'var(--confirm)',
};

const square = { w: 16, h: 16 };

/** A plate of eight corners with a stroke and a dot, a wedge with a stroke, a ring with three dots. */
export const KIND_SHAPES: Record<Kind, Drawn> = {
  stop: {
    ...square,
    strokes: [
      { d: 'M5 .8h6l4.2 4.2v6L11 15.2H5L.8 11V5z', fill: 'own' },
      { d: 'M8 4v4.6M8 11.4v.9', width: 2, ink: 'paper' },
    ],
  },
  mend: {
    ...square,
    strokes: [
      { d: 'M8 1.9 14.8 14H1.2z', width: 1.9, fill: 'paper', ink: 'own' },
      { d: 'M8 9.6v1.6', width: 2, ink: 'own' },
    ],
  },
  confirm: {
    ...square,
    strokes: [
      {
        d: 'M8 1.6a6.4 6.4 0 1 1 0 12.8a6.4 6.4 0 1 1 0-12.8z',
        width: 1.7,
        fill: 'paper',
        ink: 'own',
      },
      { d: 'M4.8 8h.1M8 8h.1M11.2 8h.1', width: 1.9, ink: 'own' },
    ],
  },
};
