/** Names on the printed map make room for one another: moved a little, or left out. */

export interface Label {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  /** Height of the letters, mm. */
  readonly size: number;
  readonly middle?: boolean;
  readonly italic?: boolean;
  readonly soft?: boolean;
}

/** Mean width of a letter over its height, for a narrow text face. */
const LETTER = 0.52;

interface Box {
  readonly x0: number;
  readonly x1: number;
  readonly y0: number;
  readonly y1: number;
}

function boxOf(l: Label, dx: number, dy: number): Box {
  const width = l.text.length * l.size * LETTER;
  const x0 = l.x + dx - (l.middle ? width / 2 : 0);
  return { x0, x1: x0 + width, y0: l.y + dy - l.size * 0.8, y1: l.y + dy + l.size * 0.2 };
}

const meet = (a: Box, b: Box): boolean => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1;

/**
 * Places labels in the order given, each at the first of a few places round its own that is still free;
 * one that finds none is left out.
 */
export function spread(labels: readonly Label[]): Label[] {
  const taken: Box[] = [];
  const out: Label[] = [];
  for (const l of labels) {
    const wide = l.text.length * l.size * LETTER;
    const steps: [number, number][] = [
      [0, 0],
      [0, l.size * 1.2],
      [0, -l.size * 1.2],
      [wide * 0.6, 0],
      [-wide * 0.6, 0],
      [0, l.size * 2.4],
      [0, -l.size * 2.4],
    ];
    for (const [dx, dy] of steps) {
      const box = boxOf(l, dx, dy);
      if (taken.some((t) => meet(t, box))) continue;
      taken.push(box);
      out.push({ ...l, x: l.x + dx, y: l.y + dy });
      break;
    }
  }
  return out;
}
